import 'server-only';
import { loadPack } from '@/core/pack/load';
import type { Pack } from '@/core/pack/schema';

/** Packs that were checked in this process, by the hash of their canonical form: a stored version never changes. */
const checked = new Map<string, Pack>();
const MOST = 100;

/** A stored pack, checked when it is first used. @throws PackError */
export function storedPack(row: { readonly hash: string; readonly body: string }): Pack {
  const seen = checked.get(row.hash);
  if (seen) return seen;
  const pack = loadPack(JSON.parse(row.body));
  if (checked.size >= MOST) checked.delete(checked.keys().next().value!);
  checked.set(row.hash, pack);
  return pack;
}
