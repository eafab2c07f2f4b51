import 'server-only';
import { eq } from 'drizzle-orm';
import type { Plan } from '@/core/plan/plan';
import { momentOf, type RunEvent } from '@/core/run/events';
import type { RunState } from '@/core/run/state';
import type { Tx } from '@/database/client';
import { sites } from '@/database/schema';
import { audit } from '@/server/audit';
import { appendWhereKept } from '@/server/cabinet/cabinet';
import { may, type Role } from '@/wire/role';

/**
 * What was said at the bench for the paper, the place with its customer and when a gauge was calibrated, also stands in places
 * and cabinet where who said it may change them. It comes with the run's own entries: a page that is left, or a signal that is
 * gone, loses nothing of it. @param state the run with these entries: what it refused has no effect here either
 */
export async function keepPapers(
  tx: Tx,
  writer: { readonly org: string; readonly person: string; readonly role: Role },
  plan: Plan,
  fresh: readonly RunEvent[],
  state: RunState,
): Promise<void> {
  if (plan.practice) return;
  for (const e of fresh) {
    if (e.kind !== 'papers') continue;
    const { site, calibration } = e;
    const stands = state.papers.site;
    if (site && stands && may(writer.role, 'plan')) {
      await tx.update(sites).set(stands).where(eq(sites.id, plan.site.id));
      await audit(tx, writer, 'saved site', stands.name);
    }
    if (!calibration || !may(writer.role, 'calibrate')) continue;
    const { gauge } = calibration;
    const known = Object.hasOwn(state.papers.calibrations, gauge) && state.papers.calibrations[gauge];
    if (known)
      await appendWhereKept(tx, plan, gauge, {
        at: momentOf(e),
        by: e.byName,
        what: { what: 'calibrated', ...known, certificate: '' },
      });
  }
}
