/** The scenarios there are: those that ship, and the house's own. */
import type { Result } from '@/core/yard/progress';
import type { Scenario } from '@/core/yard/scenario';
import { faultsFor } from '@/core/yard/faults';
import { installationOf } from '@/core/yard/session';
import type { End } from '@/core/yard/words';
import { rulePacks } from '@/server/rules/rules';
import { inOrganisation } from '@/database/client';
import { yardResults, yardScenarios } from '@/database/schema';
import type { Session } from '@/server/session/session';
import { notHere } from '@/server/trouble';
import type { ScenarioCard } from '@/wire/yard';
import { asc, desc, eq } from 'drizzle-orm';
import 'server-only';
import { INSTALLATIONS, SHIPPED } from './shipped';

type Scope = { readonly org: string };
/** The house's own, the newest version of each. */
const ownScenarios = (scope: Scope): Promise<Scenario[]> =>
  inOrganisation(scope, async (tx) => {
    const rows = await tx.select().from(yardScenarios).orderBy(desc(yardScenarios.made));
    return [...new Map(rows.reverse().map((r) => [r.id, r.body])).values()];
  });
/** Those that ship, and the house's own in the place of those of the same name. */
export async function allScenarios(scope: Scope): Promise<Scenario[]> {
  const own = await ownScenarios(scope);
  const ids = new Set(own.map((s) => s.id));
  return [...SHIPPED.filter((s) => !ids.has(s.id)), ...own];
}
export async function scenarioNamed(scope: Scope, id: string): Promise<Scenario> {
  const found = (await allScenarios(scope)).find((s) => s.id === id);
  if (!found) throw notHere('scenario');
  return found;
}
/** What came of a person's practice so far, oldest first. */
export const resultsOf = (scope: Scope, person: string): Promise<Result[]> =>
  inOrganisation(scope, async (tx) =>
    (
      await tx
        .select()
        .from(yardResults)
        .where(eq(yardResults.person, person))
        .orderBy(asc(yardResults.at), asc(yardResults.id))
    ).map((r) => ({ at: r.at.getTime(), body: r.body })),
  );
/** Every scenario as a person sees it in a list. */
export async function scenarioCards(session: Session): Promise<{ cards: ScenarioCard[]; results: Result[] }> {
  const [all, results] = await Promise.all([allScenarios(session), resultsOf(session, session.person)]);
  const cards = all.map((s): ScenarioCard => {
    const of = results.filter((r) => r.body.kind === 'scenario' && r.body.scenario === s.id);
    const last = of.at(-1)?.body;
    return {
      id: s.id,
      title: s.title,
      trade: s.trade,
      level: s.level,
      minutes: s.minutes,
      traps: s.traps,
      briefing: s.briefing,
      own: !SHIPPED.includes(s),
      last: last?.kind === 'scenario' ? (last.end as End) : null,
      times: of.length,
    };
  });
  return { cards, results };
}
/** What can be hidden by name in the installation of each scenario, by its id. */
export async function faultsByScenario(
  scope: Scope,
): Promise<Record<string, Readonly<Record<string, string>>>> {
  const [packs, all] = await Promise.all([rulePacks(scope), allScenarios(scope)]);
  return Object.fromEntries(
    all.map((s) => {
      const procedure = packs.find((p) => p.id === s.pack)?.procedures.find((p) => p.id === s.procedure);
      const system = installationOf(s, INSTALLATIONS, s.id);
      return [s.id, procedure ? faultsFor({ procedure, system }) : {}];
    }),
  );
}
