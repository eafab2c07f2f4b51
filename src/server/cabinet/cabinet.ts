import 'server-only';
import { demand } from '@/server/permission';
import { asc, desc, eq } from 'drizzle-orm';
import type { Gauge } from '@/core/instrument/gauge';
import { zeroTolerance } from '@/core/instrument/gauge';
import {
  standingOf,
  withStanding,
  type DatedEntry,
  type KitFacts,
  type LogEntry,
  type Standing,
} from '@/core/instrument/kit';
import { parseWithUnit } from '@/core/quantity/exact';
import { momentOf, type PlacedEvent } from '@/core/run/events';
import type { Plan } from '@/core/plan/plan';
import type { RunState } from '@/core/run/state';
import { testOfHose } from '@/core/kinds/fan/fold';
import { reduce } from '@/core/run/reduce';
import { addDays, localDate } from '@/core/quantity/local-date';
import { inOrganisation, type Tx } from '@/database/client';
import { gauges, kit, kitLog } from '@/database/schema';
import { audit } from '@/server/audit';
import { viewerZone } from '@/server/session/zone';
import { now } from '@/server/now';
import { datedEntry as dated } from './dated';
import type { Session } from '@/server/session/session';
import { isId, notHere, TroubleError } from '@/server/trouble';
import {
  entryFromForm,
  gaugeFromForm,
  kitFromForm,
  type GaugeForm,
  type KitForm,
  type LogForm,
} from '@/wire/cabinet';
import { uuid7 } from '@/wire/uuid7';

type Scope = { org: string };
export interface GaugeLine {
  readonly gauge: Gauge;
  readonly standing: Standing;
  readonly log: readonly DatedEntry[];
}
export interface KitLine {
  readonly item: KitFacts;
  readonly standing: Standing;
  readonly log: readonly DatedEntry[];
}
const logOf = async (tx: Tx, item: string, most = 200): Promise<DatedEntry[]> =>
  (
    await tx
      .select()
      .from(kitLog)
      .where(eq(kitLog.item, item))
      .orderBy(desc(kitLog.at), desc(kitLog.id))
      .limit(most)
  ).map(dated);

/** Everything in the cabinet with its log, gauges first. */
export const readCabinet = (scope: Scope): Promise<{ gauges: GaugeLine[]; kit: KitLine[] }> =>
  inOrganisation(scope, async (tx) => {
    // one after the other: a transaction has one connection
    const allGauges = await tx.select().from(gauges).orderBy(asc(gauges.name));
    const allKit = await tx.select().from(kit).orderBy(asc(kit.name));
    const entries = await tx.select().from(kitLog).orderBy(desc(kitLog.at), desc(kitLog.id)).limit(5000);
    const zone = await viewerZone();
    const logs = new Map<string, DatedEntry[]>();
    for (const e of entries) logs.set(e.item, [...(logs.get(e.item) ?? []), dated(e)]);
    const of = (id: string) => {
      const log = logs.get(id) ?? [];
      return { log: log.slice(0, 60), standing: standingOf(log, now(), zone) };
    };
    return {
      gauges: allGauges.map((g) => ({ gauge: g.facts, ...of(g.id) })),
      kit: allKit.map((k) => ({ item: k.facts, ...of(k.id) })),
    };
  });
export const listKit = (scope: Scope): Promise<KitFacts[]> =>
  inOrganisation(scope, async (tx) =>
    (await tx.select().from(kit).orderBy(asc(kit.name))).map((k) => k.facts),
  );

