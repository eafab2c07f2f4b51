/** How far the sides of a circuit are proved: what ended well on each, and what comes next. */
import type { System } from '@/core/installation/section';
import { SIDES, sideKeys, type SideKey } from './sides';

/** A record as it bears on a side, the newest first in a list of them. */
export interface SideRecord {
  readonly section: string;
  readonly word: string;
  readonly label?: string;
  /** Title of the procedure. */
  readonly procedure: string;
  readonly run: string;
  readonly number: string;
  readonly sealedAt: string;
}
export interface SideStanding {
  readonly key: SideKey | '';
  readonly title: string;
  /** The newest record of each procedure, in the order they were first done. */
  readonly records: readonly SideRecord[];
}
/** The newest record of each procedure for each side, and for the whole. A record of both joined counts for either. */
export function sideStandings(
  system: Pick<System, 'network'>,
  records: readonly SideRecord[],
): SideStanding[] {
  const keys = sideKeys(system).filter((k) => k !== 'both' || sideKeys(system).length === 1);
  const newest = (of: readonly SideRecord[]): SideRecord[] => {
    const kept = new Map<string, SideRecord>();
    for (const r of [...of].sort((a, b) => (a.sealedAt < b.sealedAt ? -1 : 1))) {
      kept.delete(r.procedure);
      kept.set(r.procedure, r);
    }
    return [...kept.values()];
  };
  return [
    ...keys.map((key) => ({
      key,
      title: SIDES[key],
      records: newest(records.filter((r) => r.section === key || r.section === 'both')),
    })),
    { key: '' as const, title: 'Whole circuit', records: newest(records.filter((r) => r.section === '')) },
  ];
}
