/** What a verb of a script makes of its arguments: the entries a person would have made. */
import { parseReading } from '@/core/instrument/gauge';
import type { Plan } from '@/core/plan/plan';
import { parseFigure, type Exact } from '@/core/quantity/exact';
import type { Payload } from './events';
import { gaugeOf } from './read';
import type { RunState } from './state';

export interface VerbOn {
  readonly plan: Plan;
  readonly state: RunState;
  readonly args: readonly string[];
  /** Arguments by place, '' where there is none. */
  readonly first: string;
  readonly second: string;
  readonly third: string;
  /** A figure as the judging gauge shows it. */
  readonly figure: (text: string) => Exact;
  /** The same, read now. */
  readonly timed: (text: string) => { readonly figure: Exact; readonly readAt: number };
  /** Strokes of a signature, where the script has its own. */
  readonly strokes: string | undefined;
}
export type Verbs = Readonly<Record<string, (on: VerbOn) => Payload | Payload[]>>;

export function verbOn(
  plan: Plan,
  state: RunState,
  args: readonly string[],
  at: number,
  strokes: string | undefined,
): VerbOn {
  const [first = '', second = '', third = ''] = args;
  const figure = (text: string) => {
    const gauge = gaugeOf(plan, state);
    return gauge ? parseReading(text, gauge) : parseFigure(text, 'mbar');
  };
  const timed = (text: string) => ({ figure: figure(text), readAt: at });
  return { plan, state, args, first, second, third, figure, timed, strokes };
}
