import type { Part } from '@joined-hands/core/arrange';
import { rangeOf, type Edit, type TickRange } from '@joined-hands/core/song';

/** The part at an index, from 0, with the one before it; null for the first. */
export function neighbours(parts: readonly Part[], index: number): readonly [TickRange, TickRange] | null {
  const [before, part] = [parts[index - 1], parts[index]];
  return before && part ? [rangeOf(before), rangeOf(part)] : null;
}

/** Moves where the part at an index begins. */
export function cutBetween(parts: readonly Part[], index: number, to: number): Edit | null {
  const both = neighbours(parts, index);
  return both && { code: 'edit.move-cut', parts: both, to };
}
