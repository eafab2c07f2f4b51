/** What a record of ducts says beside its verdict: what was masked, every pair that was read, each edition beside it, what smoke showed. */
import {
  editionsOf,
  type Edition,
  flowWords,
  isPushed,
  judgingEdition,
  type FanStage,
  referenceOf,
} from '@/core/kinds/fan/asked';
import { readingWords } from '@/core/kinds/fan/fold';
import type { FanVisit } from '@/core/kinds/fan/state';
import { PRESENT } from '@/core/kinds/smoke/entries';
import { findingWords } from '@/core/kinds/smoke/fold';
import { gainsOf } from '@/core/kinds/smoke/gains';
import type { Plan } from '@/core/plan/plan';
import { caseOf } from '@/core/plan/plan';
import { showExact } from '@/core/quantity/exact';
import type { Unit } from '@/core/quantity/unit';
import type { RunState } from '@/core/run/state';
import { exponentWords } from '@/core/verdict/duct-sentences';
import type { Face } from './face';

type Sections = Face['sections'];
const fanStage = (plan: Plan, of: FanStage['of']): FanStage | undefined =>
  Object.values(plan.procedure.stages).find((s): s is FanStage => s.kind === 'fan' && s.of === of);
/** The last measurement of the ducts themselves. */
const lastOf = (state: RunState): FanVisit | undefined =>
  [...state.rooms.fan.visits].reverse().find((v) => v.of === 'system' && v.result?.at);
const unitOf = (state: RunState): Unit => state.rooms.fan.chosen?.range.least.unit ?? 'CFM';

