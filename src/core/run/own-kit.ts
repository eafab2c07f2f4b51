/** What the tester's own hose or rig loses, as it was measured by itself: a note beside the test, never a deduction. */
import type { Gauge } from '@/core/instrument/gauge';
import { BLANK_LASTS, type OwnKit } from '@/core/instrument/kit';
import { fillingOf } from '@/core/plan/filling';
import { allowanceOf } from '@/core/plan/limits';
import { type Plan, planVolume } from '@/core/plan/plan';
import { exact, type Exact, showExact, toNumber } from '@/core/quantity/exact';
import { convert, UNITS } from '@/core/quantity/unit';
import type { HoldRole } from '@/core/roles';
import { perceptibleOf } from './read';
import type { RunState } from './state';

/** Share of the limit above which own kit is mended or changed before the test. Source: house figure, a quarter */
export const MUCH = 25;
export const OWN_KIT_SOURCE = 'Mass balance of a closed volume; a quarter of what counts: house figure';

export interface OwnKitShare {
  readonly kit: OwnKit;
  /** At most so much of a hold's fall, rounded up, in the gauge's unit; null where its own test says nothing of this one. */
  readonly loss: Exact | null;
  /** The same in percent of what counts. */
  readonly percent: number | null;
  readonly counts: Exact;
  /** Its own test, or why that says nothing here. */
  readonly words: string;
  /** Why it is to be mended, changed or tested by itself first; null where nothing speaks against it. */
  readonly poor: 'untested' | 'old' | 'lower' | 'much' | null;
}
export interface ShareOf {
  readonly part: string | null | undefined;
  readonly role: HoldRole;
  readonly minutes: number;
  readonly start: Exact;
  /** What decided, or would decide; absent: the permitted drop, otherwise the perceptible movement. */
  readonly limit?: Exact;
}

/** What counts in a hold that is judged by movement: the permitted drop where there is one, else what can be seen. */
function countsIn(plan: Plan, state: RunState, gauge: Gauge, hold: ShareOf): Exact {
  const permitted =
    hold.role === 'tightness' && !state.denied.length ? allowanceOf(plan, hold.part).limit : null;
  return hold.limit ?? permitted?.value ?? perceptibleOf(plan, gauge, hold.part).value;
}

/**
 * Own kit on the section, and what each piece can have cost a hold. Alone it lost so much a minute; on a section it loses no
 * faster at the same pressure, and the fall is shared with the section's volume: V/(V + v) of it for a gas where its own
 * volume v is known, all of it otherwise (an upper bound). Source: mass balance of a closed volume
 */
export function ownKitShares(plan: Plan, state: RunState, gauge: Gauge, hold: ShareOf): OwnKitShare[] {
  const unit = gauge.resolution.unit;
  if (UNITS[unit].dimension !== 'pressure') return [];
  const counts = countsIn(plan, state, gauge, hold);
  const pascal = (x: Exact) => convert(toNumber(x), x.unit, 'Pa');
  return (state.ownKit?.kit ?? []).flatMap((id) => {
    const kit = plan.ownKit?.find((k) => k.id === id);
    if (!kit) return [];
    const nothing = (poor: OwnKitShare['poor'], words: string): OwnKitShare => ({
      kit,
      loss: null,
      percent: null,
      counts,
      words,
      poor,
    });
    const { blank } = kit;
    if (!blank) return [nothing('untested', 'it was never tested by itself')];
    const test = `${showExact(blank.loss)} in ${blank.minutes} min at ${showExact(blank.pressure)} by itself, ${blank.on}`;
    if (blank.days > BLANK_LASTS)
      return [
        nothing('old', `its own test (${test}) is older than ${BLANK_LASTS} days and says nothing now`),
      ];
    if (pascal(blank.pressure) < pascal(hold.start) * (1 - 1e-9))
      return [
        nothing(
          'lower',
          `its own test (${test}) was at less than ${showExact(hold.start)} and says nothing here`,
        ),
      ];
    const own =
      fillingOf(plan, hold.part).spreads && kit.volume
        ? convert(toNumber(kit.volume), kit.volume.unit, 'm3')
        : null;
    const section = state.volume?.figure.value ?? planVolume(plan, hold.part).value;
    const share = own === null ? 1 : own / (own + section);
    const lost = (convert(pascal(blank.loss), 'Pa', unit) * hold.minutes * share) / blank.minutes;
    const scale = gauge.resolution.scale + 1;
    const loss = exact(Math.ceil(lost * 10 ** scale - 1e-6), scale, unit);
    const percent = (100 * pascal(loss)) / pascal(counts);
    return [{ kit, loss, percent, counts, words: `lost ${test}`, poor: percent > MUCH ? 'much' : null }];
  });
}

/** One piece and its share, in a sentence without its full stop. */
export const shareWords = (s: OwnKitShare): string =>
  `${s.kit.name}${s.kit.serial ? `, ${s.kit.serial}` : ''}: ${s.words}` +
  (s.loss === null
    ? '; what it loses counts against the section'
    : `; at most ${showExact(s.loss)} of a fall here, ${s.percent! < 1 ? 'below 1' : s.percent!.toFixed(0)} % of the ${showExact(s.counts)} that count`);
const POOR_WORDS = {
  untested: 'never tested by itself. Test it first, in the cabinet.',
  old: `its own test is older than ${BLANK_LASTS} days. Test it again first.`,
  lower: 'its own test was at a lower pressure. Test it again first.',
  much: `loses over ${MUCH} % of what counts here. Mend or change it first.`,
} as const;
/** What speaks against a piece and what to do, in one line; '' where nothing does. */
export const poorWords = (s: OwnKitShare): string => (s.poor ? `${s.kit.name}: ${POOR_WORDS[s.poor]}` : '');
