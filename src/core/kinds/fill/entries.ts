import { entry, isTrue, timed } from '@/core/run/field';

export const fillEntries = { fill: entry({ ...timed, confirmed: isTrue() }) };
