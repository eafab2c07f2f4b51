/** Pairing a gauge that sends what it shows by itself. */
export interface PairingCode {
  /** As it is shown and read out: two groups of four. */ readonly code: string;
  readonly expires: string;
}
export interface PairedGauge {
  readonly id: string;
  readonly gauge: string;
  /** What the device says of itself. */ readonly device: string;
  readonly paired: string;
}
/** What is put into the picture that a device reads instead of typing: where to, and by which code. */
export const pairingText = (office: string, code: string): string =>
  `${office}/api/gauge/pair#${code.replace('-', '')}`;
