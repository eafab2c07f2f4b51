import 'server-only';
import { eventSchema, type RunEvent } from '@/core/run/events';
import { exact, type Exact, toNumber } from '@/core/quantity/exact';
import { convert, type Unit, unitLabel, UNITS } from '@/core/quantity/unit';
import { inOrganisation, lookUp } from '@/database/client';
import { ofProcess } from '@/database/process';
import { now } from '@/server/now';
import { tell } from '@/server/runs/bus';
import { TroubleError } from '@/server/trouble';
import { passedOf } from '@/server/yard/passed';
import type { GaugeBatch } from '@/wire/requests';
import { type Gate, gateOf, judges, knownGate, runJudgedBy } from './gate';
import { type Link, linkOf } from './pairing';

/** A gauge's clock, set by the office's answer, is no further ahead than this, ms. House figure. */
const AHEAD_MS = 5_000;
/** Entries that may come in between while a batch is placed, one after the other. */
const TRIES = 5;

type Shown = Pick<GaugeBatch, 'unit' | 'scale'>;
/**
 * Digits as the run keeps them: in the unit and the steps of the gauge in the cabinet, whatever unit its display is set to.
 * @throws TroubleError 422 for another quantity, and for steps so coarse that they would hide what those of the cabinet show
 */
export function keptAs(own: Exact | null, shown: Shown): (digits: number) => number {
  const unit = shown.unit as Unit;
  if (!own || (unit === own.unit && shown.scale === own.scale)) return (digits) => digits;
  const step = exact(1, shown.scale, unit);
  const words = `${toNumber(step)} ${unitLabel(unit)}`;
  if (UNITS[unit].dimension !== UNITS[own.unit].dimension)
    throw new TroubleError(
      422,
      'unit',
      `This gauge shows ${unitLabel(unit)}, the test is read in ${unitLabel(own.unit)}. Set its display to that, or choose another gauge on the bench.`,
      'unit',
    );
  const per = 10 ** own.scale;
  const zero = convert(0, unit, own.unit);
  if (Math.abs(convert(toNumber(step), unit, own.unit) - zero) > (Math.abs(own.digits) / per) * (1 + 1e-9))
    throw new TroubleError(
      422,
      'steps',
      `The display shows steps of ${words}; the cabinet says ${toNumber(own)} ${unitLabel(own.unit)} of this gauge. Set its display to ${unitLabel(own.unit)}, or correct its step in the cabinet.`,
      'scale',
    );
  return (digits) => Math.round(convert(digits / 10 ** shown.scale, unit, own.unit) * per);
}

/** A gauge of the cabinet is asked about again after this, ms: another test may have begun. */
const ASKED_MS = 2_000;
interface Asked {
  readonly run: string | undefined;
  readonly until: number;
}
const asked = ofProcess('asked gauges', () => new Map<string, Asked>());
const MOST_ASKED = 5_000;
/** Where the display goes now. @returns null: no test is under way that this gauge judges */
async function goesTo(link: Link): Promise<{ run: string; gate: Gate } | null> {
  const key = `${link.org}/${link.gauge}`;
  const before = link.run === null ? asked.get(key) : undefined;
  const fresh = before && before.until > Date.now();
  const run = link.run ?? (fresh ? before.run : undefined);
  if (fresh && run === undefined) return null;
  const known = run === undefined ? undefined : knownGate(link.org, run);
  if (known && run !== undefined) return { run, gate: known };
  return inOrganisation(link, async (tx) => {
    const found = run ?? (await runJudgedBy(tx, link.gauge));
    if (link.run === null) {
      if (asked.size >= MOST_ASKED) asked.clear();
      asked.set(key, { run: found, until: Date.now() + ASKED_MS });
    }
    if (found === undefined) return null;
    return { run: found, gate: knownGate(link.org, found) ?? (await gateOf(tx, link, found)) };
  });
}
/** Places a batch in a run that goes on and is judged by this gauge; looks at the run again where others went on with it meanwhile. */
async function place(
  link: Link,
  run: string,
  gate: Gate,
  event: RunEvent,
  at: number,
): Promise<'placed' | 'closed'> {
  let seen = gate;
  for (let n = 0; n < TRIES; n += 1) {
    if (n || !judges(seen, link.gauge)) seen = await inOrganisation(link, (tx) => gateOf(tx, link, run));
    if (!judges(seen, link.gauge)) return seen.open ? 'placed' : 'closed';
    const [answer] = await lookUp<{ outcome: string; place: number | null }>(
      'append_stream($1, $2, $3, $4, $5, $6)',
      [link.org, run, event.id, seen.position, at, JSON.stringify(event)],
    );
    switch (answer!.outcome) {
      case 'placed':
        // never back: another batch may have been placed meanwhile
        seen.position = Math.max(seen.position, answer!.place!);
        tell(link.org, run, { kind: 'log' });
        return 'placed';
      case 'known':
        return 'placed';
      case 'taken':
        throw new TroubleError(409, 'id-taken', 'A batch with this id already stands in another run.');
      case 'sealed':
        throw new TroubleError(409, 'sealed', 'This run is sealed; nothing can be added.');
    }
    // moved: something else than a stream came
  }
  throw new TroubleError(
    503,
    'busy',
    'Many write to this run just now. Keep the points and send them later.',
  );
}

