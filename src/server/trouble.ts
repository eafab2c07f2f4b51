/** Something a person can do something about: becomes a JSON answer with its status. */
export class TroubleError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    text: string,
    readonly path?: string,
  ) {
    super(text);
    this.name = 'TroubleError';
  }
}
/** One answer for what is not there and what belongs to somebody else, so that nothing leaks. */
export const notHere = (what = 'page'): TroubleError =>
  new TroubleError(
    404,
    'not-found',
    `There is no such ${what} here. Check the link, or look for it in Today, Places or Ledger.`,
  );
/** Whether an id could be one of ours: anything else never reaches the database. */
export const isId = (text: string): boolean =>
  /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/.test(text);
/** Whether the database refused a value: a day that is none, an id that is none, a character it cannot keep. */
export const valueRefused = (error: unknown): boolean => {
  const e = error as { code?: string; cause?: unknown };
  return /^22/.test(e?.code ?? '') || (e?.cause !== undefined && valueRefused(e.cause));
};
