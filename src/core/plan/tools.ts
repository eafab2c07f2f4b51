import type { KitKind } from '@/core/instrument/kit';

/** What a tool that a pack names is to the kit list: where it stands there, and what of the cabinet serves. */
export interface Tool {
  readonly group: 'gauges' | 'tools' | 'consumables';
  /** Which kind of the cabinet serves. Absent: it is not looked for there. */
  readonly kind?: KitKind;
  /** Of things that are used up only those serve whose name holds one of these words. */
  readonly words?: readonly string[];
}
const gauge: Tool = { group: 'gauges' };
const of = (kind?: KitKind): Tool => ({ group: 'tools', ...(kind ? { kind } : {}) });

/** Tools by the name that packs give them. One that is not known here is a tool that is not looked for in the cabinet. */
const TOOLS: Readonly<Record<string, Tool>> = {
  gauge,
  'gauge 1.5 to 3 × test pressure': gauge,
  'gauge in inWC': gauge,
  'gauge in mbar': gauge,
  'gauge in psi or bar': gauge,
  'gauge in Pa': gauge,
  'gauge of fitting scale': gauge,
  'gauge to 4 bar': gauge,
  thermometer: of('thermometer'),
  barometer: of('barometer'),
  pump: of('pump'),
  'hand pump': of('pump'),
  'test pump': of('pump'),
  'test pump with stroke volume': of('pump'),
  'vacuum pump': of('pump'),
  'cylinder regulator': of('regulator'),
  'pressure hose with ties': of('hose'),
  'vacuum gauge': gauge,
  'dry nitrogen': { group: 'consumables', kind: 'consumable', words: ['nitrogen'] },
  'fresh pump oil': { group: 'consumables', kind: 'consumable', words: ['oil'] },
  'air pump with regulator': of('pump'),
  'pump or cylinder with regulator': of('pump'),
  'pump with gauge for the plug': of('pump'),
  'measuring jug': of('vessel'),
  'measuring vessel': of('vessel'),
  hose: of('hose'),
  'duct fan': of('fan'),
  'hose for the fan': of('hose'),
  'adaptor for the access': of('hose'),
  'inlet adaptor that opens the check valve': of('hose'),
  'tap adaptor with washer': of('hose'),
  'inflatable plug with chain': of('plug'),
  'plugs and caps': of('plug'),
  'caps and plugs': of('plug'),
  'leak-detection fluid': { group: 'consumables', kind: 'consumable', words: ['leak', 'detection', 'fluid'] },
  'oil-free air or nitrogen with regulator': {
    group: 'consumables',
    kind: 'consumable',
    words: ['nitrogen', 'oil-free'],
  },
  labels: { group: 'consumables' },
  'labels “do not use”': { group: 'consumables' },
};
export const toolNamed = (name: string): Tool =>
  Object.hasOwn(TOOLS, name) ? TOOLS[name]! : { group: 'tools' };
