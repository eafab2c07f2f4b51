/** @jest-environment jsdom */
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { gauge, plan as staged, uuid } from '@/core/testing/bakery';
import { dyeHouse, gauges, kiln, planOf, trailer } from '@/core/testing/quarter';
import { verdictOf } from '@/core/verdict/verdict';
import { alerts, holdDown, pass, press, read, stand, title, type, type Standing } from '@/ui/testing/bench';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});
const isOff = (name: string | RegExp): boolean =>
  (screen.getAllByRole('button', { name })[0] as HTMLButtonElement).disabled;
const last = (s: Standing) => s.made[s.made.length - 1]!;
const outcome = (s: Standing) =>
  s.state.visits
    .map((v) => v.outcome ?? v.split ?? '')
    .filter(Boolean)
    .pop();

/** Answers every line of the list before the person: done, or No where it is asked. */
async function answerAll(): Promise<void> {
  for (let n = 0; n < 60; n += 1) {
    const next = screen
      .queryAllByRole('listitem')
      .flatMap((line) => within(line).queryAllByRole('button'))
      .find((b) => {
        const group = b.closest('[role=group]') ?? b;
        const untouched =
          !group.querySelector('[aria-pressed=true]') && b.getAttribute('aria-pressed') === 'false';
        return untouched && !(b as HTMLButtonElement).disabled;
      });
    if (!next) return;
    await press(
      /./,
      next.parentElement!.getAttribute('role') === 'group' ? next.parentElement! : next.closest('li')!,
    );
  }
}

