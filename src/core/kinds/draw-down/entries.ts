import { entry, exactSchema, timed } from '@/core/run/field';

export const drawDownEntries = { 'draw-down': entry({ ...timed, volume: exactSchema }) };
