/** Scenarios that a house brings in and gives away as files: taken only where they can be set up, solved, and missed. */
import { citedPack } from '@/core/pack/editions';
import { endOf } from '@/core/yard/debrief';
import { criteriaOf, grade } from '@/core/yard/grade';
import { play } from '@/core/yard/play';
import { parseScenario, type Scenario } from '@/core/yard/scenario';
import { inOrganisation } from '@/database/client';
import { packs, yardScenarios } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import { ownId, practiceSite } from '@/server/places/practice-site';
import { editionsOf } from '@/server/rules/rules';
import { storedPack } from '@/server/rules/stored';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { desc, eq } from 'drizzle-orm';
import 'server-only';
import { INSTALLATIONS, RUBRIC, SHIPPED } from './shipped';

const wrong = (text: string, path?: string) => new TroubleError(422, 'scenario', text, path);
/** What is in a file: one scenario, or a list of which the first is taken. @throws TroubleError 422 */
function readScenario(text: string): Scenario {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw wrong(
      'The file is not JSON. Choose a scenario that was exported here, or written by docs/schema/scenario.json.',
    );
  }
  try {
    return parseScenario(Array.isArray(value) ? value[0] : value);
  } catch (error) {
    const { path, message } = error as { path?: string; message: string };
    throw wrong(`${path ? `${path}: ` : ''}${message}`, path);
  }
}
/** Brings a scenario in. @throws TroubleError 403, 409, 422: what is wrong with it, and where */
export async function importScenario(session: Session, text: string): Promise<{ id: string; title: string }> {
  demand(session, 'seal');
  const scenario = readScenario(text);
  if (SHIPPED.some((s) => s.id === scenario.id))
    throw new TroubleError(
      409,
      'shipped',
      `${scenario.id} ships with the product. Give yours another id and bring it in again.`,
    );
  await inOrganisation(session, async (tx) => {
    const [row] = await tx
      .select()
      .from(packs)
      .where(eq(packs.id, scenario.pack))
      .orderBy(desc(packs.made), desc(packs.version))
      .limit(1);
    if (!row) throw wrong(`It needs the rule pack ${scenario.pack}. Import that under Rules first.`, 'pack');
    const pack = citedPack(storedPack(row), await editionsOf(tx, row.id), session.organisation);
    solved(scenario, pack, session);
    await tx.insert(yardScenarios).values({
      org: session.org,
      id: scenario.id,
      made: new Date(now()),
      by: session.name,
      body: scenario,
    });
    await audit(tx, session, 'brought in scenario', scenario.id);
  });
  return { id: scenario.id, title: scenario.title };
}
/** Its good conduct ends mastered, and each mistake is caught by what it names. @throws TroubleError 422 */
function solved(scenario: Scenario, pack: Parameters<typeof play>[2], session: Session): void {
  const good = scenario.conducts.filter((c) => c.good);
  const mistakes = scenario.conducts.filter((c) => !c.good && c.caught?.length);
  if (!good.length || !mistakes.length)
    throw wrong('It needs a conduct that is good and a typical mistake with what catches it.', 'conducts');
  for (const how of [...good, ...mistakes]) {
    const found = tried(() => {
      criteriaOf(scenario, RUBRIC);
      const played = play(scenario, how, pack, INSTALLATIONS, {
        run: ownId(session.org, 'yard trial'),
        system: ownId(session.org, `yard ${scenario.id}`),
        gauge: ownId(session.org, 'yard trial gauge'),
        fan: ownId(session.org, 'yard trial fan'),
        organisation: { id: session.org, name: session.organisation },
        site: {
          id: practiceSite(session.org),
          name: 'Practice installation',
          address: 'simulated',
          customer: 'nobody',
        },
        packHash: '',
        made: { at: new Date(now()).toISOString(), zone: 'UTC', by: session.name },
      });
      return { played, graded: grade(played, RUBRIC, endOf(played)) };
    });
    const missed = found.graded.lines.filter((l) => !l.met).map((l) => l.id);
    if (how.good && found.graded.end !== 'mastered')
      throw wrong(
        `“${how.name}” is called good and does not end mastered: ${found.played.stuck ?? `missed ${missed.join(', ') || found.graded.end}`}.`,
        'conducts',
      );
    const uncaught = how.good ? [] : (how.caught ?? []).filter((id) => !missed.includes(id));
    if (uncaught.length)
      throw wrong(`“${how.name}” should be caught by ${uncaught.join(', ')} and is not.`, 'conducts');
  }
}
function tried<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw wrong(`It cannot be set up: ${(error as Error).message}`);
  }
}
