import { networkFrom } from '@/core/network/enter';
import { demoSystem, readDemo } from '../../scripts/demo-data';
import { formOfPipe, pipeFromForm } from './pipe';
import { formOfNetwork, networkFromForm, type NetworkForm } from './network';
import { networkSchema } from './network-schema';

const networks = readDemo().sites.flatMap((site) =>
  site.systems.map((s) => [s.key, networkFrom(demoSystem(s, s.key))] as const),
);
const said = (value: unknown): string => {
  try {
    networkSchema.validateSync(value, { strict: true });
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};

test.each(networks)('%s: a network goes to a form and comes back the same', (_, network) => {
  const form = formOfNetwork(network);
  expect(said(form)).toBe('');
  // a pipe of a table has the table's own digits afterwards
  const tabled = network.links.map((l) => (l.pipe ? { ...l, pipe: pipeFromForm(formOfPipe(l.pipe)) } : l));
  expect(networkFromForm(networkSchema.validateSync(form, { strict: true }))).toEqual({
    ...network,
    links: tabled,
  });
});

const start = formOfNetwork(networks[0]![1]);
const change = (id: string, part: object): NetworkForm => ({
  ...start,
  parts: start.parts.map((p) => (p.id === id ? { ...p, ...part } : p)),
});
const appliance = start.parts.find((p) => p.kind === 'appliance')!.id;
const pipe = start.links.find((l) => l.pipe)!;
test.each<[string, unknown, RegExp]>([
  ['a line to nowhere', { parts: [], links: [{ id: 'l', from: 'a', to: 'b' }] }, /ends nowhere/],
  ['two parts of one id', { ...start, parts: [...start.parts, start.parts[0]] }, /two parts have one id/],
  [
    'a part joined to itself',
    { ...start, links: [{ id: 'l', from: 'supply', to: 'supply' }] },
    /ends nowhere/,
  ],
  [
    'one pipe in two places',
    { ...start, links: [...start.links, { ...pipe, id: 'again' }] },
    /two parts have one id/,
  ],
  ['a part between the squares', change('supply', { x: 1.5 }), /integer/],
  ['a part off the sheet', change('supply', { y: 241 }), /240/],
  ['a lamp', change('supply', { kind: 'lamp' }), /kind/],
  ['a part without a name', change('supply', { name: '' }), /Give every valve a name/],
  ['a meter that closes', change('meter', { position: 'closed' }), /meter does not close/],
  ['a colour', change('supply', { facts: { colour: 'red' } }), /colour: is no fact of it/],
  ['a volume in bar', change(appliance, { facts: { volume: '2 bar' } }), /does not measure a volume/],
  ['a volume below zero', change(appliance, { facts: { volume: '-2 l' } }), /must not be below zero/],
  ['a use nobody knows', change('supply', { facts: { use: 'parade' } }), /is none of the answers/],
  ['a pilot of perhaps', change(appliance, { facts: { hasPilot: 'perhaps' } }), /must be yes or no/],
  ['a list for words', change('supply', { facts: { owner: ['us'] } }), /must be words/],
  [
    'a bore of nothing',
    { ...start, links: [{ ...pipe, pipe: { ...pipe.pipe, bore: '0 mm' } }] },
    /above zero/,
  ],
])('%s is refused', (_name, value, words) => expect(said(value)).toMatch(words));
test('a fact left empty is not known, and is absent', () => {
  const none = networkFromForm(change(appliance, { facts: { volume: '', hasPilot: false } }));
  expect(none.parts.find((p) => p.id === appliance)!.facts).toEqual({ hasPilot: false });
});

test('the edge of a pool goes there and back; one that is no shape, or a sketch without corners, is refused', () => {
  const outline = {
    shape: 'sketched' as const,
    x: 10,
    y: 10,
    width: 20,
    height: 20,
    points: [
      [10, 10],
      [30, 10],
      [20, 30],
    ] as const,
  };
  const network = { outline, parts: [], links: [] };
  const sent = networkSchema.validateSync(JSON.parse(JSON.stringify(formOfNetwork(network))), {
    strict: true,
  });
  expect(networkFromForm(sent)).toEqual(network);
  expect(
    networkFromForm(networkSchema.validateSync({ parts: [], links: [] }, { strict: true })).outline,
  ).toBeUndefined();
  for (const wrong of [
    { ...outline, shape: 'star' },
    {
      ...outline,
      points: [
        [10, 10],
        [30, 10],
      ],
    },
    {
      ...outline,
      points: [
        [10, 10],
        [30, 10],
        [999, 30],
      ],
    },
    { ...outline, points: undefined },
    { ...outline, x: -1 },
  ])
    expect(() =>
      networkSchema.validateSync({ parts: [], links: [], outline: wrong }, { strict: true }),
    ).toThrow();
});
