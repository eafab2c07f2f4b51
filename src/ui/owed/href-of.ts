import type { FollowUpKind } from '@/core/after/follow-ups';

/** Where a person goes to see to something that is owed; null where there is no such page. */
export const hrefOf = (f: {
  readonly kind: FollowUpKind;
  readonly run: string | null;
  readonly subject: string | null;
  readonly system: string | null;
}): string | null => {
  if (f.run) return `/ledger/${f.run}`;
  if (f.kind === 'watch') return `/watches/${f.subject}`;
  if (f.kind === 'calibration') return `/cabinet#item-${f.subject}`;
  if (f.kind === 'licence') return '/organisation';
  return f.system ? `/places/${f.system}` : null;
};
