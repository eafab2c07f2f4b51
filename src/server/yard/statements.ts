/** Statements of practice, and the groups of whoever trains. */
import { type Statement, statementNumber, statementOf } from '@/core/yard/statement';
import { CHAIN_START } from '@/core/record/seal';
import { inOrganisation } from '@/database/client';
import { counters, people, yardGroups, yardStatements } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import type { Session } from '@/server/session/session';
import { isId, notHere } from '@/server/trouble';
import type { GroupRequest, StatementRequest } from '@/wire/yard';
import { may } from '@/wire/role';
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import 'server-only';
import { resultsOf } from './scenarios';

export interface Stated {
  readonly id: string;
  readonly number: string;
  readonly person: string;
  readonly made: number;
  readonly body: Statement;
}
/** One's own, or, of whoever trains, anybody's. */
const mayOf = (session: Session, person: string): void =>
  demand(session, person === session.person ? 'run' : 'seal');
/** Makes a statement of what somebody practised so far. Asked twice with the same id it is one. @throws TroubleError 403, 404 */
export async function makeStatement(session: Session, asked: StatementRequest): Promise<{ id: string }> {
  mayOf(session, asked.person);
  const results = await resultsOf(session, asked.person);
  await inOrganisation(session, async (tx) => {
    const [person] = await tx
      .select({ name: people.name, role: people.role })
      .from(people)
      .where(eq(people.id, asked.person));
    if (!person || !may(person.role, 'run')) throw notHere('person who practises');
    const [there] = await tx
      .select({ id: yardStatements.id })
      .from(yardStatements)
      .where(eq(yardStatements.id, asked.id));
    if (there) return;
    const series = 'statement';
    await tx
      .insert(counters)
      .values({ org: session.org, series, last: 0, lastHash: CHAIN_START })
      .onConflictDoNothing();
    const [counter] = await tx
      .update(counters)
      .set({ last: sql`${counters.last} + 1` })
      .where(and(eq(counters.org, session.org), eq(counters.series, series)))
      .returning({ last: counters.last });
    const who = { organisation: session.organisation, name: person.name, by: session.name };
    await tx.insert(yardStatements).values({
      org: session.org,
      id: asked.id,
      number: statementNumber(counter!.last),
      person: asked.person,
      by: session.person,
      made: new Date(now()),
      body: statementOf(who, results, now()),
    });
    await audit(tx, session, 'made a statement of practice', asked.id);
  });
  return { id: asked.id };
}
const rowOf = ({ id, number, person, made, body }: typeof yardStatements.$inferSelect): Stated => ({
  id,
  number,
  person,
  made: made.getTime(),
  body,
});
/** @throws TroubleError 403, 404 */
export async function statement(session: Session, id: string): Promise<Stated> {
  if (!isId(id)) throw notHere('statement');
  const [row] = await inOrganisation(session, (tx) =>
    tx.select().from(yardStatements).where(eq(yardStatements.id, id)),
  );
  if (!row) throw notHere('statement');
  mayOf(session, row.person);
  return rowOf(row);
}
/** Statements of one person, the newest first. @throws TroubleError 403 */
export async function statementsOf(session: Session, person: string): Promise<Stated[]> {
  mayOf(session, person);
  return (
    await inOrganisation(session, (tx) =>
      tx
        .select()
        .from(yardStatements)
        .where(eq(yardStatements.person, person))
        .orderBy(desc(yardStatements.made))
        .limit(50),
    )
  ).map(rowOf);
}

/** Says that somebody is in a group, or is not any more. @throws TroubleError 403, 404 */
export async function group(session: Session, asked: GroupRequest): Promise<{ id: string }> {
  demand(session, 'seal');
  await inOrganisation(session, async (tx) => {
    const [person] = await tx.select({ role: people.role }).from(people).where(eq(people.id, asked.person));
    if (!person || !may(person.role, 'run')) throw notHere('person who practises');
    await tx
      .insert(yardGroups)
      .values({
        org: session.org,
        id: asked.id,
        person: asked.person,
        name: asked.name,
        within: asked.within,
        by: session.person,
        at: new Date(now()),
      })
      .onConflictDoNothing();
  });
  return { id: asked.id };
}
/** The groups that have somebody in them: persons by name of the group. */
export async function groups(scope: { org: string }): Promise<Record<string, string[]>> {
  const rows = await inOrganisation(scope, (tx) =>
    tx.select().from(yardGroups).orderBy(asc(yardGroups.at), asc(yardGroups.id)),
  );
  const found = new Map<string, Set<string>>();
  for (const { name, person, within } of rows) {
    const in_ = found.get(name) ?? new Set<string>();
    if (within) in_.add(person);
    else in_.delete(person);
    found.set(name, in_);
  }
  return Object.fromEntries(
    [...found]
      .filter(([, p]) => p.size > 0)
      .sort(([a], [b]) => a.localeCompare(b))
      .map(([n, p]) => [n, [...p]]),
  );
}
