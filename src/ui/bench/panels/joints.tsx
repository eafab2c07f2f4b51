'use client';
import { openJoints } from '@/core/run/read';
import { Button } from '@/ui/kit/button';
import { JointList } from '../joint-list';
import type { PanelProps } from '../shared';

/** The joints touched today: each must be cleared with leak fluid before the way on opens. */
export function JointsPanel(props: PanelProps) {
  const { view, act } = props;
  const open = openJoints(view.state);
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <JointList {...props} />
      </div>
      <Button
        tone="act"
        data-primary
        className="min-h-20 w-full shrink-0 text-xl max-lg:sticky max-lg:bottom-0"
        disabled={open.length > 0}
        onClick={() => void act({ kind: 'proceed' })}
      >
        {open.length
          ? `${open.length} of ${view.state.joints.length} joints still to clear`
          : view.state.joints.length
            ? 'Every joint cleared: go on'
            : 'No joint was touched today: go on'}
      </Button>
    </div>
  );
}
