import type { Gauge } from '@/core/instrument/gauge';
import type { Plan } from '@/core/plan/plan';
import type { Exact } from '@/core/quantity/exact';
import { OWN_KIT_SOURCE, ownKitShares, poorWords, type ShareOf, shareWords } from '@/core/run/own-kit';
import type { RunState } from '@/core/run/state';
import { Why } from '@/ui/kit/why';
import { roleOf } from '@/core/roles';
import { type Ahead, beginsHold } from '@/core/run/follow-on';
import type { Next } from '@/device/bench';
import type { HoldMinutes } from '@/core/run/hold-spec';
import { minutesWords } from '@/ui/kit/words';
import { Cautions } from '../cautions';
import { WeatherWords } from './weather-words';
import type { Entered } from '../keypad';

/** What the press on the reading begins. */
export const startWords = ({ role, minutes }: Pick<Ahead, 'role' | 'minutes'>): string =>
  `Start the ${minutesWords(minutes)} ${roleOf(role).title}`;

/** The reading that is taken also begins the hold that stands then, where it was said that it would. */
export const beginWith =
  (plan: Plan, { figure, readAt, streamed, same }: Entered, ahead: Ahead | null): Next =>
  (state, n) =>
    n === 1 && ahead && beginsHold(plan, state, figure)
      ? { kind: 'hold-start', figure, readAt, streamed, same }
      : null;

/** What must be known before the reading that begins the next hold: its cautions, and what is done in it. */
export const AheadWords = ({
  plan,
  state,
  gauge,
  part,
  start,
  ahead,
  brief = false,
}: {
  plan: Plan;
  state: RunState;
  gauge: Gauge;
  part: string | undefined;
  /** What it begins with, as far as that is known. */
  start: Exact;
  ahead: Ahead | null;
  /** Beside keys: its cautions and its length alone. */
  brief?: boolean;
}) =>
  ahead && (
    <div className="mb-2 grid gap-2">
      {ahead.instruction && !brief && <p>Then: {ahead.instruction}</p>}
      {ahead.times && <TimesWords times={ahead.times} />}
      <WeatherWords {...{ plan, part, gauge, start }} role={ahead.role} />
      <Cautions keys={ahead.cautions} texts={plan.procedure.cautions} />
      <PoorKit {...{ plan, state, gauge }} hold={{ part, role: ahead.role, minutes: ahead.minutes, start }} />
    </div>
  );

/** Own kit on the section that is to be mended, changed or tested by itself before a hold; settling judges nothing. */
export const PoorKit = ({
  plan,
  state,
  gauge,
  hold,
}: {
  plan: Plan;
  state: RunState;
  gauge: Gauge;
  hold: ShareOf;
}) =>
  hold.role === 'settle'
    ? null
    : ownKitShares(plan, state, gauge, hold)
        .filter((s) => s.poor)
        .map((s) => (
          <p key={s.kit.id} className="mb-2 border-l-4 border-ochre pl-3 leading-tight">
            <Why
              guide="kit-loss"
              facts={{ title: 'Your own kit', text: `${shareWords(s)}.`, source: OWN_KIT_SOURCE }}
            >
              {poorWords(s)}
            </Why>
          </p>
        ));
/** How long it is by rule, by house standard and by need, where they differ. */
export const TimesWords = ({ times }: { times: HoldMinutes }) =>
  (times.house !== null || times.needed !== null) && (
    <p className="mb-2">
      Rule <span className="figure">{minutesWords(times.rule)}</span>
      {times.house !== null && (
        <>
          , house standard <span className="figure">{minutesWords(times.house)}</span>
        </>
      )}
      {times.needed !== null && (
        <>
          , needed for this gauge and volume{' '}
          <span className="figure">
            {times.needed === 'over-a-day'
              ? 'over a day: a finer gauge or a smaller section'
              : minutesWords(times.needed)}
          </span>
        </>
      )}
      . The longest is planned.
    </p>
  );
