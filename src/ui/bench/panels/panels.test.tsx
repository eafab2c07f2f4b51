/** @jest-environment jsdom */
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { BEGAN, gauge, plan as staged, uuid } from '@/core/testing/bakery';
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
  const left = () => Number(screen.getByRole('list').getAttribute('data-left'));
  test('by how one walks: an appliance by one tap, every answer in the log by itself; the last line leads on', async () => {
    const s = await stand(staged(), 'prepare');
    expect(isOff(/Voltage detector proved again/)).toBe(true);
    const before = left();
    await press(/^Deck oven: Off, .*valve OPEN/);
    const made = s.made.map((m) => m.payload);
    expect(made.length).toBeGreaterThan(2);
    expect(new Set(made.map((p) => 'subject' in p && p.subject)).size).toBe(1);
    expect(left()).toBe(before - made.length);
    // taken back as it was given: every line of it
    await press(/^Deck oven: Off, .*valve OPEN/);
    expect([left(), last(s).payload]).toEqual([before, expect.objectContaining({ answer: 'undone' })]);
    await answerAll();
    expect([title(), last(s).payload.kind]).toEqual(['Zero the gauge', 'proceed']);
    expect(s.made.filter((m) => m.refused)).toEqual([]);
  });
  test('what only the person knows is asked apart, and a thing can be opened line by line', async () => {
    const s = await stand(staged(), 'prepare');
    // smell now and reported, three steps of the detector, what bounds the test: each its own line
    for (const own of [/smell gas now/, /reported a smell/])
      expect(screen.getByRole('group', { name: own })).toBeTruthy();
    for (const own of [/detector proved on a known/, /Valve under test CLOSED/])
      expect(screen.getByRole('button', { name: own })).toBeTruthy();
    await press('Deck oven: line by line');
    await press(/^Deck oven: Off at the user's control/);
    expect(s.made).toHaveLength(1);
    expect(screen.queryByRole('button', { name: /^Deck oven: Off, / })).toBeNull();
  });
  test('a valve stands drawn as its line wants it, and nothing else does', async () => {
    await stand(staged(), 'prepare');
    const row = (button: RegExp) => screen.getByRole('button', { name: button }).closest('li')!;
    const drawn = (button: RegExp) => row(button).querySelector('[data-valve]')?.getAttribute('data-valve');
    expect(drawn(/Valve under test CLOSED/)).toBe('closed');
    expect(drawn(/^Deck oven: Off, .*valve open/i)).toBe('open');
    expect(drawn(/detector proved on a known/)).toBeUndefined();
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
    // what fits stands first, whatever the order of the cabinet; what does not is folded away, with why
    const [first] = within(screen.getByRole('list', { name: 'Gauges in the cabinet' })).getAllByRole(
      'listitem',
    );
    const folded = screen.getByRole('list', { name: 'Gauges that cannot be used', hidden: true });
    expect(folded.textContent).toMatch(/G-9.*calibration/i);
    expect(within(folded).queryByRole('button')).toBeNull();
    expect(first!.textContent).toContain('Fits this test.');
    await press('Use this gauge', first);
    expect(last(s).refused).toBeNull();
    expect(screen.getByLabelText(/G-02, open to air, shows/)).toBeTruthy();
  });
  test('the gauge that was meant stands ready: one press says that it is open to air and shows zero, and chooses it', async () => {
    const second = gauge({ id: uuid(7, 9), name: 'G-7' });
    const s = await stand({ ...staged({ gauges: [gauge(), second] }), gaugeMeant: second.id }, 'zero', null);
    await press(/Nothing is connected, open to air: it shows 0.00/);
    expect(s.made.map((m) => [m.payload.kind, m.refused])).toEqual([
      ['gauge', null],
      ['zero', null],
    ]);
    expect([s.state.gauge, title()]).toEqual([second.id, 'Raise, let-by']);
  });
  test('a meant gauge that cannot judge is not offered; another can be taken instead of one that can', async () => {
    const out = gauge({ id: uuid(7, 9), name: 'G-9', calibrationDue: '2026-11-01' });
    await stand({ ...staged({ gauges: [out, gauge()] }), gaugeMeant: out.id }, 'zero', null);
    expect(screen.getByRole('list', { name: 'Gauges in the cabinet' }).textContent).toContain('G-02');
    cleanup();
    await stand({ ...staged(), gaugeMeant: gauge().id }, 'zero', null);
    await press('Another gauge');
    expect(screen.getByRole('list', { name: 'Gauges in the cabinet' }).textContent).toContain('G-01');
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
      await read(wrong, /^Start the/);
      expect([wrong, alerts(), box().value]).toEqual([wrong, expect.stringMatching(words), wrong]);
    }
    expect(s.made).toEqual([]);
  });
});

