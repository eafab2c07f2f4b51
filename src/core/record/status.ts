import { certificateTitle, type Plan } from '@/core/plan/plan';

/** Who seals and what the record may call itself. */
export interface Sealer {
  readonly id: string;
  readonly name: string;
  readonly role: string;
  readonly licence: { readonly number: string; readonly until: string } | null;
}
export type RecordStatus = 'certificate' | 'not-a-certificate' | 'practice';
/**
 * Whether a sealed run is a certificate, and if not why not. Practice runs never are; trades that need a licensed
 * tester need the sealer's licence in date on the day.
 * @param day ISO date of sealing
 */
export function recordStatus(
  plan: Plan,
  sealer: Sealer,
  day: string,
): { status: RecordStatus; reason: string } {
  if (plan.practice || plan.gauges.some((g) => g.simulated))
    return { status: 'practice', reason: 'Practice record on a simulated installation.' };
  if (plan.outside)
    return {
      status: 'not-a-certificate',
      reason: `Held by ${plan.outside.by} with another program; its readings were judged here from the file ${plan.outside.file}.`,
    };
  if (plan.attendance?.doneBy === 'owner')
    return {
      status: 'not-a-certificate',
      reason: 'An owner’s own work under the permit: a record of what was read, not a certificate.',
    };
  if (!plan.procedure.certificate.licence) return { status: 'certificate', reason: certificateTitle(plan) };
  if (!sealer.licence)
    return { status: 'not-a-certificate', reason: 'The sealer has no licence number on file.' };
  if (sealer.licence.until < day)
    return {
      status: 'not-a-certificate',
      reason: `The sealer’s licence ${sealer.licence.number} ran out on ${sealer.licence.until}.`,
    };
  return {
    status: 'certificate',
    reason: `Sealed by a licensed tester: licence ${sealer.licence.number}, valid to ${sealer.licence.until}`,
  };
}
