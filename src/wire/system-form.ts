/** A system as a form shows it, and the system that was entered. */
import type { System } from '@/core/installation/section';
import { HEIGHT_KEYS, type HeightFact, WHOLE_KEYS } from '@/core/installation/whole';
import { withListsOf } from '@/core/network/enter';
import { PART_LIST_KEYS, rowsOf } from '@/core/network/lists';
import { exact, type Exact, parseWithUnit, showUnit } from '@/core/quantity/exact';
import { dutyFrom } from '@/core/trades';
import { type FormHeight, formHeight } from './form-words';
import { formOfPipe, pipeFromForm } from './pipe';
import type { SystemForm } from './places';
import { formOfRow, type RowForm, rowFromForm } from './rows';

const figureOf = (e: Exact | undefined): string => (e ? showUnit(e) : '');
const maybe = <K extends string>(key: K, value: string): { [k in K]?: Exact } =>
  value ? ({ [key]: parseWithUnit(value) } as { [k in K]?: Exact }) : {};
const words = <K extends string>(key: K, value: string): { [k in K]?: string } =>
  value ? ({ [key]: value } as { [k in K]?: string }) : {};

/** What the form says; all else that is known of a system stays. */
const ENTERED: readonly (keyof System)[] = [
  ...WHOLE_KEYS,
  ...PART_LIST_KEYS,
  'access',
  'noValves',
  'tank',
  'measured',
  'duty',
  'everyMonths',
  'heights',
];
const tankFrom = (form: SystemForm, before: System | null) =>
  form.tankSize
    ? {
        tank: {
          id: before?.tank?.id ?? 'tank',
          name: before?.tank?.name ?? 'Tank',
          place: form.tankPlace,
          size: form.tankSize,
          ...words('make', form.tankMake),
          ...words('serial', form.tankSerial),
        },
      }
    : {};
const measuredFrom = (form: SystemForm) =>
  form.measuredBy
    ? {
        measured: {
          by: form.measuredBy as 'draw' | 'strokes',
          volume: parseWithUnit(form.measuredVolume),
          uncertainty: form.measuredUncertainty
            ? parseWithUnit(`${form.measuredUncertainty} %`)
            : exact(5, 0, '%'),
          said: form.measuredSaid || form.measuredVolume,
        },
      }
    : {};
const heightsFrom = (form: SystemForm) =>
  form.datum
    ? {
        heights: {
          datum: form.datum,
          ...Object.fromEntries(
            HEIGHT_KEYS.flatMap((k) => Object.entries(maybe<string>(k, form[formHeight(k)]))),
          ),
        },
      }
    : {};
/** Rows of every list; an appliance that nobody called anything is what its name says. */
const listsFrom = (form: SystemForm, before: System | null) =>
  Object.fromEntries(
    PART_LIST_KEYS.flatMap((list) => {
      const old = before ? rowsOf(before, list) : [];
      const rows = form[list].map((row) => {
        const made = rowFromForm(
          list,
          row,
          old.find((o) => o.id === row.id),
        );
        return list === 'appliances' && !made.kind ? { ...made, kind: made.name.toLowerCase() } : made;
      });
      return rows.length || list === 'appliances' ? [[list, rows] as const] : [];
    }),
  );
/** What is entered, laid over a system's other facts (its network, what was seen), which stay; the network follows. */
export function systemFromForm(form: SystemForm, before: System | null, id: string): System {
  const kept = Object.fromEntries(
    Object.entries(before ?? {}).filter(([key]) => !(ENTERED as readonly string[]).includes(key)),
  ) as Partial<System>;
  return withListsOf({
    ...kept,
    id,
    name: form.name,
    medium: form.medium,
    workingPressure: parseWithUnit(form.workingPressure),
    supplyPressure: parseWithUnit(form.supplyPressure),
    supplyValve: form.supplyValve,
    supplyValveOwner: form.supplyValveOwner,
    testPoint: form.testPoint,
    emergencyContact: form.emergencyContact,
    ...(form.everyMonths ? { everyMonths: Number(form.everyMonths) } : {}),
    ...Object.fromEntries(WHOLE_KEYS.flatMap((k) => Object.entries(maybe<string>(k, form[k])))),
    ...(form.access.length ? { access: form.access } : {}),
    ...(form.noValves.length ? { noValves: form.noValves as System['noValves'] } : {}),
    ...tankFrom(form, before),
    ...dutyFrom(form.medium, form.duty),
    ...heightsFrom(form),
    meter: {
      kind: form.meterKind,
      name: form.meterName,
      volume: parseWithUnit(form.meterVolume),
      ...words('serial', form.meterSerial),
      ...maybe('testDial', form.testDial),
      ...words('valve', form.meterValve),
      ...words('valveOwner', form.meterValveOwner),
    },
    pipes: form.pipes.map(pipeFromForm),
    ...listsFrom(form, before),
    inScope: form.inScope,
    notCovered: form.notCovered,
    ...measuredFrom(form),
  } as unknown as System);
}

