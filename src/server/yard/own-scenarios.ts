/** Scenarios that a house brings in and gives away as files: taken only where they can be set up, solved, and missed. */
import { endOf } from '@/core/yard/debrief';
import { criteriaOf, grade } from '@/core/yard/grade';
import { play } from '@/core/yard/play';
import { parseScenario, type Scenario } from '@/core/yard/scenario';
import { inOrganisation, type Tx } from '@/database/client';
import { yardScenarios } from '@/database/schema';
import { audit } from '@/server/audit';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import { ownId, practiceSite } from '@/server/places/practice-site';
import { newestPack } from '@/server/rules/rules';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import type { TriedConduct } from '@/wire/yard';
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
/** The newest version of the rules it is of. @throws TroubleError 422 */
async function packFor(tx: Tx, scenario: Scenario, session: Session) {
  const newest = await newestPack(tx, session, scenario.pack);
  if (!newest) throw wrong(`It needs the rule pack ${scenario.pack}. Import that under Rules first.`, 'pack');
  return newest.pack;
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
    solved(scenario, await packFor(tx, scenario, session), session);
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
/** Conducts each as it stands there, and says what came of it. @throws TroubleError 422 where it cannot be set up */
function conducted(scenario: Scenario, pack: Parameters<typeof play>[2], session: Session): TriedConduct[] {
  return scenario.conducts.map((how) => {
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
    const { end, result } = found.graded;
    const uncaught = how.good ? [] : (how.caught ?? []).filter((id) => !missed.includes(id));
    const trouble =
      how.good && end !== 'mastered'
        ? `“${how.name}” is called good and does not end mastered: ${found.played.stuck ?? `missed ${missed.join(', ') || end}`}.`
        : uncaught.length
          ? `“${how.name}” should be caught by ${uncaught.join(', ')} and is not.`
          : null;
    return { name: how.name, good: how.good, end, result, missed, trouble };
  });
}
/** Its good conduct ends mastered, and each mistake is caught by what it names. @throws TroubleError 422 */
function solved(scenario: Scenario, pack: Parameters<typeof play>[2], session: Session): void {
  const { conducts } = scenario;
  if (!conducts.some((c) => c.good) || !conducts.some((c) => !c.good && c.caught?.length))
    throw wrong('It needs a conduct that is good and a typical mistake with what catches it.', 'conducts');
  const trouble = conducted(scenario, pack, session).find((t) => t.trouble !== null)?.trouble;
  if (trouble) throw wrong(trouble, 'conducts');
}
/** Tries a scenario as it stands, and keeps nothing of it. @throws TroubleError 403, 422: what is wrong with it, and where */
export async function tryScenario(session: Session, text: string): Promise<TriedConduct[]> {
  demand(session, 'seal');
  const scenario = readScenario(text);
  return inOrganisation(session, async (tx) =>
    conducted(scenario, await packFor(tx, scenario, session), session),
  );
}
function tried<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw wrong(`It cannot be set up: ${(error as Error).message}`);
  }
}
