import {
MEDIA,
OPTIONAL_VALVES,
type System,
WATER_DUTIES,
type WaterDuty
} from '@/core/installation/section';
import { withListsOf } from '@/core/network/enter';
import { exact,type Exact,parseWithUnit,showUnit } from '@/core/quantity/exact';
import * as yup from 'yup';
import { figure,free,list,optionalFigure,shape,text,uuid } from './figure';
import { formOfPipe,pipeFromForm,pipeSchema } from './pipe';
import { meterRule,pressureRule } from './place-rules';

/** A site as it is entered. */
export const siteSchema = shape({
  id: uuid(),
  name: text(80),
  address: text(160),
  customer: text(120),
});
export type SiteForm = yup.InferType<typeof siteSchema>;

const appliance = shape({
  id: text(60),
  name: text(80),
  place: free(80),
  kind: free(60),
  valve: text(80),
  hasPilot: yup.boolean().strict(true).required(),
  hasLid: yup.boolean().strict(true).required(),
  volume: figure('volume', 'zero'),
  maxInlet: optionalFigure('pressure', 'above zero'),
  input: optionalFigure('power', 'above zero'),
  make: free(80),
  model: free(80),
  serial: free(80),
});
const valve = shape({
  id: text(60),
  name: text(80),
  place: free(80),
  kind: text(20).oneOf([...OPTIONAL_VALVES]),
});
const regulator = shape({
  id: text(60),
  name: text(80),
  place: free(80),
  stage: free(40),
  maxInlet: optionalFigure('pressure', 'above zero'),
  make: free(80),
  model: free(80),
  serial: free(80),
});
const joint = shape({ id: text(60), name: text(80), place: free(80) });
type OptionalValve = (typeof OPTIONAL_VALVES)[number];
/** Ways in for a gauge, as packs name them. */
export const ACCESS = {
  port: 'a test port or gauge point',
  jet: 'the burner jet',
  'quick-connect': 'a quick-connect outlet',
} as const;
/** A system as it is entered; figures are text with their unit. The same on both sides. */
export const systemSchema = shape({
  name: text(80),
  medium: text(20).oneOf([...MEDIA]),
  workingPressure: figure('pressure', 'zero'),
  supplyPressure: figure('pressure', 'zero'),
  duty: free(20).oneOf(['', ...Object.keys(WATER_DUTIES)]),
  supplyValve: text(120),
  supplyValveOwner: text(80),
  testPoint: text(120),
  emergencyContact: free(60),
  /** Months between tests as the place wants them; empty where it is not said. */
  everyMonths: free(3).matches(/^(|[1-9]\d{0,2})$/, 'must be whole months, like 12, or stay empty'),
  setPressure: optionalFigure('pressure', 'above zero'),
  ventSetting: optionalFigure('pressure', 'above zero'),
  designPressure: optionalFigure('pressure', 'above zero'),
  heatingValue: optionalFigure('heating-value', 'above zero'),
  access: list(text(20).oneOf(Object.keys(ACCESS)), 6),
  meterValve: free(80),
  meterValveOwner: free(80),
  valves: list(valve, 40),
  noValves: list(text(20).oneOf([...OPTIONAL_VALVES]), 6),
  regulators: list(regulator, 12),
  joints: list(joint, 60),
  tankSize: free(40),
  tankPlace: free(80),
  tankMake: free(80),
  tankSerial: free(60),
  meterKind: text(40),
  meterName: text(80),
  meterVolume: figure('volume', 'zero'),
  meterSerial: free(60),
  testDial: optionalFigure('volume', 'above zero'),
  gasInside: optionalFigure('volume', 'zero'),
  pipes: list(pipeSchema, 60).min(1, 'Enter at least one pipe: the volume and the limits depend on it.'),
  appliances: list(appliance, 60),
  elements: list(
    shape({ id: text(60), name: text(80), place: free(80), most: figure('pressure', 'above zero') }),
    40,
  ),
  surfaces: list(
    shape({
      id: text(60),
      name: text(80),
      bore: figure('length', 'above zero'),
      count: text(3).matches(/^[1-9]\d?$/, 'is how many there are, from 1 to 99'),
    }),
    30,
  ),
  loops: list(shape({ id: text(60), name: text(80), valve: text(80), flowMeter: free(80) }), 30),
  datum: free(80),
  slab: optionalFigure('length'),
  rim: optionalFigure('length'),
  fixture: optionalFigure('length'),
  testHeight: optionalFigure('length'),
  highest: optionalFigure('length'),
  lowest: optionalFigure('length'),
  factoryTested: list(shape({ id: text(60), name: text(80), certificate: text(120) }), 20),
  inScope: list(text(200), 30),
  notCovered: list(text(200), 30),
  measuredBy: free(10).oneOf(['', 'draw', 'strokes']),
  measuredVolume: optionalFigure('volume', 'above zero'),
  measuredUncertainty: free(10).matches(/^(\d{1,2}(\.\d)?)?$/, 'is a percentage, like 5'),
  measuredSaid: free(200),
})
  .test('pressures', pressureRule('workingPressure', 'supplyPressure'))
  .test('heights', (value, context) =>
    !value.datum &&
    [value.slab, value.rim, value.fixture, value.testHeight, value.highest, value.lowest].some(Boolean)
      ? context.createError({ path: 'datum', message: 'Say over what the heights are counted.' })
      : true,
  )
  .test('meter-volume', meterRule)
  .test('no-valves', (value, context) => {
    const both = value.valves.findIndex((v) => value.noValves.includes(v.kind));
    return both < 0
      ? true
      : context.createError({
          path: `valves.${both}.kind`,
          message: 'One is entered, and below it says that there is none. Take one of them away.',
        });
  })
  .test('tank', (value, context) =>
    !value.tankSize && (value.tankPlace || value.tankMake || value.tankSerial)
      ? context.createError({ path: 'tankSize', message: 'Say how large the tank is, like 120 gal.' })
      : true,
  )
  .test('measured', (value, context) =>
    value.measuredBy && !value.measuredVolume
      ? context.createError({ path: 'measuredVolume', message: 'Enter the volume that was measured.' })
      : true,
  );
