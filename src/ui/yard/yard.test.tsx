/** @jest-environment jsdom */
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { plan } from '@/core/testing/bakery';
import type { Debrief, ScenarioCard, TaskRow, YardNow } from '@/wire/yard';
import { DebriefView } from './debrief';
import { YardList } from './yard-list';
import { YardPane } from './yard-pane';

const click = (el: HTMLElement) => act(async () => void fireEvent.click(el));
const enter = (el: HTMLElement, value: string) =>
  act(async () => void fireEvent.change(el, { target: { value } }));
const sent: { path: string; body: unknown }[] = [];
let answer: (path: string) => unknown = () => ({});
jest.mock('@/device/office', () => ({
  office: async (path: string, said?: { body?: object }) => {
    if (said?.body) sent.push({ path, body: said.body });
    const value = answer(path);
    if (value instanceof Error) throw value;
    return value;
  },
}));
jest.mock('@/ui/frame/may', () => ({ useMay: () => true }));
beforeEach(() => {
  sent.length = 0;
});
afterEach(cleanup);
const live = (over: Partial<YardNow> = {}): YardNow => ({
  title: 'What the nose says',
  briefing: 'The windows are shut.',
  minutes: 8,
  happened: [],
  notes: [],
  halted: null,
  ended: false,
  concluded: false,
  kept: 0,
  stands: null,
  mayPass: 0,
  passed: 0,
  guide: [],
  places: [{ id: 'oven', name: 'Deck oven' }],
  way: 'free',
  at: 0,
  ...over,
});
const pass = (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));
const show = async (over: Partial<YardNow> = {}, props = { ended: false, fresh: false }) => {
  answer = () => live(over);
  await act(async () => void render(<YardPane plan={plan({ practice: true })} {...props} />));
};

