import { bakery, BEGAN, entryOf, gauge, plan, uuid } from '@/core/testing/bakery';
import type { Plan } from '@/core/plan/plan';
import { parseWithUnit as q } from '@/core/quantity/exact';
import type { Payload, RunEvent } from './events';
import { foldOf, isTransition } from './folds';
import { reduce } from './reduce';

const p = {
  ...plan(),
  ownKit: [
    { id: uuid(1, 7), name: 'Hose 1', kind: 'hose', serial: '', blank: null, poor: null },
    { id: uuid(2, 7), name: 'Pump 2', kind: 'pump', serial: '', blank: null, poor: null },
  ] as unknown as Plan['ownKit'],
} as Plan;
const state = reduce(p, []);
const event = (payload: Payload): RunEvent => entryOf(p, payload);
const words = (payload: Payload) => foldOf(event(payload)).words(event(payload), { plan: p, state });
const said = (payload: Payload) => foldOf(event(payload)).said?.(event(payload)) ?? false;
const oven = bakery().appliances[0]!;
const figure = q('20.35 mbar');
const read = { figure, readAt: BEGAN - 30_000 };
const thing = {
  id: 'm',
  kind: 'meter',
  name: 'Meter',
  place: 'Lobby',
  make: '',
  model: 'M6',
  serial: '123',
  points: {},
  note: 'scale dusty',
} as const;

