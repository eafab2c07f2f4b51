/** What every test of the Yard stands on: an occasion, the shipped scenarios, the common rubric. */
import { uuid } from '@/core/testing/bakery';
import type { Occasion } from '@/core/yard/session';

export const occasion: Occasion = {
  run: uuid(1, 3),
  system: uuid(2, 3),
  gauge: uuid(3, 3),
  fan: uuid(4, 3),
  organisation: { id: uuid(1, 1), name: 'Hollin & Daughters' },
  site: { id: uuid(1, 4), name: 'Yard', address: 'simulated', customer: 'nobody' },
  made: { at: '2026-11-20T08:00:00.000Z', zone: 'Europe/London', by: 'T' },
  packHash: 'test',
};