/** As `keptAs`; what cannot be used is told on the bench too. @throws TroubleError */
function usable(link: Link, run: string, own: Exact | null, batch: GaugeBatch): (digits: number) => number {
  try {
    return keptAs(own, batch);
  } catch (error) {
    tell(link.org, run, { kind: 'refused', gauge: link.gauge, text: (error as Error).message });
    throw error;
  }
}
/** Takes a gauge's display: the newest value goes to the open benches, batches go to the run's log while it runs. */
export async function takeReadings(
  token: string,
  batch: GaugeBatch,
): Promise<{ now: number; goOn: boolean; run?: string | null; left?: number }> {
  const link = await linkOf(token, batch.batch !== undefined);
  if (!link)
    throw new TroubleError(
      401,
      'pairing',
      'This gauge is not paired. Pair it again by a code from the bench or the Cabinet.',
    );
  const found = await goesTo(link);
  // a gauge of the cabinet stays paired: another test will come
  if (!found) return { now: now(), goOn: true, run: null };
  const { run, gate } = found;
  const own = link.simulated || gate.shows !== link.gauge ? null : gate.resolution;
  const kept = usable(link, run, own, batch);
  const unit = own?.unit ?? (batch.unit as Unit);
  const scale = own?.scale ?? batch.scale;
  const [at, digits] = batch.live[batch.live.length - 1]! as [number, number];
  tell(link.org, run, {
    kind: 'gauge',
    gauge: link.gauge,
    simulated: link.simulated,
    at,
    digits: kept(digits),
    scale,
    unit,
    ...(batch.flow
      ? {
          flow: {
            digits: batch.flow.live[batch.flow.live.length - 1] ?? null,
            scale: batch.flow.scale,
            unit: batch.flow.unit,
          },
        }
      : {}),
    ...(batch.temperature ? { temperature: batch.temperature } : {}),
  });
  const says = link.run === null ? { run } : {};
  if (!batch.batch) return { now: now(), goOn: true, ...says };
  // in practice time is passed at once
  const moment = now() + (link.simulated ? await passedOf(link, run) : 0);
  // a gauge's clock is a claim too: what it says of the future or of before the test is left out, and it is told
  const { flows } = batch.batch;
  const pairs = batch.batch.points
    .map((point, i) => ({ point, flow: flows?.[i] ?? null }))
    .filter(({ point: [t] }) => t! <= moment + AHEAD_MS && t! >= gate.began);
  const left = batch.batch.points.length - pairs.length;
  if (pairs.length) {
    const event: RunEvent = {
      kind: 'stream',
      gauge: link.gauge,
      simulated: link.simulated,
      scale,
      unit: unit as 'mbar',
      points: pairs.map(({ point: [t, d] }) => [t!, kept(d!)]),
      ...(flows && batch.flow
        ? {
            flows: {
              unit: batch.flow.unit as 'CFM',
              scale: batch.flow.scale,
              digits: pairs.map((p) => p.flow),
            },
          }
        : {}),
      id: batch.batch.id,
      run,
      device: link.gauge,
      deviceSeq: batch.batch.sequence,
      at: moment,
      zone: gate.zone,
      offset: 0,
      mono: 0,
      pageLoad: link.gauge,
      by: gate.maker,
      byName: link.simulated ? 'simulated gauge' : 'gauge',
      expects: '',
    };
    // what is kept must be readable when it is moved, and stands for ever
    if (!eventSchema.isValidSync(event, { strict: true }))
      throw new TroubleError(
        422,
        'batch',
        'This batch has figures that no record keeps. Leave it out, and check what the device sends against the protocol.',
      );
    if ((await place(link, run, gate, event, now())) === 'closed')
      return { now: now(), goOn: link.run === null, ...says };
  }
  return { now: now(), goOn: true, ...says, ...(left ? { left } : {}) };
}
