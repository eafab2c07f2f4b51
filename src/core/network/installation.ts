/**
 * An installation as it is kept: a network and the facts of the whole. What rules, limits and papers read of it (its
 * pipes, appliances, valves by kind, weakest parts) is derived here and nowhere stored beside it.
 */
import type { Pipe } from '@/core/installation/pipe';
import { VALVE_KINDS, type ValveKind } from '@/core/installation/parts';
import type { Appliance, Meter, System } from '@/core/installation/section';
import { exact } from '@/core/quantity/exact';
import { ruleOfPart } from './catalogue';
import { reachOf } from './flood';
import {
  figureOf,
  firstSupply,
  namedElsewhere,
  partsOf,
  textOf,
  valveFor,
  type Network,
  type Part,
} from './network';

/** What follows from the network. */
const DERIVED = [
  'supplyValve',
  'supplyValveOwner',
  'testPoint',
  'meter',
  'pipes',
  'appliances',
  'regulators',
  'tank',
  'valves',
  'joints',
  'elements',
  'factoryTested',
  'surfaces',
  'loops',
  'outlets',
  'connections',
  'condensing',
  'evaporators',
  'receivers',
  'expansions',
  'handlers',
  'registers',
  'intakes',
  'network',
  'schematic',
] as const;
type Derived = (typeof DERIVED)[number];
export interface Installation extends Omit<System, Derived> {
  readonly network: Network;
  /** What is known of the meter where none is drawn: that there is none, or that nobody has looked. */
  readonly meterless?: Meter;
}
/** A meter of these classes is none that could be drawn. */
export const NO_METER = ['none', 'unknown', ''];

/** The id a list of the section knows a part by: two lists may have used the same one before they were one network. */
export const listId = (part: Part): string =>
  part.id.startsWith(`${part.kind}:`) ? part.id.slice(part.kind.length + 1) : part.id;

const plateOf = (part: Part) =>
  Object.fromEntries(
    (['make', 'model', 'serial'] as const).flatMap((k) => (textOf(part, k) ? [[k, textOf(part, k)]] : [])),
  );
/** A fact under its key, absent where it is not known. */
const known = (part: Part, ...keys: string[]) =>
  Object.fromEntries(
    keys.flatMap((k) => {
      const fact = part.facts[k];
      return fact === undefined || fact === '' ? [] : [[k, fact]];
    }),
  );
/** A list under its key, absent where it is empty. */
const some = <K extends string, T>(key: K, list: readonly T[]) =>
  (list.length ? { [key]: list } : {}) as { readonly [k in K]?: readonly T[] };
const NONE = exact(0, 0, 'l');

const applianceOf = (network: Network, part: Part): Appliance => ({
  id: listId(part),
  name: part.name,
  place: part.place,
  kind: textOf(part, 'type'),
  valve: valveFor(network, part)?.name ?? '',
  // what nobody said is asked at the bench, never skipped
  hasPilot: part.facts.hasPilot !== false,
  hasLid: part.facts.hasLid !== false,
  volume: figureOf(part, 'volume') ?? NONE,
  ...known(part, 'maxInlet', 'input'),
  ...plateOf(part),
});
/** What a valve shuts. One of which nobody said it is checked with the hidden ones: asked, never skipped. */
const useOf = (part: Part): ValveKind => VALVE_KINDS.find((k) => k === textOf(part, 'use')) ?? 'hidden';

/** The pipes of the section and those that a closed part keeps out of it. */
export function pipesOf(network: Network): { inside: Pipe[]; shutOff: Pipe[] } {
  const { shutOff } = reachOf(network);
  const pipes = network.links.flatMap((l) => (l.pipe ? [{ pipe: l.pipe, out: shutOff.has(l.id) }] : []));
  return {
    inside: pipes.filter((p) => !p.out).map((p) => p.pipe),
    shutOff: pipes.filter((p) => p.out).map((p) => p.pipe),
  };
}
function meterOf(i: Installation): Meter {
  const meter = partsOf(i.network, 'meter')[0];
  const valve = partsOf(i.network, 'valve').find((v) => textOf(v, 'use') === 'meter');
  const own: Meter = meter
    ? {
        kind: textOf(meter, 'class') || 'unknown',
        name: meter.name,
        volume: figureOf(meter, 'volume') ?? NONE,
        ...known(meter, 'serial', 'testDial'),
      }
    : (i.meterless ?? { kind: 'unknown', name: 'not looked at yet', volume: NONE });
  return {
    ...own,
    ...(valve
      ? { valve: valve.name, ...(textOf(valve, 'owner') ? { valveOwner: textOf(valve, 'owner') } : {}) }
      : {}),
  };
}

