import type { BenchView, Contact } from '@/device/bench';

const CONTACT: Record<Contact, string> = {
  'with-office': '',
  'no-signal': 'No signal: go on, it is sent later',
  'signed-out': 'Signed out: entries wait here until you sign in again',
  'store-away': 'This device’s own store does not answer: close other tabs, free some storage',
  'not-begun': 'The office has not begun this test: see what waits under Today. Entries are kept here',
  'database-away': 'The office cannot keep it just now: go on, it is sent later',
};

/** Where the entries are: on this device, and with the office. */
export function SavedLine({ view, wide = false }: { view: BenchView; wide?: boolean }) {
  const away = CONTACT[view.contact];
  const photos = view.photosWaiting
    ? `; ${view.photosWaiting} photo${view.photosWaiting === 1 ? '' : 's'} still here`
    : '';
  const text = `saved here ${view.here}, with the office ${view.here - view.waiting}${photos}`;
  return (
    <p
      className={`text-sm ${wide ? 'text-right max-lg:hidden' : 'flex min-h-14 flex-wrap content-center items-center border-b border-seam px-3 py-1 lg:hidden'} ${away ? 'text-ochre' : 'text-quiet'}`}
      data-here={view.here}
      data-office={view.here - view.waiting}
      aria-live="polite"
    >
      {text}
      {away && (
        <span className={wide ? 'block' : ''}>
          {wide ? '' : '. '}
          {away}
        </span>
      )}
    </p>
  );
}
