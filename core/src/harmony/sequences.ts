import { midiOf, pitchClass, type NoteName } from '../pitch/pitch.js';
import { cutAt, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { TuneNote } from './fit.js';
import { scaleOf, type Key } from './key.js';

/** A stretch of the tune that comes again at once on other steps of the scale, in the same rhythm. */
export interface Sequence {
  /** Where it comes first, and again. */
  readonly first: Ticks;
  readonly again: Ticks;
  readonly length: Ticks;
  /** Steps of the scale by which it has moved: up above 0. */
  readonly steps: number;
}

/** Bars that a sequence moves by; a stretch that is part of a longer one is heard as that one. */
const LENGTHS = [4, 2, 1] as const;
/** Steps of the scale that it moves at most: what lies further off is heard as another phrase. */
const MOST_STEPS = 4;
/** Notes that a stretch needs before it is known again elsewhere. */
const LEAST_NOTES = 3;

/** The sequences of a tune, longer ones first; a bar that moves is in one of them only. */
export function sequencesIn(tune: readonly TuneNote[], bars: readonly Bar[], key: Key): Sequence[] {
  const whole = bars.filter((b) => b.number > 0);
  const byBar = cutAt(
    tune.filter((n) => n.at >= (whole[0]?.start ?? 0)),
    whole.map((b) => b.end),
  );
  const stepOf = stepsIn(key);
  const known = new Set<number>();
  const found: Sequence[] = [];
  for (const count of LENGTHS)
    for (let b = 0; b + 2 * count <= whole.length; b++) {
      const [first, again, end] = [whole[b].start, whole[b + count].start, whole[b + 2 * count - 1].end];
      const taken = Array.from({ length: count }, (_, i) => b + count + i);
      if (again - first !== end - again || taken.some((i) => known.has(i))) continue;
      const steps = movedBy(
        byBar.slice(b, b + count).flat(),
        byBar.slice(b + count, b + 2 * count).flat(),
        again - first,
        stepOf,
      );
      if (steps === null || steps === 0 || Math.abs(steps) > MOST_STEPS) continue;
      for (const i of taken) known.add(i);
      found.push({ first, again, length: again - first, steps });
    }
  return found;
}

/** The note of the scale that lies so many steps from one of its notes; null for a note outside the scale. */
export function movedInScale(name: NoteName, steps: number, key: Key): NoteName | null {
  const scale = scaleOf(key);
  const degree = scale.indexOf(name);
  return degree < 0 ? null : scale[(((degree + steps) % 7) + 7) % 7];
}

/** Steps of the scale by which all notes have moved, in the same rhythm so much later; null where they have not moved alike. */
function movedBy(
  first: readonly TuneNote[],
  again: readonly TuneNote[],
  later: Ticks,
  stepOf: (note: TuneNote) => number | null,
): number | null {
  if (first.length < LEAST_NOTES || first.length !== again.length) return null;
  let moved: number | null = null;
  for (const [i, note] of first.entries()) {
    const [from, to] = [stepOf(note), stepOf(again[i])];
    if (from === null || to === null || again[i].at - note.at !== later || again[i].length !== note.length) return null;
    if (moved !== null && to - from !== moved) return null;
    moved = to - from;
  }
  return moved;
}

/** Counts the steps of a key's scale from the lowest key up; null for notes outside it. */
function stepsIn(key: Key): (note: TuneNote) => number | null {
  const scale = scaleOf(key).map(pitchClass);
  return ({ pitch }) => {
    const up = midiOf(pitch) - scale[0] + 12;
    const degree = scale.indexOf(midiOf(pitch) % 12);
    return degree < 0 ? null : 7 * Math.floor(up / 12) + degree;
  };
}
