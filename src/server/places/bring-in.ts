/** Tables that an office brings in: each row is entered by the same functions as by hand; what is here already is left as it is. */
import 'server-only';
import { eq } from 'drizzle-orm';
import { inOrganisation } from '@/database/client';
import { gauges, sites, systems } from '@/database/schema';
import { saveGauge } from '@/server/cabinet/cabinet';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import { rememberMapping } from '@/server/records/log-mappings';
import { meterKinds } from '@/server/rules/rules';
import type { Session } from '@/server/session/session';
import { alike } from '@/wire/bring-in/cells';
import type { ApplianceRow, BringIn, BroughtRow, GaugeRow, PlaceRow } from '@/wire/bring-in/schema';
import { sectionOfFacts } from '@/wire/first-facts';
import { systemSchema } from '@/wire/places';
import { blankRow } from '@/wire/rows';
import { formOfSystem } from '@/wire/system-form';
import { uuid7 } from '@/wire/uuid7';
import { saveSite, saveSystem } from './places';

interface Known {
  readonly id: string;
  readonly name: string;
  readonly address: string;
}
/** The places that a row may mean: by name, and by address where it says one. */
const placesFor = (all: readonly Known[], name: string, address = ''): Known[] =>
  all.filter((s) => alike(s.name) === alike(name) && (!address || alike(s.address) === alike(address)));
const knownSites = (session: Session): Promise<Known[]> =>
  inOrganisation(session, (tx) =>
    tx.select({ id: sites.id, name: sites.name, address: sites.address }).from(sites),
  );
const systemsOn = (session: Session, site: string) =>
  inOrganisation(session, (tx) =>
    tx
      .select({ id: systems.id, name: systems.name, facts: systems.facts })
      .from(systems)
      .where(eq(systems.site, site)),
  );
type Became = Omit<BroughtRow, 'row'>;
const already = (text: string): Became => ({ became: 'already', text });
const refused = (text: string): Became => ({ became: 'refused', text });
const entered = (text: string): Became => ({ became: 'entered', text });

async function placeIn(
  session: Session,
  { name, address, customer, facts }: PlaceRow,
  known: Known[],
  meters: Awaited<ReturnType<typeof meterKinds>>,
): Promise<Became> {
  const there = placesFor(known, name, address);
  if (there.length > 1)
    return refused(
      `${there.length} places here are called “${name}”: write the address of the one you mean.`,
    );
  const site = there[0] ?? { id: uuid7(now()), name, address };
  if (!there[0]) {
    await saveSite(session, { id: site.id, name, address, customer });
    known.push(site);
  }
  if (!facts) return there[0] ? already(name) : entered(name);
  const all = `${name}, ${facts.name}`;
  if ((await systemsOn(session, site.id)).some((s) => alike(s.name) === alike(facts.name)))
    return already(all);
  const id = uuid7(now());
  const meter = meters.find((m) => m.kind === facts.meterKind)?.label ?? '';
  await saveSystem(session, id, site.id, formOfSystem(sectionOfFacts(facts, id, meter)));
  return entered(all);
}
async function applianceIn(session: Session, row: ApplianceRow, known: readonly Known[]): Promise<Became> {
  const there = placesFor(known, row.place);
  if (there.length !== 1)
    return refused(
      there.length
        ? `${there.length} places here are called “${row.place}”: enter its appliances there by hand.`
        : `No place here is called “${row.place}”. Bring in the places first.`,
    );
  const fitting = (await systemsOn(session, there[0]!.id)).filter(
    (s) => !row.system || alike(s.name) === alike(row.system),
  );
  if (fitting.length !== 1)
    return refused(
      fitting.length
        ? `${row.place} has ${fitting.length} installations: write which one in the column “Installation”.`
        : `${row.place} has no installation${row.system ? ` called “${row.system}”` : ''}. Enter it first.`,
    );
  const { id, facts } = fitting[0]!;
  const form = formOfSystem(facts);
  const all = `${row.place}, ${row.name}`;
  if (form.appliances.some((a) => alike(a.name) === alike(row.name))) return already(all);
  const appliance = {
    ...blankRow('appliances', uuid7(now())),
    name: row.name,
    kind: row.kind,
    place: row.where,
    valve: row.valve,
    volume: row.volume,
    // what nobody said is asked at the bench
    hasPilot: row.hasPilot !== false,
    hasLid: row.hasLid !== false,
    maxInlet: row.maxInlet,
    input: row.input,
    make: row.make,
    model: row.model,
    serial: row.serial,
  };
  const next = { ...form, appliances: [...form.appliances, appliance] };
  if (!systemSchema.isValidSync(next, { strict: true }))
    return refused(
      `${fitting[0]!.name} as it stands lacks something that its form asks for. Open it, press Change, and save it first.`,
    );
  await saveSystem(session, id, null, next);
  return entered(all);
}
async function gaugeIn(
  session: Session,
  { gauge }: GaugeRow,
  known: { name: string; serial: string }[],
): Promise<Became> {
  const { name, serial } = gauge;
  const said = serial !== 'not entered';
  if (known.some((g) => (said ? alike(g.serial) === alike(serial) : alike(g.name) === alike(name))))
    return already(name);
  if (known.some((g) => alike(g.name) === alike(name)))
    return refused(
      `Another gauge here is called “${name}”, with another serial number. Give this one its own name.`,
    );
  await saveGauge(session, { ...gauge, id: uuid7(now()) });
  known.push({ name, serial });
  return entered(name);
}

/** Enters the rows one by one, in their order, and says of each what became of it. Asked twice, the second finds all there already. */
export async function bringIn(session: Session, asked: BringIn): Promise<{ rows: BroughtRow[] }> {
  demand(session, 'plan');
  const rows: BroughtRow[] = [];
  if (asked.places.length || asked.appliances.length) {
    const known = await knownSites(session);
    const meters = await meterKinds(session);
    for (const p of asked.places) rows.push({ row: p.row, ...(await placeIn(session, p, known, meters)) });
    for (const a of asked.appliances) rows.push({ row: a.row, ...(await applianceIn(session, a, known)) });
  }
  if (asked.gauges.length) {
    demand(session, 'calibrate');
    const known = await inOrganisation(session, async (tx) =>
      (await tx.select({ facts: gauges.facts }).from(gauges)).map(({ facts: { name, serial } }) => ({
        name,
        serial,
      })),
    );
    for (const g of asked.gauges) rows.push({ row: g.row, ...(await gaugeIn(session, g, known)) });
  }
  if (asked.remember) await rememberMapping(session, asked.remember.shape, asked.remember.mapping);
  return { rows };
}
