import { parseReading } from '@/core/instrument/gauge';
import type { Plan } from '@/core/plan/plan';
import { parseFigure } from '@/core/quantity/exact';
import { verdictOf } from '@/core/verdict/verdict';
import type { EventBase, Payload, PlacedEvent, RunEvent } from './events';
import {
  checkLines,
  currentCycle,
  currentVisit,
  debtWords,
  expectation,
  gaugeOf,
  inDebtOrder,
  positionLines,
  stageOf,
  stepOf,
} from './read';
import { reduce, step } from './reduce';
import type { RunState } from './state';
import { expectedItems } from './inventory';
import { lastReadingId } from './photos';

/**
 * A run written down by hand: each line is [seconds since the start, verb, ...arguments]. Turned into the events a
 * device would have made, so that demo history, tests and benchmarks go through the real path.
 *
 * verbs: checks (answers every open line; further arguments `line=yes`), gauge NAME, ownkit NAME..., zero F, fill F, start F, end F,
 * unheld falls|rises|low F, read F, topup F F [LITRES], pump F [LITRES [STROKES]], look F dry|drips [WHERE], nopump WHY, drawn F LITRES,
 * witness start|end same|fell|rose [TEXT], photo HASH CAPTION [SHOWS], disturb WHAT, temperature start|end F, barometer start|end|none F, observe KEY [WHY], skip REASON TEXT,
 * note TEXT, stop, reason R TEXT, joint NAME FOUND [SIZE], proceed, seen WHAT TEXT, volume [DRAWN BEFORE AFTER],
 * mark TEXT, still [WHY], moved TURNS, input APPLIANCE TURNS SECONDS, inventory all | ID POINT=SAID..., short F WHY,
 * putback, unsafe DANGER ACTION TEXT TOLD, sign NAME, customer NAME, seenby NAME OFFICE [whole|end], refuse NAME WHY
 */
export type ScriptLine = readonly [number, string, ...string[]];

/** Who writes the events: device identity, clock and person. `id` gives a fresh event id for a counter. */
export interface Scribe extends Pick<EventBase, 'device' | 'zone' | 'pageLoad' | 'by' | 'byName'> {
  readonly began: number;
  readonly offset?: number;
  readonly id: (n: number) => string;
  readonly strokes?: string;
}

