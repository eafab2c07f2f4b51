import { vacuumLimits } from './circuit-sections';
import { ductLimits } from './duct-sections';
import { zeroWords } from '@/core/kinds/zero/fold';
import { type Gauge, LEVEL_MARK } from '@/core/instrument/gauge';
import { JOINT_WORDS, WHOSE_WORDS } from '@/core/kinds/joints/fold';
import { allowanceOf } from '@/core/plan/limits';
import { certificateTitle, type Plan, ruleOf } from '@/core/plan/plan';
import { duration } from '@/core/quantity/duration';
import { breachWords, showChange, showExact } from '@/core/quantity/exact';
import { carriedWords } from './carried';
import { clockInZone, inZone } from '@/core/quantity/in-zone';
import { unitLabel } from '@/core/quantity/unit';
import { roleOf } from '@/core/roles';
import { DANGER_WORDS } from '@/core/run/closing';
import type { PlacedEvent } from '@/core/run/events';
import { pointsOf } from '@/core/run/inventory';
import { roomSections } from './room-sections';
import { debtWords, gaugeOf, gaugeOfHold, gaugesUsed, letByLimit, perceptibleOf } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import type { Hold, RunState } from '@/core/run/state';
import type { SectionKey } from '@/core/trades/trade';
import { classBound } from '@/core/verdict/adequacy';
import { decidingHold } from '@/core/verdict/verdict';
import { isGood, type VerdictWord, WORDS } from '@/core/verdict/words';
import { clockLine, holdTimes, impossibleTimes } from './office-clock';
import { holdsOf } from './holds';
import { supersedesWords } from './marks';
import type { RecordBody } from './record';
import { restoreBody } from './restore';
import { saidSections } from './story';
import { waterLimits, waterSections } from './water-face';

export { inZone };

/** What the certificate shows, in words, from a sealed body alone: the page, the PDF and the public page share it. */
export interface Face {
  readonly body: Omit<RecordBody, 'plan' | 'events'> & {
    readonly plan: Plan;
    readonly events: readonly PlacedEvent[];
  };
  readonly plan: Plan;
  readonly state: RunState;
  readonly title: string;
  readonly statusLine: string;
  readonly started: string;
  readonly ended: string;
  readonly gauge: string;
  readonly zeros: string;
  readonly limits: readonly { readonly name: string; readonly value: string; readonly source: string }[];
  readonly row: string;
  readonly holds: readonly {
    readonly title: string;
    readonly start: string;
    readonly end: string;
    readonly change: string;
    readonly elapsed: string;
    readonly word: string;
    readonly startedAt: number;
    readonly began: string;
    /** The clock alone of when it began. */
    readonly clock: string;
    /** By whose clock it was timed. */
    readonly times: string;
  }[];
  readonly deciding: { readonly hold: Hold; readonly visit: number } | null;
  readonly cautions: readonly string[];
  readonly clock: string;
  readonly skipped: readonly string[];
  /** What was being tested, in words. */
  readonly tested: string;
  /** Unit of the judged hold, for the trace. */
  readonly unit: string;
  /** Everything else that stands in the record, under its headings: only those that have something to say. */
  readonly sections: readonly {
    readonly key?: SectionKey;
    readonly title: string;
    readonly lines: readonly string[];
  }[];
  /** The put-back list as it was cleared, in words. */
  readonly putBack: readonly string[];
}

/** What stands on everything that was made where time can be set. */
const TEST_CLOCK =
  'Test clock: made on a server whose clock tests may shift; no time of this record is real.';
const STATUS_TITLES = {
  'not-a-certificate': 'Test record: not a certificate',
  practice: 'Practice record: not a certificate',
} as const;

