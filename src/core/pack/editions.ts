/** Which edition, clause and jurisdiction an organisation works to, source by source: it stands beside each limit. */
import type { Pack, Procedure } from './schema';

/** What an organisation says of one source of a pack; '' names the pack as a whole. */
export interface WorksTo {
  readonly source: string;
  readonly edition: string;
  readonly clause: string;
  readonly jurisdiction: string;
}
export const WHOLE_PACK = '';

/** A field that names where a figure comes from: `source`, `nilSource`, `houseSource` and the like. */
const names = (key: string): boolean => key === 'source' || key.endsWith('Source');
/** Calls `visit` with every source that a value of a pack holds. */
function walk(value: unknown, visit: (source: string) => void): void {
  if (Array.isArray(value)) for (const v of value) walk(v, visit);
  else if (value && typeof value === 'object')
    for (const [key, v] of Object.entries(value))
      if (names(key) && typeof v === 'string') visit(v);
      else walk(v, visit);
}
/** The sources of a procedure's figures, each once, as they come in it. */
export function sourcesOf(procedure: Procedure): string[] {
  const found = new Set<string>();
  walk(procedure, (source) => found.add(source));
  return [...found];
}

/** "edition 2024, clause 7.3, Quarter county" of what was entered; '' where nothing was. */
export const worksToWords = ({ edition, clause, jurisdiction }: WorksTo): string =>
  [edition && `edition ${edition}`, clause && `clause ${clause}`, jurisdiction].filter(Boolean).join(', ');

/**
 * A pack whose sources name the edition, clause and jurisdiction the organisation works to, as it said: the plan of a run
 * embeds it so, and every limit shows it. Figures and graph stay as they are.
 * @param by the organisation, which answers for it
 */
export function citedPack(pack: Pack, worksTo: readonly WorksTo[], by: string): Pack {
  const words = new Map(
    worksTo.map((w) => [w.source, worksToWords(w)]).filter(([, said]) => said) as [string, string][],
  );
  if (!words.size) return pack;
  const cite = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(cite);
    if (!value || typeof value !== 'object') return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, v]) => {
        const said = names(key) && typeof v === 'string' ? words.get(v) : undefined;
        return [key, said ? `${v as string} (${by} works to ${said})` : cite(v)];
      }),
    );
  };
  const whole = words.get(WHOLE_PACK);
  return {
    ...pack,
    ...(whole ? { edition: `${pack.edition} (${by} works to ${whole})` } : {}),
    procedures: cite(pack.procedures) as Procedure[],
  };
}
