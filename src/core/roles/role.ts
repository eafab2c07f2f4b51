/** What a hold is for. Each role is a room of its own; this is what all of them say of themselves. */
import type { HoldFields } from './fields';

/** What a role can see of the procedure its hold stands in, and how it refuses. */
export interface HoldCheck {
  /** Whether the procedure, or a part of it, classes leak rates. */
  readonly classed: boolean;
  readonly fail: (where: string, message: string) => void;
}
export interface RoleRule {
  /** What it is called before it begins. */
  readonly title: string;
  /** How it can end. @param classes keys of the procedure's leak-rate classes, from best to worst */
  readonly outcomes: (hold: HoldFields, classes: readonly string[]) => readonly string[];
  /** The outcome that leads on when nothing is wrong. */
  readonly good: (classes: readonly string[]) => string;
  /** Its outcomes in a word or two. */
  readonly words: Readonly<Record<string, string>>;
  /** The outcome by which it may prove tightness: from reading alone, never from advice. */
  readonly proves?: string;
  /** The outcome by which it may claim a good end where the procedure calls that by another name than Tight. */
  readonly named?: string;
  /** The outcome by which it may claim Tight within allowance. */
  readonly allows?: (hold: HoldFields, classes: readonly string[]) => string | undefined;
  /** It proves that the valve which bounds the scope does not let by. */
  readonly provesBoundary?: true;
  /** It starts wherever the pressure stands: it needs no band, and cannot fail to stand in it. */
  readonly anywhere?: true;
  /** A result may rest on it. */
  readonly decides?: true;
  /** It is judged by a bound of its own, not by a permitted drop. */
  readonly bounded?: true;
  /** Its valve is closed and nothing else is touched: its slope may be set beside that of another pressure. */
  readonly apart?: true;
  /** A fall beyond the limit may end it before its time, with this outcome: what is lost is lost. */
  readonly endsEarly?: string;
  /** It stands under a vacuum: what would not be held comes back up, and is ended by saying so. */
  readonly comesBack?: true;
  /** Its end is judged by movement, so that a moving barometer can feign or hide it. */
  readonly moves?: true;
  /** Any movement speaks against it. */
  readonly still?: true;
  /** A sudden step in it is offered as a disturbance. */
  readonly steps?: true;
  /** Its limit is drawn beside the figure while it runs. */
  readonly drawn?: true;
  /** What it is watched against while it runs. Absent: the limit of its movement. */
  readonly against?: 'band' | 'bounds' | 'water' | 'shape' | 'nothing';
  /** Said of it while it runs: the whole of it, or what stands before the figure. */
  readonly says?: string;
  /** Re-adjusting belongs to it and does not break it. */
  readonly adjusts?: true;
  /** What it measures is what had to be added, or what was lost: water put in before it begins does not set it back. */
  readonly measures?: 'added' | 'lost';
  /** It is judged only where it is known what it may not fall below. */
  readonly needsFloor?: true;
  /** It tells what a regulator does: its limit is where it stands, not how far it moved. */
  readonly regulator?: true;
  /** A gauge's own log says enough of it for a test that was held elsewhere. */
  readonly outside?: true;
  /** Whom it is shown to, of those who ask for a part of the test only. */
  readonly paper?: 'inspector' | 'utility';
  /** A dial close to its limit is tapped and read again. */
  readonly tapped?: true;
  /** Ways on when the pressure will not stand: those a pack must say, and those it may. */
  readonly must?: readonly string[];
  readonly may?: readonly string[];
  /** It must be long enough to have shown the leak that matters. */
  readonly sees?: true;
  /** What a pack must say for it. */
  readonly check?: (hold: HoldFields, to: HoldCheck) => void;
}
export interface Role<N extends string = string> extends RoleRule {
  readonly name: N;
}
export const role = <const N extends string>(name: N, rule: RoleRule): Role<N> => ({ name, ...rule });

/** Where the pressure may stand must be said. */
export function needsBounds(hold: HoldFields, { fail }: HoldCheck): void {
  if (!hold.accept?.low && !hold.accept?.high) fail('accept', 'Say between which pressures it may stand.');
}
