/** Anything by its words: what is asked of every room of the house at once, a few of each. */
import 'server-only';
import { and, asc, countDistinct, desc, eq, isNull, type SQL, sql } from 'drizzle-orm';
import { findTopics, procedureTopics, TOPICS } from '@/core/guide';
import { inOrganisation } from '@/database/client';
import { saysAll } from '@/database/queries/places';
import { gauges, kit, people, sites, systems } from '@/database/schema';
import { recall } from '@/server/places/inventory';
import { searchLedger } from '@/server/records/ledger';
import { rulePacks } from '@/server/rules/rules';
import type { Session } from '@/server/session/session';
import { compact } from '@/wire/ledger';
import { type Found, LEAST_FIND, MOST_FIND } from '@/wire/find';
import { localDate } from '@/core/quantity/local-date';

/** So many of each kind: whoever means another types another word. */
const EACH = 5;
const line = (...parts: readonly (string | null | undefined | false)[]) => parts.filter(Boolean).join(', ');

/** @param zone in which days are told */
export async function findAnything(session: Session, typed: string, zone: string): Promise<readonly Found[]> {
  const find = typed.trim().slice(0, MOST_FIND);
  // punctuation alone stands everywhere
  if (compact(find).length < LEAST_FIND) return [];
  const [own, plates, records, packs] = await Promise.all([
    ofTheHouse(session, find),
    recall(session, find, EACH),
    searchLedger(session, { find }, EACH),
    rulePacks(session),
  ]);
  return [
    ...own.places,
    ...plates.slice(0, EACH).map(({ item, site, system, systemName }): Found => ({
      kind: 'plate',
      title: line(item.name, item.make, item.model),
      about: line(item.serial && `serial ${item.serial}`, site, systemName),
      href: `/places/${system}`,
    })),
    ...own.things,
    ...records.map((r): Found => ({
      kind: 'record',
      title: `${r.number}, ${r.summary.label}`,
      about: line(r.summary.site, r.summary.system, localDate(Date.parse(r.sealedAt), zone)),
      href: r.source === 'outside' ? `/ledger/outside/${r.run}` : `/ledger/${r.run}`,
    })),
    ...own.persons,
    ...findTopics(procedureTopics(packs), find)
      .slice(0, EACH)
      .map((t): Found => ({ kind: 'procedure', title: t.title, about: t.about, href: `/guide#${t.id}` })),
    ...findTopics(TOPICS, find)
      .slice(0, EACH)
      .map((t): Found => ({ kind: 'topic', title: t.title, about: t.about, href: `/guide#${t.id}` })),
  ];
}
/** Places, installations, customers, the cabinet and people. */
const ofTheHouse = (session: Session, find: string) =>
  inOrganisation(session, async (tx) => {
    // whose name begins so is meant first
    const first = (name: SQL) => sql`(compact_text(${name}) like compact_text(${find}) || '%') desc`;
    const meant = (...text: SQL[]) => saysAll(sql.join(text, sql` || ' ' || `), find);
    const sitesFound = await tx
      .select({ id: sites.id, name: sites.name, address: sites.address, customer: sites.customer })
      .from(sites)
      .where(meant(sql`${sites.search}`))
      .orderBy(first(sql`${sites.name}`), asc(sites.name))
      .limit(EACH);
    const systemsFound = await tx
      .select({ id: systems.id, name: systems.name, site: sites.name, address: sites.address })
      .from(systems)
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(meant(sql`${systems.search}`, sql`${sites.search}`))
      .orderBy(first(sql`${systems.name}`), asc(sites.name), asc(systems.name))
      .limit(EACH);
    const customers = await tx
      .select({ customer: sites.customer, places: countDistinct(sites.id) })
      .from(sites)
      .where(meant(sql`compact_text(${sites.customer})`))
      .groupBy(sites.customer)
      .orderBy(asc(sites.customer))
      .limit(EACH);
    const gaugesFound = await tx
      .select({ id: gauges.id, name: gauges.name, facts: gauges.facts })
      .from(gauges)
      .where(meant(sql`compact_text(${gauges.name} || ' ' || coalesce(${gauges.facts} ->> 'serial', ''))`))
      .orderBy(asc(gauges.name))
      .limit(EACH);
    const kitFound = await tx
      .select({ id: kit.id, facts: kit.facts })
      .from(kit)
      .where(
        meant(sql`compact_text((${kit.facts} ->> 'name') || ' ' || coalesce(${kit.facts} ->> 'serial', ''))`),
      )
      .orderBy(desc(kit.id))
      .limit(EACH);
    const persons = await tx
      .select({ name: people.name, email: people.email, role: people.role })
      .from(people)
      .where(and(isNull(people.left), meant(sql`compact_text(${people.name} || ' ' || ${people.email})`)))
      .orderBy(asc(people.name))
      .limit(EACH);
    return {
      places: [
        ...sitesFound.map((s): Found => ({
          kind: 'place',
          title: s.name,
          about: line(s.address, s.customer),
          href: `/places?${new URLSearchParams({ find: s.name })}`,
        })),
        ...systemsFound.map((s): Found => ({
          kind: 'system',
          title: `${s.site}: ${s.name}`,
          about: s.address,
          href: `/places/${s.id}`,
        })),
        ...customers
          .filter((c) => c.customer)
          .map((c): Found => ({
            kind: 'customer',
            title: c.customer,
            about: c.places === 1 ? 'one place' : `${c.places} places`,
            href: `/places?${new URLSearchParams({ find: c.customer })}`,
          })),
      ],
      things: [
        ...gaugesFound.map((g): Found => ({
          kind: 'gauge',
          title: g.name,
          about: line('gauge', g.facts.serial && `serial ${g.facts.serial}`),
          href: `/cabinet#item-${g.id}`,
        })),
        ...kitFound.map((k): Found => ({
          kind: 'gauge',
          title: k.facts.name,
          about: line(k.facts.kind, k.facts.serial && `serial ${k.facts.serial}`),
          href: `/cabinet#item-${k.id}`,
        })),
      ],
      persons: persons.map((p): Found => ({
        kind: 'person',
        title: p.name,
        about: line(p.role, p.email),
        href: '/organisation',
      })),
    };
  });