const whole = (of: (key: (typeof WHOLE_KEYS)[number]) => string) =>
  Object.fromEntries(WHOLE_KEYS.map((k) => [k, of(k)])) as Record<(typeof WHOLE_KEYS)[number], string>;
const heights = (of: (key: HeightFact) => string) =>
  Object.fromEntries(HEIGHT_KEYS.map((k) => [formHeight(k), of(k)])) as Record<FormHeight, string>;
const lists = (of: (list: (typeof PART_LIST_KEYS)[number]) => RowForm[]) =>
  Object.fromEntries(PART_LIST_KEYS.map((k) => [k, of(k)])) as Record<
    (typeof PART_LIST_KEYS)[number],
    RowForm[]
  >;

/** A system as the form shows it. */
export function formOfSystem(s: System): SystemForm {
  const { uncertainty } = s.measured ?? {};
  return {
    name: s.name,
    medium: s.medium,
    workingPressure: figureOf(s.workingPressure),
    supplyPressure: figureOf(s.supplyPressure),
    supplyValve: s.supplyValve,
    supplyValveOwner: s.supplyValveOwner,
    testPoint: s.testPoint,
    emergencyContact: s.emergencyContact,
    everyMonths: s.everyMonths ? String(s.everyMonths) : '',
    ...whole((k) => figureOf(s[k])),
    access: [...(s.access ?? [])],
    meterValve: s.meter.valve ?? '',
    meterValveOwner: s.meter.valveOwner ?? '',
    noValves: [...(s.noValves ?? [])] as SystemForm['noValves'],
    tankSize: s.tank?.size ?? '',
    tankPlace: s.tank?.place ?? '',
    tankMake: s.tank?.make ?? '',
    tankSerial: s.tank?.serial ?? '',
    meterKind: s.meter.kind,
    meterName: s.meter.name,
    meterVolume: figureOf(s.meter.volume),
    meterSerial: s.meter.serial ?? '',
    testDial: figureOf(s.meter.testDial),
    pipes: s.pipes.map(formOfPipe),
    ...lists((list) => rowsOf(s, list).map((row) => formOfRow(list, row))),
    duty: s.duty ?? '',
    datum: s.heights?.datum ?? '',
    ...heights((k) => figureOf(s.heights?.[k])),
    inScope: [...s.inScope],
    notCovered: [...s.notCovered],
    measuredBy: s.measured?.by ?? '',
    measuredVolume: figureOf(s.measured?.volume),
    measuredUncertainty: uncertainty ? String(uncertainty.digits / 10 ** uncertainty.scale) : '',
    measuredSaid: s.measured?.said ?? '',
  };
}
/** An empty form, with what most systems of a medium have. */
export const emptySystem = (): SystemForm => ({
  name: '',
  medium: 'natural gas',
  workingPressure: '21 mbar',
  supplyPressure: '21 mbar',
  supplyValve: 'supply valve at the meter',
  supplyValveOwner: 'gas network',
  testPoint: 'meter outlet',
  emergencyContact: '',
  everyMonths: '',
  ...whole(() => ''),
  access: [],
  meterValve: '',
  meterValveOwner: '',
  noValves: [],
  tankSize: '',
  tankPlace: '',
  tankMake: '',
  tankSerial: '',
  meterKind: 'unknown',
  meterName: 'not looked at yet',
  meterVolume: '0 l',
  meterSerial: '',
  testDial: '',
  pipes: [],
  ...lists(() => []),
  duty: '',
  datum: '',
  ...heights(() => ''),
  inScope: ['meter and pipework from the supply valve to every appliance'],
  notCovered: ['anything upstream of the supply valve'],
  measuredBy: '',
  measuredVolume: '',
  measuredUncertainty: '',
  measuredSaid: '',
});
