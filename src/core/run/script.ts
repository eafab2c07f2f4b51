import { bucketVerbs } from '@/core/kinds/bucket/script';
import { cureVerbs } from '@/core/kinds/cure/script';
import { cylinderVerbs } from '@/core/kinds/cylinder/script';
import { checksVerbs } from '@/core/kinds/checks/script';
import { zeroVerbs } from '@/core/kinds/zero/script';
import { fanVerbs } from '@/core/kinds/fan/script';
import { fillVerbs } from '@/core/kinds/fill/script';
import { holdVerbs } from '@/core/kinds/hold/script';
import { pumpVerbs } from '@/core/kinds/pump/script';
import { smokeVerbs } from '@/core/kinds/smoke/script';
import { drawDownVerbs } from '@/core/kinds/draw-down/script';
import { listenVerbs } from '@/core/kinds/listen/script';
import { mapVerbs } from '@/core/kinds/map/script';
import { observeVerbs } from '@/core/kinds/observe/script';
import { jointsVerbs } from '@/core/kinds/joints/script';
import { plugsVerbs } from '@/core/kinds/plugs/script';
import { inventoryVerbs } from '@/core/kinds/inventory/script';
import { volumeVerbs } from '@/core/kinds/volume/script';
import { dialVerbs } from '@/core/kinds/dial/script';
import type { Plan } from '@/core/plan/plan';
import { momentOf, type EventBase, type PlacedEvent, type RunEvent } from './events';
import { generalVerbs } from './general-verbs';
import { expectation, stepOf } from './read';
import { reduce, step } from './reduce';
import { verbOn, type Verbs } from './verbs';

/**
 * A run written down by hand: each line is [seconds since the start, verb, ...arguments]. Turned into the events a
 * device would have made, so that demo history, tests and benchmarks go through the real path.
 *
 * verbs: checks (answers every open line; further arguments `line=yes`), gauge NAME, ownkit NAME..., zero F, fill F, start F, end F,
 * unheld falls|rises|low F, read F, topup F F [LITRES], pump F [LITRES [STROKES]], look F dry|drips [WHERE], nopump WHY, drawn F LITRES,
 * witness start|end same|fell|rose [TEXT], photo HASH CAPTION [SHOWS], disturb WHAT, temperature start|end F, barometer start|end|none F, observe KEY [WHY], skip REASON TEXT,
 * note TEXT, undo [WHY], stop, reason R TEXT, joint NAME FOUND [SIZE], proceed, seen WHAT TEXT, volume [DRAWN BEFORE AFTER],
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
  const takesBack = lines.some(([, verb]) => verb === 'undo');
  for (let line = queue.shift(); line; line = queue.shift()) {
    const [seconds, verb, ...args] = line;
    const at = scribe.began + Math.round(seconds * 1000) - offset;
    const made = Object.hasOwn(VERBS, verb) ? VERBS[verb] : undefined;
    if (!made) throw new Error(`Unknown verb "${verb}" (step ${stepOf(state)}).`);
    for (const payload of [made(verbOn(plan, state, args, at, scribe.strokes))].flat()) {
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
      const refused = step(plan, state, event, takesBack);
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

/** Gives each event its place in the order they stand, as the server does on receipt: at once, where nothing else is said. */
export const place = (events: readonly RunEvent[], received = momentOf): PlacedEvent[] =>
  events.map((e, i) => ({ ...e, position: i + 1, received: received(e) }));

/** Every verb there is. A new kind of stage adds its own. */
const VERBS: Verbs = merged([
  generalVerbs,
  checksVerbs,
  zeroVerbs,
  fillVerbs,
  holdVerbs,
  pumpVerbs,
  drawDownVerbs,
  observeVerbs,
  jointsVerbs,
  inventoryVerbs,
  volumeVerbs,
  dialVerbs,
  mapVerbs,
  plugsVerbs,
  bucketVerbs,
  cureVerbs,
  listenVerbs,
  cylinderVerbs,
  fanVerbs,
  smokeVerbs,
]);
/** All verbs as one list. @throws Error where two rooms use one word for two things: the later would silently win */
function merged(rooms: readonly Verbs[]): Verbs {
  const all: Record<string, Verbs[string]> = {};
  for (const room of rooms)
    for (const [word, verb] of Object.entries(room)) {
      if (Object.hasOwn(all, word)) throw new Error(`Two kinds of stage use the verb "${word}".`);
      all[word] = verb;
    }
  return all;
}
