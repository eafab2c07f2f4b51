/**
 * Read this trace: what a gauge showed during one hold of a simulated installation, whose truth is known. The analysis reads the same
 * and says what it makes of it; where it says that it cannot tell, to say so is right as well.
 */
import { holdRequest } from '@/core/analysis/of-hold';
import { meaningOf } from '@/core/analysis/meaning';
import { type Cause, LEAKS, perUnit } from '@/core/analysis/section';
import { CAUSE_WORDS } from '@/core/analysis/words';
import { momentOf } from '@/core/run/events';
import { gaugeOfHold, stageOf } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import type { Hold, RunState, Visit } from '@/core/run/state';
import { asked } from '@/core/simulation/simulation';
import { tradeOf } from '@/core/trades';
import { faultsFor } from '../faults';
import { actionsOf, readingOf, type Session } from '../session';
import type { Trap } from '../words';
import type { Conducted } from './conducted';
import type { Posed } from './question';

interface True {
  readonly cause: Cause;
  readonly traps: readonly Trap[];
}
/** What a trace shows of a fault, by its name; others move no gauge by themselves. */
const SHOWS: Readonly<Record<string, True>> = {
  none: { cause: 'steady', traps: ['sound'] },
  leak: { cause: 'leak', traps: [] },
  'appliance-leak': { cause: 'leak', traps: ['allowance'] },
  'let-by': { cause: 'let-by', traps: ['balance'] },
  both: { cause: 'let-by+leak', traps: ['balance'] },
  warming: { cause: 'temperature', traps: ['temperature'] },
  cooling: { cause: 'temperature', traps: ['temperature'] },
  sun: { cause: 'temperature', traps: ['temperature'] },
  air: { cause: 'air', traps: ['air'] },
  stretch: { cause: 'stretch', traps: ['stretch'] },
  'stretch-leak': { cause: 'stretch+leak', traps: ['stretch'] },
  user: { cause: 'step', traps: ['occupants'] },
  moisture: { cause: 'moisture', traps: ['moisture'] },
  'under-water': { cause: 'leak', traps: [] },
  'above-water': { cause: 'leak', traps: [] },
  kit: { cause: 'leak', traps: ['kit'] },
  'bad-plug': { cause: 'leak', traps: ['kit', 'plug'] },
};
/** What can be named, by what stands in the section. */
const NAMED: Readonly<Record<string, readonly Cause[]>> = {
  gas: ['steady', 'leak', 'temperature', 'temperature+leak', 'let-by', 'let-by+leak', 'step'],
  liquid: [
    'steady',
    'leak',
    'temperature',
    'temperature+leak',
    'stretch',
    'stretch+leak',
    'let-by',
    'air',
    'step',
  ],
  level: ['steady', 'leak', 'air', 'step'],
  vacuum: ['steady', 'leak', 'moisture', 'moisture+leak'],
};
export const CANNOT = 'cannot';
const POINTS = 60;
/** What a gauge and a perfect one showed over a hold, in the gauge's unit. */
function shownOver(s: Session, hold: Hold) {
  const reading = readingOf(s);
  const step = 10 ** -reading.decimals;
  const to = hold.end?.readMoment ?? hold.endedAt;
  if (!to || to - hold.startedAt < 20_000) return null;
  const moments = Array.from(
    { length: POINTS },
    (_, i) => hold.startedAt + ((to - hold.startedAt) * i) / (POINTS - 1),
  );
  const points = asked(s.world, actionsOf(s), moments, (w, t) => {
    const { perfect, shown } = reading.of(w);
    // what is read is whole steps, of a level too
    return { t: Math.round(t), p: Math.round(shown / step) * step, true: perfect };
  });
  return { points, to };
}
/** Somebody worked on it meanwhile: the trace is of the hand, not of the section. */
const handled = (s: Session, from: number, to: number | undefined): boolean =>
  s.acts.some(
    (a) => a.kind === 'hand' && a.at > from && a.at < (to ?? Infinity) && a.work.act !== 'tap-gauge',
  );
/** What a cause does to the pressure, where it can do only that: otherwise the conduct shows something else. */
const FITS: Partial<Record<Cause, (moved: number, counts: number) => boolean>> = {
  leak: (moved) => moved < 0,
  stretch: (moved) => moved < 0,
  'stretch+leak': (moved) => moved < 0,
  'let-by': (moved) => moved > 0,
  moisture: (moved) => moved > 0,
  steady: (moved, counts) => Math.abs(moved) < counts,
  // of what stands in balance nothing shows
  'let-by+leak': (moved, counts) => Math.abs(moved) >= counts,
};
const holdsOf = (state: RunState): { visit: Visit; hold: Hold }[] =>
  state.visits.flatMap((visit) => visit.holds.map((hold) => ({ visit, hold })));

