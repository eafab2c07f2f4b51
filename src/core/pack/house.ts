/** House packs: copied from a pack, edited, with every edit that permits more kept with its reason. */
import { parseWithUnit, toNumber } from '@/core/quantity/exact';
import { UNITS } from '@/core/quantity/unit';
import { lineKey } from '@/core/grammar/lines';
import { comparePacks, ruleLines, type PackChange } from './lines';
import { PackError } from './error';
import { loadPack } from './load';
import type { Loosening, Pack } from './schema';

/** One edit: a new figure, or null to take a check away. */
export interface RuleEdit {
  readonly procedure: string;
  readonly at: readonly (string | number)[];
  readonly value: string | null;
  readonly reason: string;
}
/** A copy under a new id that remembers where it came from. */
export function copyAsHouse(pack: Pack, id: string, author: string, day: string): Pack {
  // a copy of a house pack still answers to the pack the first one was copied from
  return loadPack({
    ...pack,
    id,
    version: '1',
    title: `${pack.title} (house)`,
    edition: `house pack from ${pack.edition}`,
    author,
    dated: day,
    basedOn: pack.basedOn ?? { id: pack.id, version: pack.version, title: pack.title },
  });
}

/**
 * Applies edits to a house pack and gives its next version. Every difference from the pack it was copied from that
 * permits more must carry a reason, which prints on every record; the loader then checks the whole again.
 * @throws PackError naming the place
 */
export function editHouse(
  house: Pack,
  base: Pack,
  edits: readonly RuleEdit[],
  author: string,
  day: string,
): Pack {
  if (!house.basedOn)
    throw new PackError('basedOn', 'Copy this pack to a house pack first; a published pack is not edited.');
  const next = structuredClone(house) as Pack & { procedures: Record<string, unknown>[] };
  for (const edit of edits) {
    const index = house.procedures.findIndex((p) => p.id === edit.procedure);
    const procedure = house.procedures[index];
    const line = procedure && ruleLines(procedure).find((l) => lineKey(l) === edit.at.join('/'));
    if (!line?.edit) throw new PackError(edit.at.join('.'), 'This line cannot be edited here.');
    place(next.procedures[index] as unknown as Record<string, unknown>, edit, line.edit, line.value);
  }
  const edited = { ...next, version: String(Number(house.version) + 1), author, dated: day } as Pack;
  return loadPack({ ...edited, loosened: reasonsFor(base, edited, house.loosened ?? [], edits) });
}

/** Every permitting difference with its reason, from the edits or from what was already there. */
function reasonsFor(
  base: Pack,
  edited: Pack,
  known: readonly Loosening[],
  edits: readonly RuleEdit[],
): Loosening[] {
  return loosenings(base, edited).map((change) => {
    const reason =
      edits.find((e) => `${e.procedure}/${e.at.join('/')}` === change.path)?.reason.trim() ||
      known.find((k) => k.path === change.path)?.reason;
    if (!reason)
      throw new PackError(
        change.path,
        `${change.where}, ${change.label.toLowerCase()}: ${change.from} to ${change.to ?? 'taken away'} permits more than the pack it comes from. Give the reason; it prints on every record.`,
      );
    return {
      path: change.path,
      what: `${change.where}: ${change.label}`.slice(0, 300),
      from: (change.from ?? 'none').slice(0, 300),
      to: (change.to ?? 'taken away').slice(0, 300),
      reason,
    };
  });
}
/** Differences of an edited pack from its original that permit more. */
const loosenings = (base: Pack, edited: Pack): PackChange[] =>
  comparePacks(base, edited).filter((c) => c.permitsMore);

/** Checks an imported house pack against the pack it names: nothing that permits more may stand without its reason. */
export function checkHouse(base: Pack, house: Pack): Pack {
  return loadPack({ ...house, loosened: reasonsFor(base, house, house.loosened ?? [], []) });
}

function place(
  procedure: Record<string, unknown>,
  edit: RuleEdit,
  how: 'figure' | 'number' | 'remove',
  was: string,
): void {
  const where = edit.at.join('.');
  const parents = edit.at.slice(0, -1);
  const last = edit.at[edit.at.length - 1]!;
  const parent = parents.reduce<unknown>(
    (value, key) => (value as Record<string | number, unknown>)[key],
    procedure,
  );
  if (how === 'remove') {
    if (edit.value !== null) throw new PackError(where, 'A check is kept or taken away, not reworded.');
    const items = parent as { key: string }[];
    items.splice(
      items.findIndex((i) => i.key === last),
      1,
    );
    return;
  }
  if (edit.value === null) throw new PackError(where, 'Type a figure.');
  const text = edit.value.trim();
  if (how === 'number') {
    if (!/^\d+(\.\d+)?$/.test(text))
      throw new PackError(where, `"${text}" is not a number. Type digits, like 10.`);
    (parent as Record<string | number, unknown>)[last] = Number(text);
    return;
  }
  let figure;
  try {
    figure = parseWithUnit(text);
  } catch (error) {
    throw new PackError(where, (error as Error).message);
  }
  const unit = parseWithUnit(was).unit;
  if (UNITS[figure.unit].dimension !== UNITS[unit].dimension)
    throw new PackError(
      where,
      `${text} is not ${UNITS[unit].dimension === 'pressure' ? 'a pressure' : `a ${UNITS[unit].dimension}`}. Write it in ${UNITS[unit].label}, like ${was}.`,
    );
  const size = (t: string) => {
    const f = parseWithUnit(t);
    return Math.abs(toNumber(f) * UNITS[f.unit].si);
  };
  const ratio = size(text) / size(was);
  if (Number.isFinite(ratio) && (ratio > MOST_RATIO || ratio < 1 / MOST_RATIO))
    throw new PackError(
      where,
      `${text} is very far from ${was}. Check the unit: a pipe in bar where mbar is meant?`,
    );
  (parent as Record<string | number, unknown>)[last] = text;
}
/** A figure this many times larger or smaller than what stood there is taken for a wrong unit. House choice. */
const MOST_RATIO = 20;