export type SystemForm = yup.InferType<typeof systemSchema>;

const figureOf = (e: Exact | undefined): string => (e ? showUnit(e) : '');
const maybe = <K extends string>(key: K, value: string): { [k in K]?: Exact } =>
  value ? ({ [key]: parseWithUnit(value) } as { [k in K]?: Exact }) : {};

const plate = (p: { make: string; model: string; serial: string }) => ({
  ...(p.make ? { make: p.make } : {}),
  ...(p.model ? { model: p.model } : {}),
  ...(p.serial ? { serial: p.serial } : {}),
});
/** What is entered, laid over a system's other facts (its network, what was seen), which stay; the network follows. */
export function systemFromForm(form: SystemForm, before: System | null, id: string): System {
  const {
    setPressure: _s,
    ventSetting: _v,
    designPressure: _p,
    heatingValue: _w,
    access: _a,
    valves: _va,
    noValves: _no,
    regulators: _r,
    joints: _j,
    tank: _t,
    gasInside: _g,
    measured: _m,
    elements: _e,
    factoryTested: _f,
    duty: _d,
    everyMonths: _y,
    surfaces: _u,
    loops: _l,
    heights: _h,
    ...kept
  } = before ?? ({} as Partial<System>);
  return withListsOf({
    ...(kept as Partial<System>),
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
    ...maybe('setPressure', form.setPressure),
    ...maybe('gasInside', form.gasInside),
    ...maybe('ventSetting', form.ventSetting),
    ...maybe('designPressure', form.designPressure),
    ...maybe('heatingValue', form.heatingValue),
    ...(form.access.length ? { access: form.access } : {}),
    ...(form.valves.length ? { valves: form.valves } : {}),
    ...(form.noValves.length ? { noValves: form.noValves } : {}),
    ...(form.regulators.length
      ? {
          regulators: form.regulators.map((r) => ({
            id: r.id,
            name: r.name,
            place: r.place,
            ...(r.stage ? { stage: r.stage } : {}),
            ...maybe('maxInlet', r.maxInlet),
            ...plate(r),
          })),
        }
      : {}),
    ...(form.joints.length ? { joints: form.joints } : {}),
    ...(form.tankSize
      ? {
          tank: {
            id: before?.tank?.id ?? 'tank',
            name: before?.tank?.name ?? 'Tank',
            place: form.tankPlace,
            size: form.tankSize,
            ...(form.tankMake ? { make: form.tankMake } : {}),
            ...(form.tankSerial ? { serial: form.tankSerial } : {}),
          },
        }
      : {}),
    ...(form.medium === 'water' && form.duty ? { duty: form.duty as WaterDuty } : {}),
    ...(form.surfaces.length
      ? {
          surfaces: form.surfaces.map((x) => ({
            id: x.id,
            name: x.name,
            bore: parseWithUnit(x.bore),
            count: Number(x.count),
          })),
        }
      : {}),
    ...(form.loops.length ? { loops: form.loops } : {}),
    ...(form.datum
      ? {
          heights: {
            datum: form.datum,
            ...maybe('slab', form.slab),
            ...maybe('rim', form.rim),
            ...maybe('fixture', form.fixture),
            ...maybe('testPoint', form.testHeight),
            ...maybe('highest', form.highest),
            ...maybe('lowest', form.lowest),
          },
        }
      : {}),
    meter: {
      kind: form.meterKind,
      name: form.meterName,
      volume: parseWithUnit(form.meterVolume),
      ...(form.meterSerial ? { serial: form.meterSerial } : {}),
      ...maybe('testDial', form.testDial),
      ...(form.meterValve ? { valve: form.meterValve } : {}),
      ...(form.meterValveOwner ? { valveOwner: form.meterValveOwner } : {}),
    },
    pipes: form.pipes.map(pipeFromForm),
    appliances: form.appliances.map((a) => {
      const {
        maxInlet: _x,
        input: _i,
        make: _m,
        model: _o,
        serial: _n,
        ...old
      } = before?.appliances.find((x) => x.id === a.id) ?? ({} as never);
      return {
        ...(old as object),
        id: a.id,
        name: a.name,
        place: a.place,
        kind: a.kind || a.name.toLowerCase(),
        valve: a.valve,
        hasPilot: a.hasPilot,
        hasLid: a.hasLid,
        volume: parseWithUnit(a.volume),
        ...maybe('maxInlet', a.maxInlet),
        ...maybe('input', a.input),
        ...plate(a),
      };
    }),
    ...(form.elements.length
      ? {
          elements: form.elements.map((e) => ({
            id: e.id,
            name: e.name,
            place: e.place,
            most: parseWithUnit(e.most),
          })),
        }
      : {}),
    ...(form.factoryTested.length ? { factoryTested: form.factoryTested } : {}),
    inScope: form.inScope,
    notCovered: form.notCovered,
    ...(form.measuredBy
      ? {
          measured: {
            by: form.measuredBy as 'draw' | 'strokes',
            volume: parseWithUnit(form.measuredVolume),
            uncertainty: form.measuredUncertainty
              ? parseWithUnit(`${form.measuredUncertainty} %`)
              : exact(5, 0, '%'),
            said: form.measuredSaid || `${form.measuredVolume}`,
          },
        }
      : {}),
  });
}
/** A system as the form shows it. */
export function formOfSystem(s: System): SystemForm {
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
    setPressure: figureOf(s.setPressure),
    ventSetting: figureOf(s.ventSetting),
    designPressure: figureOf(s.designPressure),
    heatingValue: figureOf(s.heatingValue),
    access: [...(s.access ?? [])],
    meterValve: s.meter.valve ?? '',
    meterValveOwner: s.meter.valveOwner ?? '',
    valves: (s.valves ?? []).map((v) => ({ ...v, kind: v.kind as OptionalValve })),
    noValves: [...((s.noValves ?? []) as OptionalValve[])],
    regulators: (s.regulators ?? []).map((r) => ({
      id: r.id,
      name: r.name,
      place: r.place,
      stage: r.stage ?? '',
      maxInlet: figureOf(r.maxInlet),
      make: r.make ?? '',
      model: r.model ?? '',
      serial: r.serial ?? '',
    })),
    joints: (s.joints ?? []).map((j) => ({ ...j })),
    tankSize: s.tank?.size ?? '',
    tankPlace: s.tank?.place ?? '',
    tankMake: s.tank?.make ?? '',
    tankSerial: s.tank?.serial ?? '',
    meterKind: s.meter.kind,
    meterName: s.meter.name,
    meterVolume: figureOf(s.meter.volume),
    meterSerial: s.meter.serial ?? '',
    testDial: figureOf(s.meter.testDial),
    gasInside: figureOf(s.gasInside),
    pipes: s.pipes.map(formOfPipe),
    appliances: s.appliances.map((a) => ({
      id: a.id,
      name: a.name,
      place: a.place,
      kind: a.kind,
      valve: a.valve,
      hasPilot: a.hasPilot,
      hasLid: a.hasLid,
      volume: figureOf(a.volume),
      maxInlet: figureOf(a.maxInlet),
      input: figureOf(a.input),
      make: a.make ?? '',
      model: a.model ?? '',
      serial: a.serial ?? '',
    })),
    elements: (s.elements ?? []).map((e) => ({
      id: e.id,
      name: e.name,
      place: e.place,
      most: figureOf(e.most),
    })),
    duty: s.duty ?? '',
    surfaces: (s.surfaces ?? []).map((x) => ({
      id: x.id,
      name: x.name,
      bore: figureOf(x.bore),
      count: String(x.count),
    })),
    loops: (s.loops ?? []).map((l) => ({ ...l })),
    datum: s.heights?.datum ?? '',
    slab: figureOf(s.heights?.slab),
    rim: figureOf(s.heights?.rim),
    fixture: figureOf(s.heights?.fixture),
    testHeight: figureOf(s.heights?.testPoint),
    highest: figureOf(s.heights?.highest),
    lowest: figureOf(s.heights?.lowest),
    factoryTested: [...(s.factoryTested ?? [])],
    inScope: [...s.inScope],
    notCovered: [...s.notCovered],
    measuredBy: s.measured?.by ?? '',
    measuredVolume: figureOf(s.measured?.volume),
    measuredUncertainty: s.measured
      ? String(s.measured.uncertainty.digits / 10 ** s.measured.uncertainty.scale)
      : '',
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
  setPressure: '',
  ventSetting: '',
  designPressure: '',
  heatingValue: '',
  access: [],
  meterValve: '',
  meterValveOwner: '',
  valves: [],
  noValves: [],
  regulators: [],
  joints: [],
  tankSize: '',
  tankPlace: '',
  tankMake: '',
  tankSerial: '',
  meterKind: 'unknown',
  meterName: 'not looked at yet',
  meterVolume: '0 l',
  meterSerial: '',
  testDial: '',
  gasInside: '',
  pipes: [],
  appliances: [],
  elements: [],
  duty: '',
  surfaces: [],
  loops: [],
  datum: '',
  slab: '',
  rim: '',
  fixture: '',
  testHeight: '',
  highest: '',
  lowest: '',
  factoryTested: [],
  inScope: ['meter and pipework from the supply valve to every appliance'],
  notCovered: ['anything upstream of the supply valve'],
  measuredBy: '',
  measuredVolume: '',
  measuredUncertainty: '',
  measuredSaid: '',
});
