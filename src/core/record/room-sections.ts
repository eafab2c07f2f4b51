/** What kinds of stage kept beside readings, as it stands on a record. A new kind that keeps something adds its own. */
import { bucketWords } from '@/core/kinds/bucket/fold';
import { cureWords } from '@/core/kinds/cure/fold';
import { EVIDENCE_KEYS } from '@/core/kinds/listen/entries';
import { evidenceWords, placeWords } from '@/core/kinds/listen/fold';
import { CLARITY } from '@/core/trades/pool/listen';
import { looksNow, mapNow } from '@/core/kinds/map/fold';
import { plugCount } from '@/core/kinds/plugs/fold';
import type { Plan } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import { searchLines } from '@/core/run/isolations';
import type { RunState } from '@/core/run/state';
import { apartLines } from '@/core/verdict/masked';
import { tradeOf } from '@/core/trades';
import { lookWords } from '@/core/trades/pool/ends';
import { circuitSections } from './circuit-sections';
import { ductSections } from './duct-sections';
import type { Face } from './face';
import { longHoldLines } from './long-holds';

type Sections = Face['sections'];

/** Sections of what the rooms of a run hold; empty ones are left out by who prints. */
export const roomSections = (plan: Plan, state: RunState): Sections => [
  ...linesSection(plan, state),
  { title: 'Long holds', lines: longHoldLines(plan, state) },
  { title: 'Search for the leak', lines: searchLines(plan, state) },
  { title: 'Beside the rule: what a valve could hide', lines: apartLines(plan, state) },
  {
    key: 'plugs',
    title: 'Plugs, counted',
    lines: [
      ...plugCount(state).map((r) => `${r.what}: ${r.in} in, ${r.out} out`),
      ...state.rooms.plugs.cannot.map((c) => `${nameIn(plan, state)(c.end)}: ${c.why}`),
    ],
  },
  { title: 'Pool beside a bucket', lines: state.rooms.buckets.map((b) => `${b.title}: ${bucketWords(b)}`) },
  { title: 'Cut and coupled', lines: state.rooms.cures.map(cureWords) },
  ...circuitSections(plan, state),
  ...ductSections(plan, state),
  ...listenSection(state),
];
const nameIn = (plan: Plan, state: RunState) => {
  const { ends } = mapNow(plan, state);
  return (id: string): string => ends.find((e) => e.id === id)?.name ?? id;
};
/** The lines as they were known, with what was seen; what clashed, and what nobody could tell. */
function linesSection(plan: Plan, state: RunState): Sections {
  if (tradeOf(plan.system).parted !== 'lines') return [];
  const { section } = plan.system;
  const { seen, found } = state.rooms.map;
  const { lines, joins, lost } = mapNow(plan, state);
  const name = nameIn(plan, state);
  if (section && !seen.length) return [{ key: 'lines', title: 'Line', lines: [section.title] }];
  return [
    {
      key: 'lines',
      title: 'Lines',
      lines: lines
        .filter((l) => l.ends.length > 1)
        .map(
          (l) =>
            `${l.title}${l.perhaps.length ? `; not known whether with ${l.perhaps.map(name).join(', ')}` : ''}`,
        ),
    },
    {
      title: 'Seen at the ends',
      lines: [
        ...looksNow(plan, state).map(
          (l) =>
            `${joins.clashes.some((c) => c.looks.includes(l.id)) ? 'Contradicted: ' : ''}${lookWords(l, name)}`,
        ),
        ...found.map((f) => `Found, in no list until now: ${f.name}${f.place ? `, ${f.place}` : ''}`),
        ...lost.map((e) => `${e.name}: joined to no connection that is listed`),
      ],
    },
  ];
}
function listenSection(state: RunState): Sections {
  const { run, spots, evidence } = state.rooms.listen;
  if (!run) return [];
  return [
    {
      key: 'place',
      title: 'Listened for',
      lines: [
        placeWords(state),
        `${run.name}, ${showExact(run.length)}; compressor ${run.compressor}`,
        ...spots.map(
          (s) =>
            `${showExact(s.along)}${s.near ? `, ${s.near}` : ''}: ${s.loud} of 10, ${CLARITY[s.clear].words}`,
        ),
        ...EVIDENCE_KEYS.flatMap((e) => (evidence[e] ? [evidenceWords(e, evidence[e])] : [])),
      ],
    },
  ];
}
