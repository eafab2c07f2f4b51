import { pipeFigures, pipeTable } from '@/core/installation/pipes';
import { offersFor } from '@/core/plan/offer';
import { parseWithUnit as q } from '@/core/quantity/exact';
import { packs } from '@/core/testing/quarter';
import { MEDIA, servedBy, TRADES, tradeOf } from '.';
import { BEFORE_YOU } from './before-you';
import { firstSection } from './first';
import { sectionsOf } from './sections';

test('every trade can be met, and every use of a medium', () => {
  expect(new Set(BEFORE_YOU.map((b) => tradeOf(b).name))).toEqual(new Set(TRADES.map((t) => t.name)));
  for (const b of BEFORE_YOU) {
    expect(MEDIA).toContain(b.medium);
    if (b.duty) expect(Object.keys(servedBy(b.medium))).toContain(b.duty);
  }
});
test.each(BEFORE_YOU.map((b) => [b.key, b] as const))(
  '%s: its pipe is in a table, and something can be begun on it',
  (_, b) => {
    expect(pipeTable(b.table)).toBeTruthy();
    expect(pipeFigures(b.table, b.nominal).bore.digits).toBeGreaterThan(0);
    const system = firstSection({
      ...b,
      id: 's',
      name: b.title,
      workingPressure: q(b.workingPressure),
      meter: { kind: b.meterKind || 'other', name: '', volume: q(b.meterVolume || '3 l') },
      pipe: {
        id: 'p',
        name: 'Main',
        material: 'copper',
        size: q('22 mm'),
        bore: q('20.2 mm'),
        length: q('8 m'),
      },
      counted: b.medium === 'refrigerant' ? [{ word: 'evaporator', count: 1, volume: q('0 l') }] : [],
    });
    const offers = Object.values(packs).flatMap((p) => offersFor(p, system));
    const known = sectionsOf(system).some((s) => !s.open);
    expect(offers.filter((o) => !o.after && (!o.oneSection || known)).length).toBeGreaterThan(0);
  },
);
