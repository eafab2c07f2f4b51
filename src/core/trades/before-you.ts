/** What can stand before a person who wants to test something now: by each the facts that are plain from looking at it. */
import { meterVolume } from '@/core/installation/meters';

export interface BeforeYou {
  readonly key: string;
  /** What it is called, and what to look for. */
  readonly title: string;
  readonly look: string;
  readonly medium: string;
  readonly duty: string;
  /** As the rule packs call its class; '' is asked by its badge. */
  readonly meterKind: string;
  readonly meterVolume: string;
  readonly workingPressure: string;
  /** Pipe that is usual there. */
  readonly table: string;
  readonly nominal: string;
  /** No gauge judges it: it is read by a level or by a fan of its own. */
  readonly gaugeless?: true;
}
const thing = (
  key: string,
  title: string,
  look: string,
  medium: string,
  over: Partial<BeforeYou> = {},
): BeforeYou => ({
  key,
  title,
  look,
  medium,
  duty: '',
  meterKind: 'none',
  meterVolume: '0 l',
  workingPressure: '21 mbar',
  table: 'copper-thin',
  nominal: '22 × 0.9',
  ...over,
});

/** In the order in which they are met most. Pressures and pipe are what is usual (house figures): each is shown and can be changed. */
export const BEFORE_YOU: readonly BeforeYou[] = [
  thing('gas-meter', 'Gas, small house meter', 'badge says U6 or G4', 'natural gas', {
    meterKind: 'diaphragm-U6-G4',
    meterVolume: meterVolume('diaphragm-U6-G4'),
  }),
  thing('gas-other', 'Gas, another meter', 'read its badge', 'natural gas', {
    meterKind: '',
    meterVolume: '',
  }),
  thing('gas-none', 'Gas, no meter here', 'a flat behind a valve, or new pipe', 'natural gas'),
  thing('propane', 'Propane', 'cylinder or tank, with a regulator', 'propane', {
    workingPressure: '11 inWC',
  }),
  thing('water-pipes', 'Water or heating pipes', 'a pump fills and presses them', 'water', {
    duty: 'pipework',
    workingPressure: '3 bar',
  }),
  thing('loops', 'Floor-heating manifold', 'loops with flow meters', 'water', {
    duty: 'loops',
    workingPressure: '3 bar',
    nominal: '15 × 0.7',
  }),
  thing('house-supply', 'House water supply', 'behind a water meter', 'water', {
    duty: 'house',
    workingPressure: '4 bar',
  }),
  thing('drain', 'Drain', 'a cleanout, filled to the slab', 'drain', {
    workingPressure: '0 mbar',
    table: 'pvc-sch40',
    nominal: '4 in',
    gaugeless: true,
  }),
  thing('main', 'Buried water main', 'between two ends in the ground', 'water', {
    duty: 'main',
    workingPressure: '6 bar',
  }),
  thing('vehicle-water', 'Water in a vehicle', 'trailer, caravan, boat', 'water', {
    duty: 'vehicle',
    workingPressure: '2 bar',
  }),
  thing('pool', 'Pool or spa', 'skimmers, returns, drains', 'pool water', {
    workingPressure: '0 psi',
    table: 'pvc-sch40',
    nominal: '2 in',
  }),
  thing('circuit', 'Refrigerant pipes', 'between unit and evaporators', 'refrigerant', {
    workingPressure: '0 bar',
  }),
  thing('ducts', 'Air ducts', 'registers and an air handler', 'ducted air', {
    workingPressure: '0 mbar',
    gaugeless: true,
  }),
];
export const beforeYou = (key: string): BeforeYou | undefined => BEFORE_YOU.find((b) => b.key === key);
