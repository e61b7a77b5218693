import { scaleOf, type Key } from '../harmony/key.js';
import { midiOf, nameOf, pitchParts, type NoteName, type Pitch } from '../pitch/pitch.js';
import { placeOf, type Bar, type Place } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Fingered, Grip } from '../fingers/search.js';

/** A place of the hand: the notes it plays without moving. */
export interface HandPlace {
  readonly start: Ticks;
  readonly end: Ticks;
  /** Lowest and highest key played there. */
  readonly low: Pitch;
  readonly high: Pitch;
  /** The top key of what is struck first and last there, and when the last is struck. */
  readonly first: Pitch;
  readonly last: Pitch;
  readonly lastAt: Ticks;
  /** The key that the thumb plays or lies over. */
  readonly thumb: Pitch;
  /** The outermost key under the fifth finger, where the fingers lie on neighbouring keys of the scale. */
  readonly fifth: Pitch;
  /** How the hand came here: at the beginning, by the thumb passing under, a finger passing over it, or a jump. */
  readonly move: Fingered['move'];
  /** Semitones that the thumb moved from the place before; above 0 upwards, 0 for the first. */
  readonly by: number;
}

/** The places of a hand over a fingered line: a new one wherever the hand moves. */
export function handPlaces(grips: readonly Grip[], row: readonly Fingered[], hand: 'left' | 'right', key: Key): HandPlace[] {
  const places: HandPlace[] = [];
  let from = 0;
  for (let i = 1; i <= grips.length; i++) {
    if (i < grips.length && row[i].move === 'stay') continue;
    const here = grips.slice(from, i);
    const fingers = row.slice(from, i);
    if (here.length > 0) {
      const pitches = here.flatMap((g) => g.pitches);
      const sorted = [...pitches].sort((a, b) => midiOf(a) - midiOf(b));
      const thumb = keyOf(1, here, fingers, hand, key);
      const last = places.at(-1);
      places.push({
        start: here[0].at,
        end: here[here.length - 1].at + here[here.length - 1].length,
        low: sorted[0],
        high: sorted[sorted.length - 1],
        first: topOf(here[0]),
        last: topOf(here[here.length - 1]),
        lastAt: here[here.length - 1].at,
        thumb,
        fifth: keyOf(5, here, fingers, hand, key),
        move: row[from].move === 'stay' ? 'fresh' : row[from].move,
        by: last ? midiOf(thumb) - midiOf(last.thumb) : 0,
      });
    }
    from = i;
  }
  return places;
}

const topOf = ({ pitches }: Grip): Pitch => pitches[pitches.length - 1];

/** The key that a finger plays in a place, or lies over: counted along the scale from the finger nearest to it. */
function keyOf(finger: 1 | 5, grips: readonly Grip[], row: readonly Fingered[], hand: 'left' | 'right', key: Key): Pitch {
  let best: { pitch: Pitch; finger: number } | null = null;
  grips.forEach((g, i) =>
    row[i].fingers.forEach((f, k) => {
      if (!best || Math.abs(f - finger) < Math.abs(best.finger - finger)) best = { pitch: g.pitches[k], finger: f };
    }),
  );
  const { pitch, finger: nearest } = best as unknown as { pitch: Pitch; finger: number };
  const steps = (finger - nearest) * (hand === 'right' ? 1 : -1);
  return steps === 0 ? pitch : stepsFrom(pitch, steps, key);
}

/** The pitch some steps of the scale away. */
export function stepsFrom(pitch: Pitch, steps: number, key: Key): Pitch {
  const names = new Map<string, NoteName>(scaleOf(key).map((n) => [n[0], n]));
  const letters = 'CDEFGAB';
  const { octave } = pitchParts(pitch);
  const at = letters.indexOf(nameOf(pitch)[0]) + steps;
  const letter = letters[((at % 7) + 7) % 7];
  return `${names.get(letter) ?? letter}${octave + Math.floor(at / 7)}`;
}

/** Where a hand begins: the key under its thumb, and the finger for its first note where that is not the thumb's. */
export interface StartFact {
  readonly code: 'hand.starts';
  readonly thumb: Pitch;
  readonly first: { readonly pitch: Pitch; readonly finger: number } | null;
}

/** Whether the hand stays in its place through a part, or where, how and to which key under its thumb it goes. */
export type MoveFact =
  | { readonly code: 'hand.stays' }
  | { readonly code: 'hand.goes'; readonly move: HandPlace['move']; readonly at: Place; readonly thumb: Pitch };

/** Every move of a hand after it has begun, in order; that it stays where there is none. */
export function movesOf(places: readonly HandPlace[], bars: readonly Bar[]): MoveFact[] {
  const moves = places
    .slice(1)
    .map(({ start, move, thumb }): MoveFact => ({ code: 'hand.goes', move, at: placeOf(bars, start), thumb }));
  return moves.length > 0 ? moves : [{ code: 'hand.stays' }];
}

export function startOf({ thumb }: HandPlace, first: Pitch, finger: number | null): StartFact {
  return { code: 'hand.starts', thumb, first: finger === null || first === thumb ? null : { pitch: first, finger } };
}