/** @returns null where this conduct has no trace to be asked about */
export function traceQuestion({ fault, session: s }: Conducted): Posed | null {
  const shows = fault === null ? null : SHOWS[fault];
  if (!shows || !s.events.length) return null;
  const state = reduce(s.plan, s.events);
  const until = Math.max(...s.events.map(momentOf));
  const found = holdsOf(state)
    .filter(
      ({ hold }) =>
        // while it settles two things move it at once
        hold.role !== 'settle' &&
        hold.startedAt < until &&
        !hold.broken &&
        !hold.topUps.length &&
        !handled(s, hold.startedAt, hold.endedAt),
    )
    .flatMap(({ visit, hold }) => {
      const gauge = gaugeOfHold(s.plan, hold);
      if (!gauge) return [];
      const { part } = stageOf(s.plan, visit);
      const request = holdRequest(s.plan, state, visit, hold, gauge, part);
      const shown = request && shownOver(s, hold);
      if (!request || !shown) return [];
      const all = shown.points.map((p) => p.true);
      return [{ visit, hold, gauge, request, ...shown, range: Math.max(...all) - Math.min(...all) }];
    });
  // the hold that shows most of it
  const best = found.sort((a, b) => b.range - a.range)[0];
  if (!best) return null;
  const { request, gauge, points, to } = best;
  const named = NAMED[request.facts.filling]!;
  const counts = request.facts.perceptible / perUnit(request.unit);
  const moved = points.at(-1)!.true - points[0]!.true;
  const cause = best.range < counts ? 'steady' : shows.cause;
  if (!named.includes(cause) || !(FITS[cause]?.(moved, counts) ?? true)) return null;
  // soft walls stretch, whatever else is hidden: two things at once are no question of one
  if (request.facts.stretches && !cause.includes('stretch') && cause !== 'steady') return null;
  const meaning = meaningOf({
    ...request,
    samples: points.map(({ t, p }) => ({ t, p })),
    begin: best.hold.startedAt,
    end: to,
    limits: { low: null, high: null },
  });
  if (!meaning) return null;
  const told = meaning.told;
  const change = (points.at(-1)!.true - points[0]!.true)
    .toFixed(gauge.resolution.scale + 1)
    .replace('-', '−');
  return {
    question: {
      about: 'trace',
      trade: tradeOf(s.plan.system).name,
      title: `${s.plan.procedure.title}: ${best.visit.title.toLowerCase()}`,
      ask: 'What moved the gauge?',
      facts: [
        { name: 'gauge', value: `in steps of ${10 ** -gauge.resolution.scale} ${gauge.resolution.unit}` },
        {
          name: 'counts as movement',
          value: `${counts.toFixed(gauge.resolution.scale)} ${gauge.resolution.unit}`,
        },
        ...(request.facts.supply === null
          ? []
          : [
              {
                name: 'behind the closed valve',
                value: `${(request.facts.supply / perUnit(request.unit)).toFixed(gauge.resolution.scale)} ${gauge.resolution.unit}`,
              },
            ]),
        ...(request.facts.warmth.length > 1
          ? [{ name: 'warmth read', value: `${request.facts.warmth.at(-1)!.k.toFixed(1)} K over it` }]
          : []),
      ],
      trace: {
        points: points.map(({ t, p }) => ({ t, p })),
        unit: gauge.resolution.unit,
        decimals: gauge.resolution.scale,
        from: best.hold.startedAt,
        to,
      },
      choices: [
        ...named.map((key) => ({ key, text: sentence(CAUSE_WORDS[key]) })),
        { key: CANNOT, text: 'Nobody can tell from this' },
      ],
    },
    solution: {
      choice: [cause, ...(told === null ? [CANNOT] : [])],
      tells: [
        `Hidden: ${faultsFor(s.plan)[fault!]!}. A perfect gauge moved by ${change} ${gauge.resolution.unit}.`,
        ...(cause === 'steady' && shows.cause !== 'steady'
          ? ['It moved by less than counts: from this trace nobody knows of it.']
          : []),
        ...(cause === 'leak'
          ? [
              'Where it leaks no trace tells: pipe, appliance and own hose fall alike. Leak fluid and parting tell.',
            ]
          : []),
        ...meaning.fors,
      ],
      source: 'The simulated installation',
      opponent: {
        says: meaning.headline,
        right: told === null ? null : told === cause || (LEAKS.has(told) && LEAKS.has(cause)),
      },
    },
    traps: shows.traps,
  };
}
const sentence = (s: string) => `${s[0]!.toUpperCase()}${s.slice(1)}`;
