/** The demo's scenario as it is written down: people, gauges, places and what was entered on each bench. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { figures } from '@/core/installation/written';
import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import { withNetwork } from '@/core/network/enter';
import { parseWithUnit } from '@/core/quantity/exact';
import type { ScriptLine } from '@/core/run/script';
import type { Role } from '@/wire/role';

const q = parseWithUnit;
type Texts<T> = { [K in keyof T]: T[K] extends object ? unknown : T[K] };
export interface Demo {
  organisation: { name: string; contact: string };
  people: { key: string; name: string; role: Role; licence?: [string, string] }[];
  gauges: ({ key: string } & Record<string, string>)[];
  sites: {
    key: string;
    name: string;
    address: string;
    customer: string;
    systems: (Texts<System> & {
      key: string;
      pipes: Record<string, string>[];
      appliances: Record<string, unknown>[];
      meter: Record<string, string>;
    })[];
  }[];
  runs: {
    system: string;
    by: string;
    at: string;
    procedure: string;
    case: string;
    choices?: Record<string, string>;
    /** Of several sections of the place the one that is tested, by its ends. */
    section?: string;
    /** Repeats the newest record of the system that was not good. */
    retest?: true;
    lines: ScriptLine[];
    seal: boolean;
  }[];
  kit: (Record<string, unknown> & { name: string })[];
  log: { of: string; by: string; at: string; entry: Record<string, unknown> }[];
  watches: {
    system: string;
    /** Written by the link, not by the firm. */
    link?: true;
    entries: {
      at: string;
      kind: 'reading' | 'on-site' | 'correction' | 'end';
      figure?: string;
      temperature?: string;
      who: string;
      trade: string;
      text: string;
      /** Which entry is corrected, by its place in this list. */
      of?: number;
    }[];
  }[];
  visits: {
    by: string;
    /** Days from the day the demo is loaded, like "+1". */
    day: string;
    start: string;
    title: string;
    promise: string;
    present: string[];
    tests: { system: string; procedure: string; case: string }[];
  }[];
}
/** Of kit, `size` is a word. */
export const kitFigures = (value: Record<string, unknown>): unknown => {
  const { size, accuracy, ...rest } = value;
  return {
    ...(figures(rest) as object),
    ...(size ? { size } : {}),
    ...(typeof accuracy === 'string' ? { accuracy: q(accuracy) } : {}),
  };
};
export const readDemo = (): Demo =>
  JSON.parse(readFileSync(path.join(process.cwd(), 'demo/millrace.json'), 'utf8')) as Demo;
/** A gauge of the demo as the cabinet keeps it. */
export const demoGauge = ({ key: _key, ...g }: Demo['gauges'][number], id: string): Gauge =>
  ({
    ...g,
    id,
    least: q(g.least!),
    greatest: q(g.greatest!),
    resolution: q(g.resolution!),
    simulated: false,
  }) as unknown as Gauge;
/** A system of the demo as a place keeps it. */
export const demoSystem = (
  { key: _key, ...s }: Demo['sites'][number]['systems'][number],
  id: string,
): System => {
  const system = figures({ ...s, id }) as System;
  // what is drawn says what there is
  return system.network ? withNetwork(system, system.network) : system;
};
