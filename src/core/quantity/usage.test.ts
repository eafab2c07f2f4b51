import fc from 'fast-check';
import { METRIC, ownUnit, told, US_CUSTOMARY, usageOf, type Usage } from './usage';
import { type Unit, UNITS, unitLabel } from './unit';

const us = (text: string, more: object = {}) => told(text, { usage: usageOf(US_CUSTOMARY, {}), ...more });
const metric = (text: string, more: object = {}) => told(text, { usage: usageOf(METRIC, {}), ...more });

test.each([
  // 20.35 mbar = 8.1698 inWC, read to a hundredth of a mbar, 0.004 inWC
  ['The gauge showed 20.35 mbar.', 'The gauge showed 8.17 inWC.'],
  ['Fall −0.25 mbar in 2 min', 'Fall −0.10 inWC in 2 min'],
  ['a change of +0.10 mbar', 'a change of +0.040 inWC'],
  ['7 mbar to 10 mbar', '2.8 inWC to 4.0 inWC'],
  ['0 to 160 mbar', '0 to 64 inWC'],
  ['2.00 ± 0.10 bar', '29.0 ± 1.5 psi'],
  ['a leak of 3.2 l/h', 'a leak of 0.11 ft³/h'],
  ['about 0.962 litres an hour.', 'about 0.0340 ft³/h.'],
  ['12 litres of gas', '0.42 ft³ of gas'],
  ['20 °C', '68 °F'],
  ['−40.0 °C', '−40.0 °F'],
  ['Reach 120 m, bore 22 mm (copper)', 'Reach 394 ft, bore 0.87 in (copper)'],
  ['12 l of gas', '0.42 ft³ of gas'],
  ['5 ml or less', '0.31 in³ or less'],
  ['0.3 kg of gas', '0.66 lb of gas'],
  ['5 m³', '177 ft³'],
])('%s is told as %s', (text, expected) => {
  expect(us(text)).toBe(expected);
});
test('what is no figure stays: words, numbers, clock times, units that are nobody’s', () => {
  for (const text of [
    'The 2 in the list, gauge M-20 and record VS-00012',
    'hold 5 min, 3 h, 90 s',
    '1.5 K of warmth',
    '3 % of the scale',
    'EN12327-2 bars; 20mbar',
    'a 1/2 in thread', // a fraction before it is no decimal
    '10 barrels, 5 minutes, 3 lambs',
  ])
    expect([text, us(text), metric(text)]).toEqual([text, text, text]);
});
test('a length in inches is one where nothing follows it that could make it a word', () => {
  expect(metric('0.5 in')).toBe('13 mm');
  expect(metric('0.5 in, copper')).toBe('13 mm, copper');
  expect(metric('2 in here')).toBe('2 in here');
});
test('what a gauge of the test judged stays in its unit, the other beside it where both are asked for', () => {
  expect(us('20.35 mbar, 3 l', { keep: ['mbar'] })).toBe('20.35 mbar, 0.11 ft³');
  expect(us('20.35 mbar, 3 l', { keep: ['mbar'], both: true })).toBe(
    '20.35 mbar (8.17 inWC), 0.11 ft³ (3 l)',
  );
  expect(metric('20.35 mbar', { both: true })).toBe('20.35 mbar (8.17 inWC)');
  expect(metric('5 min, 20 %', { both: true })).toBe('5 min, 20 %');
});
test('within one side only pressures and flows follow a choice: litres stay litres beside m³', () => {
  const kPa: Usage = usageOf({ low: 'kPa', pressure: 'kPa', volume: 'm3' }, {});
  expect(told('2 bar, 21 mbar, 30 l, 0.4 psi', { usage: kPa })).toBe('200 kPa, 2.1 kPa, 30 l, 2.8 kPa');
  expect(metric('200 kPa and 5 hPa, 30 ml/min')).toBe('200 kPa and 5 hPa, 30 ml/min');
  expect(us('5 gal at 0.2 psi')).toBe('5 gal at 0.2 psi');
  // microns are everybody's: who chose pascals keeps what a gauge shows in them
  expect([ownUnit('Pa(abs)', US_CUSTOMARY), ownUnit('micron', METRIC)]).toEqual(['micron', 'micron']);
  expect(ownUnit('K', US_CUSTOMARY)).toBe('K'); // a difference is no temperature
});
test('a person’s wish goes before the organisation’s, which goes before the metric house’s', () => {
  const usage = usageOf({ low: 'inWC', days: 'month-first' }, { low: 'Pa' });
  expect([usage.low, usage.days, usage.length]).toEqual(['Pa', 'month-first', 'm']);
});
test('days and times as they are written elsewhere; what is none is left', () => {
  expect(us('Tue, 24 Mar 2026, 16:05:30 GMT; due 2026-04-01')).toBe(
    'Tue, Mar 24, 2026, 4:05:30 pm GMT; due Apr 1, 2026',
  );
  expect(us('Tue 1 Dec, Wed, 2 Sept')).toBe('Tue, Dec 1, Wed, Sep 2');
  expect(us('from 00:10 to 12:00')).toBe('from 12:10 am to 12:00 pm');
  const iso = { ...METRIC, days: 'year-first' } as const;
  expect(told('1 Sept 2026, 31 December 2026, 2026-13-01', { usage: iso })).toBe(
    '2026-09-01, 31 December 2026, 2026-13-01',
  );
  expect(metric('due 2026-04-01')).toBe('due 1 Apr 2026');
  expect(us('ratio 16:05:00:01, 25:10, VS-2026-03-24-1')).toBe('ratio 16:05:00:01, 25:10, VS-2026-03-24-1');
});
test('where nobody chose, days stand in one way and figures as they were made; a metric house that chose is told in metric', () => {
  const words = 'calibrated 2026-03-04 at 30 psi, 0.5 in; sealed Tue, 24 Mar 2026, 16:05';
  const days = 'calibrated 4 Mar 2026 at 30 psi, 0.5 in; sealed Tue, 24 Mar 2026, 16:05';
  expect(told(words, { usage: usageOf({}, {}) })).toBe(days);
  expect(told(words, { usage: usageOf({ clock: '24' }, { days: 'day-first' }) })).toBe(days);
  expect(told(words, { usage: usageOf({}, { days: 'year-first' }) })).toContain('sealed Tue, 2026-03-24');
  expect(told(words, { usage: usageOf({}, { bore: 'mm' }) })).toContain('at 2.1 bar, 13 mm;');
  expect(told('30 psi', { usage: usageOf({}, {}), both: true })).toBe('2.1 bar (30 psi)');
});
test('whatever the words, they are told without failing', () =>
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (text) => {
      expect(typeof us(text, { both: true, keep: ['mbar'] })).toBe('string');
    }),
  ));
const TOLD = (Object.keys(UNITS) as Unit[]).filter(
  (u) => ownUnit(u, US_CUSTOMARY) !== u && UNITS[u].dimension !== 'temperature',
);
test('a figure told means the same to half its last digit, and what is something is never told as nothing', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...TOLD),
      fc.integer({ min: -99999, max: 99999 }),
      fc.integer({ min: 0, max: 4 }),
      (unit, digits, scale) => {
        const text = (digits / 10 ** scale).toFixed(scale).replace('-', '−');
        const own = unitLabel(ownUnit(unit, US_CUSTOMARY));
        const there = us(`${text} ${unitLabel(unit)}`);
        expect(there.endsWith(` ${own}`)).toBe(true);
        const number = there.slice(0, -own.length - 1).replace('−', '-');
        const exactly = ((digits / 10 ** scale) * UNITS[unit].si) / UNITS[ownUnit(unit, US_CUSTOMARY)].si;
        const last = 10 ** -(number.split('.')[1]?.length ?? 0);
        expect(Math.abs(Number(number) - exactly)).toBeLessThanOrEqual(last * 0.5000001);
        if (digits && Math.abs(exactly) > 1e-8) expect(Number(number)).not.toBe(0);
      },
    ),
  ));
