/**
 * Inside volume of a meter by its class, with the pipework that belongs to it: filled into the form, to be checked against the
 * badge. Only classes with a figure from a source are here; of another the volume is asked.
 * Source: service practice for small domestic meters (house figure)
 */
const BY_CLASS: Readonly<Record<string, string>> = { 'diaphragm-U6-G4': '8 l' };
/** @returns the volume as text with its unit, nothing where no meter is known; empty where it must be asked */
export const meterVolume = (kind: string): string =>
  BY_CLASS[kind] ?? (['none', 'unknown'].includes(kind) ? '0 l' : '');
