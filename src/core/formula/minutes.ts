/** How long: by volume, by dial, by certainty, by what was read before. */
import { rateHalfWidth } from '@/core/adequacy/rate';
import { type Exact, showExact, toNumber } from '@/core/quantity/exact';
import { convert, type Unit } from '@/core/quantity/unit';
import { type Args, type Formula, type FormulaContext, FormulaError, type MinutesResult, q } from './formula';

/** Rows of a table argument: "0.25 ft3=5, 1 ft3=7" is a volume and its minutes each. */
const tableRows = (table: string): { text: string; volume: Exact; minutes: number }[] =>
  table.split(',').map((row) => {
    const [volume = '', minutes = ''] = row.split('=');
    return { text: row.trim(), volume: q(volume.trim()), minutes: Number(minutes) };
  });

/**
 * Hold of an air test by volume: `smallMinutes` below `small` of pipe or in one dwelling, otherwise `step` minutes for
 * each `per` of volume or part of it, at most `most`. Imperial school; the figures are arguments.
 */
function holdByVolume(c: FormulaContext, a: Args): MinutesResult {
  const small = q(a.small!);
  const per = q(a.per!);
  const inUnitOf = (unit: Unit) => convert(c.volume, 'm3', unit);
  const dwelling = c.caseKey === a.dwellingCase;
  const isSmall = dwelling || inUnitOf(small.unit) < toNumber(small);
  const parts = Math.max(1, Math.ceil(inUnitOf(per.unit) / toNumber(per) - 1e-9));
  const minutes = isSmall ? Number(a.smallMinutes) : Math.min(Number(a.most), parts * Number(a.step));
  return {
    minutes,
    working: {
      formula: isSmall
        ? `${a.smallMinutes} min below ${showExact(small)} of pipe, or in one dwelling`
        : `${a.step} min for each ${showExact(per)} or part of it, at most ${a.most} min`,
      inputs: [
        { name: 'volume of the section', value: `${inUnitOf(small.unit).toFixed(2)} ${small.unit}` },
        { name: 'one dwelling', value: dwelling ? 'yes' : 'no' },
      ],
      text: 'The published minimum; the longest of it, the house standard and the need is planned.',
    },
  };
}

/** Minutes by volume from a table "0 l=10, 100 l=20": the last row whose volume is reached. */
function minutesByVolume(c: FormulaContext, a: Args): MinutesResult {
  const rows = tableRows(a.table!);
  const row =
    rows.filter((r) => c.volume >= convert(toNumber(r.volume), r.volume.unit, 'm3') - 1e-12).pop() ??
    rows[0]!;
  return {
    minutes: row.minutes,
    working: {
      formula: 'by volume: ' + rows.map((r) => r.text.replace('=', ' → ') + ' min').join('; '),
      inputs: [{ name: 'volume of the section', value: `${(c.volume * 1000).toFixed(1)} l` }],
      text: 'The rule lengthens the period with the volume.',
    },
  };
}

/** Least watch time of a meter dial by its volume per turn, from a table "0.25 ft3=5, 1 ft3=7", and the firm's own least. */
function dialWatch(c: FormulaContext, a: Args): MinutesResult {
  const dial = c.system.meter.testDial;
  if (!dial)
    throw new FormulaError(
      'The smallest test dial of the meter is not entered on the system page: its volume per turn decides the watch time.',
    );
  const rows = tableRows(a.table!);
  const litres = (e: Exact) => convert(toNumber(e), e.unit, 'l');
  const row = rows.find((r) => litres(dial) <= litres(r.volume) + 1e-9);
  if (!row)
    throw new FormulaError(
      `No watch time is published for a dial of ${showExact(dial)} per turn. Use a smaller dial.`,
    );
  return {
    minutes: row.minutes,
    working: {
      formula: 'least watch time by the smallest test dial',
      inputs: [
        { name: 'test dial, volume per turn', value: showExact(dial) },
        { name: 'row used', value: `${showExact(row.volume)}: ${row.minutes} min` },
      ],
      text: 'A larger dial must be watched longer before a small leak moves it visibly.',
    },
  };
}

/**
 * Measuring time of a leak rate: until the 95 % half-width of the rate (adequacy/rate) is at most `uncertainty`; at
 * least `least` minutes, at most a day.
 */
