import type { System } from '@/core/installation/section';
import type { Gauge } from '@/core/instrument/gauge';
import type { Plan } from '@/core/plan/plan';
import type { Exact } from '@/core/quantity/exact';
import type { Figure } from '@/core/quantity/figure';
import type { Hold, RunState } from '@/core/run/state';

/** What fills a section decides what is told of it, what is done while it waits and what a movement means. */
export interface Filling {
  readonly name: 'gas' | 'liquid' | 'level' | 'nitrogen' | 'vacuum' | 'air';
  /** In a sentence: a section full of ... */
  readonly of: 'gas' | 'water';
  /** How a pack's rules page names it; absent where it is what one expects. */
  readonly line?: string;
  /** How long warmth or stretch could explain a fall at most where the pack does not say, min. House figure. */
  readonly explained: number;
  /** A change of the barometer moves what a gauge shows. */
  readonly barometer: boolean;
  /** A fifth of a kelvin explains a small fall whenever it comes. */
  readonly warmth: boolean;
  /** What own kit loses is spread over kit and section by their volumes. */
  readonly spreads: boolean;
  /** Read on a mark instead of a gauge. */
  readonly mark: boolean;
  /** What stores energy under test pressure; null where there is no more than the head of a drain. */
  readonly stores: 'gas' | 'water' | null;
  /** Why it is tested with it; null where the pack says it. */
  readonly why: string | null;
  /** How joints are looked at while it waits; null where they cannot be reached. */
  readonly joints: string | null;
  readonly photos: string;
  /** Appliances can be written down while it waits. */
  readonly appliances: boolean;
  /** What the face calls what was let in during a hold. */
  readonly added: string;
  /** What is let in has a volume that is measured or counted in strokes. */
  readonly pumped: boolean;
  /** What the simulated installation of a practice run is made of, and in what its gauge reads. */
  readonly simulated: {
    readonly kind: 'gas' | 'liquid' | 'duct';
    readonly unit: 'mbar' | 'bar' | 'Pa(abs)' | 'Pa';
  };
  /** What a look at a joint under pressure finds, and what the act of raising is called. */
  readonly looks: Looks;
}
export interface Looks {
  readonly raised: 'pumped' | 'raised';
  readonly none: string;
  readonly some: string;
  readonly where: string;
  /** Asks for that, where nothing was said. */
  readonly say: string;
  /** How it is looked at while the pressure stands. */
  readonly how: string;
  /** Said of a step that is reached. */
  readonly stopped: string;
}

/** What was logged beside a hold, at its start and end. */
export interface Logged {
  readonly temperature?: readonly [Exact, Exact];
  readonly barometer?: readonly [Exact, Exact];
}
/** Change that needs no leak, Pa; null where nothing was logged; 'unknown' where it was but cannot be worked out. */
export type Alone = number | 'unknown' | null;
/** @param start gauge pressure at the start, Pa */
export type AloneOf = (start: number, logged: Logged) => Alone;

export interface HoldSees {
  /** Smallest leak seen in so many minutes, l/h. */
  readonly leak: (minutes: number) => number;
  readonly figure: (minutes: number) => Figure;
  /** Minutes needed to see a leak of so many l/h; null when a day is not enough. */
  readonly needed: (leak: number) => number | null;
}
/** What a hold is asked of: where, with what. */
export interface Looking {
  readonly plan: Plan;
  readonly state: RunState;
  readonly part: string | null | undefined;
  readonly gauge: Gauge;
  /** gauge pressure of the hold, Pa; absent: the planned test pressure */
  readonly pressure?: number;
  /** standard uncertainty of a logged temperature difference, K; absent: not logged, the pack's default */
  readonly kelvin?: number;
}
/** What weather does to the reading at a pressure. */
export interface Weather {
  /** Pa per kelvin */
  readonly perKelvin: number;
  /** Stiffness of the full section, m3/Pa, where it is what turns a loss into a fall. */
  readonly stiffness?: number;
}
/** What a movement means, by what fills the section. */
export interface Moves {
  /** What warmth and barometer alone do. */
  readonly alone: (plan: Plan, state: RunState) => AloneOf;
  /** What a timed hold can show; null where a fact is missing. */
  readonly sees: (looking: Looking) => HoldSees | null;
  /** What a judged hold lost; null where it lost nothing that can be named. */
  readonly rate: (plan: Plan, state: RunState, hold: Hold, part: string | null) => Figure | null;
  /** @param pressure gauge pressure, Pa @returns null where it is not known, or nothing moves with the weather */
  readonly weather: (system: System, pressure: number) => Weather | null;
}