/** Enters a gauge, or changes it. What its log says of it stays. */
export async function saveGauge(session: Session, form: GaugeForm): Promise<{ id: string }> {
  demand(session, 'calibrate');
  return inOrganisation(session, async (tx) => {
    const [before] = await tx.select().from(gauges).where(eq(gauges.id, form.id));
    const facts = gaugeFromForm(form, before?.facts ?? null);
    if (before) await tx.update(gauges).set({ name: facts.name, facts }).where(eq(gauges.id, form.id));
    else await tx.insert(gauges).values({ org: session.org, id: form.id, name: facts.name, facts });
    await audit(tx, session, before ? 'changed gauge' : 'entered gauge', facts.name);
    return { id: form.id };
  });
}
/** Enters another thing of the cabinet, or changes it. */
export async function saveKit(session: Session, form: KitForm): Promise<{ id: string }> {
  demand(session, 'plan');
  return inOrganisation(session, async (tx) => {
    const [before] = await tx.select().from(kit).where(eq(kit.id, form.id));
    const facts: KitFacts = {
      ...kitFromForm(form),
      ...(before?.facts.withdrawn ? { withdrawn: before.facts.withdrawn } : {}),
    };
    if (before) await tx.update(kit).set({ name: facts.name, facts }).where(eq(kit.id, form.id));
    else await tx.insert(kit).values({ org: session.org, id: form.id, name: facts.name, facts });
    await audit(tx, session, before ? 'changed kit' : 'entered kit', facts.name);
    return { id: form.id };
  });
}

/** Appends an entry to a thing's log and brings its facts in line with what the log now says. */
async function append(
  tx: Tx,
  org: string,
  item: { id: string; gauge: Gauge | null; kit: KitFacts | null },
  entry: { id: string; at: number; by: string; what: LogEntry },
): Promise<void> {
  const added = await tx
    .insert(kitLog)
    .values({ org, id: entry.id, item: item.id, at: new Date(entry.at), by: entry.by, entry: entry.what })
    .onConflictDoNothing()
    .returning({ id: kitLog.id });
  if (!added.length) return;
  const standing = standingOf(await logOf(tx, item.id), now(), await viewerZone());
  const calibrated = entry.what.what === 'calibrated' ? { on: entry.what.on, due: entry.what.due } : null;
  if (item.gauge) {
    const facts = withStanding(
      calibrated ? { ...item.gauge, calibrated: calibrated.on, calibrationDue: calibrated.due } : item.gauge,
      standing,
    );
    await tx.update(gauges).set({ facts }).where(eq(gauges.id, item.id));
  } else if (item.kit) {
    const { withdrawn: _w, ...rest } = item.kit;
    // an own-kit test made is the next one's start
    const next =
      entry.what.what === 'blank' && rest.interval
        ? addDays(localDate(entry.at, await viewerZone()), rest.interval)
        : calibrated?.due;
    const facts = {
      ...rest,
      ...(next ? { due: next } : {}),
      ...(standing.withdrawn ? { withdrawn: standing.withdrawn } : {}),
    };
    await tx.update(kit).set({ facts }).where(eq(kit.id, item.id));
  }
}
const itemOf = async (tx: Tx, id: string) => {
  const [gauge] = await tx.select().from(gauges).where(eq(gauges.id, id));
  const [other] = gauge ? [] : await tx.select().from(kit).where(eq(kit.id, id));
  if (!gauge && !other) throw notHere('thing in the cabinet');
  return { id, gauge: gauge?.facts ?? null, kit: other?.facts ?? null };
};
/** A person's entry in the log. @throws TroubleError when the unit is not the gauge's, or the thing is unknown */
export async function writeLog(
  session: Session,
  id: string,
  form: LogForm,
): Promise<{ good: boolean | null }> {
  if (!isId(id)) throw notHere('thing in the cabinet');
  if (form.what === 'calibrated' || form.what === 'returned') demand(session, 'calibrate');
  return inOrganisation(session, async (tx) => {
    const item = await itemOf(tx, id);
    let good: boolean | null = null;
    if (form.what === 'zero') {
      if (!item.gauge) throw new TroubleError(422, 'no-gauge', 'Only a gauge has a zero.', 'figure');
      const figure = parseWithUnit(form.figure);
      if (figure.unit !== item.gauge.resolution.unit)
        throw new TroubleError(422, 'unit', `This gauge shows ${item.gauge.resolution.unit}.`, 'figure');
      good = zeroTolerance(item.gauge, figure);
    }
    const what = entryFromForm(form, good ?? false);
    await append(tx, session.org, item, { id: form.id, at: now(), by: session.name, what });
    await audit(tx, session, `cabinet: ${what.what}`, item.gauge?.name ?? item.kit!.name);
    return { good };
  });
}

