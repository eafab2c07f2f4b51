/** @jest-environment jsdom */
import { act as settle, cleanup, fireEvent, screen, within } from '@testing-library/react';
import { poolGauge, poolPlan } from '@/core/testing/lido';
import { alerts, pass, press, stand, title, type, type Standing } from '@/ui/testing/bench';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});
const last = (s: Standing) => s.made[s.made.length - 1]!;
const isOff = (name: string | RegExp): boolean =>
  (screen.getAllByRole('button', { name })[0] as HTMLButtonElement).disabled;
const ends = () => screen.getByRole('list', { name: 'Ends' });
const tap = async (...names: string[]) => {
  for (const n of names) await press(new RegExp(`^${n}`), ends());
};
const lines = () =>
  within(screen.getByRole('region', { name: 'Lines' }))
    .getAllByRole('listitem')
    .map((l) => l.textContent);

describe('the map', () => {
  const bare = () => poolPlan('pool-map', undefined, { looks: [] });
  test('from a connection: a tap is quiet, two are flowing, three take it back; the lines follow', async () => {
    const s = await stand(bare(), 'map', null);
    expect([
      isOff('Enter this look'),
      (within(ends()).getByRole('button', { name: /^Return 1/ }) as HTMLButtonElement).disabled,
    ]).toEqual([true, true]);
    await tap(
      'Pump inlet',
      'Skimmer',
      'Main drain',
      'Return 1',
      'Return 1',
      'Return 2',
      'Return 2',
      'Return 2',
    );
    await press('Enter this look');
    expect(last(s).payload).toMatchObject({
      what: 'closed',
      from: 'at-pump',
      on: ['skimmer-1', 'drain-1'],
      off: ['return-1'],
    });
    expect(lines()[0]).toMatch(/^Pump inlet, Skimmer and Main drain/);
    expect(screen.getByText(/Look next from/).textContent).toMatch(/it tells of/);
  });
  test('two looks that cannot both be right are named, and taking one back with its reason heals it', async () => {
    const s = await stand(bare(), 'map', null);
    await tap('Pump inlet', 'Return 1');
    await press('Enter this look');
    await tap('Pump inlet', 'Return 1', 'Return 1');
    await press('Enter this look');
    expect(alerts()).toMatch(/cannot all be right/);
    expect(screen.getByRole('button', { name: /End it as it is/ })).toBeTruthy();
    await press('It was wrong');
    expect(isOff('Take it back')).toBe(true);
    await type(/Why was it wrong/, 'the wrong valve');
    await press('Take it back');
    expect(last(s).payload).toMatchObject({ kind: 'look-back', why: 'the wrong valve' });
    expect(screen.getByRole('button', { name: 'Go on with what is known' })).toBeTruthy();
  });
  test('silence under air is asked about before it can be entered', async () => {
    const s = await stand(bare(), 'map', null);
    await press('Low air into one end');
    await tap('After the heater', 'Skimmer', 'Skimmer');
    expect(isOff('Enter this look')).toBe(true);
    await press('Nothing bubbled, the pressure stood');
    await press('Enter this look');
    expect(last(s).payload).toMatchObject({ what: 'air', off: ['skimmer-1'], stood: true });
  });
  test('an outlet that nobody listed is added on the spot; with every line known the way on says so', async () => {
    const s = await stand(bare(), 'map', null);
    await press('An outlet that is not in the list');
    await type('What you call it', 'Foot well drain');
    await press('Add it');
    expect(within(ends()).getByRole('button', { name: /^Foot well drain/ })).toBeTruthy();
    expect(last(s).refused).toBeNull();
    cleanup();
    await stand(poolPlan('pool-map'), 'map', null);
    await press('Every line is known: go on');
    expect(title()).toBe('Leave it as it was');
  });
  test('nothing drawn: what to do is said', async () => {
    const none = poolPlan('pool-map', undefined, { network: { parts: [], links: [] } });
    await stand(none, 'map', null);
    expect(alerts()).toMatch(/draw them on the place page/);
  });
});

