import { isGood } from '@/core/verdict/words';
import type { Face } from './face';

/** The papers a record calls for besides itself. */
export type NoticeKind = 'fail' | 'label' | 'report';
export interface NoticeOffer {
  readonly kind: NoticeKind;
  readonly title: string;
  /** Whom it is addressed to, by role. */
  readonly to: string;
}
/**
 * Which papers a record calls for: a notice to the user and a do-not-use label when it was not shown fit for use, a
 * report to whoever owns an upstream fault. A practice record calls for none.
 */
export function noticesOf(face: Pick<Face, 'body' | 'state' | 'plan'>): NoticeOffer[] {
  const { state, body, plan } = face;
  if (body.status === 'practice') return [];
  const good = isGood(body.verdict.word);
  const shut = !good && body.verdict.use !== 'limited';
  return [
    ...(!good || state.unsafe
      ? [{ kind: 'fail' as const, title: 'Notice to the user', to: plan.site.customer }]
      : []),
    ...((shut && body.verdict.word === 'not-tight') || state.unsafe
      ? [{ kind: 'label' as const, title: 'Do-not-use label', to: plan.system.name }]
      : []),
    ...(state.reports.length
      ? [{ kind: 'report' as const, title: 'Report', to: state.reports.map((r) => r.to).join(', ') }]
      : []),
  ];
}