function rateUncertainty(c: FormulaContext, a: Args): MinutesResult {
  const most = q(a.uncertainty!);
  const least = Number(a.least);
  if (!c.gauge)
    return {
      minutes: least,
      working: { formula: 'by the gauge', inputs: [], text: 'Choose the gauge first.' },
    };
  const pressure = convert(toNumber(c.system.workingPressure), c.system.workingPressure.unit, 'Pa');
  const resolution = convert(toNumber(c.gauge.resolution), c.gauge.resolution.unit, 'Pa');
  const wide = (minutes: number) =>
    (rateHalfWidth({
      volume: c.volume,
      pressure,
      resolution,
      temperature: c.temperature(minutes),
      seconds: minutes * 60,
    }) *
      1000 *
      3600) /
    convert(1, 'l/h', most.unit);
  let minutes = least;
  while (minutes < 24 * 60 && wide(minutes) > toNumber(most)) minutes += minutes < 60 ? 0.5 : 5;
  return {
    minutes,
    working: {
      formula: 't so that 1.96 × V/P_atm × √(r²/6 + (P/T × u_dT)²) / t ≤ U',
      inputs: [
        { name: 'U, uncertainty wanted', value: showExact(most) },
        { name: 'r, resolution of the gauge', value: showExact(c.gauge.resolution) },
        { name: 'V, volume of the section', value: `${(c.volume * 1000).toFixed(1)} l` },
        { name: 'u_dT, temperature not logged', value: `${c.temperature(minutes).toFixed(2)} K` },
        { name: 'least', value: `${least} min` },
      ],
      text: 'A coarse gauge or a large section must be measured longer for the same certainty.',
    },
  };
}

/** Minutes from a kept reading to another: as long as the pipe was under pressure, at least `least`. */
function sinceReading(c: FormulaContext, a: Args): MinutesResult {
  const from = c.keptAt?.[a.from!];
  const to = c.keptAt?.[a.to!];
  if (from === undefined || to === undefined)
    throw new FormulaError('How long the pipe was under pressure is not known yet.');
  const under = Math.max(0, (to - from) / 60000);
  const minutes = Math.max(Number(a.least!), Math.ceil(under));
  return {
    minutes,
    working: {
      formula: `as long as it was under pressure, at least ${a.least} min`,
      inputs: [{ name: 'under pressure', value: `${Math.ceil(under)} min` }],
      text: 'Stretched pipe that is raised again at once falls less than it should: it flatters.',
    },
  };
}

/** So many minutes up to a volume, and a step more for each further volume or part of it. */
function minutesPerVolume(c: FormulaContext, a: Args): MinutesResult {
  const upTo = q(a.upTo!);
  const per = q(a.per!);
  const litres = (e: Exact) => convert(toNumber(e), e.unit, 'l');
  const volume = c.volume * 1000;
  const further = Math.max(0, Math.ceil((volume - litres(upTo)) / litres(per) - 1e-9));
  return {
    minutes: Number(a.first!) + further * Number(a.step!),
    working: {
      formula: `${a.first} min up to ${a.upTo}, ${a.step} min more for each further ${a.per} or part`,
      inputs: [{ name: 'volume of the section', value: `${volume.toFixed(1)} l` }],
      text: 'Gas in a larger section shows a leak more slowly.',
    },
  };
}

/** Formulas of minutes, by name and version. */
export const MINUTES_FORMULAS: Readonly<Record<string, Formula>> = {
  'hold-by-volume@1': {
    args: ['small', 'smallMinutes', 'per', 'step', 'most', 'dwellingCase'],
    says: (a) =>
      `${a.smallMinutes} min below ${a.small} of pipe or in one dwelling, otherwise ${a.step} min for each ${a.per} or part, at most ${Number(a.most) / 60} h`,
    minutes: holdByVolume,
  },
  'minutes-by-volume@1': {
    args: ['table'],
    says: (a) =>
      `by volume: ${a
        .table!.split(',')
        .map((r) => r.trim().replace('=', ' and more ') + ' min')
        .join(', ')}`,
    minutes: minutesByVolume,
  },
  'dial-watch@1': {
    args: ['table'],
    says: (a) =>
      `by the smallest test dial: ${a
        .table!.split(',')
        .map((r) => r.trim().replace('=', ' ') + ' min')
        .join(', ')}`,
    minutes: dialWatch,
  },
  'rate-uncertainty@1': {
    args: ['uncertainty', 'least'],
    says: (a) => `until the rate is known to ${a.uncertainty} with 95 %, at least ${a.least} min`,
    minutes: rateUncertainty,
  },
  'since-reading@1': {
    args: ['from', 'to', 'least'],
    says: (a) => `as long as it was under pressure, at least ${a.least} min`,
    minutes: sinceReading,
  },
  'minutes-per-volume@1': {
    args: ['first', 'upTo', 'per', 'step'],
    says: (a) => `${a.first} min up to ${a.upTo}, ${a.step} min more for each further ${a.per} or part`,
    minutes: minutesPerVolume,
  },
};
