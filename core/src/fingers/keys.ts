import { hasMinorThird, plainMode, scaleOf, type Key } from '../harmony/key.js';
import { isBlackKey, pitchClass } from '../pitch/pitch.js';

/** A key as one hand meets it: its place counted from the thumb's side to the fifth finger's, and its colour. */
export interface PianoKey {
  /** The MIDI number for the right hand, less than 0 for the left: the left hand is the right one mirrored. */
  readonly place: number;
  readonly black: boolean;
  /** Where it lies in the scale, rising by place: neighbours of the scale are 1 apart, a chromatic key lies halfway. */
  readonly degree: number;
  /** True for a key between two of the scale. */
  readonly chromatic: boolean;
  /** True where the thumb falls when the scale is played over several octaves. */
  readonly thumb: boolean;
}

type Thumbs = readonly [number, number];

/** By the tonic's pitch class. */
type ThumbsByTonic = Readonly<Partial<Record<number, Thumbs>>>;

/**
 * The two degrees on which the thumb falls in the scales of the manuals, by hand and by the tonic's pitch class; the first row
 * holds for all tonics that are not named. Minor scales with a raised sixth differ where their key lies otherwise.
 */
const THUMBS: Readonly<
  Record<'major' | 'minor', Readonly<Record<'right' | 'left', ThumbsByTonic & { readonly usual: Thumbs }>>>
> = {
  major: {
    right: { usual: [1, 4], 1: [3, 7], 3: [2, 6], 5: [1, 5], 6: [4, 7], 8: [3, 6], 10: [2, 5] },
    left: { usual: [1, 5], 1: [3, 7], 3: [3, 7], 6: [4, 7], 8: [3, 7], 10: [3, 7], 11: [1, 4] },
  },
  minor: {
    right: { usual: [1, 4], 1: [3, 6], 3: [2, 6], 5: [1, 5], 6: [3, 6], 8: [3, 6], 10: [2, 5] },
    left: { usual: [1, 5], 1: [3, 7], 3: [2, 6], 6: [4, 7], 8: [3, 6], 10: [2, 5], 11: [1, 4] },
  },
};

/** The same for minor scales whose sixth and seventh are raised, and for those whose seventh alone is. */
const MELODIC_RIGHT: ThumbsByTonic = { 1: [3, 7], 6: [3, 7] };
const RAISED_LEFT: ThumbsByTonic = { 8: [3, 7] };

/** The scale that a phrase moves in, as pitch classes from its tonic up: in a minor key with the sixth and seventh that the phrase has. */
function scaleOfMoment(key: Key, midis: readonly number[]): { steps: readonly number[]; raised: readonly [boolean, boolean] } {
  const tonic = pitchClass(key.tonic);
  const steps = scaleOf(key).map((name) => (pitchClass(name) - tonic + 12) % 12);
  if (!hasMinorThird(key)) return { steps, raised: [false, false] };
  const sounds = new Set(midis.map((m) => (m - tonic + 132) % 12));
  const raises = (natural: number) => sounds.has(natural + 1) && !sounds.has(natural);
  const raised = [raises(8), raises(10)] as const;
  return { steps: [...steps.slice(0, 5), raised[0] || key.mode === 'dorian' ? 9 : 8, raised[1] ? 11 : 10], raised };
}

function thumbsOf(key: Key, hand: 'left' | 'right', [sixth, seventh]: readonly [boolean, boolean]): Thumbs {
  const tonic = pitchClass(key.tonic);
  const variant: ThumbsByTonic = hand === 'right' ? (sixth ? MELODIC_RIGHT : {}) : seventh ? RAISED_LEFT : {};
  const table = THUMBS[plainMode(key)][hand];
  return variant[tonic] ?? table[tonic] ?? table.usual;
}

/** How one hand meets the keys of the piano (MIDI numbers) in a phrase of them that moves in a key. */
export function keysFor(hand: 'left' | 'right', key: Key, midis: readonly number[]): (midi: number) => PianoKey {
  const { steps, raised } = scaleOfMoment(key, midis);
  const tonic = pitchClass(key.tonic);
  const thumbs = thumbsOf(key, hand, raised).map((degree) => steps[degree - 1]);
  const sign = hand === 'right' ? 1 : -1;
  return (midi) => {
    const up = midi - tonic;
    const step = ((up % 12) + 12) % 12;
    const degree = steps.includes(step) ? steps.indexOf(step) : steps.filter((s) => s < step).length - 0.5;
    return {
      place: sign * midi,
      black: isBlackKey(midi),
      degree: sign * (7 * Math.floor(up / 12) + degree),
      chromatic: !Number.isInteger(degree),
      thumb: thumbs.includes(step),
    };
  };
}
