import { packs } from '@/core/testing/quarter';
import { toolNamed } from './tools';

const named = [
  ...new Set(
    Object.values(packs).flatMap((pack) =>
      pack.procedures.flatMap((p) => Object.values(p.stages).flatMap((stage) => stage.kit ?? [])),
    ),
  ),
];
const KNOWN_PLAIN = [
  'air with regulator',
  'barrier tape and sign',
  'blank flanges',
  'bucket',
  'camera',
  'chain or line for each plug',
  'chalk or flags',
  'compressor on a long hose',
  'couplings and pipe',
  'covers for smoke alarms',
  'dye',
  'feed hose with backflow protection',
  'goggles, sleeves, boots',
  'grease pencil or tape that sticks under water',
  'hoses for the gauge',
  'lamp',
  'lamp and mirror',
  'listening stick or ground microphone',
  'manifold',
  'manifold keys',
  'mastic or foil tape',
  'measuring tape',
  'meter key',
  'mirror and lamp',
  'open tank',
  'own lock',
  'paint marker',
  'primer and cement',
  'register mask',
  'rig with relief valve',
  'right-angle plug for the pump pot',
  'rule',
  'saw and deburrer',
  'screwdriver for the panel',
  'second person at the water',
  'smoke machine and fluid',
  'spirit or laser level',
  'static probe',
  'steps',
  'straps and lagging',
  'tape',
  'template for the fan',
  'valve core tools',
  'wide hoses',
];

test('every tool a shipped pack names is one the kit list knows, or plainly one of no kind', () => {
  const plain = named.filter((n) => toolNamed(n).group === 'tools' && !toolNamed(n).kind);
  expect(plain.sort()).toEqual(KNOWN_PLAIN);
  expect(named.filter((n) => n.startsWith('gauge')).map((n) => toolNamed(n).group)).toEqual(
    named.filter((n) => n.startsWith('gauge')).map(() => 'gauges'),
  );
});
test('a tool nobody knows, and a word of the language, is a tool that is not looked for', () => {
  expect(toolNamed('rope')).toEqual({ group: 'tools' });
  expect(toolNamed('constructor')).toEqual({ group: 'tools' });
});
