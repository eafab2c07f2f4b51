/** What a sealed record leaves to be done, and what it brings to an end. Pure: days and times come in. */
import type { System } from '@/core/installation/section';
import { caseOf, type Plan } from '@/core/plan/plan';
import { addDays, addMonths, localDate } from '@/core/quantity/local-date';
import { DANGER_WORDS } from '@/core/run/closing';
import { inventoryChanges } from '@/core/run/inventory';
import type { RunState } from '@/core/run/state';
import type { Verdict } from '@/core/verdict/verdict';
import { LEAK_CHECK_SOURCE, leakChecks } from '@/core/trades/circuit/checks';
import { isGood } from '@/core/verdict/words';
import type { FollowUpKind } from './follow-ups';

export interface Owed {
  readonly kind: FollowUpKind;
  readonly text: string;
  /** ISO day. */
  readonly due: string;
}
/** Days until an answer is asked for, and until a failed test should have been repeated. House figures. */
const ANSWER_DAYS = 14;
const RETEST_DAYS = 7;

/** The day so many days after a moment, by the calendar of the place. */
export const dayAfter = (moment: number, days: number, zone = 'UTC'): string =>
  addDays(localDate(moment, zone), days);
/**
 * What a finished run leaves to be done.
 * @param changes what was another make, model or serial than the time before, in words
 */
export function owedBy(
  plan: Plan,
  state: RunState,
  verdict: Pick<Verdict, 'word' | 'label'>,
  ended: number,
  changes: readonly string[] = [],
): Owed[] {
  const good = isGood(verdict.word);
  const months = plan.system.everyMonths;
  const { zone } = plan.made;
  // a changed part that was inside a good test is covered by it; one outside stays to be tested
  const covered = good && caseOf(plan).appliances;
  return [
    ...state.followUps.map((f) => ({
      kind: 'repair' as const,
      text: f.text,
      due: dayAfter(ended, f.days, zone),
    })),
    ...state.reports.map((r) => ({
      kind: 'report' as const,
      text: `Report to the ${r.to}: ${r.text}`,
      due: dayAfter(ended, 0, zone),
    })),
    ...(state.unsafe
      ? [
          {
            kind: 'unsafe' as const,
            text: `${DANGER_WORDS[state.unsafe.danger]}, ${state.unsafe.action}: ${state.unsafe.text}. Mend and test again`,
            due: dayAfter(ended, state.unsafe.danger === 'immediate-danger' ? 0 : 7, zone),
          },
        ]
      : []),
    ...(verdict.word === 'refer'
      ? [
          {
            kind: 'refer' as const,
            text: `Referred: ask whoever decides for the answer, and write it down here (${plan.procedure.title})`,
            due: dayAfter(ended, ANSWER_DAYS, zone),
          },
        ]
      : !good
        ? [
            {
              kind: 'retest' as const,
              text: `${verdict.label}: ${verdict.word === 'not-tight' ? 'repair, then test' : 'test'} again (${plan.procedure.title})`,
              due: dayAfter(ended, RETEST_DAYS, zone),
            },
          ]
        : []),
    ...(covered
      ? []
      : changes.map((c) => ({
          kind: 'swapped' as const,
          text: `${c}. Records made before do not cover it: test again`,
          due: dayAfter(ended, 0, zone),
        }))),
    ...(good && months
      ? [
          {
            kind: 'yearly' as const,
            text: `Test again, as this place has it every ${months === 12 ? 'year' : `${months} months`} (${plan.procedure.title})`,
            due: addMonths(localDate(ended, zone), months),
          },
        ]
      : []),
    ...(good && plan.procedure.leakChecks ? leakChecksOwed(plan, ended) : []),
  ];
}
/** When a circuit that is charged now is first looked over for leaks; or what is missing to know it. */
function leakChecksOwed(plan: Plan, ended: number): Owed[] {
  const today = localDate(ended, plan.made.zone);
  const { months, text } = leakChecks(plan.system.condensing?.[0]);
  if (months === 'unknown') return [{ kind: 'report', text, due: today }];
  return months
    ? [
        {
          kind: 'yearly',
          text: `Look over for leaks once charged. ${text} (${LEAK_CHECK_SOURCE})`,
          due: addMonths(today, months),
        },
      ]
    : [];
}

/** An open follow-up as far as it decides what closes it. */
export interface Pending {
  readonly kind: FollowUpKind;
  /** The procedure and the run of the record it came from, where it came from one. */
  readonly procedure: string | null;
  readonly run: string | null;
}
/**
 * Whether a later good record of the same system ends a follow-up: repairs, unsafe situations and changed parts by any;
 * repeats, awaited answers and regular tests by one of the same procedure, or by the repeat that names their record.
 * A report is ended only by whoever made it.
 */
export function endedBy(
  pending: Pending,
  later: { readonly word: Verdict['word']; readonly procedure: string; readonly retestOf?: string },
): boolean {
  if (!isGood(later.word)) return false;
  switch (pending.kind) {
    case 'repair':
    case 'unsafe':
    case 'swapped':
      return true;
    case 'retest':
    case 'refer':
    case 'yearly':
      return (
        pending.procedure === later.procedure || (pending.run !== null && pending.run === later.retestOf)
      );
    default:
      return false;
  }
}

/** Appliances that came to a system's page, or became another make, model or serial, in words. */
export function applianceChanges(
  before: Pick<System, 'appliances'>,
  now: Pick<System, 'appliances'>,
): string[] {
  const plate = (a: System['appliances'][number]) => ({
    name: a.name,
    make: a.make ?? '',
    model: a.model ?? '',
    serial: a.serial ?? '',
  });
  return now.appliances.flatMap((a) => {
    const old = before.appliances.find((b) => b.id === a.id);
    return old ? inventoryChanges(plate(old), plate(a)) : [`${a.name} was added`];
  });
}
