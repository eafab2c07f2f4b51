export interface How {
  say?: (line: string) => void;
  started?: (pid: number) => void;
  /** It keeps stopping and is left. */
  gaveUp?: () => void;
  /** Where what it says goes. */
  log?: { write(said: Buffer): unknown };
  /** ms until what was asked to stop is killed */
  within?: number;
  /** So often it is started again in a row, and the first wait before that, ms. */
  most?: number;
  pause?: number;
}
export function keepUp(
  name: string,
  args: readonly string[],
  env: Readonly<Record<string, string>>,
  how?: How,
): { readonly pid: number; stop(): Promise<void> };
export function logFile(
  folder: string,
  name: string,
): NodeJS.WritableStream & { end(done: () => void): void };
