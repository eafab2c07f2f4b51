/** A table of moments and pressures that no run knows, as an analysis takes it: on the Desk, with the few facts typed beside it. */
import { defaultTemperatureUncertainty } from '@/core/adequacy/gas';
import { LOGGED_KELVIN } from '@/core/adequacy/rate';
import { pressurePerKelvin } from '@/core/medium/gas';
import { STANDARD_ATMOSPHERE, type Unit, UNITS } from '@/core/quantity/unit';
import type { MeaningRequest } from './meaning';
import { perUnit, type SectionFacts } from './section';

export interface TablePoint {
  /** ms UTC */ readonly at: number;
  /** in the table's unit */ readonly p: number;
  /** degrees C, where the table has them */ readonly celsius?: number;
}
/** What a person knows of the section. */
export interface TableFacts {
  readonly filling: SectionFacts['filling'];
  /** Gas, vacuum: m3 of the section. Water: m3 for one Pa. A level: m2 of its surface. */
  readonly give: number;
  /** Water: what one kelvin does, Pa. Gas: by the gas law. */
  readonly perKelvin: number;
  /** Walls that stretch. */
  readonly stretches: boolean;
  /** Gauge Pa behind a closed valve; null: nothing stands behind one. */
  readonly supply: number | null;
  /** m3/s */ readonly matters: number;
}
/** Nobody said how well volume or stiffness is known: a tape and a table, 95 %, halved. House figure. */
const UNSURE = 0.1;
/** Warmth that nobody read: K a minute, most in two minutes, most in any time. House figures, as in the packs. */
const UNREAD = { perMinute: 0.05, shortHoldMinutes: 2, shortHoldMost: 0.1, most: 0.5, source: '' };
/** The finest display a table with whole figures is taken for: one of its last place. */
const stepOf = (decimals: number): number => 10 ** -decimals;

/**
 * @param unit of the table's pressures  @param decimals of them  @param limit a movement that counts, in that unit; null: two steps
 * @throws RangeError saying what to enter: fewer than three readings, no volume, a pressure below a vacuum
 */
export function tableRequest(
  points: readonly TablePoint[],
  unit: Unit,
  decimals: number,
  facts: TableFacts,
  limit: number | null = null,
): MeaningRequest {
  const list = [...points].sort((a, b) => a.at - b.at);
  const [first, last] = [list[0], list[list.length - 1]];
  if (!first || !last || list.length < 3)
    throw new RangeError('Three readings are needed at least, each with its time.');
  if (!(last.at > first.at))
    throw new RangeError('All readings have one time: choose the column with the times.');
  if (!(facts.give > 0))
    throw new RangeError(
      facts.filling === 'liquid'
        ? 'Enter the stiffness of the section: how much water a bar takes.'
        : facts.filling === 'level'
          ? 'Enter the free surface of the water.'
          : 'Enter the volume of the section.',
    );
  const level = UNITS[unit].dimension === 'length';
  if (level !== (facts.filling === 'level'))
    throw new RangeError(
      level ? 'A table of heights is a level.' : 'A level is read as a height, in millimetres or inches.',
    );
  const per = perUnit(unit);
  const pressure = level ? 0 : first.p * per;
  if (!level && pressure <= (UNITS[unit].dimension === 'absolute' ? 0 : -STANDARD_ATMOSPHERE))
    throw new RangeError('The table begins below a vacuum: choose the right column and unit.');
  const step = stepOf(decimals);
  const perceptible = limit ?? 2 * step;
  const minutes = (last.at - first.at) / 60_000;
  const gas = facts.filling === 'gas';
  const warm = list.filter((p) => p.celsius !== undefined);
  return {
    samples: list.map((p) => ({ t: p.at, p: p.p })),
    facts: {
      filling: facts.filling,
      pressure: Math.max(0, pressure),
      atmosphere: STANDARD_ATMOSPHERE,
      give: gas || facts.filling === 'vacuum' ? facts.give / STANDARD_ATMOSPHERE : facts.give,
      giveUncertainty: UNSURE,
      perKelvin: gas ? pressurePerKelvin(Math.max(0, pressure), 293.15) : facts.perKelvin,
      drift: { perMinute: UNREAD.perMinute, most: defaultTemperatureUncertainty(minutes, UNREAD) },
      stretches: facts.stretches,
      supply: facts.supply !== null && facts.supply > pressure ? facts.supply : null,
      matters: facts.matters,
      step: step * per,
      perceptible: perceptible * per,
      warmth:
        warm.length >= 2 && facts.filling !== 'level' && facts.filling !== 'vacuum'
          ? warm.map((p) => ({ t: (p.at - first.at) / 1000, k: p.celsius! - warm[0]!.celsius! }))
          : [],
      thermometer: LOGGED_KELVIN,
    },
    unit,
    decimals,
    begin: first.at,
    end: last.at,
    limits: { low: null, high: null },
  };
}
