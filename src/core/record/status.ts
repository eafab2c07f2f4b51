import { certificateTitle, type Plan } from '@/core/plan/plan';
import { localDate } from '@/core/quantity/local-date';
import type { PlacedEvent } from '@/core/run/events';
import type { RunState } from '@/core/run/state';

/** Somebody who signs or seals, as the office knows them. */
export interface Sealer {
  readonly id: string;
  readonly name: string;
  readonly role: string;
  readonly licence: { readonly number: string; readonly until: string } | null;
}
export type RecordStatus = 'certificate' | 'not-a-certificate' | 'practice';

/** Who answers for a record, and when. */
export interface Answering {
  /** Who conducted or stood over the test and signed as tester: theirs is the licence that counts. */
  readonly signer: Sealer;
  /** Who gave it its number. */
  readonly sealer: Sealer;
  /** ISO date on which the office had the tester's signature. */
  readonly day: string;
  /** What cannot be true of its times. */
  readonly impossible: readonly string[];
}

/** The tester's signature as it took effect: whose it is, and when the office had it, ms UTC. */
export function testerSigned(
  state: RunState,
  events: readonly PlacedEvent[],
): { readonly by: string; readonly at: number } | null {
  const without = new Set(state.withoutEffect.map((w) => w.id));
  const event = events.find((e) => e.kind === 'signature' && e.role === 'tester' && !without.has(e.id));
  return event ? { by: event.by, at: event.received ?? event.at + event.offset } : null;
}
/** The day on which the office had the tester's signature, where the test was made. */
export const daySigned = (plan: Plan, signed: { readonly at: number }): string =>
  localDate(signed.at, plan.made.zone);

/**
 * Whether a sealed run is a certificate, and if not why not. Practice runs never are; times that cannot be true never
 * make one; trades that need a licensed tester need the licence of who signed as tester in date on the day of it,
 * whoever gives the record its number.
 */
export function recordStatus(plan: Plan, by: Answering): { status: RecordStatus; reason: string } {
  const { signer, sealer, day, impossible } = by;
  const not = (reason: string) => ({ status: 'not-a-certificate' as const, reason });
  if (plan.practice || plan.gauges.some((g) => g.simulated))
    return { status: 'practice', reason: 'Practice record on a simulated installation.' };
  if (plan.outside)
    return not(
      `Held by ${plan.outside.by} with another program; its readings were judged here from the file ${plan.outside.file}.`,
    );
  if (impossible.length) return not(impossible.join(' '));
  if (plan.attendance?.doneBy === 'owner')
    return not('An owner’s own work under the permit: a record of what was read, not a certificate.');
  const sealedBy = sealer.id === signer.id ? '' : `; sealed by ${sealer.name}, ${sealer.role}`;
  if (!plan.procedure.certificate.licence)
    return { status: 'certificate', reason: `${certificateTitle(plan)}${sealedBy}` };
  if (!signer.licence) return not(`${signer.name}, who signed as tester, has no licence number on file.`);
  const { number, until } = signer.licence;
  if (until < day)
    return not(`The licence ${number} of ${signer.name}, who signed as tester, ran out on ${until}.`);
  return {
    status: 'certificate',
    reason: `Signed by a licensed tester, ${signer.name}: licence ${number}, valid to ${until}${sealedBy}`,
  };
}