/** @param text the sealed body as stored */
export function faceOf(text: string): Face {
  const body = restoreBody(text);
  const { plan, events } = body;
  const state = reduce(plan, events);
  const gauge = gaugeOf(plan, state);
  const zone = plan.made.zone;
  const deciding = decidingHold(plan, state);
  const part = (deciding && plan.procedure.stages[deciding.visit.stage]?.part) ?? null;
  const allowance = allowanceOf(plan, part);
  const judging = deciding ? gaugeOfHold(plan, deciding.hold) : gauge;
  const used = gaugesUsed(state);
  const gauges = plan.gauges.filter((g) => used.includes(g.id));
  const byLevel = used.includes(LEVEL_MARK.id);
  const zeros = state.visits.flatMap((v) => v.zeros);
  return {
    body,
    plan,
    state,
    title:
      body.status !== 'certificate'
        ? STATUS_TITLES[body.status]
        : isGood(body.verdict.word)
          ? certificateTitle(plan)
          : `Test report: ${plan.procedure.title.toLowerCase()}`, // a word like certificate never stands over a failed test
    statusLine: `${plan.made.clock || body.clock ? 'TEST CLOCK. ' : ''}${body.statusReason}`,
    started: inZone(Date.parse(plan.made.at), zone),
    ended: state.ending ? inZone(state.ending.at, zone) : '',
    gauge:
      (gauges.length ? gauges : gauge ? [gauge] : [])
        .map(
          (g) =>
            `${g.name}, serial ${g.serial}${g.simulated ? ', SIMULATED' : ''}; range to ${showExact(g.greatest)}, resolution ${showExact(g.resolution)}; ${g.calibrationDue ? `calibrated ${g.calibrated}, valid to ${g.calibrationDue}` : 'calibration not entered'}`,
        )
        .join('. ') ||
      (byLevel ? 'a level mark and rule, read to the millimetre; no gauge' : 'no gauge was used'),
    zeros: zeros.map((z) => `${zeroWords(z)} at ${clockInZone(z.at, zone)}`).join('; ') || 'not read',
    limits: judging ? limitsOf(plan, state, judging, part, deciding?.hold ?? null) : [],
    row: allowance.row,
    holds: holdLines(plan, state, events),
    tested: plan.procedure.cases.find((c) => c.key === plan.case)?.title ?? '',
    unit: unitLabel(deciding?.hold.start.figure.unit ?? judging?.resolution.unit ?? 'mbar'),
    sections: sectionsOf(plan, state, events),
    deciding: deciding ? { hold: deciding.hold, visit: deciding.visit.ordinal } : null,
    putBack: state.debts.map((d) =>
      d.cleared
        ? `${d.cleared.text || debtWords(plan, d)}: ${d.cleared.byName}, ${clockInZone(d.cleared.at, zone)}`
        : `${debtWords(plan, d)}: open`,
    ),
    cautions: [...new Set(state.visits.flatMap((v) => plan.procedure.stages[v.stage]?.cautions ?? []))].map(
      (k) => plan.procedure.cautions[k] ?? k,
    ),
    clock: [
      ...(plan.made.clock || body.clock ? [TEST_CLOCK] : []),
      ...state.clockMarks,
      ...(state.clockMarks.length ? [] : [clockLine(plan, state, events)]),
      ...impossibleTimes(plan, state, events, Date.parse(body.sealedAt)),
      ...(plan.carried ? [carriedWords(plan.carried, zone)] : []),
    ].join(' '),
    skipped: state.visits.flatMap((v) => (v.skipped ? [`${v.title} was left out: ${v.skipped.text}`] : [])),
  };
}

/** What counted and what was permitted, each with its source. */
/** Every limit of a run with its value and source. @param hold that is judged, where there is one */
export function limitsOf(
  plan: Plan,
  state: RunState,
  judging: Gauge,
  part: string | null,
  hold: Hold | null,
): Face['limits'] {
  const flows = ductLimits(plan, state);
  if (flows.length) return flows;
  const rule = ruleOf(plan, part);
  const allowance = allowanceOf(plan, part);
  const letBy = Object.values(plan.procedure.stages).find((s) => s.kind === 'hold' && s.role === 'let-by');
  const judgements = state.visits
    .flatMap((v) => v.holds)
    .flatMap((h) => (h.judgement?.accept ? [h.judgement] : []));
  return [
    ...(letBy?.kind === 'hold'
      ? [
          {
            name: 'let-by rise',
            value: `${breachWords(letByLimit(plan, letBy, judging))} counts`,
            source: letByLimit(plan, letBy, judging).source,
          },
        ]
      : []),
    {
      name: 'perceptible movement',
      value: `${breachWords(perceptibleOf(plan, judging, part))} counts`,
      source: perceptibleOf(plan, judging, part).source,
    },
    ...judgements.flatMap((j) =>
      (['low', 'high'] as const).flatMap((side) => {
        const bound = j.accept?.[side];
        return bound
          ? [
              {
                name: side === 'low' ? 'holds from' : 'holds up to',
                value: showExact(bound.value),
                source: bound.source,
              },
            ]
          : [];
      }),
    ),
    ...waterLimits(plan, state),
    ...vacuumLimits(plan, state),
    ...(rule.classes
      ? rule.classes.map((c) => ({ name: c.title, value: classBound(c.below), source: c.source }))
      : hold && roleOf(hold.role).bounded
        ? []
        : [
            {
              name: 'permitted drop',
              value:
                allowance.limit && !state.denied.length
                  ? `${showExact(allowance.limit.value)}, more is not tight`
                  : 'nil',
              source:
                allowance.limit?.source ?? rule.allowance?.source ?? rule.nilSource ?? plan.procedure.title,
            },
          ]),
  ];
}

/** Every hold as it was read, in the order of the run. */
function holdLines(plan: Plan, state: RunState, events: readonly PlacedEvent[]): Face['holds'] {
  const zone = plan.made.zone;
  const log = new Map(events.map((e) => [e.id, e]));
  return holdsOf(state).map(({ hold, title }) => ({
    title,
    startedAt: hold.startedAt,
    began: inZone(hold.startedAt, zone),
    clock: clockInZone(hold.startedAt, zone),
    times: holdTimes(plan, log, hold).words,
    start: showExact(hold.start.figure),
    end: hold.end ? showExact(hold.end.figure) : '',
    change: hold.judgement
      ? showChange(hold.judgement.change) +
        (hold.judgement.direction === 'none' && hold.role !== 'settle' ? ' (none perceptible)' : '')
      : '',
    elapsed: hold.judgement ? duration(hold.judgement.elapsedMs) : '',
    word: hold.broken ? `void: ${hold.broken.reason}` : (hold.judgement?.outcome ?? 'not ended'),
  }));
}

