// @further forty scenarios conducted and graded
import fc from 'fast-check';
import gasJson from '@scenarios/gas.json';
import installations from '@scenarios/installations.json';
import rubricJson from '@scenarios/rubric.json';
import { packWith } from '@/core/testing/quarter';
import { occasion } from '@/core/testing/yard';
import { actSchema, type YardAct } from './acts';
import { debriefOf, endOf } from './debrief';
import { withFault } from './faults';
import { grade } from './grade';
import { liveOf, passedIn } from './live';
import { play } from './play';
import { type Criterion, parseScenario, type Scenario } from './scenario';
import { accountOfSession, actionsOf, due, type Session, worldOfScenario } from './session';

const rubric = rubricJson as unknown as Criterion[];
const scenarios = (gasJson as unknown[]).map(parseScenario);
const named = (id: string) => scenarios.find((s) => s.id === id)!;
const played = (s: Scenario, n = 0): Session =>
  play(s, s.conducts[n]!, packWith(s.procedure), installations as never, occasion);
const BEGAN = Date.parse(occasion.made.at);

test('the truth over the trace: alike where the gauge is right, apart where its needle hangs, and the moment it went wrong', () => {
  const sound = debriefOf(played(named('gas-sound')), rubric);
  const apart = (d: typeof sound) =>
    Math.max(...d.truth.filter((p) => p.shown > 1).map((p) => Math.abs(p.shown - p.perfect)));
  expect(apart(sound)).toBeLessThan(0.05);
  expect(sound.grade.wentWrong).toBeNull();
  const hangs = debriefOf(played(named('gas-sticking'), 1), rubric);
  expect(apart(hangs)).toBeGreaterThan(0.5);
  expect(hangs.grade.end).toBe('wrong');
  expect(hangs.grade.wentWrong! >= hangs.from && hangs.grade.wentWrong! <= hangs.until).toBe(true);
  // what it cost: nothing leaks of a sound one, of the other no more than its leak in all the time
  expect(sound.cost.lost).toBe(0);
  expect(hangs.cost.lost!).toBeGreaterThan(0);
  expect(hangs.cost.lost!).toBeLessThan((0.35 * (hangs.until - hangs.from)) / 3_600_000);
  expect(hangs.cost.about).toBe(named('gas-sticking').minutes);
  expect(hangs.stages.map((s) => s.title)).toEqual(expect.arrayContaining(['Let-by', 'Tightness']));
});
test('a right result without what proves it is luck, and says so', () => {
  const s = named('gas-smell');
  const lucky: Scenario = {
    ...s,
    criteria: s.criteria.filter((c) => c !== 'smell-stops'),
    truth: { ...s.truth, result: ['within-allowance'] },
    proof: ['let-by-first', 'never-done'],
    conducts: s.conducts,
  };
  const withMissing: Scenario = {
    ...lucky,
    criteria: [
      ...lucky.criteria,
      {
        id: 'never-done',
        about: 'safety',
        text: 'x',
        why: 'y',
        must: { did: { hand: 'dance' } },
      } as unknown as Criterion,
    ],
  };
  const session = { ...played(lucky, 1), scenario: withMissing };
  expect(grade(session, rubric, endOf(session)).end).toBe('lucky');
  // what is not asked proves nothing and is not missed
  expect(grade({ ...session, scenario: lucky }, rubric, endOf(session)).end).not.toBe('lucky');
});
test('who gives up without knowing why has no result, whatever stands there; who knows why has', () => {
  const session = played(named('gas-balance'));
  const stop = session.events.findIndex((e) => e.kind === 'proceed');
  const given = (cause: string): Session => {
    const events = session.events.slice(0, stop + 1);
    const last = events.at(-1)!;
    const more = [{ kind: 'stop' }, { kind: 'stop-reason', reason: 'abandoned', text: '' }].map((e, i) => ({
      ...last,
      ...e,
      id: last.id.replace(/.$/, String(i)).replace(/^0/, '9'),
      deviceSeq: last.deviceSeq + i + 1,
      position: undefined,
    }));
    const acts = [{ kind: 'concluded', at: last.at + 5, cause, place: '', because: '' } as YardAct];
    return { ...session, events: [...events, ...more] as unknown as Session['events'], acts };
  };
  const end = (cause: string) => grade(given(cause), rubric, BEGAN + 900_000);
  expect(end('sound')).toMatchObject({ end: 'unfinished', result: 'void' });
  expect(end('valve-and-leak').lines.find((l) => l.id === 'result')!.met).toBe(true);
});
test('what a dangerous act would have done is told at its moment, and ends it', () => {
  const s = named('gas-smell');
  const session = played(s, 1);
  const told = grade(session, rubric, endOf(session));
  expect([told.end, told.danger!.text]).toEqual(['dangerous', expect.stringMatching(/smells of gas/)]);
  const smell = session.acts.find((a) => a.kind === 'happened')!.at;
  expect(told.danger!.at).toBe(smell + 60_000);
  expect(liveOf(session, rubric, smell + 59_000).halted).toBeNull();
  expect(liveOf(session, rubric, smell + 61_000).halted).toMatchObject({ danger: true });
});
test('what is asked while it runs tells nothing of what is hidden; an exam not even its name', () => {
  const session = played(named('gas-balance'));
  for (const way of ['free', 'guided', 'exam'] as const) {
    const live = JSON.stringify(liveOf(session, rubric, endOf(session), way));
    expect(live).not.toMatch(/1\.152|1\.317|in balance|valve-and-leak|lets 0\.65/);
    expect(live.includes('Nothing moves')).toBe(way !== 'exam');
  }
  expect(liveOf(session, rubric, endOf(session), 'guided').guide.length).toBeGreaterThan(3);
  expect(liveOf(session, rubric, endOf(session), 'free').guide).toEqual([]);
});
test('a wait may be passed to shortly before its end, or to what comes about first, never beyond', () => {
  const s = named('gas-smell');
  const session = played(s, 1);
  const hold = session.events.findIndex((e) => e.kind === 'hold-start' && e.expects.includes('stabilise'));
  const before: Session = {
    ...session,
    events: session.events.slice(0, hold + 1),
    acts: session.acts.filter((a) => a.at <= session.events[hold]!.at),
  };
  const at = session.events[hold]!.at + 1000;
  const reached = accountOfSession(before, at).told.find((t) => t.reached === 'stabilise')!.at;
  // the smell comes twenty seconds after the stage is reached: the wait ends there
  expect(liveOf(before, rubric, at).mayPass).toBe(Math.max(0, reached + 20_000 - at));
  expect(due(before, accountOfSession(before, at), at)).toEqual([]);
  const later = reached + 20_000;
  expect(due(before, accountOfSession(before, later), later)).toEqual([{ id: 'smell', at: later }]);
});
test('another fault set by whoever trains takes the place of all that was hidden, and of what was true', () => {
  const other = withFault(named('gas-balance'), 'kit', 'Your own hose leaks');
  expect(other.truth).toMatchObject({
    cause: ['kit'],
    tells: expect.stringMatching(/own hose leaks/) as string,
  });
  expect(other.truth.place).toBeUndefined();
  const session = { ...played(named('gas-balance')), scenario: other };
  const world = worldOfScenario(other, session.plan, 3);
  expect(world.kind === 'gas' && world.truth.leaks.map((l) => l.at)).toEqual(['kit']);
  expect(() => withFault(named('gas-balance'), 'dragon', '')).toThrow(/dragon/);
  const live = actionsOf({
    ...session,
    acts: [{ kind: 'hidden', at: BEGAN + 5, by: 'T', change: { as: 'none' } }],
  });
  expect(live).toMatchObject([{ act: 'truth', change: { leaks: [], passes: {} } }]);
});
test('whatever acts are valid, in whatever order: they are told, and graded, and never throw', () => {
  const session = played(named('gas-refilled'));
  const when = fc.integer({ min: 0, max: 900_000 }).map((ms) => BEGAN + ms);
  const words = fc.constantFrom('hurry', 'skip', 'explain', 'kit', '', 'sound', 'oven');
  const act = fc.oneof(
    fc.record({
      kind: fc.constant('hand' as const),
      at: when,
      work: fc.record({ act: fc.constantFrom('zero', 'fluid', 'supply') }),
      action: fc.constantFrom(
        { act: 'zero' },
        { act: 'fluid', place: 'kit' },
        { act: 'supply', open: 'crack' },
      ),
    }),
    fc.record({ kind: fc.constant('happened' as const), at: when, happening: words.filter((w) => w !== '') }),
    fc.record({
      kind: fc.constant('answered' as const),
      at: when,
      happening: words.filter((w) => w !== ''),
      answer: words.filter((w) => w !== ''),
    }),
    fc.record({
      kind: fc.constant('concluded' as const),
      at: when,
      cause: words.filter((w) => w !== ''),
      place: words,
      because: words,
    }),
    fc.record({ kind: fc.constant('passed' as const), at: when, ms: fc.integer({ min: 1, max: 60_000 }) }),
    fc.record({ kind: fc.constant('paused' as const), at: when, paused: fc.boolean() }),
  ) as fc.Arbitrary<YardAct>;
  fc.assert(
    fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
      for (const a of acts) expect(() => actSchema.validateSync(a, { strict: true })).not.toThrow();
      const s = { ...session, acts };
      const graded = grade(s, rubric, endOf(s));
      expect(graded.lines.length).toBeGreaterThan(4);
      expect(grade(s, rubric, endOf(s))).toEqual(graded);
      expect(passedIn(acts)).toBe(acts.reduce((n, a) => n + (a.kind === 'passed' ? a.ms : 0), 0));
      liveOf(s, rubric, endOf(s), 'guided');
    }),
    { numRuns: 40 },
  );
});
test('forty scenarios are graded in under five seconds', () => {
  const sessions = scenarios.map((s) => played(s));
  const from = performance.now();
  for (let i = 0; i < 40; i += 1) {
    const s = sessions[i % sessions.length]!;
    grade(s, rubric, endOf(s));
  }
  expect(performance.now() - from).toBeLessThan(5000);
});
