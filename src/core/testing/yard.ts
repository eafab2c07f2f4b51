/** What every test of the Yard stands on: an occasion, the shipped scenarios, the common rubric. */
import drain from '@scenarios/drain.json';
import duct from '@scenarios/duct.json';
import gas from '@scenarios/gas.json';
import installations from '@scenarios/installations.json';
import main from '@scenarios/main.json';
import pool from '@scenarios/pool.json';
import propane from '@scenarios/propane.json';
import refrigerant from '@scenarios/refrigerant.json';
import water from '@scenarios/water.json';
import { uuid } from '@/core/testing/bakery';
import { packWith } from '@/core/testing/quarter';
import type { Shelf } from '@/core/yard/questions/conducted';
import { parseScenario, type Scenario } from '@/core/yard/scenario';
import type { Installations, Occasion } from '@/core/yard/session';

export const occasion: Occasion = {
  run: uuid(1, 3),
  system: uuid(2, 3),
  gauge: uuid(3, 3),
  fan: uuid(4, 3),
  organisation: { id: uuid(1, 1), name: 'Hollin & Daughters' },
  site: { id: uuid(1, 4), name: 'Yard', address: 'simulated', customer: 'nobody' },
  made: { at: '2026-11-20T08:00:00.000Z', zone: 'Europe/London', by: 'T' },
  packHash: 'test',
};
/** Every scenario that ships. */
export const shippedScenarios = (): Scenario[] =>
  ([drain, duct, gas, main, pool, propane, refrigerant, water] as unknown[][]).flat().map(parseScenario);
export const shelf = (): Shelf => ({
  scenarios: shippedScenarios(),
  packOf: (s) => packWith(s.procedure),
  installations: installations as unknown as Installations,
  on: occasion,
});
