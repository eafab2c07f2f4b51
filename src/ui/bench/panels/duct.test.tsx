/** @jest-environment jsdom */
import { act as settle, cleanup, fireEvent, screen, within } from '@testing-library/react';
import { ductPlan, fanKit, paGauge } from '@/core/testing/loft';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { alerts, pass, press, read, stand, title, type as fill, type Standing } from '@/ui/testing/bench';

afterEach(() => {
  cleanup();
  jest.restoreAllMocks();
});
const last = (s: Standing) => s.made[s.made.length - 1]!;
const flow = async (value: string) =>
  settle(async () => void fireEvent.change(screen.getByPlaceholderText('flow'), { target: { value } }));
const pair = async (pressure: string, value: string) => {
  await flow(value);
  await read(pressure, 'Take this reading');
};
/** At the ducts, with ring 2 on and the gauge read with the fan off. */
async function blowing(plan = ductPlan()): Promise<Standing> {
  const s = await stand(plan, 'flow');
  await press(/^ring 2:/);
  await read('-0.5', 'Take it');
  return s;
}

describe('the fan', () => {
  test('its ranges say how each serves for this limit; the one with room round it stands first', async () => {
    await stand(ductPlan(), 'flow');
    const [first, ...rest] = screen.getAllByRole('button', { name: /^(ring|open)/ });
    expect(first!.textContent).toMatch(/ring 2: 30 CFM to 150 CFM.*reads the limit/);
    expect(rest.map((b) => b.textContent)).toContainEqual(
      expect.stringMatching(/ring 1.*begins above the limit: nothing read at 88 Pa is within it/),
    );
    await press(/^ring 2:/);
    expect(screen.getByLabelText(/Fan off and shut/)).toBeTruthy();
  });
  test('a fan that is in no cabinet is taken by its own sheet; a range that ends where it begins is refused', async () => {
    const s = await stand(ductPlan({ kit: [] }), 'flow');
    await fill('Fan, name and serial number', 'borrowed, 17');
    await fill('Ring or plate', 'A');
    await fill('Reads from', '40');
    await fill('to', '40');
    await press('Take this fan');
    expect([alerts(), s.made]).toEqual([expect.stringMatching(/must end above/), []]);
    await fill('to', '160');
    await press('Take this fan');
    expect(s.state.rooms.fan.chosen).toMatchObject({ name: 'borrowed, 17', accuracy: null });
  });
  test('pressure without flow is no reading; within the limit it is judged in one tap', async () => {
    const s = await blowing();
    await read('24.5', 'Take this reading');
    expect([alerts(), last(s).payload.kind]).toEqual([
      expect.stringMatching(/Type the flow that stood there/),
      'fan-off',
    ]);
    await pair('24.5', '41.2');
    expect(screen.getByText(/41\.2 CFM .* at 25 Pa, exponent 0\.60, assumed/)).toBeTruthy();
    await press(/^Judge what was read/);
    expect([last(s).refused, title()]).toEqual([null, 'Fan off, masks off']);
  });
  test('below the range says what would decide: which ring, or to which pressure', async () => {
    const s = await stand(ductPlan(), 'flow');
    await press(/^ring 1:/);
    await read('0', 'Take it');
    await press('Below range');
    await read('25.0', 'Take this reading');
    expect(screen.getByRole('status').textContent).toMatch(
      /ring 2 reads the limit\. With this ring: blow to 87\.9 Pa/,
    );
    expect(screen.queryByRole('button', { name: /^Judge/ })).toBeNull();
    await press('Read both again');
    await press('Below range');
    await read('87.9', 'Take this reading');
    await press(/^Judge what was read.*at most 47\.99\d CFM/);
    expect(last(s).refused).toBeNull();
  });
  test('above the limit it names the half pressure, the fan-off pressure counted in; a wrong reading is struck with its reason', async () => {
    const s = await blowing();
    await pair('24.5', '60');
    expect(screen.getByRole('status').textContent).toMatch(/about 12\.0 Pa, and leave the ring/);
    await press('Strike');
    await fill(/What was wrong with it/, 'door was shut');
    await press('Strike it');
    expect(s.state.rooms.fan.visits[0]!.readings[0]!.struck!.reason).toBe('door was shut');
    await press('Read both again');
    await pair('24.5', '60');
    await press('No second pressure can be had');
    await fill(/No second pressure can be had\. Why/, 'the fan stops');
    await press('Go on without');
    expect(s.state.claims['']!.finding).toBe('inconclusive');
  });
  test('what the gauge sends is taken in one tap, both together; dashes are taken as below the range', async () => {
    const s = await blowing();
    const { id } = paGauge;
    const frame = { gauge: id, simulated: false, at: 0, digits: 245, scale: 1, unit: 'Pa' };
    s.live = { ...frame, flow: { digits: 401, scale: 1, unit: 'CFM' } };
    await pass(s, 1);
    await press(/^Both stand still: take 24\.5 Pa with 40\.1 CFM/);
    expect(last(s).payload).toMatchObject({ figure: q('24.5 Pa'), flow: q('40.1 CFM'), streamed: true });
    await press('Read once more');
    s.live = { ...frame, flow: { digits: null, scale: 1, unit: 'CFM' } };
    await pass(s, 1);
    await press(/^Both stand still: .*flow below range/);
    expect(last(s).payload).toMatchObject({ below: true });
  });
  test('own kit with a test that counts is taken in one tap; one too old is not offered', async () => {
    const s = await stand(ductPlan({ kit: [fanKit({ flow: '6 CFM', days: 30 })] }), 'kit-blown');
    await press(/^ring 2:/);
    await press(/^Take its test of/);
    expect([last(s).refused, title()]).toEqual([null, 'Fan and probe']);
    cleanup();
    await stand(ductPlan({ kit: [fanKit({ flow: '6 CFM', days: 31 })] }), 'kit-blown');
    await press(/^ring 2:/);
    expect(screen.queryByRole('button', { name: /^Take its test/ })).toBeNull();
  });
});

