/** The scenarios that ship with the product, the installations they name, and the criteria they share. */
import drain from '@scenarios/drain.json';
import duct from '@scenarios/duct.json';
import gas from '@scenarios/gas.json';
import installations from '@scenarios/installations.json';
import main from '@scenarios/main.json';
import pool from '@scenarios/pool.json';
import propane from '@scenarios/propane.json';
import refrigerant from '@scenarios/refrigerant.json';
import rubric from '@scenarios/rubric.json';
import water from '@scenarios/water.json';
import { type Criterion, parseScenario, type Scenario } from '@/core/yard/scenario';
import type { Installations } from '@/core/yard/session';

export const SHIPPED: readonly Scenario[] = (
  [gas, propane, water, drain, main, pool, refrigerant, duct] as unknown[][]
)
  .flat()
  .map(parseScenario);
export const INSTALLATIONS = installations as unknown as Installations;
export const RUBRIC = rubric as unknown as readonly Criterion[];
