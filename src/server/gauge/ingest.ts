import 'server-only';
import { randomBytes } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { RunEvent } from '@/core/run/events';
import { currentVisit } from '@/core/run/read';
import { reduce } from '@/core/run/reduce';
import { inOrganisation, lookUp } from '@/database/client';
import { gaugeLinks, runs } from '@/database/schema';
import { digest } from '@/server/digest';
import { now } from '@/server/now';
import { tell } from '@/server/runs/bus';
import { appendEvents, eventsOf, planOf } from '@/server/runs/log';
import { TroubleError } from '@/server/trouble';
import { passedOf } from '@/server/yard/passed';
import type { GaugeBatch } from '@/wire/requests';

type Link = { org: string; run: string; gauge: string; simulated: boolean };

/** A gauge's clock, set by the office's answer, is no further ahead than this, ms. House figure. */
const AHEAD_MS = 5_000;

/** Pairs a gauge by the code shown on the bench. The answer's token opens the one run and nothing else. */
export async function pairGauge(
  code: string,
): Promise<{ token: string; run: string; gauge: string; now: number }> {
  const [link] = await lookUp<Link>('find_gauge_code($1)', [digest(code)]);
  if (!link)
    throw new TroubleError(
      401,
      'pairing',
      'This pairing code is not known. Look at the bench for the present one.',
    );
  const token = randomBytes(24).toString('base64url');
  await inOrganisation(link, (tx) =>
    tx
      .update(gaugeLinks)
      .set({ tokenHash: digest(token) })
      .where(and(eq(gaugeLinks.run, link.run), eq(gaugeLinks.gauge, link.gauge))),
  );
  return { token, run: link.run, gauge: link.gauge, now: now() };
}

/** Takes a gauge's display: the newest value goes to the open benches, batches go to the run's log while it runs. */
export async function takeReadings(
  token: string,
  batch: GaugeBatch,
): Promise<{ now: number; goOn: boolean; left?: number }> {
  const [link] = token ? await lookUp<Link>('find_gauge_token($1)', [digest(token)]) : [];
  if (!link)
    throw new TroubleError(
      401,
      'pairing',
      'This gauge is not paired. Pair it again by the code on the bench.',
    );
  const [at, digits] = batch.live[batch.live.length - 1]! as [number, number];
  tell(link.org, link.run, {
    kind: 'gauge',
    gauge: link.gauge,
    simulated: link.simulated,
    at,
    digits,
    scale: batch.scale,
    unit: batch.unit,
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
  if (!batch.batch) return { now: now(), goOn: true };
  const { state, maker, zone, began } = await inOrganisation(link, async (tx) => {
    const plan = await planOf(tx, link.run);
    const [row] = await tx.select({ madeBy: runs.madeBy }).from(runs).where(eq(runs.id, link.run));
    return {
      state: reduce(plan, await eventsOf(tx, link.run)),
      maker: row!.madeBy,
      zone: plan.made.zone,
      began: Date.parse(plan.made.at),
    };
  });
  if (!currentVisit(state)) return { now: now(), goOn: false };
  // in practice time is passed at once
  const moment = now() + (link.simulated ? await passedOf(link, link.run) : 0);
  // a gauge's clock is a claim too: what it says of the future or of before the test is left out, and it is told
  const { flows } = batch.batch;
  const pairs = batch.batch.points
    .map((point, i) => ({ point, flow: flows?.[i] ?? null }))
    .filter(({ point: [t] }) => t! <= moment + AHEAD_MS && t! >= began);
  const points = pairs.map((p) => p.point);
  const left = batch.batch.points.length - points.length;
  if (state.gauge === link.gauge && points.length) {
    const event: RunEvent = {
      kind: 'stream',
      gauge: link.gauge,
      simulated: link.simulated,
      scale: batch.scale,
      unit: batch.unit as 'mbar',
      points: points as unknown as [number, number][],
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
      run: link.run,
      device: link.gauge,
      deviceSeq: batch.batch.sequence,
      at: moment,
      zone,
      offset: 0,
      mono: 0,
      pageLoad: link.gauge,
      by: maker,
      byName: link.simulated ? 'simulated gauge' : 'gauge',
      expects: '',
    };
    await appendEvents({ org: link.org, person: maker, role: 'tester' }, link.run, [event]);
  }
  return { now: now(), goOn: true, ...(left ? { left } : {}) };
}
