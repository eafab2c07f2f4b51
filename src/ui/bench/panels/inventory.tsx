'use client';
import { missingInventory } from '@/core/run/inventory';
import { InventoryForm } from '../inventory-form';
import type { PanelProps } from '../shared';
import { WayOn } from '../way-on';

/** What is present on the day: the way on opens when all that the rule asks for is written down. */
export function InventoryPanel(props: PanelProps) {
  const { view, act } = props;
  const owed = missingInventory(view.plan, view.state);
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <InventoryForm {...props} />
      </div>
      <WayOn open={owed.length === 0} act={act}>
        {owed.length ? `Still to write down: ${owed.join(', ')}` : 'All written down: go on'}
      </WayOn>
    </div>
  );
}
