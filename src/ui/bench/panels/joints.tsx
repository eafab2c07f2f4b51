'use client';
import { openJoints } from '@/core/run/read';
import { JointList } from '../joint-list';
import type { PanelProps } from '../shared';
import { WayOn } from '../way-on';

/** The joints touched today: each must be cleared with leak fluid before the way on opens. */
export function JointsPanel(props: PanelProps) {
  const { view, act } = props;
  const open = openJoints(view.state);
  return (
    <div className="flex flex-1 flex-col gap-3 lg:min-h-0">
      <div className="lg:min-h-0 lg:flex-1 lg:overflow-auto">
        <JointList {...props} />
      </div>
      <WayOn open={open.length === 0} act={act}>
        {open.length
          ? `${open.length} of ${view.state.joints.length} joints still to clear`
          : view.state.joints.length
            ? 'Every joint cleared: go on'
            : 'No joint was touched today: go on'}
      </WayOn>
    </div>
  );
}
