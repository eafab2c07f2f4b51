/** What can be wrong with the office's records themselves, in words: of something that was to be done, and of a page. */
export const DATABASE_TROUBLE = {
  'database-away': {
    done: 'The office’s records cannot be reached just now, so nothing was changed. Wait a moment and try again.',
    page: 'The office’s records cannot be reached just now',
  },
  busy: {
    done: 'Many are working with the office’s records at once, so this was not done. Wait a moment, then try again; nothing is lost.',
    page: 'Many are working with the office’s records at once',
  },
  'read-only': {
    done: 'The office’s records can only be read just now, so nothing was changed. What you entered on a bench stays on this device and is sent by itself; whoever keeps the server can say when.',
    page: 'The office’s records can only be read just now',
  },
  'disk-full': {
    done: 'The office’s disk is full, so nothing was changed. What you entered on a bench stays on this device and is sent by itself. Tell whoever keeps the server.',
    page: 'The office’s disk is full',
  },
} as const;
export type DatabaseTrouble = keyof typeof DATABASE_TROUBLE;
/** What a page is told of a fault: its kind, where it is one of the database, and the number it has in the server's log. */
export function faultOf(digest = ''): { readonly kind: DatabaseTrouble | null; readonly number: string } {
  const [kind = '', number] = digest.split('.');
  return Object.hasOwn(DATABASE_TROUBLE, kind)
    ? { kind: kind as DatabaseTrouble, number: number ?? '' }
    : { kind: null, number: digest };
}