/** A day so many days after a moment, in words. */
const dayIn = (ms: number, days: number, zone: string): string =>
  inZone(ms + days * 86_400_000, zone).split(',')[0]!;

/** What stands in the record beside readings and verdict, each under its heading. */
function sectionsOf(plan: Plan, state: RunState, events: readonly PlacedEvent[]): Face['sections'] {
  const ended = state.ending?.at ?? Date.parse(plan.made.at);
  const zone = plan.made.zone;
  const linked = [
    ...(plan.supersedes ? [`In place of ${supersedesWords(plan.supersedes)}`] : []),
    ...(plan.after
      ? [
          `Follows ${plan.after.number}, which ended ${plan.after.label ?? WORDS[plan.after.word as VerdictWord] ?? plan.after.word}`,
          ...(plan.after.left
            ? [
                `Left in by it: ${showExact(plan.after.left.figure)}, since ${inZone(Date.parse(plan.after.left.at), zone)}`,
              ]
            : []),
        ]
      : []),
    ...(plan.retestOf
      ? [
          `Retest after ${plan.retestOf.number}, which ended ${WORDS[plan.retestOf.word as VerdictWord] ?? plan.retestOf.word}`,
        ]
      : []),
  ];
  const { attendance } = plan;
  const all: Face['sections'] = [
    {
      key: 'permit',
      title: 'Permit and presence',
      lines: [
        ...(attendance?.permit ? [`Permit ${attendance.permit}`] : []),
        ...(attendance?.doneBy
          ? [
              attendance.doneBy === 'licensed'
                ? 'Work by a licensed person'
                : 'Work by the owner under the permit',
            ]
          : []),
        ...(attendance?.present ? [`Present: ${attendance.present}`] : []),
      ],
    },
    {
      key: 'unsafe',
      title: 'Unsafe situation',
      lines: state.unsafe
        ? [
            `${DANGER_WORDS[state.unsafe.danger]}, ${state.unsafe.action}: ${state.unsafe.text}. Told: ${state.unsafe.told}`,
          ]
        : [],
    },
    ...waterSections(plan, state),
    ...roomSections(plan, state),
    {
      key: 'reports',
      title: 'Reported to others',
      lines: state.reports.map((r) => `To the ${r.to}: ${r.text}`),
    },
    {
      key: 'due',
      title: 'Due',
      lines: state.followUps.map((f) => `By ${dayIn(ended, f.days, zone)}: ${f.text}`),
    },
    {
      key: 'volume',
      title: 'Volume measured',
      lines: state.volume
        ? [
            `${(state.volume.figure.value * 1000).toFixed(1)} l by ${state.volume.figure.formula} (${state.volume.figure.inputs.map((i) => `${i.name} ${i.value}`).join(', ')})`,
          ]
        : [],
    },
    {
      key: 'joints',
      title: 'Joints touched today',
      lines: state.joints.map((j) => {
        const last = j.looks[j.looks.length - 1];
        return `${j.name}${j.place ? `, ${j.place}` : ''}${j.whose ? ` (${WHOSE_WORDS[j.whose]})` : ''}: ${last ? JOINT_WORDS[last.found] + (last.size ? `, ${last.size}` : '') : 'not looked at'}`;
      }),
    },
    {
      key: 'observed',
      title: 'Observed',
      lines: state.observations.map((o) => `${o.what}${o.text ? `: ${o.text}` : ''}`),
    },
    {
      key: 'present',
      title: 'Present that day',
      lines: state.inventory.map((i) => {
        const plate = [i.make, i.model, i.serial && `serial ${i.serial}`].filter(Boolean).join(', ');
        const faults = Object.entries(i.points).filter(([, said]) => said !== 'good');
        const points = faults
          .map(
            ([key, said]) =>
              `${said === 'fault' ? 'FAULT' : 'not seen'}: ${pointsOf(plan, i.kind).find((p) => p.key === key)?.text ?? key}`,
          )
          .join('; ');
        return `${i.name}${i.place ? `, ${i.place}` : ''}${plate ? `: ${plate}` : ''}${points ? `; ${points}` : ''}${i.note ? `; ${i.note}` : ''}${i.photos?.length ? `; photo ${i.photos.map((x) => x.slice(0, 12)).join(', ')}` : ''}`;
      }),
    },
    ...saidSections(plan, state, events),
    { title: 'Linked records', lines: linked },
    {
      title: plan.pack.basedOn
        ? `House pack: where it permits more than ${plan.pack.basedOn.title} ${plan.pack.basedOn.version}`
        : '',
      lines: (plan.pack.loosened ?? []).map((l) => `${l.what}: ${l.from} to ${l.to}. Reason: ${l.reason}`),
    },
  ];
  return all.filter((x) => x.lines.length > 0);
}
