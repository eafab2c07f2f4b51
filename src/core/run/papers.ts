/** What belongs on the paper and may follow the test: where it was, for whom, and until when its gauges are calibrated. */
import type { Plan } from '@/core/plan/plan';
import { dayOf } from '@/core/plan/plan';
import { gaugesUsed } from './read';
import type { RunState } from './state';

export interface Papers {
  readonly site: { readonly name: string; readonly address: string; readonly customer: string } | null;
  /** ISO days by the gauge. */
  readonly calibrations: Readonly<Record<string, { readonly on: string; readonly due: string }>>;
}

/** The plan with what was entered of its papers since it was made. */
export function withPapers(plan: Plan, { papers }: Pick<RunState, 'papers'>): Plan {
  const { site, calibrations } = papers;
  if (!site && !Object.keys(calibrations).length) return plan;
  return {
    ...plan,
    site: { ...plan.site, ...site },
    gauges: plan.gauges.map((g) => {
      const known = Object.hasOwn(calibrations, g.id) ? calibrations[g.id] : undefined;
      return known ? { ...g, calibrated: known.on, calibrationDue: known.due } : g;
    }),
  };
}
/** What keeps a record from being a certificate and can be entered until it is signed; empty: nothing. */
export function papersMissing(plan: Plan, state: RunState): string[] {
  const whole = withPapers(plan, state);
  const { customer, address } = whole.site;
  const used = gaugesUsed(state);
  return [
    ...(customer.trim() ? [] : ['The customer is not entered.']),
    ...(address.trim() ? [] : ['The address of the place is not entered.']),
    ...whole.gauges
      .filter((g) => used.includes(g.id))
      .flatMap((g) =>
        g.calibrationDue === ''
          ? [`The calibration of ${g.name} is not entered.`]
          : g.calibrationDue < dayOf(plan)
            ? [`The calibration of ${g.name} had run out on ${g.calibrationDue}, before this test.`]
            : [],
      ),
  ];
}
