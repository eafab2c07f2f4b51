/** Papers of a line whose pipe nobody sees: what is handed to who locates a leak on it, and to who mends it. */
import { cureWords } from '@/core/kinds/cure/fold';
import { EVIDENCE_KEYS } from '@/core/kinds/listen/entries';
import { evidenceWords, placeNow, placeWords } from '@/core/kinds/listen/fold';
import { lookWords, poolEnds } from '@/core/trades/pool/ends';
import { looksNow, mapNow } from '@/core/kinds/map/fold';
import { showExact } from '@/core/quantity/exact';
import { inZone } from '@/core/quantity/in-zone';
import { convert } from '@/core/quantity/unit';
import { tradeOf } from '@/core/trades';
import type { Face } from './face';
import { capital, full } from '@/core/quantity/words';
import type { Block, Extra, PaperKind } from './papers';

export const said = (text: string): string => full(capital(text));
/**
 * Which of the two a record calls for: a line that lost water or was listened along is handed on; one that lost water, where a
 * place was found, or that was cut and coupled has a list of what to mend.
 */
export function linePapers({ plan, state, body }: Pick<Face, 'plan' | 'state' | 'body'>): PaperKind[] {
  if (tradeOf(plan.system).parted !== 'lines' || !plan.system.section) return [];
  const lost = body.verdict.word === 'not-tight';
  const walked = state.rooms.listen.run !== null;
  const repair = lost || state.rooms.cures.length > 0 || placeNow(state) !== null;
  return [...(repair ? (['repair'] as const) : []), ...(lost || walked ? (['specialist'] as const) : [])];
}
/** A figure with its unit, as short as it can be told. */
const litres = (q: { readonly value: number; readonly unit: string }): string =>
  `${Number(convert(q.value, q.unit as 'l/h', 'l/h').toPrecision(2))} l/h`;
/** An earlier record in a line: day, number, result, and its loss where one was measured. */
export function earlierWords(l: {
  readonly sealedAt: string;
  readonly zone: string;
  readonly number: string;
  readonly label: string;
  readonly procedure: string;
  readonly figures: readonly { readonly key: string; readonly value: number; readonly unit: string }[];
}): string {
  const leak = l.figures.find((f) => f.key === 'leak' && f.value > 0);
  const day = inZone(Date.parse(l.sealedAt), l.zone).split(',')[0]!;
  return `${day}, ${l.number}: ${l.label} (${l.procedure})${leak ? `, loss as measured ${litres(leak)}` : ''}`;
}
/** The losses of one line on one paper, before and after a repair: those of earlier records, and this one's. */
export function losses(face: Face, { sectionHistory = [] }: Extra): Block {
  const { verdict, sealedAt } = face.body;
  const now = verdict.leakRate
    ? `loss as measured ${verdict.leakRate.value}`
    : 'no loss was measured in litres';
  const own = `This record, ${inZone(Date.parse(sealedAt), face.plan.made.zone).split(',')[0]}: ${verdict.label} (${face.plan.procedure.title}), ${now}`;
  return {
    heading: 'This line before, and now',
    lines: [...(sectionHistory.length ? sectionHistory : ['No earlier record of this line']), own].map(said),
  };
}
function line({ plan }: Face): Block {
  const { system } = plan;
  return {
    heading: 'The line',
    lines: [
      `Ends: ${poolEnds(system)
        .map(
          (e) =>
            `${e.name}${e.place ? `, ${e.place}` : ''} (${e.word}${e.size ? `, ${showExact(e.size)}` : ''})`,
        )
        .join('; ')}.`,
      ...system.pipes.map(
        (p) =>
          `${p.name}: ${p.material}, ${showExact(p.size)}, bore ${showExact(p.bore)}, ${showExact(p.length)}.`,
      ),
      ...(system.pipes.length ? [] : ['No pipe of it is entered: size and run are not known.']),
    ],
  };
}
function place({ state }: Face): Block {
  const { run, spots, evidence } = state.rooms.listen;
  return {
    heading: 'Where',
    lines: run
      ? [
          said(placeWords(state)),
          ...EVIDENCE_KEYS.flatMap((e) => (evidence[e] ? [said(evidenceWords(e, evidence[e]))] : [])),
          ...spots.filter((s) => s.near).map((s) => `${showExact(s.along)}: ${s.near}.`),
          'A place by ear is advice. Open it only where something else agrees.',
        ]
      : ['Not located: nobody has listened along this line in this test.'],
  };
}
const HAND = [
  'Place opened',
  'Cut points',
  'Couplings and fittings',
  'Primer and cement',
  'Last joint made at',
  'Cured until',
];
/** What is to be mended on a line, what was, and how it is tested again. */
export function repairBlocks(face: Face, extra: Extra): Block[] {
  const { state, body } = face;
  return [
    { heading: 'What was found', strong: true, lines: [`${body.verdict.label}. ${body.verdict.sentence}`] },
    line(face),
    place(face),
    { heading: 'Cut and coupled in this test', lines: state.rooms.cures.map((c) => said(cureWords(c))) },
    { heading: 'To be filled in by who mends it', lines: [], blank: HAND },
    {
      heading: 'Before it is pressed again',
      lines: [
        'No pressure before every joint is cured by the cement’s own table for bore, pressure and weather.',
        'Then this line is pressed again by itself: a record of its own says whether it holds.',
        'What else was found wrong is mended first; what is not mended is named to the owner.',
      ],
    },
    losses(face, extra),
  ];
}
/** Questions of the check lists that had no right answer, each with the one given. */
const asked = ({ plan, state }: Face): string[] =>
  state.visits.flatMap((v) => {
    const stage = plan.procedure.stages[v.stage];
    return (stage?.kind === 'checks' ? stage.items : [])
      .filter((i) => i.ask && !i.must && ['yes', 'no'].includes(v.answers[i.key]?.answer ?? ''))
      .map((i) => `${i.text} ${v.answers[i.key]!.answer === 'yes' ? 'Yes' : 'No'}.`);
  });
/** What is known and was done, for somebody who comes to locate: nothing has to be found out twice. */
export function specialistBlocks(face: Face, extra: Extra): Block[] {
  const { plan, state, body } = face;
  const { ends } = mapNow(plan, state);
  const name = (id: string) => ends.find((e) => e.id === id)?.name ?? id;
  return [
    { lines: ['Facts as they were found. What they mean is for who locates.'] },
    { heading: 'Result', strong: true, lines: [`${body.verdict.label}. ${body.verdict.sentence}`] },
    line(face),
    {
      heading: 'How the joins are known',
      lines: looksNow(plan, state).map((l) => said(lookWords(l, name))),
    },
    place(face),
    losses(face, extra),
    {
      heading: 'What was read, stage by stage',
      lines: body.verdict.stages.filter((x) => x.text).map((x) => `${x.title}: ${x.word} (${x.text}).`),
    },
    { heading: 'Asked on the way', lines: asked(face) },
    {
      heading: 'Signs to ask for',
      lines: [
        'Air at the returns while the pump runs: the suction side draws air, above the water or at the pump.',
        'The level stops at a height: the leak is there, or at the outlet of that height.',
        'More loss with the pump on: the pressure side; the same on and off: below the water, shell or line.',
      ],
    },
    { heading: 'Not known', lines: plan.procedure.cannotProve.map((x) => said(x)) },
  ];
}
