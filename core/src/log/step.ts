import type { Ticks } from '../time/ticks.js';

/** What is practised of a stretch, in the order in which it is. */
export const STEP_KINDS = ['right', 'left', 'slow', 'tempo', 'join', 'whole', 'fills'] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** The order in which parts are learned, and how they are joined. */
export const STEP_ORDERS = ['song', 'hardest-first', 'hardest-last'] as const;
export type StepOrder = (typeof STEP_ORDERS)[number];
export const JOIN_ORDERS = ['chain', 'pairs'] as const;
export type JoinOrder = (typeof JOIN_ORDERS)[number];

/** A stretch of the song by one hand or both, plain or with all that dresses it. */
export interface PracticeRange {
  readonly from: Ticks;
  readonly to: Ticks;
  readonly hands: 'right' | 'left' | 'both';
  readonly plain: boolean;
}

/** One thing to practise. */
export interface PracticeStep extends PracticeRange {
  /** The same for the same stretch and work, however the parts around it change. */
  readonly id: string;
  readonly kind: StepKind;
  /** Numbers of the first and last part. */
  readonly parts: { readonly from: number; readonly to: number };
  /** True where it spans the whole song. */
  readonly whole: boolean;
  /** True where only the new ending of a part is learned. */
  readonly newEnding: boolean;
  /** Quarter notes a minute: where it begins, and where it is to arrive. */
  readonly slow: number;
  readonly goal: number;
  /** Minutes that it is planned to take, all rungs together. */
  readonly minutes: number;
  /** How hard it is, 0 to 100. */
  readonly hard: number;
}
