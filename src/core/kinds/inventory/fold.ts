/** What is present, looked at and written down. */
import type { Course } from '@/core/run/course';
import { type EventOf } from '@/core/run/events';
import { type Fold, type OnStage } from '@/core/run/fold';
import { missingInventory } from '@/core/run/inventory';
import { type RunState } from '@/core/run/state';
import { follow, no, type Refusal } from '@/core/run/transition';

export const inventoryFold: Fold<'inventory'> = {
  inventory: {
    anytime: (event, { state, at }) => keepInventory(state, event, at),
    words: (event) => {
      const { name, place, make, model, serial, note } = event.item;
      return `written down: ${[name, place, make, model, serial && `serial ${serial}`, note].filter(Boolean).join(', ')}`;
    },
  },
};
/** Ends the list: everything required written down. */
export function confirmInventory({ plan, state, at }: OnStage): Refusal | null {
  const owed = missingInventory(plan, state);
  if (owed.length) return no('inventory', `Still to be written down: ${owed.join(', ')}.`);
  follow(plan, state, 'done', at);
  return null;
}

/** The newest entry of a thing takes the place of the one before; both stay in the log. */
function keepInventory(state: RunState, event: EventOf<'inventory'>, at: number): Refusal | null {
  if (!event.item.name.trim()) return no('name', 'Say what it is.');
  state.inventory = [
    ...state.inventory.filter((i) => i.id !== event.item.id),
    { ...event.item, at, byName: event.byName },
  ];
  return null;
}

export const inventoryCourse: Course = (visit) => ({
  word: visit.outcome === 'done' ? 'written down' : 'open',
  text: '',
});
