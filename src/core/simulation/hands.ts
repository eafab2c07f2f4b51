/** What a person may do by hand at a simulated installation: what is asked, checked against what stands there. */
import type { System } from '@/core/installation/section';
import { ruleOfPart } from '@/core/network/catalogue';
import { networkOf } from '@/core/network/enter';
import { positionKey, textOf } from '@/core/network/network';
import { poolEnds } from '@/core/trades/pool/ends';
import { SIMULATED_RINGS } from './duct';
import type { Action, Simulation } from './simulation';

/** As a hand's work is asked for: what, at what, how. */
export interface HandWork {
  readonly act: string;
  readonly value?: string | undefined;
  readonly id?: string | undefined;
}
/** An action before it has its moment. */
export type Doing = Omit<Action, 'at'>;
/** @returns the action; a sentence where it cannot be done there */
type Does = (
  work: { readonly value: string; readonly id: string; readonly figure: number },
  system: System,
) => Doing | string;

const opens =
  (act: 'bleed' | 'tap' | 'vent' | 'cylinder'): Does =>
  ({ value }) =>
    ({ act, open: value === 'open' }) as Doing;
const counted =
  (act: 'pump' | 'fill', key: 'strokes' | 'millimetres'): Does =>
  ({ figure }) =>
    figure >= 0 && figure <= 20_000
      ? ({ act, [key]: Math.round(figure) } as unknown as Doing)
      : 'Say how many strokes, or how many millimetres.';
const atPlace =
  (act: 'fluid' | 'smell' | 'mend'): Does =>
  ({ value }) =>
    ({ act, place: value || 'pipework' }) as Doing;
const register =
  (act: 'look-at' | 'mask' | 'smoke' | 'seal'): Does =>
  ({ id }, system) =>
    system.registers?.some((r) => r.id === id) ? ({ act, id } as Doing) : 'There is no such register.';
const ring =
  (act: 'mount' | 'set'): Does =>
  ({ value }) =>
    SIMULATED_RINGS.some((r) => r.name === value)
      ? ({ act, ring: value } as Doing)
      : 'There is no such ring.';
const plain =
  (act: string): Does =>
  () =>
    ({ act }) as Doing;
const valve: Does = ({ id, value }) => ({ act: 'valve', id, open: value === 'open' }) as Doing;
/** A valve that a hand can turn, and behind which nothing is that must stay shut off. */
const turned: Does = (work, system) => {
  const network = networkOf(system);
  const part = network.parts.find((p) => ruleOfPart(p.kind).closes && positionKey(network, p) === work.id);
  if (!part) return 'There is no such valve.';
  if (part.kind === 'expansion') return 'An expansion valve works by itself: no hand turns it.';
  const use = textOf(part, 'use');
  if (use === 'solenoid') return 'A solenoid valve is opened by its magnet.';
  if (use === 'liquid' || use === 'suction')
    return 'Behind the service valve stands the unit with its charge: it stays shut while you test.';
  return valve(work, system);
};

const ALL: Readonly<Record<string, Does>> = {
  gauge: ({ value }) => ({ act: 'gauge', connected: value === 'connected' }) as Doing,
  zero: plain('zero'),
};
const supply: Does = ({ value }) =>
  ['shut', 'crack', 'open'].includes(value)
    ? ({ act: 'supply', open: value } as Doing)
    : 'The supply valve is shut, cracked open, or open.';
/** What can be done, by kind of installation. */
export const HANDS: Readonly<Record<Simulation['kind'], Readonly<Record<string, Does>>>> = {
  gas: {
    ...ALL,
    supply,
    bleed: opens('bleed'),
    pump: counted('pump', 'strokes'),
    valve,
    appliance: ({ id, value }, system) =>
      system.appliances.some((a) => a.id === id)
        ? ({ act: 'appliance', id, open: value === 'open' } as Doing)
        : 'There is no such appliance.',
    fluid: atPlace('fluid'),
    smell: atPlace('smell'),
    mend: atPlace('mend'),
    look: ({ value }) => ({ act: 'look', place: value }) as Doing,
    detector: plain('detector'),
    'level-gauge': plain('level-gauge'),
    'tap-gauge': plain('tap-gauge'),
  },
  liquid: {
    ...ALL,
    supply,
    bleed: opens('bleed'),
    tap: opens('tap'),
    pump: counted('pump', 'strokes'),
    fill: counted('fill', 'millimetres'),
    valve,
    'air-out': plain('air-out'),
    'tap-gauge': plain('tap-gauge'),
    look: ({ value }, system) =>
      value === 'ground' ||
      value === 'kit' ||
      poolEnds(system).some((e) => e.id === value) ||
      system.network?.parts.some((p) => p.id === value)
        ? ({ act: 'look', place: value } as Doing)
        : 'This line has no such end.',
    reseat: ({ value }, system) =>
      poolEnds(system).some((e) => e.id === value)
        ? ({ act: 'reseat', end: value } as Doing)
        : 'This line has no such end.',
    mend: atPlace('mend'),
    dye: plain('dye'),
    listen: ({ figure }) =>
      figure >= 0 && figure <= 10000
        ? ({ act: 'listen', along: figure } as Doing)
        : 'Say how far along the run, in m.',
  },
  circuit: {
    ...ALL,
    label: plain('label'),
    cylinder: opens('cylinder'),
    vent: opens('vent'),
    'vacuum-pump': ({ value }) => ({ act: 'vacuum-pump', on: value === 'on' }) as Doing,
    solenoid: ({ id }, system) =>
      system.valves?.some((v) => v.id === id)
        ? ({ act: 'solenoid', id } as Doing)
        : 'There is no such valve.',
    valve: turned,
    fluid: atPlace('fluid'),
    thermometer: ({ value }) => ({ act: 'thermometer', place: value === 'pipe' ? 'pipe' : 'room' }) as Doing,
  },
  duct: {
    ...ALL,
    speed: ({ figure }) =>
      figure >= 0 && figure <= 100
        ? ({ act: 'speed', percent: Math.round(figure) } as Doing)
        : 'Say the speed of the fan, from 0 to 100 %.',
    mount: ring('mount'),
    set: ring('set'),
    hose: ({ value }) => ({ act: 'hose', closed: value === 'closed' }) as Doing,
    'look-fan': plain('look-fan'),
    'look-at': register('look-at'),
    mask: register('mask'),
    smoke: register('smoke'),
    seal: register('seal'),
    'new-hose': plain('new-hose'),
    valve: turned,
  },
};
/** Every word that is known in some kind of installation. */
export const HAND_WORDS: readonly string[] = [
  ...new Set(Object.values(HANDS).flatMap((h) => Object.keys(h))),
];
/** What a hand's work does; a sentence where it cannot be done there. */
export function handWork(system: System, kind: Simulation['kind'], work: HandWork): Doing | string {
  const does = Object.hasOwn(HANDS[kind], work.act) ? HANDS[kind][work.act] : undefined;
  if (!does) return 'This cannot be done at this installation.';
  return does({ value: work.value ?? '', id: work.id ?? '', figure: Number(work.value) }, system);
}