describe('plugs', () => {
  const line = () => poolPlan('pool-dye', 'suction');
  const put = async (row: number, kind?: string) => {
    await press('Plug it', screen.getAllByRole('listitem')[row]);
    if (kind) await type('Kind of plug', kind);
  };
  test('the count says which ends it counts; every end, one of them open; then each out again', async () => {
    const s = await stand(line(), 'plugs', null);
    expect(screen.getByText(/ends counted/).textContent).toBe(
      '3 ends counted, 1 of them at the equipment: 2 closed and 1 open',
    );
    await put(0);
    await press('It is in');
    expect(last(s).payload).toMatchObject({ end: 'at-pump', open: true, plug: 'cap' });
    await put(1);
    await type(/Rated for at this bore/, '25');
    await press('It is in');
    expect(last(s).payload).toMatchObject({ rating: { digits: 25, scale: 0, unit: 'psi' } });
    expect(isOff(/Still without a plug: Main drain/)).toBe(true);
    // an inflatable one asks for its pressure and a look with a light
    await put(2, 'inflatable');
    await press('It is in');
    expect(alerts()).toMatch(/holds by its own pressure/);
    await type(/Inflated to/, '30');
    await press(/Light from the other side/);
    await press('It is in');
    await press('Every end plugged, one of them open: go on');
    expect(title()).toBe('Dye');
    expect(s.state.debts.filter((d) => d.key === 'plug' && !d.cleared)).toHaveLength(3);
  });
  test('out: the table counts by kind and size, and what does not come out has a way on that leaves the job open', async () => {
    const s = await stand(line(), 'plugs', null);
    for (const row of [0, 1]) {
      await put(row, 'short');
      await press('It is in');
    }
    await press('An end cannot be closed');
    await type('Which end', 'drain-1');
    await type(/Why; it has to be cut/, 'grate seized');
    await press('This line cannot be closed');
    expect(title()).toBe('Plugs out');
    expect(isOff('Count all 2 out first')).toBe(true);
    await press('Out and counted');
    expect(screen.getAllByRole('row').map((r) => r.textContent)).toContain('short plug, 2.000 in, open11');
    await press('A plug does not come out');
    await type('Which plug stays in', 'skimmer-1');
    await type(/the job stays open/, 'stem broken');
    await press('Go on with it in');
    expect([
      s.state.phase,
      s.state.debts.filter((d) => !d.cleared && d.key === 'plug').map((d) => d.subject),
    ]).toEqual(['put-back', ['skimmer-1']]);
  });
  test('what pushes at a plug is said before it goes in', async () => {
    await stand(poolPlan('pool-line-pressure', 'returns'), 'plugs', poolGauge.id);
    await press('Plug it', screen.getAllByRole('listitem')[1]);
    expect(screen.getByText(/it is pushed out with/).textContent).toMatch(
      /At 13\.5 psi it is pushed out with 189 N \(42 lbf\)/,
    );
  });
});

test('bucket: marks, a day, both falls; before the day is over nothing but rain ends it', async () => {
  const s = await stand(poolPlan('pool-whole'), 'bucket-on', null);
  await press(/Both marks made/);
  expect(isOff('Not yet: a whole day')).toBe(true);
  await press('It rained');
  expect(isOff('It says nothing: set new marks')).toBe(false);
  await press('It rained');
  await pass(s, 86_400);
  await type(/Pool below its mark/, '9');
  await type(/Bucket below its mark/, '5,');
  await press('Both read');
  expect(alerts()).not.toBe('');
  await type(/Bucket below its mark/, '5');
  await press('Both read');
  expect([s.state.visits[0]!.outcome, title()]).toEqual(['loses', 'Bucket, pump off']);
  expect(screen.getByText(/4\.0 mm beyond evaporation/).textContent).toMatch(/384 l in a day/);
});

test('listening: run, spots, the place with its width; what else is known is asked before it ends', async () => {
  const s = await stand(poolPlan('pool-locate', 'returns'), 'listen', null);
  expect((screen.getByLabelText(/How long it is/) as HTMLInputElement).value).toBe('14.0');
  await type(/Where the compressor stands/, 'at the gate');
  await press('Walk this run');
  for (const [along, loud] of [
    ['3', '1'],
    ['5', '9'],
    ['7', '2'],
  ] as const) {
    await type(/So far along/, along);
    await press(loud, screen.getByRole('group', { name: 'How loud, 0 to 10' }));
    await press('clear', screen.getByRole('group', { name: 'How clear' }));
    await press(/^Heard: /);
  }
  expect(screen.getByText(/most likely/).textContent).toMatch(/nine in ten between/);
  expect(isOff(/Before anything is opened: 4 still asked/)).toBe(true);
  for (const what of [
    'soft or wet ground',
    'the level at which the pool stops losing',
    'the dye',
    'the map of the lines',
  ])
    await press('Not known', screen.getByRole('group', { name: what }));
  const other = screen.getByRole('group', { name: 'another means' }).parentElement!;
  await settle(async () => {
    fireEvent.change(within(other).getByLabelText(/Which means/), { target: { value: 'tracer gas: 4.9 m' } });
  });
  await press('Agrees', other);
  expect(s.state.rooms.listen.evidence.other).toEqual({ says: 'agrees', text: 'tracer gas: 4.9 m' });
  await press('End the walk with this place');
  expect(s.state.visits[0]!.outcome).toMatch(/located|wide/);
});