/** The section as rules read it: every list follows from the network. */
export function sectionOf(i: Installation): System {
  const { network, meterless: _none, ...whole } = i;
  const supply = firstSupply(network);
  const list = <T>(kind: Parameters<typeof partsOf>[1], each: (part: Part) => T | null): T[] =>
    partsOf(network, kind).flatMap((p) => each(p) ?? []);
  const place = (p: Part) => ({ id: listId(p), name: p.name, place: p.place });
  const tank = partsOf(network, 'tank')[0];
  return {
    ...whole,
    network,
    supplyValve: supply?.name ?? '',
    supplyValveOwner: textOf(supply, 'owner'),
    testPoint: partsOf(network, 'point')[0]?.name ?? '',
    meter: meterOf(i),
    pipes: pipesOf(network).inside,
    appliances: list('appliance', (p) => applianceOf(network, p)),
    ...some(
      'regulators',
      list('regulator', (p) => ({ ...place(p), ...known(p, 'stage', 'maxInlet'), ...plateOf(p) })),
    ),
    ...(tank
      ? { tank: { ...place(tank), size: textOf(tank, 'size'), ...known(tank, 'make', 'serial') } }
      : {}),
    ...some(
      'valves',
      list('valve', (p) => (namedElsewhere(network, p) ? null : { ...place(p), kind: useOf(p) })),
    ),
    ...some(
      'joints',
      list('joint', (p) => ({ ...place(p), ...known(p, 'count') })),
    ),
    ...some(
      'condensing',
      list('condensing', (p) => ({
        ...place(p),
        ...known(p, ...Object.keys(ruleOfPart('condensing').facts)),
      })),
    ),
    ...some(
      'evaporators',
      list('evaporator', (p) => ({ ...place(p), ...known(p, 'ps', 'volume'), ...plateOf(p) })),
    ),
    ...some(
      'receivers',
      list('receiver', (p) => ({ ...place(p), ...known(p, 'ps', 'volume'), ...plateOf(p) })),
    ),
    ...some('expansions', list('expansion', place)),
    ...some(
      'handlers',
      list('handler', (p) => ({ ...place(p), ...known(p, 'heats'), ...plateOf(p) })),
    ),
    ...some(
      'registers',
      list('register', (p) => ({ ...place(p), ...known(p, 'type') })),
    ),
    ...some('intakes', list('intake', place)),
    ...some(
      'elements',
      list('fitting', (p) => {
        const most = figureOf(p, 'most');
        return most ? { ...place(p), most } : null;
      }),
    ),
    ...some(
      'factoryTested',
      list('tested', (p) => ({ id: listId(p), name: p.name, certificate: textOf(p, 'certificate') })),
    ),
    ...some(
      'surfaces',
      list('opening', (p) => {
        const bore = figureOf(p, 'bore');
        const count = typeof p.facts.count === 'number' ? p.facts.count : 1;
        return bore ? { id: listId(p), name: p.name, bore, count } : null;
      }),
    ),
    ...some(
      'outlets',
      list('outlet', (p) => ({ ...place(p), ...known(p, 'type', 'size') })),
    ),
    ...some(
      'connections',
      list('connection', (p) => ({ ...place(p), ...known(p, 'type', 'size') })),
    ),
    ...some(
      'loops',
      list('loop', (p) => ({
        id: listId(p),
        name: p.name,
        valve: textOf(p, 'valve'),
        flowMeter: textOf(p, 'flowMeter'),
      })),
    ),
  };
}

/** What no list of the section can say for want of a fact, in sentences: it is asked, never left out in silence. */
export function unanswered(network: Network): string[] {
  const without = (kind: Parameters<typeof partsOf>[1], key: string, text: (name: string) => string) =>
    partsOf(network, kind)
      .filter((p) => p.facts[key] === undefined)
      .map((p) => text(p.name));
  const { shutOff } = pipesOf(network);
  return [
    ...without(
      'fitting',
      'most',
      (n) => `${n}: what does it permit? Until that is known it caps no test pressure.`,
    ),
    ...without(
      'opening',
      'bore',
      (n) => `${n}: how wide is it? Until that is known its water is not counted.`,
    ),
    ...without('appliance', 'volume', (n) => `${n}: its volume is not known and counts as nothing.`),
    ...without(
      'condensing',
      'refrigerant',
      (n) => `${n}: which refrigerant? Without it PS has to be read from the plate.`,
    ),
    ...without('evaporator', 'volume', (n) => `${n}: its volume is not known and counts as nothing.`),
    ...without('receiver', 'volume', (n) => `${n}: its volume is not known and counts as nothing.`),
    ...without('meter', 'volume', (n) => `${n}: its volume is not known and counts as nothing.`),
    ...without(
      'valve',
      'use',
      (n) => `${n}: what does it shut? Until that is said it is checked as a hidden valve.`,
    ),
    ...[...partsOf(network, 'outlet'), ...partsOf(network, 'connection')]
      .filter((p) => p.facts.size === undefined)
      .map((p) => `${p.name}: how wide is its pipe? Plug and pressure go by it.`),
    ...shutOff.map((p) => `${p.name} lies behind a closed valve: it is no part of this section.`),
  ];
}

/** An installation without what follows from its network. */
export function installationOf(section: System, network: Network): Installation {
  const whole = Object.fromEntries(
    Object.entries(section).filter(([key]) => !(DERIVED as readonly string[]).includes(key)),
  ) as Omit<System, Derived>;
  const { valve: _v, valveOwner: _o, ...meterless } = section.meter;
  // a meter that was drawn and is gone is one that nobody has looked for since
  const none = !partsOf(network, 'meter').length && NO_METER.includes(meterless.kind);
  return { ...whole, network, ...(none ? { meterless } : {}) };
}

/** What is not covered, in words: as entered, each part that relies on its maker's test, each pipe behind a closed valve. */
export const notCoveredOf = (section: System): string[] => [
  ...section.notCovered,
  ...(section.factoryTested ?? []).map((f) => `${f.name}: isolated, tested by its maker (${f.certificate})`),
  ...(section.condensing ?? []).map(
    (c) =>
      `${c.name}: isolated behind its service valves, ${c.certificate ? `tested by its maker (${c.certificate})` : 'its maker’s certificate not at hand'}`,
  ),
  ...(section.network ? pipesOf(section.network).shutOff : []).map((p) => `${p.name}: behind a closed valve`),
];
