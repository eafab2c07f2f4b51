/** How a tester answers each kind of stage. */
import { edgesOf } from '@/core/grammar/edges';
import type { Stage } from '@/core/kinds';
import { cylinderNeeds } from '@/core/kinds/cylinder/fold';
import { isPushed, limitOf, rangesFor, referenceOf } from '@/core/kinds/fan/asked';
import { ASKED } from '@/core/kinds/listen/fold';
import { mapNow } from '@/core/kinds/map/fold';
import { endsOfLine, plugsIn } from '@/core/kinds/plugs/fold';
import { pumpBand, raisingSteps } from '@/core/kinds/pump/fold';
import { exact } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import { stageBand } from '@/core/run/hold-spec';
import { expectedItems } from '@/core/run/inventory';
import {
  currentCycle,
  currentVisit,
  openJoints,
  openLines,
  positionLines,
  stageOf,
  stepOf,
} from '@/core/run/read';
import type { Payload } from '@/core/run/events';
import type { Refusal } from '@/core/run/transition';
import { unheldWays } from '@/core/run/unheld';
import { type Hand, litres, middle, native } from './hand';
import { hold } from './holding';

/** What a tester who suspects the section says where the bench asks; the first that is offered. */
const USUAL = [
  'still',
  'quiet',
  'isolate',
  'go-on',
  'no-bubbles',
  'dry',
  'sound',
  'nothing',
  'relax',
  'none',
  'unexplained',
  'accept',
  'no',
  'dry-storage',
  'end',
];

/** One turn at a stage: what the bench refused, or null. `tried`: which turn it is. @throws Stuck */
type Turn<K extends Stage['kind']> = (
  hand: Hand,
  stage: Extract<Stage, { kind: K }>,
  tried: number,
) => Refusal | null;

