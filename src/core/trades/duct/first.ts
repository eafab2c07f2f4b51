/** A duct system drawn from what was counted: the fan at the air handler, a trunk with its supply registers, returns on the other side. */
import { capital } from '@/core/quantity/words';
import type { Link, Network, Part } from '@/core/network/network';

/** Grid units of the first drawing. */
const AT = {
  point: 4,
  handler: 15,
  plenum: 24,
  trunk: 32,
  step: 14,
  supplyY: 30,
  returnY: 66,
  /** With a damper on the branch, and without. */
  dampered: 14,
  row: 9,
} as const;
const WORDS = {
  supply: 'supply register',
  return: 'return grille',
  damper: 'damper',
  intake: 'outdoor air intake',
} as const;

/** @param counted registers, grilles, dampers and intakes in the words of the trade; a damper stands before each of the first supply registers */
export function ductNetwork(counted: readonly { readonly word: string; readonly count: number }[]): Network {
  const count = (word: string) => counted.find((c) => c.word === word)?.count ?? 0;
  const parts: Part[] = [];
  const links: Link[] = [];
  const add = (
    id: string,
    kind: Part['kind'],
    name: string,
    x: number,
    y: number,
    more: Partial<Part> = {},
  ) => {
    parts.push({ id, kind, name, place: '', x, y, facts: {}, ...more });
    return id;
  };
  const join = (from: string, to: string) => links.push({ id: `${from}-${to}`, from, to });
  const handlerY = (AT.supplyY + AT.returnY) / 2;
  add('point', 'point', 'fan at the air handler', AT.point, handlerY);
  add('handler', 'handler', 'Air handler', AT.handler, handlerY);
  join('point', 'handler');
  const numbered = (word: string, n: number, of: number) => `${capital(word)}${of > 1 ? ` ${n}` : ''}`;
  /** A trunk; at each tee of it a branch up and one down. The first so many branches have a damper. */
  const trunk = (key: 'supply' | 'return', y: number, most: number, dampers: number): string => {
    let last = add(`${key}-plenum`, 'tee', '', AT.plenum, y);
    join('handler', last);
    for (let n = 1; n <= most; n += 1) {
      const x = AT.trunk + AT.step * Math.floor((n - 1) / 2);
      const away = n % 2 ? -1 : 1;
      const tee = `${key}-tee-${Math.ceil(n / 2)}`;
      if (away < 0) {
        add(tee, 'tee', '', x, y);
        join(last, tee);
        last = tee;
      }
      const reach = n > dampers ? AT.row : AT.dampered;
      const end = add(`${key}-${n}`, 'register', numbered(WORDS[key], n, most), x, y + away * reach, {
        facts: { type: key },
      });
      if (n > dampers) {
        join(tee, end);
        continue;
      }
      const damper = add(
        `damper-${n}`,
        'valve',
        numbered('damper', n, dampers),
        x,
        y + away * (AT.dampered / 2),
        {
          position: 'open',
          facts: { use: 'damper' },
        },
      );
      join(tee, damper);
      join(damper, end);
    }
    return last;
  };
  const supplies = Math.max(1, count(WORDS.supply));
  const returns = Math.max(1, count(WORDS.return));
  const dampers = count(WORDS.damper);
  trunk('supply', AT.supplyY, supplies, Math.min(supplies, dampers));
  let last = trunk('return', AT.returnY, returns, Math.min(returns, Math.max(0, dampers - supplies)));
  const intakes = count(WORDS.intake);
  for (let n = 1; n <= intakes; n += 1) {
    const x = AT.trunk + AT.step * (Math.ceil(returns / 2) + n - 1);
    const tee = add(`intake-tee-${n}`, 'tee', '', x, AT.returnY);
    join(last, tee);
    last = tee;
    join(tee, add(`intake-${n}`, 'intake', numbered(WORDS.intake, n, intakes), x, AT.returnY + AT.row));
  }
  return { parts, links };
}
