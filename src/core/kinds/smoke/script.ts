import { parseWithUnit } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';
import type { Place, Present, Size } from './entries';

/** An id for the Nth finding of a run. */
const findingId = (n: number): string =>
  `00000000-0000-4000-8000-${(0x5f0000 + n).toString(16).padStart(12, '0')}`;
export const smokeVerbs: Verbs = {
  smokeon: () => ({ kind: 'smoke-on' }),
  smokewithout: ({ first }) => ({ kind: 'smoke-without', means: first }),
  /** found PLACE WHERE [SIZE] */
  found: ({ state, args: [place = '', where = '', size] }) =>
    ({
      kind: 'smoke-found',
      finding: findingId(state.rooms.smoke.searches.flatMap((s) => s.findings).length + 1),
      spot: place as Place,
      where,
      ...(size ? { size: size as Size } : {}),
    }) as never,
  /** sealed N BY WITH [FLOW with unit]: the Nth finding, from 1 */
  sealed: ({ state, args: [n = '', sealedBy = '', means = '', flow] }) =>
    ({
      kind: 'smoke-sealed',
      finding: state.rooms.smoke.searches.flatMap((s) => s.findings)[Number(n) - 1]!.id,
      sealedBy,
      means,
      ...(flow ? { flow: parseWithUnit(flow) } : {}),
    }) as never,
  /** smokeover again|later present|asked|none [FEE] */
  smokeover: ({ args: [next = '', installer = '', fee = ''] }) => ({
    kind: 'smoke-over',
    next: next as 'again',
    installer: installer as Present,
    fee,
  }),
};