const band = (hand: Hand, stage: Extract<Stage, { kind: 'fill' | 'pump' | 'isolate-and-repeat' }>) => {
  const found = stageBand(hand.plan, hand.state, stage);
  return 'missing' in found ? hand.stuck(found.missing) : found.value;
};
/** What it is raised to here, where somebody wants it otherwise than the middle of the band. */
const raised = (hand: Hand) => hand.manner.raises?.(currentVisit(hand.state)!.stage);
const checks: Turn<'checks'> = (hand, stage) => {
  const { plan, state, section, manner } = hand;
  for (const { item, subject } of openLines(plan, currentVisit(state)!)) {
    if (item.position && subject && item.valves?.some((v) => ['container', 'supply', 'meter'].includes(v)))
      section.source(item.position === 'open');
    if (item.opens?.includes('isolators')) section.isolate(true);
    if (item.settles?.includes('isolators')) section.isolate(false);
    const refused = hand.say({
      kind: 'check',
      item: item.key,
      ...(subject ? { subject: subject.id } : {}),
      answer: item.ask ? (manner.answers?.[item.key] ?? item.must?.answer ?? 'no') : 'done',
    });
    if (refused && refused.code !== 'order') return refused;
    const now = currentVisit(state);
    if (!now || stageOf(plan, now) !== stage) return null;
  }
  hand.pass(20);
  return openLines(plan, currentVisit(state)!).length ? null : hand.say({ kind: 'proceed' });
};
const zero: Turn<'zero'> = (hand, stage) => {
  if (stage.when === 'before')
    for (const g of hand.plan.gauges.filter((own) => hand.manner.gauges.includes(own.name)))
      if (!hand.say({ kind: 'gauge', gauge: g.id })) break;
  const { resolution } = hand.gauge;
  hand.section.connect?.(false);
  if (UNITS[resolution.unit].dimension === 'absolute') {
    const refused = hand.say({ kind: 'at-air', over: true });
    hand.section.connect?.(true);
    return refused;
  }
  hand.section.setZero?.();
  hand.pass(15);
  const shows = hand.section.shows?.() ?? exact(0, resolution.scale, resolution.unit);
  const refused = hand.say({ kind: 'zero', figure: shows, openToAir: true });
  hand.section.connect?.(true);
  return refused;
};
const fill: Turn<'fill'> = (hand, stage, tried) => {
  const { section } = hand;
  const { low, high } = band(hand, stage);
  // hands that work a real valve open it until it stands where it should; others leave the source open
  const byHand = section.time !== undefined;
  section.source(stage.live === true && !byHand);
  if (!stage.live || byHand) section.bring(raised(hand) ?? middle(low, high, stage.falling ? 0.7 : 0.5));
  hand.pass(5);
  section.source(false);
  const shown = hand.figure();
  if (tried > 3 && unheldWays(hand.state, stage).includes('falls') && native(shown.figure) < native(low))
    return hand.unheld(stage.live && !section.now() ? 'low' : 'falls', shown);
  return hand.say({ kind: 'fill', confirmed: true, ...shown });
};
const pump: Turn<'pump'> = (hand, stage, tried) => {
  const { pumped } = currentVisit(hand.state)!;
  const whole = band(hand, stage);
  const last = pumped[pumped.length - 1];
  if (last && !last.look) {
    hand.pass(raisingSteps(stage, band(hand, stage))[pumped.length - 1]!.minutes * 60 + 1);
    return hand.say({ kind: 'pump-look', joints: 'dry', where: '', ...hand.figure() });
  }
  const own = pumpBand(stage, whole, pumped.length);
  const added = hand.section.bring(middle(own.low, own.high));
  hand.pass(2);
  const refused = hand.say({ kind: 'pump-step', added: litres(added), ...hand.figure() });
  return refused && tried > 6 ? hand.say({ kind: 'pump-failed', text: 'It does not come up.' }) : refused;
};
const inventory: Turn<'inventory'> = (hand) => {
  for (const k of hand.plan.procedure.inventory ?? [])
    for (const item of expectedItems(hand.plan.system, k.kind))
      hand.say({
        kind: 'inventory',
        item: { ...item, points: Object.fromEntries(k.points.map((p) => [p.key, 'good'])), note: '' },
      });
  return hand.say({ kind: 'proceed' });
};
const joints: Turn<'joints'> = (hand) => {
  for (const j of openJoints(hand.state)) hand.say({ kind: 'joint-look', joint: j.id, found: 'none' });
  return hand.say({ kind: 'proceed' });
};
const observe: Turn<'observe'> = (hand, stage) => {
  hand.pass(60);
  const offered = (key: string) => stage.results.some((r) => r.key === key);
  const result =
    hand.manner.says?.[currentVisit(hand.state)!.stage] ??
    (offered('bubbles') && hand.section.valvePasses()
      ? 'bubbles'
      : (USUAL.find((k) => offered(k) && edgesOf(stage.on[k]).length > 0) ?? stage.results[0]!.key));
  const refused = hand.say({ kind: 'observe', result });
  return refused?.code === 'reason' ? hand.say({ kind: 'observe', result, text: 'as it is' }) : refused;
};
const drawDown: Turn<'draw-down'> = (hand, stage, tried) => {
  const kept = hand.state.keptReadings;
  const to = kept[stage.to]?.figure ?? hand.stuck('nothing to drain to');
  const drained = hand.section.drainTo(native(to));
  hand.pass(2);
  const refused = hand.say({ kind: 'draw-down', volume: litres(drained), ...hand.figure() });
  if (tried >= 8) return hand.stuck('the vessel never meets the figure');
  if (refused?.code !== 'not-there') return refused;
  hand.section.bring(native(kept[stage.from]!.figure));
  return null;
};
const repeat: Turn<'isolate-and-repeat'> = (hand, stage, tried) => {
  const { plan, state, section } = hand;
  const cycle = currentCycle(currentVisit(state)!)!;
  section.isolate(true);
  if (!cycle.positions) {
    for (const l of positionLines(plan, stage, cycle)) {
      const [item = '', subject] = l.id.split('/');
      hand.say({ kind: 'check', item, ...(subject ? { subject } : {}), answer: 'done' });
    }
    return null;
  }
  if (stepOf(state) === 'fill') {
    const { low, high } = band(hand, stage);
    section.bring(middle(low, high));
    hand.pass(5);
    const shown = hand.figure();
    return tried > 4 && native(shown.figure) < native(low)
      ? hand.unheld('falls', shown)
      : hand.say({ kind: 'fill', confirmed: true, ...shown });
  }
  return stage.optional && stage.subjects === 'each-appliance'
    ? hand.say({ kind: 'skip', reason: '', text: 'known' })
    : hold(hand, stage, tried);
};