test('what comes in between is said, asks for an answer, and the answer is sent once', async () => {
  await show({
    happened: [
      {
        id: 'hurry',
        at: 0,
        who: 'The baker',
        says: 'Can you not leave it out?',
        answers: [{ key: 'no', text: 'No: it is one minute.' }],
        answered: null,
      },
    ],
  });
  expect(screen.getByRole('group', { name: 'Can you not leave it out?' })).toBeTruthy();
  await click(screen.getByRole('button', { name: 'No: it is one minute.' }));
  expect(sent).toEqual([
    {
      path: expect.stringMatching(/yard\/runs\/.*\/acts$/),
      body: { kind: 'answered', happening: 'hurry', answer: 'no' },
    },
  ]);
});
test('a wait that nothing is asked in can be passed, with its minutes; none, no button', async () => {
  await show({ mayPass: 52_000 });
  await click(screen.getByRole('button', { name: 'Pass 52 s of waiting' }));
  expect(sent[0]!.body).toEqual({ kind: 'pass' });
  cleanup();
  await show({ mayPass: 3_540_000 });
  expect(screen.getByRole('button', { name: 'Pass 59 min of waiting' })).toBeTruthy();
  cleanup();
  await show();
  expect(screen.queryByRole('button', { name: /^Pass/ })).toBeNull();
});
test('asked before something was done and answered after it: the older answer undoes nothing', async () => {
  jest.useFakeTimers();
  try {
    await show({ kept: 5, mayPass: 52_000 });
    let tell: (now: YardNow) => void = () => {};
    answer = (path) =>
      path.endsWith('/acts')
        ? live({ kept: 6, passed: 52_000 })
        : new Promise<YardNow>((on) => void (tell = on));
    await pass(2500);
    await click(screen.getByRole('button', { name: 'Pass 52 s of waiting' }));
    expect(screen.queryByRole('button', { name: /^Pass/ })).toBeNull();
    await act(async () => tell(live({ kept: 5, mayPass: 52_000 })));
    expect(screen.queryByRole('button', { name: /^Pass/ })).toBeNull();
  } finally {
    jest.useRealTimers();
  }
});
test('what it was is asked only when it is over, and nothing of it is told before', async () => {
  await show();
  expect(screen.queryByText('What was it?')).toBeNull();
  cleanup();
  await show({}, { ended: true, fresh: false });
  const say = screen.getByRole('button', { name: /Say so/ });
  expect((say as HTMLButtonElement).disabled).toBe(true);
  await enter(screen.getByLabelText('Cause'), 'appliance-leak');
  await enter(screen.getByLabelText('Where, if you know'), 'oven');
  await enter(screen.getByLabelText('How do you know?'), 'It bubbled');
  await click(say);
  expect(sent[0]!.body).toEqual({
    kind: 'concluded',
    cause: 'appliance-leak',
    place: 'oven',
    because: 'It bubbled',
  });
});
test('said before the end of the test is with the office it goes after it by itself, once', async () => {
  jest.useFakeTimers();
  try {
    let refusals = 2;
    await show({ kept: 7 }, { ended: true, fresh: false });
    await enter(screen.getByLabelText('Cause'), 'appliance-leak');
    answer = (path) => {
      if (!path.endsWith('/acts')) return live({ kept: 7 });
      if (refusals-- > 0)
        return Object.assign(new Error('Bring the test to its end first'), { code: 'not-ended' });
      return live({ concluded: true, kept: 9 });
    };
    const say = screen.getByRole('button', { name: /Say so/ });
    await click(say);
    expect(screen.getByText(/on its way to the office/)).toBeTruthy();
    // pressed again it is not said twice
    await click(say);
    await pass(1000);
    expect(sent).toHaveLength(2);
    expect(screen.queryByRole('link', { name: 'See what it was' })).toBeNull();
    await pass(1000);
    expect(screen.getByRole('link', { name: 'See what it was' }).getAttribute('href')).toMatch(/^\/yard\//);
    expect(screen.queryByText(/on its way to the office/)).toBeNull();
    await pass(60_000);
    expect(sent).toHaveLength(3);
  } finally {
    jest.useRealTimers();
  }
});
test('dangerous is told at once, and nothing more can be passed or answered', async () => {
  await show({ halted: { why: 'A switch is enough.', danger: true }, mayPass: 60_000 });
  const said = screen
    .getAllByRole('alert')
    .map((a) => a.textContent)
    .join('');
  expect(said).toMatch(/dangerous.*A switch is enough/);
  expect(screen.queryByRole('button', { name: /^Pass/ })).toBeNull();
});
test('the task stands open at the beginning; guided, what is asked stands with its reason', async () => {
  await show(
    {
      guide: [
        { id: 'a', text: 'Soap your own hose', why: 'It is the newest joint.', met: false },
        { id: 'b', text: 'Zero it', why: 'no matter', met: true },
      ],
    },
    { ended: false, fresh: true },
  );
  expect(screen.getByText('The windows are shut.')).toBeTruthy();
  expect(screen.getByText(/1 of 2 so far/)).toBeTruthy();
  expect(screen.getByText('It is the newest joint.')).toBeTruthy();
  expect(screen.queryByText('no matter')).toBeNull();
});
test('practice without a scenario has none of this', async () => {
  answer = () => Object.assign(new Error('no such run'), { status: 404 });
  await act(async () => void render(<YardPane plan={plan({ practice: true })} ended={false} fresh />));
  expect(screen.queryByText(/^Practice:/)).toBeNull();
});

const card = (over: Partial<ScenarioCard>): ScenarioCard => ({
  id: 'gas-sound',
  title: 'The quiet one',
  trade: 'gas',
  level: 1,
  minutes: 12,
  traps: ['sound'],
  briefing: 'Nobody has smelt anything.',
  own: false,
  last: null,
  times: 0,
  ...over,
});
test('scenarios stand by trade, how each ended last beside it; what is set stands first, an exam without its name', async () => {
  const task: TaskRow = {
    id: 't',
    person: 'p',
    name: 'Piet',
    title: 'Nothing moves',
    trade: 'gas',
    way: 'exam',
    minutes: 30,
    due: '2026-12-01',
    note: 'Good luck',
    run: null,
    stands: 'set',
  };
  answer = () => Object.assign(new Error('The office cannot be reached.'), { status: 0 });
  render(
    <YardList
      me="p1"
      cards={[
        card({}),
        card({ id: 'water-air', title: 'A soft pump', trade: 'water', last: 'lucky', times: 2 }),
      ]}
      today="gas-sound"
      tasks={[task]}
      traps={[{ trap: 'air', met: 2, mastered: false, due: true }]}
    />,
  );
  const set = screen.getByRole('region', { name: 'Set to you' });
  expect(set.textContent).toMatch(/Exam, gas.*30 min at most: Good luck/);
  expect(set.textContent).not.toMatch(/Nothing moves/);
  expect(screen.getByText(/right, without proof/)).toBeTruthy();
  expect(screen.getByText(/met 2 times, due/)).toBeTruthy();
  await enter(screen.getByLabelText('Trade'), 'water');
  expect(screen.queryByRole('heading', { name: 'gas' })).toBeNull();
  await click(screen.getByRole('button', { name: 'Guided' }));
  await click(screen.getByRole('button', { name: 'Begin A soft pump' }));
  expect(sent[0]).toMatchObject({ path: '/api/yard/runs', body: { scenario: 'water-air', way: 'guided' } });
  // nothing is lost: it says so, and can be asked again
  expect(screen.getByRole('alert').textContent).toMatch(/cannot be reached/);
  await click(within(set).getByRole('button', { name: 'Sit the exam' }));
  expect(sent[1]).toMatchObject({ body: { way: 'exam', task: 't' } });
});
test('what came of it: what was missed with its reason, what was said beside what it was, and whose signature', () => {
  const told: Debrief = {
    grade: {
      end: 'lucky',
      result: 'not-tight',
      wentWrong: 120_000,
      danger: null,
      minutes: 14.2,
      lines: [
        {
          id: 'kit',
          about: 'gauge',
          text: 'Own hose soaped',
          why: 'It is the newest joint.',
          met: false,
          at: 120_000,
        },
        { id: 'zero', about: 'gauge', text: 'Zeroed open to air', why: 'no matter', met: true, at: 30_000 },
      ],
    },
    tells: 'The hose leaked.',
    causes: ['Own kit: hose, connection, plug, fan'],
    places: ['oven'],
    truth: [],
    unit: 'mbar',
    decimals: 2,
    stages: [],
    from: 0,
    cost: { about: 12, lost: 0.42 },
    until: 900_000,
  };
  render(
    <DebriefView
      told={told}
      title="The quiet one"
      said={{ cause: 'pipe-leak', place: 'oven', because: 'It fell' }}
      placeNames={{ oven: 'Deck oven' }}
      signed={{ by: 'Ngaire', text: 'Soap first' }}
      again="/yard"
      replay="r1"
    />,
  );
  expect(screen.getByText('Right, without proof')).toBeTruthy();
  expect(screen.getByText(/asked was:/).textContent).toMatch(/Own hose soaped/);
  expect(screen.getByText('It is the newest joint.')).toBeTruthy();
  expect(screen.queryByText('no matter')).toBeNull();
  expect(screen.getByText('A leak in the pipework: Deck oven')).toBeTruthy();
  expect(screen.getByText('Soap first')).toBeTruthy();
  expect(screen.getByText(/14 min .* about 12 min are enough; 0.42 l leaked/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Go on from where it went wrong' })).toBeTruthy();
  expect(screen.getByText(/no certificate of anything/)).toBeTruthy();
});
