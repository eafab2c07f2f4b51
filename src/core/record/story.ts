/** What happened in a run, in words: the log of a record, and what people typed, measured and chose beside the readings. */
import type { Plan } from '@/core/plan/plan';
import { add, exact, magnitude, showChange, showExact, type Exact } from '@/core/quantity/exact';
import { ownKitShares, shareWords } from '@/core/run/own-kit';
import { gaugeOfHold } from '@/core/run/read';
import { inOrder } from '@/core/run/reduce';
import type { PlacedEvent } from '@/core/run/events';
import type { RunState } from '@/core/run/state';
import { SEEN_WORDS } from './water-face';
import { DANGER_WORDS, JOINT_WORDS, WHOSE_WORDS } from './words';
import { inZone } from './zone';

/** Everything that happened, in order, in words: for the ledger's log of a record. */
export function storyOf(
  face: { readonly plan: Plan; readonly state: RunState },
  events: readonly PlacedEvent[],
): { at: string; server: string; who: string; what: string; note: string }[] {
  const { plan, state } = face;
  const without = new Map(state.withoutEffect.map((w) => [w.id, w]));
  return inOrder(events).map((e) => {
    const gone = without.get(e.id);
    return {
      at: inZone(e.at, e.zone),
      server: e.received === undefined ? 'on this device' : inZone(e.received, e.zone),
      who: e.byName,
      what: entryWords(plan, state, e),
      note: gone ? `no effect: ${gone.text}` : '',
    };
  });
}
const UNHELD_WORDS = {
  falls: 'said to keep falling',
  rises: 'said to keep rising',
  low: 'said to stay low with the source open',
} as const;
/** One entry in words, with everything that was typed in it. */
export function entryWords(plan: Plan, state: RunState, e: PlacedEvent): string {
  switch (e.kind) {
    case 'check': {
      const item = Object.values(plan.procedure.stages)
        .flatMap((s) => (s.kind === 'checks' ? s.items : []))
        .find((i) => i.key === e.item);
      const subject = plan.system.appliances.find((a) => a.id === e.subject)?.name;
      return `${subject ? `${subject}: ` : ''}${item?.text ?? e.item}: ${e.answer}`;
    }
    case 'proceed':
      return 'list complete';
    case 'gauge':
      return `gauge chosen: ${plan.gauges.find((g) => g.id === e.gauge)?.name ?? e.gauge}`;
    case 'kit':
      return e.kit.length
        ? `own kit on the section: ${e.kit.map((id) => plan.ownKit?.find((k) => k.id === id)?.name ?? id).join(', ')}`
        : 'no hose or rig of the cabinet on the section';
    case 'zero':
      return `zero open to air: ${showExact(e.figure)}`;
    case 'fill':
      return `raised to ${showExact(e.figure)}, closed`;
    case 'hold-start':
      return `hold started at ${showExact(e.figure)}`;
    case 'hold-end':
      return `hold ended at ${showExact(e.figure)}${e.short ? `, before the planned time: ${e.short}` : ''}`;
    case 'unheld':
      return `${UNHELD_WORDS[e.way]}: ${showExact(e.figure)}`;
    case 'reading':
      return `reading ${showExact(e.figure)}${e.late ? `, read ${inZone(e.readAt, e.zone)} (late entry)` : ''}${e.same ? ', same as before' : ''}${e.streamed ? ', from the display' : ''}`;
    case 'stream':
      return `${e.points.length} streamed display values${e.simulated ? ' (simulated gauge)' : ''}`;
    case 'top-up':
      return `re-adjusted from ${showExact(e.before)} to ${showExact(e.after)}${e.added ? `, ${showExact(e.added)} added` : ''}`;
    case 'pump-step':
      return `pumped to ${showExact(e.figure)}${e.strokes === undefined ? '' : `, ${e.strokes} strokes`}${e.added ? `, ${showExact(e.added)}` : ''}`;
    case 'pump-look':
      return `joints looked at, ${e.joints === 'dry' ? 'dry' : `drips: ${e.where}`}; ${showExact(e.figure)}`;
    case 'pump-failed':
      return `test pressure not reached: ${e.text}`;
    case 'draw-down':
      return `drained down to ${showExact(e.figure)}: ${showExact(e.volume)}`;
    case 'witness':
      return `second place at the ${e.when}: ${SEEN_WORDS[e.seen]}${e.text ? `, ${e.text}` : ''}`;
    case 'photo':
      return `photo: ${e.caption}`;
    case 'disturbance':
      return `disturbance: ${e.what}${e.text ? `, ${e.text}` : ''}`;
    case 'temperature':
      return `pipe temperature at the ${e.when}: ${showExact(e.figure)}`;
    case 'barometer':
      return e.figure ? `barometer at the ${e.when}: ${showExact(e.figure)}` : 'no barometer at hand';
    case 'joint':
      return `joint disturbed today: ${e.name}${e.place ? `, ${e.place}` : ''}${e.whose ? `, ${WHOSE_WORDS[e.whose]}` : ''}`;
    case 'joint-look':
      return `leak fluid on ${state.joints.find((j) => j.id === e.joint)?.name ?? e.joint}: ${JOINT_WORDS[e.found]}${e.size ? `, ${e.size}` : ''}`;
    case 'observation':
      return `${e.what} observed${e.text ? `: ${e.text}` : ''}`;
    case 'inventory':
      return `written down: ${[e.item.name, e.item.place, e.item.make, e.item.model, e.item.serial && `serial ${e.item.serial}`, e.item.note].filter(Boolean).join(', ')}`;
    case 'volume':
      return e.drawn && e.before && e.after
        ? `volume measured: ${showExact(e.drawn)} drawn, ${showExact(e.before)} to ${showExact(e.after)}`
        : 'volume taken from the pipe list';
    case 'dial-start':
      return `dial marked: ${e.mark}`;
    case 'dial-end':
      return `${
        e.moved
          ? `dial moved${e.turns ? ` ${showExact(e.turns)} of a turn` : ''}${e.direction ? `, ${e.direction}` : ''}`
          : 'dial stood still'
      }${e.short ? `; ended before the planned time: ${e.short}` : ''}`;
    case 'dial-input':
      return `${plan.system.appliances.find((a) => a.id === e.appliance)?.name ?? e.appliance}: ${showExact(e.turns)} turns in ${showExact(e.seconds)}`;
    case 'unsafe':
      return `${DANGER_WORDS[e.danger]}, ${e.action}: ${e.text}; told: ${e.told}`;
    case 'correction':
      return `reading corrected to ${showExact(e.figure)}: ${e.reason}`;
    case 'observe': {
      const stage = Object.values(plan.procedure.stages).find(
        (s) => s.kind === 'observe' && s.results.some((r) => r.key === e.result),
      );
      return `seen: ${(stage?.kind === 'observe' && stage.results.find((r) => r.key === e.result)?.text) || e.result}${e.text ? `; reason: ${e.text}` : ''}`;
    }
    case 'skip':
      return `left out: ${e.text}`;
    case 'note':
      return `note: ${e.text}`;
    case 'stop':
      return 'STOP';
    case 'stop-reason':
      return `stopped for: ${e.reason}${e.text ? `, ${e.text}` : ''}`;
    case 'debt':
      return `put back: ${e.text || (plan.procedure.debts[e.debt]?.text ?? e.debt)}`;
    case 'signature':
      return e.refused ? `${e.role} ${e.name} did not sign: ${e.refused}` : `${e.role} ${e.name} signed`;
  }
}