/** @param options after: what stands in the log already  @throws Error naming the line when a verb is unknown or the event had no effect where it should have. */
export function playScript(
  plan: Plan,
  lines: readonly ScriptLine[],
  scribe: Scribe,
  options: { allowRefused?: boolean; after?: readonly PlacedEvent[] } = {},
): RunEvent[] {
  const events: RunEvent[] = [];
  const before = options.after?.length ?? 0;
  const state = reduce(plan, options.after ?? []);
  const offset = scribe.offset ?? 0;
  const queue = [...lines];
  for (let line = queue.shift(); line; line = queue.shift()) {
    const [seconds, verb, ...args] = line;
    const at = scribe.began + Math.round(seconds * 1000) - offset;
    for (const payload of payloads(plan, state, verb, args, at, scribe)) {
      const n = before + events.length + 1;
      const event = {
        ...payload,
        id: scribe.id(n),
        run: plan.run,
        device: scribe.device,
        deviceSeq: n - before,
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
      const refused = step(plan, state, event);
      if (refused?.code === 'tap') {
        // a dial close to its limit: tapped, and read again five seconds later
        queue.unshift([seconds + 5, verb, ...args]);
        break;
      }
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
  state: RunState,
  verb: string,
  args: readonly string[],
  at: number,
  scribe: Scribe,
): Payload[] {
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
        answer: (said[l.item.key] as 'yes') ?? (l.item.ask ? (l.item.must?.answer ?? 'no') : 'done'),
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
    case 'ownkit': {
      const kit = args.map((name) => plan.ownKit?.find((k) => k.name === name)?.id ?? name);
      return [{ kind: 'kit', kit }];
    }
    case 'zero':
      return [{ kind: 'zero', figure: figure(first), openToAir: true }];
    case 'fill':
      return [{ kind: 'fill', confirmed: true, ...timed(first) }];
    case 'start':
      return [{ kind: 'hold-start', ...timed(first) }];
    case 'end':
      return [{ kind: 'hold-end', ...timed(first) }];
    case 'unheld':
      return [{ kind: 'unheld', way: first as 'falls', ...timed(second) }];
    case 'read':
      return [{ kind: 'reading', ...timed(first) }];
    case 'topup':
      return [
        {
          kind: 'top-up',
          before: figure(first),
          after: figure(second),
          ...(args[2] ? { added: parseFigure(args[2], 'l') } : {}),
        },
      ];
    case 'pump':
      return [
        {
          kind: 'pump-step',
          ...timed(first),
          ...(second ? { added: parseFigure(second, 'l') } : {}),
          ...(args[2] ? { strokes: Number(args[2]) } : {}),
        },
      ];
    case 'look':
      return [{ kind: 'pump-look', ...timed(first), joints: second as 'dry', where: args[2] ?? '' }];
    case 'nopump':
      return [{ kind: 'pump-failed', text: first }];
    case 'drawn':
      return [{ kind: 'draw-down', ...timed(first), volume: parseFigure(second, 'l') }];
    case 'witness':
      return [{ kind: 'witness', when: first as 'end', seen: second as 'same', text: args[2] ?? '' }];
    case 'photo':
      return [
        {
          kind: 'photo',
          hash: first,
          caption: second,
          ...(args[2] ? { shows: args[2] as 'gauge' } : {}),
          ...(lastReadingId(state) ? { beside: lastReadingId(state)! } : {}),
        },
      ];
    case 'disturb':
      return [{ kind: 'disturbance', what: first, text: second }];
    case 'temperature':
      return [{ kind: 'temperature', when: first as 'start', figure: parseFigure(second, 'C') }];
    case 'short':
      return [{ kind: 'hold-end', short: second, ...timed(first) }];
    case 'barometer':
      return first === 'none'
        ? [{ kind: 'barometer', when: 'start', none: true }]
        : [{ kind: 'barometer', when: first as 'start', figure: parseFigure(second, 'mbar') }];
    case 'joint': {
      const id = first.toLowerCase().replace(/[^a-z0-9]+/g, '-');
      const look: Payload = {
        kind: 'joint-look',
        joint: id,
        found: second as 'none',
        ...(args[2] ? { size: args[2] as 'pea' } : {}),
      };
      return state.joints.some((j) => j.id === id)
        ? [look]
        : [{ kind: 'joint', joint: id, name: first, place: '' }, look];
    }
    case 'proceed':
      return [{ kind: 'proceed' }];
    case 'seen':
      return [{ kind: 'observation', what: first as 'smell', text: second }];
    case 'volume':
      return [
        first
          ? {
              kind: 'volume',
              drawn: parseFigure(first, 'l'),
              before: figure(second),
              after: figure(args[2] ?? ''),
            }
          : { kind: 'volume' },
      ];
    case 'mark':
      return [{ kind: 'dial-start', mark: first }];
    case 'still':
      return [{ kind: 'dial-end', moved: false, ...(first ? { short: first } : {}) }];
    case 'moved':
      return [{ kind: 'dial-end', moved: true, turns: parseFigure(first, '1'), direction: 'forward' }];
    case 'input':
      return [
        {
          kind: 'dial-input',
          appliance: first,
          turns: parseFigure(second, '1'),
          seconds: parseFigure(args[2] ?? '', 's'),
        },
      ];
    case 'inventory': {
      const kinds = plan.procedure.inventory ?? [];
      const said = Object.fromEntries(args.slice(1).map((a) => a.split('=') as [string, string]));
      return kinds
        .flatMap((k) => expectedItems(plan.system, k.kind).map((item) => ({ item, k })))
        .filter(({ item }) => first === 'all' || item.id === first)
        .map(({ item, k }) => ({
          kind: 'inventory',
          item: {
            ...item,
            serial: said.serial ?? item.serial,
            model: said.model ?? item.model,
            make: said.make ?? item.make,
            points: Object.fromEntries(k.points.map((p) => [p.key, (said[p.key] as 'good') ?? 'good'])),
            note: '',
          },
        }));
    }
    case 'unsafe':
      return [
        {
          kind: 'unsafe',
          danger: first as 'at-risk',
          action: second as 'labelled',
          text: args[2] ?? '',
          told: args[3] ?? '',
        },
      ];
    case 'observe':
      return [{ kind: 'observe', result: first, ...(second ? { text: second } : {}) }];
    case 'skip':
      return [{ kind: 'skip', reason: first, text: second }];
    case 'note':
      return [{ kind: 'note', text: first }];
    case 'stop':
      return [{ kind: 'stop' }];
    case 'reason':
      return [{ kind: 'stop-reason', reason: first as 'smell', text: second }];
    case 'putback': {
      const good = verdictOf(plan, state)!.use !== 'shut-off';
      return inDebtOrder(plan, state).map((d) => {
        const { text, proof, unsafe, answers } = plan.procedure.debts[d.key]!;
        const said = args.find((a) => a.startsWith(`${d.subject}=`))?.split('=')[1];
        const answer = good ? (answers?.find((a) => a.key === said) ?? answers?.[0]) : undefined;
        const words = good
          ? (answer?.text ?? (proof ? `${text} (proof: ${proof[0]})` : text))
          : (unsafe ?? text);
        return {
          kind: 'debt',
          debt: d.key,
          text: debtWords(plan, d, words),
          ...(d.subject ? { subject: d.subject } : {}),
          ...(answer ? { answer: answer.key } : {}),
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
    case 'seenby':
      return [
        {
          kind: 'signature',
          role: 'witness',
          name: first,
          as: second,
          saw: (args[2] ?? 'whole') as 'whole',
          strokes: scribe.strokes ?? 'M 8 34 C 26 8 40 58 66 28 C 84 10 98 46 126 26',
        },
      ];
    case 'refuse':
      return [{ kind: 'signature', role: 'customer', name: first, refused: second }];
    default:
      throw new Error(`Unknown verb "${verb}" (step ${stepOf(state)}).`);
  }
}
