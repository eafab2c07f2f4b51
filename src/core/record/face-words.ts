import { notCoveredIn } from '@/core/plan/not-covered';
import { reachOf } from '@/core/network/flood';
import type { Plan } from '@/core/plan/plan';
import type { RunState } from '@/core/run/state';
import { tradeOf } from '@/core/trades';
import type { SectionKey } from '@/core/trades/trade';
import { verdictOf } from '@/core/verdict/verdict';

/** What somebody must have read before signing, while the record is not sealed yet. */
export function faceWords(plan: Plan, state: RunState) {
  const verdict = verdictOf(plan, state);
  return {
    place: `${plan.site.name}, ${plan.site.address}: ${plan.system.name}`,
    procedure: plan.procedure.title,
    word: verdict?.word ?? null,
    label: verdict?.label ?? 'No result',
    plain: verdict?.plain ?? '',
    notCovered: notCoveredIn(plan),
  };
}

/** What bounded the test, in a sentence: its valve, or the plugs of a line; a whole pool by nothing but its map. */
export function boundedWords(plan: Pick<Plan, 'system'>): string {
  const { system } = plan;
  const { parted } = tradeOf(system);
  if (parted === 'sides') {
    const bounds = system.network ? reachOf(system.network).boundaries.map((b) => b.name) : [];
    return bounds.length ? `Bounded by ${bounds.join(', ')}.` : 'Nothing bounds it on its drawing.';
  }
  if (!system.supplyValve && parted !== 'lines')
    return `Every opening is masked; test point: ${system.testPoint}.`;
  if (parted !== 'lines')
    return `Bounded by ${system.supplyValve} (owner: ${system.supplyValveOwner}); test point: ${system.testPoint}.`;
  const { section } = system;
  return section
    ? `Bounded by a plug at each of its ends: ${section.title}.`
    : 'Nothing was shut off: the whole pool was looked at.';
}

const MUST_BE_SEEN: readonly (SectionKey | undefined)[] = ['unsafe', 'findings', 'reports', 'due'];
/** Whether it is a section that no reader may have to unfold or turn the page for. */
export const mustBeSeen = ({ key }: { readonly key?: SectionKey }): boolean => MUST_BE_SEEN.includes(key);