/** Entries with something a person typed or measured beside the readings: they stand on the certificate, not only in its log. */
const SAID: ReadonlySet<PlacedEvent['kind']> = new Set([
  'note',
  'disturbance',
  'observe',
  'hold-end',
  'dial-start',
  'dial-end',
  'correction',
  'pump-failed',
  'witness',
  'stop-reason',
]);
const typed = (e: PlacedEvent): boolean =>
  SAID.has(e.kind) &&
  (e.kind === 'hold-end'
    ? !!e.short
    : e.kind === 'observe' || e.kind === 'stop-reason' || e.kind === 'witness'
      ? !!e.text
      : true);

/** What was on the section of the tester's own, what it loses by itself, and both figures of each fall it can have a part in. */
function ownKitLines(plan: Plan, state: RunState): string[] {
  if (!plan.ownKit?.length) return [];
  if (!state.ownKit)
    return plan.ownKit.some((k) => k.blank) ? ['Which hose or rig was on the section was not said'] : [];
  const used = plan.ownKit.filter((k) => state.ownKit!.kit.includes(k.id));
  if (!used.length) return ['No hose or rig of the cabinet was on the section'];
  const lines = state.visits.flatMap((v) =>
    v.holds.flatMap((h) => {
      const gauge = gaugeOfHold(plan, h);
      const j = h.judgement;
      if (!gauge || !j || h.role === 'settle') return [];
      const minutes = j.elapsedMs / 60_000;
      const part = plan.procedure.stages[v.stage]?.part;
      const limit = j.limit?.value.unit === j.change.unit ? { limit: j.limit.value } : {};
      const shares = ownKitShares(plan, state, gauge, {
        part,
        role: h.role,
        minutes,
        start: h.start.figure,
        ...limit,
      });
      const lost = shares.reduce<Exact | null>(
        (sum, s) => (s.loss ? (sum ? add(sum, s.loss) : s.loss) : sum),
        null,
      );
      const both =
        lost && lost.digits > 0 && j.change.digits < 0
          ? `: fell ${showExact(magnitude(j.change))} as read; own kit alone at most ${showExact(lost)} of it. Nothing was taken off: the rule judges the whole fall`
          : '';
      return shares.map((s, i) => `${v.title}: ${shareWords(s)}${i === shares.length - 1 ? both : ''}`);
    }),
  );
  return lines.length
    ? lines
    : used.map((k) => `${k.name}${k.serial ? `, ${k.serial}` : ''}: on the section`);
}

