/** The first minute: a test on what stands before a person, and the installation that is always ready to practise on. */
import 'server-only';
import { eq } from 'drizzle-orm';
import { offersFor } from '@/core/plan/offer';
import { PlanError } from '@/core/plan/plan';
import { inOrganisation } from '@/database/client';
import { systems } from '@/database/schema';
import { saveGauge } from '@/server/cabinet/cabinet';
import { now } from '@/server/now';
import { demand } from '@/server/permission';
import { meterKinds, rulePacks } from '@/server/rules/rules';
import { startRun } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import { TroubleError } from '@/server/trouble';
import { sectionOfFacts } from '@/wire/first-facts';
import { noFacts } from '@/wire/no-facts';
import { gaugeOfQuick, runOfQuick, siteOfQuick } from '@/wire/quick-begin';
import type { Practise, QuickTest } from '@/wire/quick-test';
import { formOfSystem } from '@/wire/system-form';
import { saveSite, saveSystem } from './places';
import { ownId, practiceSite } from './practice-site';

/** Enters place, system and gauge as far as they are known and begins. Asked twice with the same ids it answers the same run. */
export async function quickTest(session: Session, asked: QuickTest): Promise<{ run: string }> {
  demand(session, 'plan');
  const { facts, site, system, newGauge } = asked;
  if (newGauge) demand(session, 'calibrate');
  const meter = (await meterKinds(session)).find((m) => m.kind === facts.meterKind)?.label ?? '';
  const drawn = sectionOfFacts(facts, system, meter);
  await saveSite(session, siteOfQuick(asked, asked.carried?.at ?? now()));
  await saveSystem(session, system, site, formOfSystem(drawn));
  if (newGauge) await saveGauge(session, gaugeOfQuick(newGauge));
  try {
    return await startRun(session, runOfQuick(asked));
  } catch (error) {
    // what was entered is kept; what is missing is entered where it belongs
    if (error instanceof PlanError)
      throw new TroubleError(422, 'plan', error.message, `/places/${system}/edit`);
    throw error;
  }
}

/** A practice run on the ready installation: made with the first one, left as it is after. */
export async function practise(session: Session, { run, zone }: Practise): Promise<{ run: string }> {
  demand(session, 'run');
  const [site, system] = [practiceSite(session.org), ownId(session.org, 'practice system')];
  const facts = sectionOfFacts(
    {
      ...noFacts(),
      name: 'Practice gas',
      meterKind: 'diaphragm-U6-G4',
      meterVolume: '8 l',
      length: '8 m',
      counted: [{ word: 'hob', count: 1 }],
    },
    system,
    'diaphragm U6 / G4',
  );
  const known = await inOrganisation(session, async (tx) =>
    (await tx.select({ facts: systems.facts }).from(systems).where(eq(systems.id, system))).at(0),
  );
  if (!known) {
    // whoever practises makes it, whatever else they may enter
    const maker = { ...session, role: 'owner' as const };
    await saveSite(maker, {
      id: site,
      name: 'Practice installation',
      address: 'simulated, nowhere',
      customer: 'nobody: practice only',
    });
    const form = formOfSystem({ ...facts, noValves: ['drop', 'selector', 'container', 'hidden'] });
    await saveSystem(maker, system, site, form);
  }
  const offers = (await rulePacks(session)).flatMap((p) => offersFor(p, known?.facts ?? facts));
  const offer = offers.find((o) => o.begins) ?? offers.find((o) => o.practice);
  if (!offer)
    throw new TroubleError(
      422,
      'nothing',
      'No rule pack here has a procedure to practise. Import one under Rules.',
    );
  return startRun(session, {
    id: run,
    system,
    pack: offer.pack,
    procedure: offer.id,
    case: offer.cases[0]!.key,
    choices: {},
    practice: true,
    fault: 'surprise',
    zone,
  });
}
