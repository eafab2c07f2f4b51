/** What a code says: one of our labels, a page of this installation, or what stands on a plate. */

/** What labels are printed for, by the letter in their address. */
export const LABELS = { g: 'gauge', k: 'kit', s: 'system' } as const;
export type LabelKind = keyof typeof LABELS;
const LABEL = /^\/l\/([gks])\/([0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12})$/;

export type Code =
  | { readonly kind: 'label'; readonly of: (typeof LABELS)[LabelKind]; readonly id: string }
  | { readonly kind: 'page'; readonly path: string }
  | { readonly kind: 'elsewhere'; readonly host: string }
  | { readonly kind: 'text'; readonly text: string };
/** The address a label carries: the camera of any phone opens it. */
export const labelPath = (kind: LabelKind, id: string): string => `/l/${kind}/${id}`;
/** Where a label leads. */
export const pageOfLabel = (kind: LabelKind, id: string): string =>
  kind === 's' ? `/places/${id}` : `/cabinet#${id}`;

/**
 * What was read. A label is known by its path, whatever address the installation was reached by when it was printed; another
 * page is opened only of this installation. @param origin of the page that reads
 */
export function meaningOf(text: string, origin: string): Code {
  const said = text.replace(/\p{Cc}/gu, ' ').trim();
  if (!/^https?:\/\//i.test(said) || !URL.canParse(said)) return { kind: 'text', text: said.slice(0, 120) };
  const url = new URL(said);
  const [, kind, id] = LABEL.exec(url.pathname) ?? [];
  if (kind && id) return { kind: 'label', of: LABELS[kind as LabelKind], id };
  return url.origin === origin
    ? { kind: 'page', path: url.pathname + url.search + url.hash }
    : { kind: 'elsewhere', host: url.host };
}
