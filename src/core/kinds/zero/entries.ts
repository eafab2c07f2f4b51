import { entry, exactSchema, isTrue } from '@/core/run/field';

export const zeroEntries = { zero: entry({ figure: exactSchema, openToAir: isTrue() }) };
