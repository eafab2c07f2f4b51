import 'server-only';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Plan } from '@/core/plan/plan';
import { DANGER_WORDS } from '@/core/record/words';
import type { RunState } from '@/core/run/state';
import type { Verdict } from '@/core/verdict/verdict';
import { isGood } from '@/core/verdict/words';
import { inOrganisation, type Tx } from '@/database/client';
import { followUps, sites, systems } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { isId, notHere } from '@/server/trouble';
import { uuid7 } from '@/wire/uuid7';

const dayAfter = (moment: number, days: number): string =>
  new Date(moment + days * 86_400_000).toISOString().slice(0, 10);

/**
 * What a sealed record leaves to be done, and what it brings to an end: a good record of a system closes its repairs
 * and unsafe situations; a report stays until somebody says that it was made.
 */
export async function followUpsOf(
  tx: Tx,
  org: string,
  plan: Plan,
  state: RunState,
  verdict: Verdict,
  number: string,
  moment: number,
): Promise<void> {
  const ended = state.ending?.at ?? moment;
  const system = plan.system.id;
  if (isGood(verdict.word))
    for (const kind of ['repair', 'unsafe'] as const)
      await tx
        .update(followUps)
        .set({ closed: new Date(moment), closedBy: number })
        .where(and(eq(followUps.system, system), eq(followUps.kind, kind), isNull(followUps.closed)));
  const owed = [
    ...state.followUps.map((f) => ({ kind: 'repair' as const, text: f.text, due: dayAfter(ended, f.days) })),
    ...state.reports.map((r) => ({
      kind: 'report' as const,
      text: `Report to the ${r.to}: ${r.text}`,
      due: dayAfter(ended, 0),
    })),
    ...(state.unsafe
      ? [
          {
            kind: 'unsafe' as const,
            text: `${DANGER_WORDS[state.unsafe.danger]}, ${state.unsafe.action}: ${state.unsafe.text}. Mend and test again`,
            due: dayAfter(ended, state.unsafe.danger === 'immediate-danger' ? 0 : 7),
          },
        ]
      : []),
  ];
  if (owed.length)
    await tx.insert(followUps).values(
      owed.map((o, i) => ({
        org,
        id: uuid7(moment + i),
        run: plan.run,
        system,
        made: new Date(moment),
        ...o,
      })),
    );
}

export interface OpenFollowUp {
  readonly id: string;
  readonly kind: 'repair' | 'report' | 'unsafe';
  readonly text: string;
  readonly due: string;
  readonly run: string;
  readonly place: string;
  readonly system: string;
}
/** Everything that still has to be done, the most urgent first. */
export const openFollowUps = (scope: { org: string }): Promise<OpenFollowUp[]> =>
  inOrganisation(scope, async (tx) => {
    const rows = await tx
      .select({ f: followUps, site: sites.name, system: systems.name })
      .from(followUps)
      .innerJoin(systems, eq(systems.id, followUps.system))
      .innerJoin(sites, eq(sites.id, systems.site))
      .where(isNull(followUps.closed))
      .orderBy(asc(followUps.due))
      .limit(200);
    return rows.map(({ f, site, system }) => ({
      id: f.id,
      kind: f.kind,
      text: f.text,
      due: f.due,
      run: f.run,
      place: `${site}: ${system}`,
      system: f.system,
    }));
  });
/** Says that a follow-up is done. @throws TroubleError 404 */
export async function closeFollowUp(
  person: { org: string; person: string; name: string },
  id: string,
): Promise<void> {
  if (!isId(id)) throw notHere('follow-up');
  await inOrganisation(person, async (tx) => {
    const closed = await tx
      .update(followUps)
      .set({ closed: new Date(now()), closedBy: person.name })
      .where(and(eq(followUps.id, id), isNull(followUps.closed)))
      .returning({ text: followUps.text });
    if (!closed.length) throw notHere('follow-up');
    await audit(tx, person, 'closed follow-up', closed[0]!.text);
  });
}