describe('raising into a band', () => {
  test('outside is refused with the way to go, both ends are inside', async () => {
    const s = await stand(staged(), 'raise');
    await read('21.01', /^Start the 1 min stab/);
    expect(alerts()).toMatch(/above/);
    await read('19.99', /^Start the 1 min stab/);
    expect(alerts()).toMatch(/below/);
    expect(s.state.visits).toHaveLength(1);
    await read('21.00', /^Start the 1 min stab/);
    expect(title()).toBe('Stabilisation');
    // the one reading also began the clock
    expect(s.made.slice(-2).map((m) => [m.payload.kind, m.refused])).toEqual([
      ['fill', null],
      ['hold-start', null],
    ]);
    expect(screen.getAllByRole('timer')[0]!.textContent).toContain('1:00');
  });
  test('a gauge that sends is taken with one press while its display is fresh, at the start and at the end', async () => {
    const s = await stand(staged(), 'tightness');
    const frame = (digits: number, at: number) => ({
      gauge: s.plan.gauges[0]!.id,
      simulated: true,
      at: BEGAN + at * 1000,
      digits,
      scale: 2,
      unit: 'mbar',
    });
    s.live = frame(2050, s.at - 6);
    await pass(s, 0);
    await press(/^Start the 2 min/);
    expect([alerts(), s.made]).toEqual([expect.stringMatching(/Type|Read|figure/i), []]);
    s.live = frame(2050, s.at - 5);
    await pass(s, 0);
    await press(/^Start the 2 min/);
    expect(last(s).payload).toMatchObject({ kind: 'hold-start', figure: q('20.50 mbar'), streamed: true });
    s.live = frame(2049, s.at + 119);
    await pass(s, 121);
    await press(/^End with the display/);
    expect([last(s).payload, outcome(s)]).toEqual([
      expect.objectContaining({ kind: 'hold-end', figure: q('20.49 mbar'), streamed: true }),
      'nil',
    ]);
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
  test('the same figure again ends what is judged only pressed and held, and it prints', async () => {
    const s = await held();
    await pass(s, 121);
    await press('Read the gauge now');
    await press(/Looked again: still 20.50/);
    expect(last(s).payload.kind).toBe('hold-start');
    await holdDown(/Looked again: still 20.50/);
    expect([last(s).payload, outcome(s)]).toEqual([
      expect.objectContaining({ kind: 'hold-end', same: true }),
      'nil',
    ]);
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
    await read('20.50', /^Start the 1 min stab/);
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
  await press(/open to air: it shows 0.00/);
  await read('9.00', /^Valve under test is closed: start the 1 min let-by/);
  await pass(s, 61);
  await press('Read the gauge now');
  await read('9.00', 'This is the end reading');
  await read('20.50', /^Start the 1 min stab/);
  await pass(s, 61);
  await press('Read the gauge now');
  await read('20.50', /^Settled: start the 2 min/);
  await pass(s, 121);
  await press('Read the gauge now');
  await read('20.50', 'This is the end reading');
  for (let n = 0; n < 4 && title() !== ''; n += 1) {
    if (screen.queryByRole('form', { name: 'Entry' })) await read('0.00', /Zero after/);
    else if (screen.queryByRole('list')?.hasAttribute('data-left')) await answerAll();
    else break;
  }
  expect(s.state.phase).toBe('put-back');
  expect(verdictOf(s.plan, s.state)?.word).toBe('tight');
  expect(s.made.filter((m) => m.refused)).toEqual([]);
});