/** Itself in words; and whether a person said it beside the readings, so that it stands on the certificate. */
test.each<[Payload, string, boolean]>([
  [{ kind: 'check', item: 'nowhere', answer: 'done' }, 'nowhere: done', false],
  [{ kind: 'check', item: 'nowhere', subject: oven.id, answer: 'yes' }, `${oven.name}: nowhere: yes`, false],
  [{ kind: 'proceed' }, 'list complete', false],
  [{ kind: 'gauge', gauge: gauge().id }, 'gauge chosen: G-02', false],
  [{ kind: 'gauge', gauge: uuid(99) }, `gauge chosen: ${uuid(99)}`, false],
  [{ kind: 'kit', kit: [uuid(1, 7), uuid(9, 7)] }, `own kit on the section: Hose 1, ${uuid(9, 7)}`, false],
  [{ kind: 'kit', kit: [] }, 'no hose or rig of the cabinet on the section', false],
  [{ kind: 'zero', figure: q('0.01 mbar'), openToAir: true }, 'zero open to air: 0.01 mbar', false],
  [{ kind: 'fill', confirmed: true, ...read }, 'raised to 20.35 mbar, closed', false],
  [{ kind: 'hold-start', ...read }, 'hold started at 20.35 mbar', false],
  [{ kind: 'hold-end', ...read }, 'hold ended at 20.35 mbar', false],
  [
    { kind: 'hold-end', ...read, short: 'locked out' },
    'hold ended at 20.35 mbar, before the planned time: locked out',
    true,
  ],
  [{ kind: 'unheld', way: 'falls', ...read }, 'said to keep falling: 20.35 mbar', false],
  [{ kind: 'unheld', way: 'rises', ...read }, 'said to keep rising: 20.35 mbar', false],
  [{ kind: 'unheld', way: 'low', ...read }, 'said to stay low with the source open: 20.35 mbar', false],
  [{ kind: 'reading', ...read }, 'reading 20.35 mbar', false],
  [
    { kind: 'reading', ...read, late: true },
    'reading 20.35 mbar, read 20 Nov 2026, 07:59:30 UTC (late entry)',
    false,
  ],
  [
    // said to be from the display, but no gauge showed it
    { kind: 'reading', ...read, same: true, streamed: true },
    'reading 20.35 mbar, same as before',
    false,
  ],
  [
    { kind: 'stream', gauge: uuid(1, 9), simulated: false, scale: 2, unit: 'mbar', points: [[0, 1]] },
    '1 streamed display values',
    false,
  ],
  [
    { kind: 'stream', gauge: uuid(1, 9), simulated: true, scale: 2, unit: 'mbar', points: [[0, 1]] },
    '1 streamed display values (simulated gauge)',
    false,
  ],
  [
    { kind: 'top-up', before: q('5.9 bar'), after: q('6.1 bar') },
    're-adjusted from 5.9 bar to 6.1 bar',
    false,
  ],
  [
    { kind: 'top-up', before: q('5.9 bar'), after: q('6.1 bar'), added: q('0.2 l') },
    're-adjusted from 5.9 bar to 6.1 bar, 0.2 l added',
    false,
  ],
  [{ kind: 'pump-step', ...read }, 'pumped to 20.35 mbar', false],
  [
    { kind: 'pump-step', ...read, strokes: 0, added: q('0.4 l') },
    'pumped to 20.35 mbar, 0 strokes, 0.4 l',
    false,
  ],
  [{ kind: 'pump-look', ...read, joints: 'dry', where: '' }, 'joints looked at, dry; 20.35 mbar', false],
  [
    { kind: 'pump-look', ...read, joints: 'drips', where: 'at the stop' },
    'joints looked at, drips: at the stop; 20.35 mbar',
    false,
  ],
  [{ kind: 'pump-failed', text: 'the pump gave out' }, 'test pressure not reached: the pump gave out', true],
  [{ kind: 'draw-down', ...read, volume: q('2.5 l') }, 'drained down to 20.35 mbar: 2.5 l', false],
  [
    { kind: 'witness', when: 'end', seen: 'fell', text: 'a finger' },
    'second place at the end: fell, a finger',
    true,
  ],
  [{ kind: 'witness', when: 'start', seen: 'same', text: '' }, 'second place at the start: unchanged', false],
  [{ kind: 'photo', hash: 'a', caption: 'the gauge' }, 'photo: the gauge', false],
  [{ kind: 'disturbance', what: 'door', text: '' }, 'disturbance: door', true],
  [{ kind: 'disturbance', what: 'door', text: 'slammed' }, 'disturbance: door, slammed', true],
  [
    { kind: 'temperature', when: 'start', figure: q('18.5 C') },
    'pipe temperature at the start: 18.5 °C',
    false,
  ],
  [{ kind: 'barometer', when: 'end', figure: q('1013.2 mbar') }, 'barometer at the end: 1013.2 mbar', false],
  [
    { kind: 'barometer', when: 'start', figure: q('1012.98 mbar'), from: 'station.csv' },
    'barometer at the start: 1012.98 mbar (from station.csv)',
    false,
  ],
  [{ kind: 'barometer', when: 'end', none: true }, 'no barometer at hand', false],
  [{ kind: 'joint', joint: 'j', name: 'Union', place: '' }, 'joint disturbed today: Union', false],
  [
    { kind: 'joint', joint: 'j', name: 'Plug', place: 'cellar', whose: 'boundary' },
    'joint disturbed today: Plug, cellar, of a boundary',
    false,
  ],
  [{ kind: 'joint-look', joint: 'j', found: 'none' }, 'leak fluid on j: no bubble', false],
  [
    { kind: 'joint-look', joint: 'j', found: 'growing', size: 'pea' },
    'leak fluid on j: bubbles that grow, pea',
    false,
  ],
  [{ kind: 'observation', what: 'smell', text: '' }, 'smell observed', false],
  [{ kind: 'observation', what: 'smell', text: 'at the oven' }, 'smell observed: at the oven', false],
  [{ kind: 'inventory', item: thing }, 'written down: Meter, Lobby, M6, serial 123, scale dusty', false],
  [
    { kind: 'inventory', item: { ...thing, serial: '' } },
    'written down: Meter, Lobby, M6, scale dusty',
    false,
  ],
  [{ kind: 'volume' }, 'volume taken from the pipe list', false],
  [
    { kind: 'volume', drawn: q('0.3 l'), before: q('20.0 mbar'), after: q('12.0 mbar') },
    'volume measured: 0.3 l drawn, 20.0 mbar to 12.0 mbar',
    false,
  ],
  [{ kind: 'dial-start', mark: 'at 4' }, 'dial marked: at 4', true],
  [{ kind: 'dial-end', moved: false }, 'dial stood still', true],
  [
    { kind: 'dial-end', moved: false, short: 'called away' },
    'dial stood still; ended before the planned time: called away',
    true,
  ],
  [{ kind: 'dial-end', moved: true }, 'dial moved', true],
  [
    { kind: 'dial-end', moved: true, turns: q('0.1 1'), direction: 'backward' },
    'dial moved 0.1 of a turn, backward',
    true,
  ],
  [
    { kind: 'dial-input', appliance: oven.id, turns: q('1 1'), seconds: q('42 s') },
    `${oven.name}: 1 turns in 42 s`,
    false,
  ],
  [
    { kind: 'dial-input', appliance: 'gone', turns: q('1 1'), seconds: q('42 s') },
    'gone: 1 turns in 42 s',
    false,
  ],
  [
    { kind: 'unsafe', danger: 'at-risk', action: 'labelled', text: 'loses gas', told: 'the tenant' },
    'at risk, labelled: loses gas; told: the tenant',
    false,
  ],
  [
    { kind: 'correction', of: uuid(1), figure, reason: 'misread' },
    'reading corrected to 20.35 mbar: misread',
    true,
  ],
  [{ kind: 'observe', result: 'nobody' }, 'seen: nobody', false],
  [{ kind: 'observe', result: 'nobody', text: 'seen twice' }, 'seen: nobody; reason: seen twice', true],
  [{ kind: 'skip', reason: 'r', text: 'cut off' }, 'left out: cut off', false],
  [{ kind: 'note', text: 'windy' }, 'note: windy', true],
  [{ kind: 'stop' }, 'STOP', false],
  [{ kind: 'stop-reason', reason: 'smell', text: '' }, 'stopped for: smell', false],
  [{ kind: 'stop-reason', reason: 'smell', text: 'strong' }, 'stopped for: smell, strong', true],
  [{ kind: 'debt', debt: 'nowhere', text: '' }, 'put back: nowhere', false],
  [{ kind: 'debt', debt: 'nowhere', text: 'lit' }, 'put back: lit', false],
  [{ kind: 'signature', role: 'tester', name: 'I' }, 'tester I signed', false],
  [
    { kind: 'signature', role: 'customer', name: 'You', refused: 'was away' },
    'customer You did not sign: was away',
    false,
  ],
])('%j', (payload, text, stands) => {
  expect(words(payload)).toBe(text);
  expect(said(payload)).toBe(stands);
});
test('what is known of the plan is said by its name', () => {
  const stages = Object.values(p.procedure.stages);
  const item = stages.flatMap((s) => (s.kind === 'checks' ? s.items : []))[0]!;
  expect(words({ kind: 'check', item: item.key, answer: 'done' })).toBe(`${item.text}: done`);
  const result = stages.flatMap((s) => (s.kind === 'observe' ? s.results : []))[0]!;
  expect(words({ kind: 'observe', result: result.key })).toBe(`seen: ${result.text}`);
  const [key, debt] = Object.entries(p.procedure.debts)[0]!;
  expect(words({ kind: 'debt', debt: key, text: '' })).toBe(`put back: ${debt.text}`);
});
test('entries that change the step, and no other, must be meant for the present one', () => {
  const kinds: RunEvent['kind'][] = [
    'check',
    'proceed',
    'zero',
    'fill',
    'hold-start',
    'hold-end',
    'unheld',
    'observe',
    'skip',
    'top-up',
    'temperature',
    'barometer',
    'volume',
    'dial-start',
    'dial-end',
    'pump-step',
    'pump-look',
    'pump-failed',
    'draw-down',
    'witness',
  ];
  const others: RunEvent['kind'][] = [
    'gauge',
    'kit',
    'reading',
    'stream',
    'photo',
    'disturbance',
    'joint',
    'joint-look',
    'observation',
    'inventory',
    'dial-input',
    'unsafe',
    'correction',
    'note',
    'stop',
    'stop-reason',
    'debt',
    'signature',
  ];
  expect(kinds.filter((k) => !isTransition(k))).toEqual([]);
  expect(others.filter(isTransition)).toEqual([]);
});
