/** Registers the service worker and has it keep what this page was built from, so that it opens cold without a signal. */
export async function startWorker(keep: readonly string[] = []): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/sw.js');
    const registration = await navigator.serviceWorker.ready;
    const assets = performance
      .getEntriesByType('resource')
      .map((r) => new URL(r.name))
      .filter((u) => u.origin === location.origin && u.pathname.startsWith('/_next/static/'))
      .map((u) => u.pathname);
    const linked = [
      ...document.querySelectorAll<HTMLLinkElement | HTMLScriptElement>(
        'link[href^="/_next/static/"], script[src^="/_next/static/"]',
      ),
    ].map((e) =>
      'href' in e && e.href ? new URL(e.href).pathname : new URL((e as HTMLScriptElement).src).pathname,
    );
    registration.active?.postMessage({
      keep: [...new Set([...assets, ...linked, ...keep, '/offline', '/desk', '/desk/trace', '/guide'])],
    });
  } catch {
    /* no worker here (private window): the bench still works while the page is open */
  }
}
