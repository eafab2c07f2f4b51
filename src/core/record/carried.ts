/** What stood otherwise at the office when a run arrived that was begun without a signal. */
import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import { canonical } from './canonical';
import { inZone } from '@/core/quantity/in-zone';
import type { Carried, Plan } from '@/core/plan/plan';

/** What a heading of an installation is called; a heading without a name is one of its other facts. */
const HEADINGS: Partial<Record<keyof System, string>> = {
  name: 'its name',
  medium: 'its medium',
  workingPressure: 'working pressure',
  supplyPressure: 'supply pressure',
  designPressure: 'design pressure',
  supplyValve: 'supply valve',
  testPoint: 'test point',
  meter: 'meter',
  pipes: 'pipes',
  appliances: 'appliances',
  inScope: 'what is in scope',
  notCovered: 'what is not covered',
  regulators: 'regulators',
  tank: 'tank',
  valves: 'valves',
  noValves: 'valves that are not here',
  joints: 'joints',
  elements: 'what is weakest',
  measured: 'measured volume',
};
/** Drawn from the network, which every change of it changes too: said by their own names alone. */
const DRAWN: ReadonlySet<string> = new Set(['network', 'seen', 'id']);

const differs = (a: unknown, b: unknown): boolean => canonical(a ?? null) !== canonical(b ?? null);
function changedSystem(given: System, now: System): string[] {
  const keys = [...new Set([...Object.keys(given), ...Object.keys(now)])].filter(
    (k) => differs(given[k as keyof System], now[k as keyof System]) && !DRAWN.has(k),
  ) as (keyof System)[];
  const named = keys.flatMap((k) => HEADINGS[k] ?? []);
  const others = keys.some((k) => !HEADINGS[k]) || (!keys.length && differs(given.network, now.network));
  return [...named, ...(others ? ['other facts of it'] : [])].map((what) => `installation: ${what}`);
}
function changedGauges(given: readonly Gauge[], now: readonly Gauge[]): string[] {
  return given.flatMap((g) => {
    const own = now.find((x) => x.id === g.id);
    return own ? (differs(own, g) ? [`gauge ${g.name}`] : []) : [`gauge ${g.name}, not in the cabinet`];
  });
}
/** What two states of the same knowledge differ in. Words, in the order of a plan. */
export function changedSince(
  given: {
    readonly site: Plan['site'];
    readonly system: System;
    readonly gauges: readonly Gauge[];
    readonly packHash: string;
  },
  now: typeof given,
): string[] {
  return [
    ...(differs(given.site, now.site) ? ['name, address or customer of the place'] : []),
    ...changedSystem(given.system, now.system),
    ...changedGauges(given.gauges, now.gauges),
    ...(given.packHash === now.packHash ? [] : ['version of the rules']),
  ];
}
/** The device's plan and the office's, made of the same, were not the same: the office's holds. */
export const PLANS_DIFFER =
  'the plan the device had made; the one made here holds, and entries that do not fit it are kept with their reason';

/** How a run came to the office, in one or two sentences; '' where it was begun there. @param zone the run's */
export function carriedWords(carried: Carried | undefined, zone: string): string {
  if (!carried) return '';
  const from = carried.given
    ? `from what the office gave the device at ${inZone(Date.parse(carried.given), zone)}`
    : 'from what was entered on the device';
  return `Begun without a signal ${from}; arrived at ${inZone(Date.parse(carried.arrived), zone)}. ${
    carried.changed.length
      ? `Otherwise at the office then: ${carried.changed.join('; ')}.`
      : 'Nothing stood otherwise at the office then.'
  }`;
}
