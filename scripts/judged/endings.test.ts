// @further every record of every trade, ended in every way at every entry; judged.test.ts judges each as it was made
/**
 * How runs end that went otherwise than they did. Every run of the demo, by both formats, is stopped at each of its steps for
 * each reason; smells at each; and is played to its end with one entry left out, or one figure a display step higher or lower.
 * Laws stand in words; beside them the verdicts are counted, and each word of them kept as it was when it was read.
 * UPDATE_JUDGED=1 writes them anew.
 */
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Plan } from '@/core/plan/plan';
import { eventSchema, type RunEvent } from '@/core/run/events';
import { escapes, unsafeOpen } from '@/core/run/read';
import { begin, step } from '@/core/run/reduce';
import type { RunState } from '@/core/run/state';
import { verdictOf, type Verdict } from '@/core/verdict/verdict';
import { isGood } from '@/core/verdict/words';
import { readDemo } from '../demo-data';
import { playDemo } from '../demo-play';
import { entryAfter, isFigure } from './entries';

const FILE = path.join(process.cwd(), 'scripts/judged/endings.json');
const UPDATE = process.env.UPDATE_JUDGED === '1';
const REASONS = ['smell', 'voltage', 'movement', 'mistake', 'abandoned'] as const;
interface Ends {
  readonly words: Record<string, number>;
  /** Over every verdict, its reasons and its adequacy. */
  readonly all: string;
}
const expected = (existsSync(FILE) ? JSON.parse(readFileSync(FILE, 'utf8')) : {}) as Record<string, Ends>;
const found: Record<string, Ends> = {};

const copyOf = (state: RunState) => JSON.parse(JSON.stringify(state)) as RunState;
/** The verdicts of one run's endings, counted and kept. */
function book(plan: Plan) {
  const words: Record<string, number> = {};
  const all = createHash('sha256');
  return {
    note(state: RunState): Verdict | null {
      const verdict = verdictOf(plan, state);
      const word = verdict?.word ?? state.phase;
      words[word] = (words[word] ?? 0) + 1;
      all.update(JSON.stringify([verdict, escapes(state), unsafeOpen(plan, state)]));
      return verdict;
    },
    close: (name: string) => {
      found[name] = {
        words: Object.fromEntries(Object.entries(words).sort()),
        all: all.digest('hex').slice(0, 24),
      };
      if (!UPDATE) expect(found[name]).toEqual(expected[name]);
    },
  };
}
const finish = (plan: Plan, state: RunState, rest: readonly RunEvent[]) => {
  for (const e of rest) step(plan, state, e);
  return state;
};

const runs = readDemo().runs.flatMap((d, i) =>
  ([2, 1] as const).map(
    (format) => [`demo ${i}: ${d.procedure} ${d.case}, format ${format}`, i, format] as const,
  ),
);
const played = new Map<number, ReturnType<typeof playDemo>[number]>();
const play = (i: number, format: 1 | 2) => {
  const run = played.get(i) ?? played.set(i, playDemo([i])[0]!).get(i)!;
  return { plan: { ...run.plan, format } as Plan, events: run.events as readonly RunEvent[] };
};

describe('stopped at any step', () => {
  test.each(runs)('%s', (name, i, format) => {
    const { plan, events } = play(i, format);
    const ends = book(plan);
    const state = begin(plan);
    events.forEach((event, n) => {
      const reason = REASONS[n % REASONS.length]!;
      const stopped = copyOf(state);
      const lost = Object.values(state.claims).some((c) => c.finding === 'not-tight');
      step(plan, stopped, entryAfter(stopped, event, { kind: 'stop' }));
      const why = { kind: 'stop-reason', reason, text: n % 2 ? 'said so' : '' };
      step(plan, stopped, entryAfter(stopped, event, { ...why, id: '0000000e-0000-4000-8000-00000000000e' }));
      const verdict = ends.note(stopped);
      // a run that had ended stays as it ended
      if (verdict && !state.ending) {
        // nobody is told "tight" by a run that was broken off, and a smell, or what was found before, is not forgotten
        expect(isGood(verdict.word)).toBe(false);
        if (format > 1 && (reason === 'smell' || lost)) expect(verdict.word).toBe('not-tight');
      }
      step(plan, state, event);
    });
    ends.close(`${name}, stopped`);
  });
});

describe('gas is smelt at any step, and the run goes on as it did', () => {
  test.each(runs)('%s', (name, i, format) => {
    const { plan, events } = play(i, format);
    const ends = book(plan);
    const state = begin(plan);
    events.forEach((event, n) => {
      if (n % 4 === 0) {
        const smelt = copyOf(state);
        step(
          plan,
          smelt,
          entryAfter(smelt, event, { kind: 'observation', what: 'smell', text: 'by the stair' }, 0),
        );
        const verdict = ends.note(finish(plan, smelt, events.slice(n)));
        if (smelt.observations.some((o) => o.what === 'smell') && verdict)
          expect(format > 1 ? verdict.word === 'not-tight' : !isGood(verdict.word)).toBe(true);
      }
      step(plan, state, event);
    });
    ends.close(`${name}, smelt`);
  });
});

describe('one entry left out, or a figure a display step beside', () => {
  test.each(runs)('%s', (name, i, format) => {
    const { plan, events } = play(i, format);
    const ends = book(plan);
    const state = begin(plan);
    events.forEach((event, n) => {
      const others = Object.entries(event).flatMap(([key, v]) =>
        isFigure(v) ? [-1, 1].map((d) => ({ ...event, [key]: { ...v, digits: v.digits + d } })) : [],
      );
      const tried = others.filter((e) => eventSchema.isValidSync(e, { strict: true }));
      const left = event.kind === 'check' || event.kind === 'debt' ? n % 5 === 0 : true;
      for (const first of [...(left ? [[]] : []), ...tried.map((e) => [e])])
        ends.note(finish(plan, copyOf(state), [...first, ...events.slice(n + 1)]));
      step(plan, state, event);
    });
    ends.close(`${name}, otherwise`);
  });
});

afterAll(() => {
  if (UPDATE) writeFileSync(FILE, `${JSON.stringify(found, null, 1)}\n`);
});