/** An entry made at another time, as an import or the demo brings it. @throws TroubleError 404 */
export const writeHistory = (
  scope: Scope,
  item: string,
  entry: { at: number; by: string; what: LogEntry },
): Promise<void> =>
  inOrganisation(scope, async (tx) =>
    append(tx, scope.org, await itemOf(tx, item), { id: uuid7(entry.at), ...entry }),
  );

type Written = { readonly at: number; readonly by: string; readonly what: LogEntry };
/** Kinds of entries that tell something of a thing of the cabinet. */
const TELLS: ReadonlySet<string> = new Set(['zero', 'gauge', 'fan-judge']);
/** Writes what a run tells of its things into their logs: zero checks, which gauge was swapped for which, what a fan's hose passes by itself. */
export async function keepCabinetHistory(
  tx: Tx,
  plan: Plan,
  fresh: readonly PlacedEvent[],
  all: () => Promise<PlacedEvent[]>,
): Promise<void> {
  if (plan.practice || !fresh.some((e) => TELLS.has(e.kind))) return;
  const events = await all();
  const state = reduce(plan, events);
  for (const e of fresh) {
    const told = toldBy(plan, state, events, e);
    if (!told) continue;
    const { at, by, what } = { at: momentOf(e), by: e.byName, ...told };
    await appendWhereKept(tx, plan, told.item, { at, by, what });
  }
}
/** What one entry of a run tells, and of which thing; null where it had no effect, or tells nothing. */
function toldBy(
  plan: Plan,
  state: RunState,
  events: readonly PlacedEvent[],
  e: PlacedEvent,
): { readonly item: string; readonly what: LogEntry } | null {
  const at = momentOf(e);
  switch (e.kind) {
    case 'zero': {
      const zero = state.visits.flatMap((v) => v.zeros).find((z) => z.at === at);
      return zero
        ? { item: zero.gauge, what: { what: 'zero', figure: zero.figure, good: zero.good, run: plan.run } }
        : null;
    }
    case 'gauge': {
      const chosen = events.filter((c) => c.kind === 'gauge');
      const before = chosen[chosen.findIndex((c) => c.id === e.id) - 1];
      const other = plan.gauges.find((g) => g.id === e.gauge);
      return before && other && before.gauge !== e.gauge
        ? { item: before.gauge, what: { what: 'swapped', forName: other.name, run: plan.run } }
        : null;
    }
    case 'fan-judge': {
      const visit = state.rooms.fan.visits.find((v) => v.of === 'hose' && v.result?.judgedAt === at);
      const tested = visit && testOfHose(visit);
      // a fan that is in no cabinet has no log
      return tested?.kit
        ? { item: tested.kit, what: { what: 'through', ...tested.test, run: plan.run } }
        : null;
    }
    default:
      return null;
  }
}
/** An entry in the log of a thing that is still in the cabinet; one of an older calibration than it has is not made. */
export async function appendWhereKept(tx: Tx, plan: Plan, id: string, entry: Written): Promise<void> {
  const [gauge] = await tx.select().from(gauges).where(eq(gauges.id, id));
  const [other] = gauge ? [] : await tx.select().from(kit).where(eq(kit.id, id));
  if (!gauge && !other) return;
  if (entry.what.what === 'calibrated' && (gauge?.facts.calibrated ?? '') > entry.what.on) return;
  await append(
    tx,
    plan.organisation.id,
    { id, gauge: gauge?.facts ?? null, kit: other?.facts ?? null },
    { id: uuid7(entry.at), ...entry },
  );
}
