import { parseFigure, parseWithUnit } from '@/core/quantity/exact';
import type { Verbs } from '@/core/run/verbs';

export const fanVerbs: Verbs = {
  /** fan NAME RANGE of the cabinet, or fan NAME RANGE LEAST GREATEST with units */
  fan: ({ plan, args: [name = '', range = '', least = '', greatest = ''] }) => {
    const kit = plan.ownKit?.find((k) => k.name === name);
    const own = kit?.ranges?.find((r) => r.name === range);
    return {
      kind: 'fan-chosen',
      ...(kit ? { kit: kit.id } : {}),
      name,
      range,
      least: own?.least ?? parseWithUnit(least),
      greatest: own?.greatest ?? parseWithUnit(greatest),
    } as never;
  },
  fanoff: ({ first, figure }) => ({ kind: 'fan-off', pressure: figure(first) }),
  /** blow PRESSURE FLOW, or blow PRESSURE below, or blow PRESSURE at FAN-PRESSURE; the flow in the unit of the range */
  blow: ({ state, figure, args: [pressure = '', flow = '', atFan = ''] }) => {
    const unit = state.rooms.fan.chosen?.range.least.unit ?? 'CFM';
    return {
      kind: 'fan-read',
      figure: figure(pressure),
      ...(flow === 'below'
        ? { below: true }
        : flow === 'at'
          ? { atFan: parseFigure(atFan, 'Pa') }
          : { flow: parseFigure(flow, unit) }),
      steady: true,
    } as never;
  },
  /** strikeblow N REASON: the Nth reading of this step, from 1 */
  strikeblow: ({ state, first, second }) => {
    const visit = state.rooms.fan.visits[state.rooms.fan.visits.length - 1];
    return { kind: 'fan-struck', reading: visit!.readings[Number(first) - 1]!.id, reason: second };
  },
  fanjudge: () => ({ kind: 'fan-judge' }),
  fankept: () => ({ kind: 'fan-kept' }),
  fancannot: ({ first, second }) => ({ kind: 'fan-cannot', what: first as 'second', why: second }),
};
