import type { AppendAnswer, BenchEngine, BenchView, Next } from '@/device/bench';
import type { Payload } from '@/core/run/events';
import type { Visit } from '@/core/run/state';
import type { Stage } from '@/core/kinds';
import type { Identity } from '@/wire/role';

/** What every panel of the bench gets. */
export interface PanelProps {
  readonly view: BenchView;
  readonly engine: BenchEngine;
  readonly who: Identity;
  readonly visit: Visit;
  readonly stage: Stage;
  readonly at: number;
  /** Appends, with what follows by the same press, and shows the answer where refused. */
  readonly act: (payload: Payload, next?: Next) => Promise<AppendAnswer>;
}
