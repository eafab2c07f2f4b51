/** What happened in a run, in words: the log of a record, and what people typed, measured and chose beside the readings. */
import type { Plan } from '@/core/plan/plan';
import { add, exact, type Exact, magnitude, showChange, showExact } from '@/core/quantity/exact';
import { clockInZone, inZone } from '@/core/quantity/in-zone';
import type { PlacedEvent } from '@/core/run/events';
import { foldOf } from '@/core/run/folds';
import { ownKitShares, shareWords } from '@/core/run/own-kit';
import { gaugeOfHold } from '@/core/run/read';
import { inOrder } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';

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
/** One entry in words, with everything that was typed in it. */
export const entryWords = (plan: Plan, state: RunState, e: PlacedEvent): string =>
  foldOf(e).words(e, { plan, state });

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
  const line = (e: PlacedEvent) => {
    const without = state.withoutEffect.some((w) => w.id === e.id) ? ' (no effect)' : '';
    return `${clockInZone(e.at, zone)}, ${e.byName}: ${entryWords(plan, state, e)}${without}`;
  };
  const ordered = inOrder(events);
  const holds = state.visits.flatMap((v) => v.holds.map((h) => ({ v, h })));
  return [
    { title: 'Notes and reasons', lines: ordered.filter((e) => foldOf(e).said?.(e)).map(line) },
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