/** What a flow was judged by; none for any other installation. */
export function ductLimits(plan: Plan, state: RunState): Face['limits'][number][] {
  const stage = fanStage(plan, 'system') ?? fanStage(plan, 'hose');
  const edition = stage && judgingEdition(plan, stage);
  const reference = stage ? referenceOf(plan, stage) : null;
  if (!stage || !edition || reference === null) return [];
  const { limit, label, source } = edition;
  const { ownKit, law } = stage;
  return [
    {
      name: `${label}, at ${reference.toFixed(0)} Pa`,
      value: limit ? `${flowWords(limit.flow, unitOf(state))} or less` : 'no figure for this case',
      source,
    },
    {
      name: 'own hose and ring',
      value: `tested within ${ownKit.lasts} days; at most ${ownKit.share} % of the limit`,
      source: ownKit.source,
    },
    {
      name: 'exponent',
      value: `${law.assumed} where none is measured, doubted above ${law.doubtful}`,
      source: law.source,
    },
  ];
}
/** Sections of ducts; none for any other installation. */
export function ductSections(plan: Plan, state: RunState): Sections {
  const stage = fanStage(plan, 'system');
  const { searches } = state.rooms.smoke;
  if (!stage && !fanStage(plan, 'hose')) return [];
  return [
    { key: 'duct', title: 'Duct system', lines: stage ? systemLines(plan, state, stage) : [] },
    ...readSections(state),
    { key: 'hose', title: 'Own hose and ring', lines: kitLines(state) },
    { key: 'editions', title: 'Beside every edition', lines: stage ? editionLines(plan, state, stage) : [] },
    {
      key: 'smoke',
      title: 'Found by smoke',
      lines: searches.flatMap((s) => [
        ...(s.without ? [`No smoke machine; looked for with: ${s.without}`] : []),
        ...s.findings.map((f) => `${findingWords(f)}${f.sealed ? '' : '; not sealed'}`),
        ...(s.over
          ? [`${PRESENT[s.over.installer]}${s.over.fee ? `; retest fee as agreed: ${s.over.fee}` : ''}`]
          : []),
      ]),
    },
    { key: 'gains', title: 'What each sealing gained', lines: gainLines(state) },
  ];
}
/** Each passage with its readings; several of one kind are counted. */
function readSections(state: RunState): Sections {
  const visits = state.rooms.fan.visits.filter((v) => v.readings.length || v.off);
  return visits.map((v) => {
    const same = visits.filter((x) => x.of === v.of);
    const title = same.length > 1 ? `${v.title}, ${same.indexOf(v) + 1} of ${same.length}` : v.title;
    return { key: 'flow' as const, title, lines: visitLines(state, v) };
  });
}
const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
function systemLines(plan: Plan, state: RunState, stage: FanStage): string[] {
  const { floorServed, ductSurface, ductPressure, registers = [], intakes = [], handlers = [] } = plan.system;
  const reference = referenceOf(plan, stage);
  const way = isPushed(plan, stage) ? 'pushed in' : 'drawn out';
  const { chosen } = state.rooms.fan;
  return [
    `Tested as: ${caseOf(plan).title}`,
    ...(reference === null ? [] : [`Air ${way}, judged at ${reference.toFixed(0)} Pa`]),
    ...(floorServed ? [`Floor served by this system: ${showExact(floorServed)}`] : []),
    ...(ductSurface ? [`Surface of the ducts: ${showExact(ductSurface)}`] : []),
    ...(ductPressure ? [`Test pressure of its class: ${showExact(ductPressure)}`] : []),
    ...(chosen ? [`Fan ${chosen.name}`] : []),
    `${handlers.length ? handlers.map((h) => h.name).join(', ') : 'Air handler not entered'}; ${counted(registers.length, 'register or grille', 'registers and grilles')}, ${counted(intakes.length, 'outdoor intake')}`,
  ];
}
function visitLines(state: RunState, v: FanVisit): string[] {
  const at = v.result?.at;
  return [
    ...(v.off ? [`Fan off: ${showExact(v.off.pressure)}, taken out of every reading`] : []),
    ...v.readings.map((r) => readingWords(r, state.rooms.fan)),
    ...(at
      ? [
          `At ${v.result!.reference.toFixed(0)} Pa ${at.bound ? 'at most ' : ''}${flowWords(at.flow, unitOf(state), v.result!.limit ?? undefined)}, ${exponentWords(at)}`,
        ]
      : []),
    ...(v.noSecond ? [`No second pressure: ${v.noSecond}`] : []),
    ...(v.cannot ? [`No reading that decides: ${v.cannot}`] : []),
  ];
}
function kitLines(state: RunState): string[] {
  const { blank } = state.rooms.fan;
  const result = lastOf(state)?.result;
  if (!blank) return result ? ['Not tested by themselves'] : [];
  const { at, reference, blank: passes } = result ?? {};
  // both figures stand, so that whoever takes it off takes it off in sight
  const less =
    at && !at.bound && passes
      ? [
          `Taken off, for comparison only: ${flowWords(Math.max(0, at.flow - passes), unitOf(state))} at ${reference!.toFixed(0)} Pa; what is judged is the flow as measured`,
        ]
      : [];
  return [
    `${blank.below ? 'Less than ' : ''}${showExact(blank.flow)} at ${showExact(blank.pressure)}, tested ${blank.from === 'here' ? 'in this run' : blank.on}; never taken off`,
    ...less,
  ];
}
/** What was measured beside a limit, in words that are no verdict. */
function besideWords(flow: number | null, bound: boolean, { limit }: Edition, unit: Unit): string {
  if (!limit) return '';
  const own = flowWords(limit.flow, unit, flow ?? undefined);
  if (flow === null) return own;
  return `${own}; measured ${bound ? 'at most ' : ''}${flowWords(flow, unit, limit.flow)}: ${flow <= limit.flow ? 'not above it' : bound ? 'not known to be below it' : 'above it'}`;
}
/** Every edition of the pack: the one that judges first, with what the code calls the figure and its clause for the official. */
function editionLines(plan: Plan, state: RunState, stage: FanStage): string[] {
  const at = lastOf(state)?.result?.at ?? null;
  const unit = unitOf(state);
  // what says nothing of this case, and does not judge, is left out
  const said = editionsOf(plan, stage).filter((e) => e.judges || e.limit || e.missing);
  return said.map((e) => {
    const words = e.limit
      ? besideWords(at?.flow ?? null, at?.bound ?? false, e, unit)
      : e.missing || 'no figure for this case';
    return `${e.judges ? 'Judges: ' : ''}${e.title}, “${e.label}”: ${words}. ${e.source}`;
  });
}
function gainLines(state: RunState): string[] {
  const steps = gainsOf(state);
  const unit = unitOf(state);
  if (steps.length < 2) return [];
  return steps.map((s, i) => {
    const before = steps[i - 1];
    const gain = before ? before.flow - s.flow : null;
    const change =
      gain === null ? '' : `, ${flowWords(Math.abs(gain), unit)} ${gain >= 0 ? 'less' : 'MORE'} than before`;
    return `${s.what}: ${flowWords(s.flow, unit)}${change}`;
  });
}
