import { expandPack } from '@/core/pack/expand';
import type { Pack } from '@/core/pack/schema';

/** A shipped pack as its file gives it. That every one of them holds together is tried once, with the packs, not by each suite. */
export const asShipped = (file: unknown): Pack => expandPack(file) as Pack;