/** Everything seen at once: each connection with the outlets that share its type's usual line. */
const map: Turn<'map'> = (hand) => {
  const { ends } = mapNow(hand.plan, hand.state);
  const [from, ...rest] = ends;
  if (from && !hand.state.rooms.map.seen.length)
    hand.say({
      kind: 'look',
      what: 'closed',
      from: from.id,
      on: rest.map((e) => e.id),
      off: [],
      plugged: [],
    });
  hand.pass(60);
  return hand.say({ kind: 'proceed' });
};
const plugs: Turn<'plugs'> = (hand, stage) => {
  hand.pass(30);
  if (stage.way === 'out') for (const p of plugsIn(hand.state)) hand.say({ kind: 'plug-out', end: p.end });
  else
    endsOfLine(hand.plan, hand.state).forEach((e, i) =>
      hand.say({ kind: 'plug-in', end: e.id, plug: 'short', open: i === 0, size: '2 in', proved: '' }),
    );
  return hand.say({ kind: 'proceed' });
};
const bucket: Turn<'bucket'> = (hand, stage) => {
  hand.say({ kind: 'bucket-set' });
  hand.pass(stage.minutes * 60 + 60);
  const [pool, inside] = [exact(5, 0, 'mm'), exact(5, 0, 'mm')];
  return hand.say({ kind: 'bucket-read', pool, bucket: inside, rain: false, filled: false, bathers: false });
};
const cure: Turn<'cure'> = (hand, stage) => {
  const { minutes } = stage;
  hand.say({ kind: 'joints-made', cuts: 1, couplings: 2, means: 'primer and cement', minutes, table: '' });
  hand.pass(minutes * 60 + 60);
  return hand.say({ kind: 'proceed' });
};
/** Where an ear is put, m, and what it hears at a usual leak. */
const HEARD = [
  [2, 1],
  [4, 6],
  [5, 9],
  [6, 5],
  [8, 0],
] as const;
const listen: Turn<'listen'> = (hand) => {
  hand.say({ kind: 'listen-run', name: 'run', length: exact(10, 0, 'm'), compressor: 'at the gate' });
  for (const [along, loud] of HEARD)
    hand.say({
      kind: 'listen',
      along: exact(along, 0, 'm'),
      loud: hand.section.hears?.(along) ?? loud,
      clear: 'clear',
      near: '',
    });
  for (const what of ASKED) hand.say({ kind: 'listen-evidence', what, says: 'unknown', text: '' });
  hand.pass(60);
  return hand.say({ kind: 'proceed' });
};

const cylinder: Turn<'cylinder'> = (hand, stage) => {
  const found = cylinderNeeds(hand.plan, stage);
  if ('missing' in found) return hand.stuck(found.missing);
  const { regulator } = found.value;
  hand.pass(60);
  return hand.say({
    kind: 'cylinder',
    label: 'nitrogen',
    regulatorMost: regulator,
    hoseMost: regulator,
    woundOut: true,
  } as Payload);
};

