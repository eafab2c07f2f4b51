/** A circuit drawn from what was counted: condensing unit, its service valves, a branch to each evaporator and back. */
import type { Pipe } from '@/core/installation/pipe';
import type { Link, Network, Part } from '@/core/network/network';

/** Grid units of the first drawing. */
const AT = {
  unit: 10,
  valve: 24,
  header: 44,
  solenoid: 58,
  expansion: 74,
  evaporator: 92,
  back: 110,
} as const;
const ROW = 18;
const EVAPORATOR = 'evaporator';
const part = (
  id: string,
  kind: Part['kind'],
  name: string,
  x: number,
  y: number,
  more: Partial<Part> = {},
): Part => ({ id, kind, name, place: '', x, y, facts: {}, ...more });

/**
 * @param counted evaporators, solenoid valves and receivers in the words of the trade; a solenoid stands before the expansion valve of
 * each of the first evaporators @param pipe the largest pipe: on the suction line; the liquid line's size is entered by who measured it
 */
export function circuitNetwork(
  counted: readonly { readonly word: string; readonly count: number }[],
  pipe: Pipe,
): Network {
  const count = (word: string) => counted.find((c) => c.word === word)?.count ?? 0;
  const evaporators = Math.max(1, count(EVAPORATOR));
  const solenoids = Math.min(evaporators, count('solenoid valve'));
  const bottom = 18 + ROW * evaporators;
  const parts: Part[] = [
    part('unit', 'condensing', 'Condensing unit', AT.unit, Math.round(bottom / 2) + 9),
    part('liquid', 'valve', 'liquid line service valve', AT.valve, 18, {
      position: 'closed',
      facts: { use: 'liquid' },
    }),
    part('suction', 'valve', 'suction line service valve', AT.valve, bottom, {
      position: 'closed',
      facts: { use: 'suction' },
    }),
    part('gauge-liquid', 'point', 'gauge port, liquid line', AT.header - 8, 8),
    part('gauge-suction', 'point', 'gauge port, suction line', AT.back, bottom + 10),
    part('liquid-line', 'tee', '', AT.header, 18),
    part('suction-line', 'tee', '', AT.back, bottom),
  ];
  const links: Link[] = [];
  const join = (from: string, to: string, run?: Pipe) =>
    links.push({ id: `${from}-${to}`, from, to, ...(run ? { pipe: run } : {}) });
  join('unit', 'liquid');
  let last = 'liquid';
  if (count('receiver')) {
    parts.push(part('receiver', 'receiver', 'Receiver', AT.valve + 10, 26));
    join(last, 'receiver');
    last = 'receiver';
  }
  join(last, 'liquid-line', { ...pipe, id: 'liquid-run', name: 'Liquid line' });
  join('gauge-liquid', 'liquid-line');
  for (let n = 1; n <= evaporators; n += 1) {
    const y = 18 + ROW * (n - 1);
    const several = evaporators > 1 ? ` ${n}` : '';
    // drawn from the branch back to the line, so that the line turns down at the header and not under a valve's name
    if (n <= solenoids) {
      parts.push(
        part(`solenoid-${n}`, 'valve', `solenoid valve${several}`, AT.solenoid, y, {
          position: 'open',
          facts: { use: 'solenoid' },
        }),
      );
      join(`solenoid-${n}`, 'liquid-line');
    }
    parts.push(
      part(`expansion-${n}`, 'expansion', `expansion valve${several}`, AT.expansion, y, { position: 'open' }),
      part(`evaporator-${n}`, 'evaporator', `Evaporator${several}`, AT.evaporator, y),
    );
    join(`expansion-${n}`, n <= solenoids ? `solenoid-${n}` : 'liquid-line');
    join(`expansion-${n}`, `evaporator-${n}`);
    join(`evaporator-${n}`, 'suction-line');
  }
  join('suction-line', 'suction', { ...pipe, id: 'suction-run', name: 'Suction line' });
  join('gauge-suction', 'suction-line');
  join('suction', 'unit');
  return { parts, links };
}
