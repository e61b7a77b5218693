import type { Bar } from '../time/bars.js';
import type { Edit } from './edit.js';
import type { TickRange } from './edits.js';

/** Bars after which one texture gives way to the other. */
const TURN = 2;

/** Two textures by turns in a stretch, two bars each: A, B, A, B … A pick-up goes with what follows it. */
export function alternateTextures({ start, end }: TickRange, textures: readonly [string, string], bars: readonly Bar[]): Edit {
  const inside = bars.filter((b) => b.end > start && b.start < end && b.lead === 0);
  const edits: Edit[] = [];
  for (let k = 0; k * TURN < inside.length; k++) {
    const from = k === 0 ? start : inside[k * TURN].start;
    const to = Math.min(end, inside[Math.min(inside.length, (k + 1) * TURN) - 1].end);
    const range = { start: from, end: Math.max(from + 1, to) };
    edits.push({ code: 'edit.setting', range, setting: 'texture', value: textures[k % 2] });
  }
  return { code: 'edit.several', as: { kind: 'alternate' }, edits };
}