/** What was typed during the test with time and person; what was read of the weather; where schools differ and which was taken. */
export function saidSections(
  plan: Plan,
  state: RunState,
  events: readonly PlacedEvent[],
): { readonly title: string; readonly lines: readonly string[] }[] {
  const zone = plan.made.zone;
  const when = (e: PlacedEvent) => inZone(e.at, zone).split(', ')[1];
  const line = (e: PlacedEvent) => {
    const without = state.withoutEffect.some((w) => w.id === e.id) ? ' (no effect)' : '';
    return `${when(e)}, ${e.byName}: ${entryWords(plan, state, e)}${without}`;
  };
  const ordered = inOrder(events);
  const holds = state.visits.flatMap((v) => v.holds.map((h) => ({ v, h })));
  return [
    { title: 'Notes and reasons', lines: ordered.filter(typed).map(line) },
    {
      title: 'Weather and temperature',
      lines: [
        ...ordered.filter((e) => e.kind === 'barometer' || e.kind === 'temperature').map(line),
        ...holds.flatMap(({ v, h }) => {
          const j = h.judgement;
          if (!j) return [];
          const unit = j.change.unit;
          return [
            ...(j.corrected === undefined
              ? []
              : [
                  `${v.title}: ${showChange(j.change)} as read; ${showChange(exact(Math.round(j.corrected * 10 ** j.change.scale), j.change.scale, unit))} with temperature and barometer taken out`,
                ]),
            ...(j.uncorrected
              ? [`${v.title}: ${showChange(j.change)} as read, not corrected: ${j.uncorrected}`]
              : []),
          ];
        }),
      ],
    },
    { title: 'Own kit', lines: ownKitLines(plan, state) },
    {
      title: 'Where schools differ',
      lines: plan.procedure.choices.map((c) => {
        const taken = plan.choices[c.key];
        const option = c.options.find((o) => o.key === taken);
        return `${c.question} ${option?.label ?? taken}${taken === c.default ? ` (the usual one: ${c.reason})` : ' (chosen for this test)'}`;
      }),
    },
  ];
}