describe('a list of checks', () => {
  test('leads on only when every line is answered, in the order that is asked, and takes an answer back', async () => {
    const s = await stand(staged(), 'prepare');
    const on = /lines still open|All answered/;
    expect([isOff(on), isOff(/Voltage detector proved again/)]).toEqual([true, true]);
    await answerAll();
    expect(isOff(on)).toBe(false);
    await press(/Off at the user's control/);
    expect([isOff(on), last(s).payload]).toEqual([true, expect.objectContaining({ answer: 'undone' })]);
    await press(/Off at the user's control/);
    await press('All answered: go on');
    expect(title()).toBe('Zero the gauge');
  });
  test('an answer that leads elsewhere does so at once', async () => {
    const s = await stand(staged(), 'prepare');
    await press('Yes');
    expect([outcome(s), screen.getByText(/phase:/).textContent]).toEqual(['smell', 'phase: signing']);
  });
});

describe('the gauge and its zero', () => {
  test('a gauge that does not fit says why and cannot be taken; one that fits is', async () => {
    const short = gauge({ id: uuid(7, 9), name: 'G-9', calibrationDue: '2026-11-01' });
    const s = await stand(staged({ gauges: [short, gauge()] }), 'zero', null);
    // what fits stands first, whatever the order of the cabinet
    const [first, second] = screen.getAllByRole('listitem');
    expect(second!.textContent).toMatch(/calibration/i);
    expect((within(second!).getByRole('button') as HTMLButtonElement).disabled).toBe(true);
    expect(first!.textContent).toContain('Fits this test.');
    await press('Use this gauge', first);
    expect(last(s).refused).toBeNull();
    expect(screen.getByLabelText(/G-02, open to air, shows/)).toBeTruthy();
  });
  test('open to air must be ticked; off zero is said and asked again; a sign can be given; zero leads on', async () => {
    const s = await stand(staged(), 'zero');
    const form = screen.getByRole('form', { name: 'Entry' });
    fireEvent.change(within(form).getByRole('textbox'), { target: { value: '0.00' } });
    await press(/^Zero is proved/);
    expect([alerts(), s.made]).toEqual([expect.stringMatching(/Tick first: nothing is connected/), []]);
    await read('0.30', 'Zero is proved');
    expect(alerts()).toMatch(/0.30 mbar open to air is off zero/);
    await press(/^Change sign/);
    await read('-0.01', 'Zero is proved');
    expect([last(s).payload, title()]).toEqual([
      expect.objectContaining({ kind: 'zero', figure: q('-0.01 mbar') }),
      'Raise, let-by',
    ]);
  });
});

describe('reading entry', () => {
  test('keys, steps and the last digit make one figure in the steps of the gauge; what is no reading stays and says so', async () => {
    const s = await stand(staged(), 'raise');
    const box = () => screen.getByRole('textbox') as HTMLInputElement;
    for (const k of ['2', '0', '.', '5', '1']) await press(k);
    await press(/One step up/);
    expect(box().value).toBe('20.52');
    await press(/Take the last digit/);
    await press(/One step down/);
    expect(box().value).toBe('20.49');
    for (const [wrong, words] of [
      ['20.555', /steps|decimals|0\.01/i],
      ['abc', /number|digits/i],
      ['', /Type|Read|figure/i],
    ] as const) {
      await read(wrong, /go on/);
      expect([wrong, alerts(), box().value]).toEqual([wrong, expect.stringMatching(words), wrong]);
    }
    expect(s.made).toEqual([]);
  });
});

describe('raising into a band', () => {
  test('outside is refused with the way to go, both ends are inside', async () => {
    const s = await stand(staged(), 'raise');
    await read('21.01', /go on/);
    expect(alerts()).toMatch(/above/);
    await read('19.99', /go on/);
    expect(alerts()).toMatch(/below/);
    expect(s.state.visits).toHaveLength(1);
    await read('21.00', /go on/);
    expect(title()).toBe('Stabilisation');
  });
  test('what will not stand has its own way on, and says when it stands after all', async () => {
    const s = await stand(staged(), 'raise');
    await press('Will not come up or stand');
    const source = screen.queryAllByRole('button', { name: /Source closed|Source OPEN/ });
    if (source.length) await press(/Source closed/);
    await read('20.50', /It will not stand/);
    expect(alerts()).toMatch(/is not below the band/);
    await read('12.00', /It will not stand/);
    expect([last(s).refused, outcome(s)]).toEqual([null, 'falls']);
  });
});

describe('a timed hold', () => {
  const held = async () => {
    const s = await stand(staged(), 'tightness');
    await read('20.50', /^Start the 2 min/);
    return s;
  };
  test('starts with its reading, counts down, and is not ended before the rule’s minutes', async () => {
    const s = await held();
    expect(screen.getAllByRole('timer')[0]!.textContent).toContain('2:00');
    await pass(s, 60);
    expect(isOff('End reading in 1:00')).toBe(true);
    await pass(s, 61);
    await press('Read the gauge now');
    await read('20.50', 'This is the end reading');
    expect(outcome(s)).toBe('nil');
  });
  test.each([
    ['20.26', 'nil'],
    ['20.25', 'allowance'], // a quarter of a millibar counts at equality
    ['16.50', 'allowance'],
    ['16.49', 'beyond'],
    ['20.80', 'rose'],
  ])('20.50 to %s mbar in two minutes: %s', async (end, word) => {
    const s = await held();
    await pass(s, 121);
    await press('Read the gauge now');
    await read(end, 'This is the end reading');
    expect(outcome(s)).toBe(word);
  });
  test('outside the band it does not start, and says what to do', async () => {
    const s = await stand(staged(), 'tightness');
    await read('19.00', /^Start the/);
    expect([last(s).refused, alerts()]).toEqual([
      'out-of-band',
      expect.stringMatching(/outside the band 20 mbar to 21 mbar/),
    ]);
    expect(screen.queryByRole('timer')).toBeNull();
  });
});

describe('staged pumping', () => {
  const pumping = () =>
    stand(planOf('water-hydraulic', { gauges: [gauges.wide], system: dyeHouse() }), 'raise');
  test('a step, its pause, the look at the joints; a drip needs its place', async () => {
    const s = await pumping();
    const band = screen.getByRole('button', { name: /why\?/ }).textContent;
    const [low, high] = band.match(/\d+\.\d+/g)!;
    await read(String((Number(high) + 1).toFixed(2)), /^Reached/);
    expect([last(s).refused, alerts()]).toEqual(['over-band', expect.stringMatching(/Bleed down/)]);
    await read(low, /^Reached/);
    expect(screen.getByRole('timer')).toBeTruthy();
    await read(low, /All joints dry/);
    expect(last(s).refused).toBe('too-early');
    await press('A joint drips');
    await read(low, /It drips/);
    expect(last(s).refused).toBe('where');
    await type(/Where does it drip/, 'union at the riser');
    await read(low, /It drips/);
    expect(outcome(s)).toBe('drips');
  });
  test('a pressure that cannot be reached needs its reason', async () => {
    const s = await pumping();
    await press('It cannot be reached');
    expect(isOff('It cannot be reached')).toBe(true);
    await type(/Why can it not be reached/, 'the pump leaks back');
    await press('It cannot be reached');
    expect([last(s).payload, outcome(s)]).toEqual([
      { kind: 'pump-failed', text: 'the pump leaks back' },
      expect.stringMatching(/not.reached/),
    ]);
  });
});

describe('what is seen and decided', () => {
  test('an answer is pressed and held; a tap is none', async () => {
    const s = await stand(staged(), 'letby-fell');
    await press(/^Isolate the appliances/);
    expect(s.made).toEqual([]);
    await holdDown(/^Isolate the appliances/);
    expect([last(s).payload.kind, last(s).refused]).toEqual(['observe', null]);
  });
  test('joints touched today: named, whose they are, looked at; bubbles that grow lead on by themselves', async () => {
    const s = await stand(planOf('gas-air-pipework', { system: kiln() }), 'joints');
    expect(screen.getByRole('button', { name: /No joint was touched today/ })).toBeTruthy();
    await type(/Another joint touched today/, 'union at the kiln');
    await press('Add');
    expect(last(s).payload).toMatchObject({ kind: 'joint', name: 'union at the kiln' });
    expect(screen.getByText(/union at the kiln/)).toBeTruthy();
  });
});

describe('the rarer panels', () => {
  test('a dial is watched from its mark; still for long enough, pressed and held, leads on', async () => {
    const s = await stand(planOf('gas-meter-turn-on', { system: kiln() }), 'dial');
    await type(/Where does its hand stand/, 'on the 3');
    await press(/^Marked: start watching/);
    expect(last(s)).toMatchObject({ payload: { kind: 'dial-start', mark: 'on the 3' }, refused: null });
    expect(screen.queryByRole('button', { name: /^Exactly at its mark/ })).toBeNull();
    await pass(s, 601);
    await holdDown(/^Exactly at its mark/);
    expect([last(s).refused, outcome(s)]).toEqual([null, 'still']);
  });
  test('what an appliance takes: turns and time of the dial give its input; one left out needs its reason', async () => {
    const s = await stand(planOf('gas-meter-turn-on', { system: kiln() }), 'input');
    expect(isOff('Leave it out')).toBe(true);
    await type(/Turns of the dial/, '2');
    await type(/^Time/, '36');
    await press('Save this input');
    expect(last(s)).toMatchObject({ payload: { kind: 'dial-input' }, refused: null });
    expect(s.state.visits[0]!.inputs[0]!.flow.value).toBeGreaterThan(0);
  });
  test('a measured volume stands in place of the list; a draw that makes no sense is refused by name', async () => {
    const s = await stand(
      planOf('gas-serviceability', { gauges: [gauge({ greatest: q('500 mbar') })] }),
      'volume',
    );
    await type(/^Drawn/, '0.5');
    await type(/^Pressure before/, '20.00');
    await type(/^Pressure after/, '21.00');
    await press('Use the measured volume');
    expect(alerts()).not.toBe('');
    expect(s.state.volume).toBeNull();
    await type(/^Pressure after/, '10.00');
    await press('Use the measured volume');
    expect(s.state.volume!.figure.value).toBeCloseTo(0.0507, 3); // 0.5 l x 1013.25 / 10
  });
  test('appliances isolated one by one: positions first, then the raise, then the clock', async () => {
    const s = await stand(staged(), 'pipework');
    await answerAll();
    await read('20.50', /go on/);
    await read('20.50', /^Start the/);
    expect(screen.getAllByRole('timer').length).toBeGreaterThan(0);
    expect(s.state.visits[0]!.cycles[0]!.positions).toBeTruthy();
  });
  test('the inventory says what is still to write down, and a plate with every point settles it', async () => {
    const s = await stand(planOf('lpg-tank-inspection', { system: trailer() }), 'inventory');
    expect(screen.getByRole('button', { name: /Still to write down: Tank/ })).toBeTruthy();
    await press('Write down');
    await type(/Serial/, 'T-77');
    for (const point of screen.queryAllByRole('group')) await press(/./, point);
    await press('Keep it');
    expect(s.state.inventory[0]).toMatchObject({ serial: 'T-77' });
  });
});

test('a whole staged test is conducted by its panels alone, and its verdict is the rule’s', async () => {
  const s = await stand(staged(), 'prepare');
  await answerAll();
  await press(/All answered/);
  await read('0.00', 'Zero is proved');
  await read('9.00', /go on/);
  await read('9.00', /^Start the 1 min let-by/);
  await pass(s, 61);
  await press('Read the gauge now');
  await read('9.00', 'This is the end reading');
  await read('20.50', /go on/);
  await read('20.50', /^Start the 1 min stab/);
  await pass(s, 61);
  await press('Read the gauge now');
  await read('20.50', /Settled/);
  await read('20.50', /^Start the 2 min/);
  await pass(s, 121);
  await press('Read the gauge now');
  await read('20.50', 'This is the end reading');
  for (let n = 0; n < 4 && title() !== ''; n += 1) {
    if (screen.queryByRole('form', { name: 'Entry' })) await read('0.00', /Zero after/);
    else if (screen.queryByRole('button', { name: /lines still open|All answered/ })) {
      await answerAll();
      await press(/All answered/);
    } else break;
  }
  expect(s.state.phase).toBe('put-back');
  expect(verdictOf(s.plan, s.state)?.word).toBe('tight');
  expect(s.made.filter((m) => m.refused)).toEqual([]);
});
