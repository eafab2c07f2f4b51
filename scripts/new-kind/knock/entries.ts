import { entry, one } from '@/core/run/field';

export const HEARD = ['dull', 'clear'] as const;
export const knockEntries = { knock: entry({ heard: one(HEARD) }) };
