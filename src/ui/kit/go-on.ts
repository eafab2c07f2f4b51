import type { useRouter } from 'next/navigation';

/** Goes on after something was entered: what only this device has is shown by the page that opens without a signal. */
export function goOn(router: ReturnType<typeof useRouter>, how: 'sent' | 'kept', path: string): void {
  if (how === 'kept') return location.assign(path);
  router.push(path);
  router.refresh();
}