const photo = (label: RegExp) =>
  settle(async () => {
    fireEvent.change(screen.getByLabelText(label), {
      target: { files: [new File(['x'], 'x.jpg', { type: 'image/jpeg' })] },
    });
  });
test('a photo that the step asks for is one tap, with its words ready', async () => {
  const s = await stand(poolPlan('pool-dye', 'returns'), 'dye', null);
  await photo(/Photo: dye at the open plug/);
  expect(s.state.photos).toMatchObject([{ caption: 'Dye: dye at the open plug' }]);
  expect(screen.getByRole('img', { name: 'Dye: dye at the open plug' })).toBeTruthy();
});
test('the run on a photo: two taps lay it there; by keys as well; drawn again it starts anew', async () => {
  const s = await stand(poolPlan('pool-locate', 'returns'), 'listen', null);
  await type(/Where the compressor stands/, 'at the gate');
  await press('Walk this run');
  await photo(/Photo: the whole run/);
  const sheet = () => screen.getByRole('application', { name: /tap, or move with the arrow keys/ });
  jest
    .spyOn(sheet(), 'getBoundingClientRect')
    .mockReturnValue({ left: 0, top: 0, width: 400, height: 300 } as DOMRect);
  const tapAt = (x: number, y: number) =>
    settle(async () => {
      const event = new MouseEvent('pointerup', { bubbles: true, clientX: x, clientY: y });
      fireEvent(sheet(), event);
    });
  expect(screen.getByText('Tap where the run begins.')).toBeTruthy();
  await tapAt(40, 270);
  expect(screen.getByText('Tap where it ends.')).toBeTruthy();
  await tapAt(500, 90);
  expect(s.state.rooms.listen.picture).toEqual({ photo: 'a'.repeat(64), from: [100, 900], to: [1000, 300] });
  expect(screen.getByRole('img', { name: /The run drawn on the photo/ })).toBeTruthy();
  await press('Draw the run again');
  const key = (k: string) => settle(async () => void fireEvent.keyDown(sheet(), { key: k }));
  await key('Enter');
  await key('Enter');
  expect(alerts()).toMatch(/one point/);
  await key('Enter');
  await key('ArrowRight');
  await key('Enter');
  expect(s.state.rooms.listen.picture).toMatchObject({ from: [500, 500], to: [520, 500] });
});
describe('cut, couple, cure', () => {
  const begin = () => stand(poolPlan('pool-line-pressure', 'returns'), 'cure', null);
  const count = async () => {
    await type(/Primer and cement/, 'primer, medium cement');
    await press(/The last joint is made/);
  };
  test('counted, then the clock: the way on is shut until it is over, and says how long', async () => {
    const s = await begin();
    expect([isOff(/The last joint is made/), isOff('Count first what was cut and coupled')]).toEqual([
      true,
      true,
    ]);
    await type('Cut points', 'two');
    await count();
    expect(alerts()).toMatch(/whole numbers/);
    await type('Cut points', '2');
    await count();
    expect(last(s).payload).toMatchObject({ cuts: 2, couplings: 2, minutes: 120, table: '' });
    expect(screen.getByRole('timer').textContent).toMatch(/2:00:00|1:59:/);
    expect(isOff(/It cures .* more/)).toBe(true);
    await pass(s, 7_201);
    await press('Cured: go on');
    expect(title()).toBe('Plugs in');
  });
  test('less than the rule leaves asks for the table it stands in', async () => {
    const s = await begin();
    await type(/Cures for, h/, '0,5');
    await type(/Primer and cement/, 'fast cement');
    expect(isOff(/The last joint is made/)).toBe(true);
    await type(/By which table/, 'the can, 2 in, 70 °F');
    await press(/The last joint is made/);
    expect(last(s).payload).toMatchObject({ minutes: 30, table: 'the can, 2 in, 70 °F' });
    await press(/A joint was made over/);
    expect(isOff('Count first what was cut and coupled')).toBe(true);
  });
  test('who will not wait leaves it for another day', async () => {
    const s = await begin();
    await count();
    await press(/Leave it for another day/);
    expect(s.state.visits.map((v) => v.outcome)).toEqual(['later', undefined]);
  });
});