/** A fan that just passes: nine tenths of the limit, in the range that the bench names first. */
const fan: Turn<'fan'> = (hand, stage, tried) => {
  const { plan } = hand;
  const reference = referenceOf(plan, stage) ?? hand.stuck('the test pressure is not known');
  const limit = limitOf(plan, stage);
  const kit = plan.ownKit?.find((k) => k.ranges?.length);
  if (!kit || tried > 3)
    return hand.say({ kind: 'fan-cannot', what: 'reading', why: kit ? 'nothing decides' : 'no fan' });
  // own kit passes little: it is blown into through the smallest
  const least = hand.section.blows && stage.of === 'hose';
  const best = rangesFor(kit.ranges!, least ? null : limit, reference)[0]!;
  const { name, least: low, greatest } = best.range;
  const pascal = (p: number) => exact(Math.round(p * 10), 1, 'Pa');
  const at = stage.of === 'hose' ? reference : best.pressure;
  hand.say({ kind: 'fan-chosen', kit: kit.id, name: kit.name, range: name, least: low, greatest });
  if (stage.of === 'hose' && !hand.say({ kind: 'fan-kept' })) return null;
  if (stage.of === 'system') hand.say({ kind: 'fan-off', pressure: pascal(0) });
  hand.pass(60);
  const blows = hand.section.blows?.bind(hand.section);
  if (blows) {
    const judged = (pressure: number) => {
      const { figure, flow } = blows(pressure, name, stage.of === 'hose');
      hand.say({ kind: 'fan-read', figure, ...(flow ? { flow } : { below: true }), steady: true } as Payload);
      return hand.say({ kind: 'fan-judge' });
    };
    const refused = judged(at);
    // beyond the limit it is judged once a second pressure has shown the exponent
    return refused?.code === 'not-yet' && stage.of === 'system' ? judged(at / 2) : refused;
  }
  const reads = stage.of === 'system' && best.fits === 'reads' && limit !== null;
  const flow = exact(Math.floor(convert((limit ?? 0) * 0.9, 'm3/s', low.unit) * 10), 1, low.unit);
  const figure = pascal(stage.of === 'system' && !isPushed(plan, stage) ? -at : at);
  hand.say({ kind: 'fan-read', figure, ...(reads ? { flow } : { below: true }), steady: true } as Payload);
  return hand.say({ kind: 'fan-judge' });
};
/** A dial is marked and looked at when its time is up; what appliances take is left out. */
const dial: Turn<'dial'> = (hand, stage) => {
  const metered = () => hand.section.metered?.() ?? 0;
  if (stage.role === 'input') return hand.say({ kind: 'skip', reason: '', text: 'not measured today' });
  const watch = currentVisit(hand.state)!.dial;
  if (!watch) return hand.say({ kind: 'dial-start', mark: 'pencil line at the pointer' });
  const before = metered();
  hand.pass(watch.minutes * 60 + 1);
  const passed = metered() - before;
  return hand.say({ kind: 'dial-end', moved: passed > DIAL_SEEN });
};
/** Litres that an eye sees a dial move by. House figure. */
const DIAL_SEEN = 0.05;
const smoke: Turn<'smoke'> = (hand) =>
  hand.say({ kind: 'smoke-over', next: 'later', installer: 'none', fee: '' });

const TURNS: { readonly [K in Stage['kind']]: Turn<K> } = {
  checks,
  zero,
  fill,
  pump,
  volume: (hand) => hand.say({ kind: 'volume' }),
  inventory,
  joints,
  observe,
  map,
  plugs,
  bucket,
  cure,
  listen,
  cylinder,
  fan,
  smoke,
  dial,
  'draw-down': drawDown,
  'isolate-and-repeat': repeat,
  hold,
};
/** One turn at the stage that stands. @throws Stuck */
export const turn = <K extends Stage['kind']>(
  hand: Hand,
  stage: Extract<Stage, { kind: K }>,
  tried: number,
) => (TURNS[stage.kind as K] as Turn<K>)(hand, stage, tried);
