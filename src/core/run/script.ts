import { parseReading } from '@/core/instrument/gauge';
import type { Plan } from '@/core/plan/plan';
import { parseFigure } from '@/core/quantity/exact';
import { verdictOf } from '@/core/verdict/verdict';
import type { EventBase, Payload, PlacedEvent, RunEvent } from './events';
import {
  checkLines,
  currentCycle,
  currentVisit,
  expectation,
  gaugeOf,
  positionLines,
  stageOf,
  stepOf,
} from './read';
import { reduce } from './reduce';

/**
 * A run written down by hand: each line is [seconds since the start, verb, ...arguments]. Turned into the events a
 * device would have made, so that demo history, tests and benchmarks go through the real path.
 *
 * verbs: checks (answers every open line; further arguments `line=yes`), gauge NAME, zero F, fill F, start F, end F,
 * read F, topup F F, disturb WHAT, temperature start|end F, observe KEY, skip REASON TEXT, note TEXT, stop,
 * reason R TEXT, putback, sign NAME, customer NAME, refuse NAME WHY
 */
export type ScriptLine = readonly [number, string, ...string[]];

/** Who writes the events: device identity, clock and person. `id` gives a fresh event id for a counter. */
export interface Scribe extends Pick<EventBase, 'device' | 'zone' | 'pageLoad' | 'by' | 'byName'> {
  readonly began: number;
  readonly offset?: number;
  readonly id: (n: number) => string;
  readonly strokes?: string;
}

/** @throws Error naming the line when a verb is unknown or the event had no effect where it should have. */
export function playScript(
  plan: Plan,
  lines: readonly ScriptLine[],
  scribe: Scribe,
  options: { allowRefused?: boolean } = {},
): RunEvent[] {
  const events: RunEvent[] = [];
  const offset = scribe.offset ?? 0;
  for (const [seconds, verb, ...args] of lines) {
    const at = scribe.began + Math.round(seconds * 1000) - offset;
    for (const payload of payloads(plan, events, verb, args, at, scribe)) {
      const n = events.length + 1;
      const state = reduce(plan, events);
      const event = {
        ...payload,
        id: scribe.id(n),
        run: plan.run,
        device: scribe.device,
        deviceSeq: n,
        at,
        zone: scribe.zone,
        offset,
        mono: Math.max(0, Math.round(seconds * 1000)),
        pageLoad: scribe.pageLoad,
        by: scribe.by,
        byName: scribe.byName,
        expects: expectation(state),
      } as RunEvent;
      events.push(event);
      const refused = reduce(plan, events).withoutEffect.find((w) => w.id === event.id);
      if (refused && !options.allowRefused)
        throw new Error(`Line "${[seconds, verb, ...args].join(' ')}" had no effect: ${refused.text}`);
    }
  }
  return events;
}

/** Gives each event its place in the order they stand, as the server does on receipt. */
export const place = (events: readonly RunEvent[]): PlacedEvent[] =>
  events.map((e, i) => ({ ...e, position: i + 1 }));

function payloads(
  plan: Plan,
  events: readonly PlacedEvent[],
  verb: string,
  args: readonly string[],
  at: number,
  scribe: Scribe,
): Payload[] {
  const state = reduce(plan, events);
  const visit = currentVisit(state);
  const [first = '', second = ''] = args;
  const figure = (text: string) => {
    const gauge = gaugeOf(plan, state);
    return gauge ? parseReading(text, gauge) : parseFigure(text, 'mbar');
  };
  const timed = (text: string) => ({ figure: figure(text), readAt: at });
  switch (verb) {
    case 'checks': {
      const said = Object.fromEntries(args.map((a) => a.split('=') as [string, string]));
      const stage = stageOf(plan, visit!);
      if (stage.kind === 'isolate-and-repeat')
        return positionLines(plan, stage, currentCycle(visit!)!).map((l) => ({
          kind: 'check',
          item: l.id.split('/')[0]!,
          subject: l.id.split('/')[1]!,
          answer: 'done',
        }));
      if (stage.kind !== 'checks') throw new Error('No check list stands here.');
      const list = checkLines(plan, stage).map((l): Payload => ({
        kind: 'check',
        item: l.item.key,
        ...(l.subject ? { subject: l.subject.id } : {}),
        answer: (said[l.item.key] as 'yes') ?? (l.item.ask ? 'no' : 'done'),
      }));
      const stopper = list.findIndex(
        (p) => p.kind === 'check' && p.answer === 'yes' && stage.items.find((i) => i.key === p.item)?.yes,
      );
      return stopper >= 0 ? list.slice(0, stopper + 1) : [...list, { kind: 'proceed' }];
    }
    case 'gauge': {
      const gauge = plan.gauges.find((g) => g.name === first);
      if (!gauge) throw new Error(`No gauge "${first}".`);
      return [{ kind: 'gauge', gauge: gauge.id }];
    }
    case 'zero':
      return [{ kind: 'zero', figure: figure(first), openToAir: true }];
    case 'fill':
      return [{ kind: 'fill', confirmed: true, ...timed(first) }];
    case 'start':
      return [{ kind: 'hold-start', ...timed(first) }];
    case 'end':
      return [{ kind: 'hold-end', ...timed(first) }];
    case 'read':
      return [{ kind: 'reading', ...timed(first) }];
    case 'topup':
      return [{ kind: 'top-up', before: figure(first), after: figure(second) }];
    case 'disturb':
      return [{ kind: 'disturbance', what: first, text: second }];
    case 'temperature':
      return [{ kind: 'temperature', when: first as 'start', figure: parseFigure(second, 'C') }];
    case 'observe':
      return [{ kind: 'observe', result: first }];
    case 'skip':
      return [{ kind: 'skip', reason: first, text: second }];
    case 'note':
      return [{ kind: 'note', text: first }];
    case 'stop':
      return [{ kind: 'stop' }];
    case 'reason':
      return [{ kind: 'stop-reason', reason: first as 'smell', text: second }];
    case 'putback': {
      const good = ['tight', 'within-allowance'].includes(verdictOf(plan, state)!.word);
      return state.debts
        .filter((d) => !d.cleared)
        .map((d) => {
          const { text, proof, unsafe } = plan.procedure.debts[d.key]!;
          return {
            kind: 'debt',
            debt: d.key,
            text: good ? (proof ? `${text} (proof: ${proof[0]})` : text) : (unsafe ?? text),
          };
        });
    }
    case 'sign':
      return [
        {
          kind: 'signature',
          role: 'tester',
          name: first,
          strokes: scribe.strokes ?? 'M 4 40 C 30 5 44 60 70 30 C 90 12 110 44 150 22',
        },
      ];
    case 'customer':
      return [
        {
          kind: 'signature',
          role: 'customer',
          name: first,
          strokes: scribe.strokes ?? 'M 6 30 C 20 50 48 4 60 34 C 80 50 96 10 132 32',
        },
      ];
    case 'refuse':
      return [{ kind: 'signature', role: 'customer', name: first, refused: second }];
    default:
      throw new Error(`Unknown verb "${verb}" (step ${stepOf(state)}).`);
  }
}
