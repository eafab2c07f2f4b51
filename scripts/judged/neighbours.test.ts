// @further a minute by itself: every entry of every record, tried a little otherwise
/**
 * The entries beside those that were made. At every step of every run of the demo each entry is tried a little otherwise:
 * a display step up or down, exactly at and just past each limit, a second early, a day late, another answer, another unit,
 * the opposite, nothing; at every third, what may come at any moment is tried too: STOP, a smell, another gauge, a photo, a
 * correction, what will not stand, a log read in. What is refused and why, and the whole state that follows, must stay as it was when it was read.
 * Beside it stands what the bench would say and ask in each state. UPDATE_JUDGED=1 writes both anew.
 */
import { newRooms } from '@/core/kinds/rooms';
import { newSearch } from '@/core/run/isolations';
import type { Plan } from '@/core/plan/plan';
import { barometerNeeded } from '@/core/run/barometer';
import { COURSES } from '@/core/run/courses';
import { eventSchema, type RunEvent } from '@/core/run/events';
import { foldOf } from '@/core/run/folds';
import { faultsFound, missingInventory } from '@/core/run/inventory';
import { ownKitShares } from '@/core/run/own-kit';
import { besidePhoto, lastReadingId } from '@/core/run/photos';
import {
  checkLines,
  currentVisit,
  debtBefore,
  debtWords,
  drips,
  escapes,
  expectation,
  gaugeOf,
  inDebtOrder,
  leakingBounds,
  leakingJoints,
  openJoints,
  openLines,
  runningHold,
  stageOf,
  temperatureNeeded,
  unsafeOpen,
} from '@/core/run/read';
import { begin, step } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import { stepTimes } from '@/core/run/step-times';
import { unheldWays } from '@/core/run/unheld';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readDemo } from '../demo-data';
import { playDemo } from '../demo-play';
import { limitsHere, neighbours, strangers } from './entries';

const FILE = path.join(process.cwd(), 'scripts/judged/neighbours.json');
const UPDATE = process.env.UPDATE_JUDGED === '1';
interface Seen {
  /** Entries tried, refused, by code. */
  readonly refused: Record<string, number>;
  readonly taken: number;
  /** Over every refusal's words and every state that followed. */
  readonly states: string;
  readonly asked: string;
}
const expected = (existsSync(FILE) ? JSON.parse(readFileSync(FILE, 'utf8')) : {}) as Record<string, Seen>;
const found: Record<string, Seen> = {};

/** What the bench says and asks where the run stands now. */
function asks(plan: Plan, state: RunState): unknown[] {
  const visit = currentVisit(state);
  const stage = visit && stageOf(plan, visit);
  const hold = runningHold(state);
  return [
    expectation(state),
    stage && [
      unheldWays(state, stage),
      stage.kind === 'checks' ? checkLines(plan, stage).map((l) => l.id) : [],
    ],
    visit && [
      stage?.kind === 'checks' ? openLines(plan, visit).map((l) => l.id) : [],
      COURSES[visit.kind](visit, plan),
    ],
    hold && stage && [temperatureNeeded(plan, state, hold), barometerNeeded(plan, state, stage, hold)],
    hold &&
      gaugeOf(plan, state) &&
      ownKitShares(plan, state, gaugeOf(plan, state)!, {
        part: stage?.part,
        role: hold.role,
        minutes: hold.minutes,
        start: hold.start.figure,
      }),
    [openJoints(state), leakingJoints(state), leakingBounds(state)].map((list) => list.map((j) => j.id)),
    [escapes(state), drips(state), unsafeOpen(plan, state)],
    inDebtOrder(plan, state).map((d) => [debtWords(plan, d), debtBefore(plan, state, d.key)]),
    [missingInventory(plan, state), faultsFound(plan, state), lastReadingId(state)],
    state.photos.map((p) => besidePhoto(state, p)),
    stepTimes(state),
  ];
}

const NOTHING: Record<string, string> = {
  rooms: JSON.stringify(newRooms()),
  papers: JSON.stringify({ site: null, calibrations: {} }),
  search: JSON.stringify(newSearch()),
  back: '[]',
  undone: '[]',
};
/** A state as it is compared: what holds nothing is none of it, so that a new kind or a new page of the run changes nothing here. */
function shown(state: RunState): RunState {
  return Object.fromEntries(
    Object.entries(state).filter(([key, value]) => NOTHING[key] !== JSON.stringify(value)),
  ) as unknown as RunState;
}
const runs = readDemo().runs.map((d, i) => [`demo ${i}: ${d.procedure} ${d.case}`, i] as const);
test.each(runs)('%s', (name, i) => {
  const { plan, events } = playDemo([i])[0]!;
  const state = begin(plan);
  const [states, asked] = [createHash('sha256'), createHash('sha256')];
  const refused: Record<string, number> = {};
  let taken = 0;
  for (const { position: _p, received: _r, ...placed } of events) {
    const event = placed as RunEvent;
    const limits = limitsHere(plan, state);
    const now = JSON.stringify(state);
    // lines of one list are much alike: one in four is enough
    const alike = event.kind === 'check' && event.deviceSeq % 4 !== 0;
    /** Tries an entry on the run as it stands, and keeps what came of it. */
    const attempt = (other: RunEvent, said: (no: ReturnType<typeof step>, copy: RunState) => unknown) => {
      if (!eventSchema.isValidSync(other, { strict: true })) return;
      const copy = JSON.parse(now) as RunState;
      const no = step(plan, copy, other);
      if (no) refused[no.code] = (refused[no.code] ?? 0) + 1;
      else taken += 1;
      states.update(JSON.stringify(said(no, copy)));
    };
    for (const other of alike ? [] : neighbours(event, limits))
      attempt(other, (no, copy) => [
        no,
        no ? '' : foldOf(other).words(other, { plan, state: copy }),
        shown(copy),
      ]);
    if (event.deviceSeq % 3 === 0)
      for (const other of strangers(plan, state, event))
        attempt(other, (no, copy) => [no, shown(copy), no ? [] : asks(plan, copy)]);
    step(plan, state, event);
    asked.update(JSON.stringify(asks(plan, state)));
  }
  found[name] = {
    refused: Object.fromEntries(Object.entries(refused).sort()),
    taken,
    states: states.digest('hex').slice(0, 24),
    asked: asked.digest('hex').slice(0, 24),
  };
  if (!UPDATE) expect(found[name]).toEqual(expected[name]);
});
afterAll(() => {
  if (UPDATE) writeFileSync(FILE, `${JSON.stringify(found, null, 1)}\n`);
});
