import { midiOf, type Pitch } from '../pitch/pitch.js';

/** A chord as the shapes see it. */
interface Laid {
  readonly pitches: readonly Pitch[];
}

/** A shape of the hand: the same distances between the keys, wherever they lie. */
export interface Shape {
  /** Half steps from each key to the next, bottom-up: "4-3" for a major triad in root position. */
  readonly form: string;
  /** Its number in the order in which the song brings the shapes, from 1. */
  readonly number: number;
  /** How often it is struck, and in how many places. */
  readonly times: number;
  readonly places: number;
}

/** The form of a chord: half steps between neighbours, "one" for a single key. */
export function shapeOf(pitches: readonly Pitch[]): string {
  const midis = pitches.map(midiOf);
  return midis.length === 1
    ? 'one'
    : midis
        .slice(1)
        .map((m, i) => m - midis[i])
        .join('-');
}

/** The different shapes of a row of chords, in the order in which they come. */
export function shapesOf(chords: readonly Laid[]): Shape[] {
  const shapes = new Map<string, { times: number; places: Set<number> }>();
  for (const { pitches } of chords) {
    const form = shapeOf(pitches);
    const shape = shapes.get(form) ?? { times: 0, places: new Set() };
    shape.times++;
    shape.places.add(midiOf(pitches[0]));
    shapes.set(form, shape);
  }
  return [...shapes].map(([form, { times, places }], i) => ({ form, number: i + 1, times, places: places.size }));
}

/** The different sets of keys that a row of chords asks for. */
export function gripsOf(chords: readonly Laid[]): (readonly Pitch[])[] {
  return [...new Map(chords.map((c) => [c.pitches.join(' '), c.pitches])).values()];
}
