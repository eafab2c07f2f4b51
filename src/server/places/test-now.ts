/** What a person can begin on each thing that may stand before them, and the gauges they have. */
import 'server-only';
import { inOrganisation } from '@/database/client';
import { meterKinds, packsAside, rulePacks } from '@/server/rules/rules';
import { gaugesKnown } from '@/server/runs/start';
import type { Session } from '@/server/session/session';
import { testNow } from '@/wire/test-now';

export async function testNowFor(session: Session) {
  const [packs, aside, meters, gauges] = await Promise.all([
    rulePacks(session),
    packsAside(session),
    meterKinds(session),
    inOrganisation(session, (tx) => gaugesKnown(tx, session.person)),
  ]);
  return testNow(packs, aside, gauges, meters);
}