describe('smoke', () => {
  const ready = async () => {
    const s = await stand(ductPlan(), 'smoke');
    await press(/^Smoke machine switched on/);
    await pass(s, 301);
    return s;
  };
  test('the machine warms up by its own clock; until then nothing can be found with it', async () => {
    const s = await stand(ductPlan(), 'smoke');
    expect(screen.getByRole('button', { name: /once it is warm/ })).toHaveProperty('disabled', true);
    await press(/^Smoke machine switched on/);
    await pass(s, 60);
    expect(screen.getByRole('timer').textContent).toMatch(/warm in 4:00/);
    await pass(s, 241);
    expect(screen.getByRole('timer').textContent).toMatch(/warm, ready/);
  });
  test('found by place, sealed by whom; measured again only once something is sealed', async () => {
    const s = await ready();
    await press('Smoke comes out here');
    await press('boot at a register');
    await fill('Where', 'hall, behind the wall bars');
    await press('a jet');
    await press('Keep it');
    await press(/^Looked everywhere/);
    await press('the installer was there');
    await press('Sealed: measure again now');
    expect(alerts()).toMatch(/Nothing was sealed/);
    await press('Back to the smoke');
    await press('Sealed', within(screen.getByRole('list')).getByRole('listitem'));
    await fill('Sealed by', 'R. Osei');
    await fill('With', 'mastic');
    await press('It is sealed');
    await press(/^Looked everywhere/);
    await press('the installer was there');
    await fill(/Fee agreed/, '120');
    await press('Sealed: measure again now');
    expect(last(s)).toMatchObject({ payload: { next: 'again', fee: '120' }, refused: null });
  });
  test('without a machine it is said with what was looked; left for another day it stays not tight', async () => {
    const s = await stand(ductPlan(), 'smoke');
    await press('No smoke machine here');
    await fill('With what do you look?', 'smoke pencil');
    await press('Look with that');
    await press(/^Looked everywhere/);
    await press('the installer was asked and did not come');
    await press(/^Leave it for another day/);
    expect([last(s).refused, s.state.rooms.smoke.searches[0]!.without]).toEqual([null, 'smoke pencil']);
  });
});
