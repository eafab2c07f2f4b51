/** What a request says of itself before anything of it is believed. */

/**
 * Whether a request that changes something comes from a page of this site, or from no browser at all. A browser says so by
 * Origin; where it leaves that out, by Sec-Fetch-Site. What cannot be read as an address is no page of ours.
 */
export function fromThisSite(
  method: string,
  { origin, site }: { readonly origin: string | null; readonly site: string | null },
  host: string | null,
): boolean {
  if (method === 'GET' || method === 'HEAD') return true;
  if (origin === null) return site === null || site === 'same-origin' || site === 'none';
  return URL.canParse(origin) && new URL(origin).host === host && new URL(origin).host !== '';
}

/** How deep objects and lists of a JSON text are nested; of what is no JSON at least no less. */
export function depthOf(text: string): number {
  let depth = 0;
  let most = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i += 1) {
    const c = text[i];
    if (quoted) {
      if (c === '\\') i += 1;
      else if (c === '"') quoted = false;
    } else if (c === '"') quoted = true;
    else if (c === '{' || c === '[') most = Math.max(most, (depth += 1));
    else if (c === '}' || c === ']') depth -= 1;
  }
  return most;
}
