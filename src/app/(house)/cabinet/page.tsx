import type { Metadata } from 'next';
import { readCabinet } from '@/server/cabinet/cabinet';
import { now } from '@/server/now';
import { requireSession } from '@/server/session/session';
import { viewerZone } from '@/server/session/zone';
import { CabinetView } from '@/ui/cabinet/cabinet-view';
import { may } from '@/wire/role';

export const metadata: Metadata = { title: 'Cabinet' };
export default async function Cabinet() {
  const session = await requireSession();
  const [{ gauges, kit }, zone] = await Promise.all([readCabinet(session), viewerZone()]);
  return <CabinetView gauges={gauges} kit={kit} may={may(session.role, 'plan')} now={now()} zone={zone} />;
}
