import { scaleOf, type Key } from '../src/harmony/key.js';
import type { NoteName } from '../src/pitch/pitch.js';
import { midiOf, nameOf, pitchAt, transposeName } from '../src/pitch/pitch.js';

export type ScaleKind = 'major' | 'natural' | 'harmonic' | 'melodic';

/**
 * Fingers as the standard manuals print them, for the degrees of one octave from the tonic up: right hand, left hand.
 * Where manuals differ on a scale, each printed way stands. The outermost notes of a run may take the finger at hand
 * (a fifth at the top, a fourth or second before the first thumb); the thumbs are what makes the fingering.
 */
const SCALES: Readonly<Record<ScaleKind, Readonly<Record<string, readonly [right: string, left: string]>>>> = {
  major: {
    C: ['1231234', '1432132'],
    G: ['1231234', '1432132'],
    D: ['1231234', '1432132'],
    A: ['1231234', '1432132'],
    E: ['1231234', '1432132'],
    B: ['1231234', '1321432'],
    'F#': ['2341231', '4321321'],
    Db: ['2312341', '3214321'],
    Ab: ['3412312', '3214321'],
    Eb: ['3123412', '3214321'],
    Bb: ['4123123', '3214321'],
    F: ['1234123', '1432132'],
  },
  natural: {
    A: ['1231234', '1432132'],
    E: ['1231234', '1432132'],
    B: ['1231234', '1321432'],
    'F#': ['3412312', '4321321'],
    'C#': ['3412312', '3214321'],
    'G#': ['3412312', '3213214'],
    Eb: ['3123412', '2143213'],
    Bb: ['4123123', '2132143'],
    F: ['1234123', '1432132'],
    C: ['1231234', '1432132'],
    G: ['1231234', '1432132'],
    D: ['1231234', '1432132'],
  },
  harmonic: {
    A: ['1231234', '1432132'],
    E: ['1231234', '1432132'],
    B: ['1231234', '1321432'],
    'F#': ['3412312', '4321321'],
    'C#': ['3412312', '3214321'],
    'G#': ['3412312', '3214321'],
    Eb: ['3123412', '2143213'],
    Bb: ['4123123', '2132143'],
    F: ['1234123', '1432132'],
    C: ['1231234', '1432132'],
    G: ['1231234', '1432132'],
    D: ['1231234', '1432132'],
  },
  melodic: {
    A: ['1231234', '1432132'],
    E: ['1231234', '1432132'],
    B: ['1231234', '1321432'],
    'F#': ['2312341', '4321321'],
    'C#': ['2312341', '3214321'],
    'G#': ['3412312', '3214321'],
    Eb: ['3123412', '2143213'],
    Bb: ['4123123', '2132143'],
    F: ['1234123', '1432132'],
    C: ['1231234', '1432132'],
    G: ['1231234', '1432132'],
    D: ['1231234', '1432132'],
  },
};

type ArpeggioKind = 'major' | 'minor' | 'dominant seventh';

const WHITE_TRIAD: readonly [string, string] = ['1231235', '5421421 5321321'];
const THUMB_ON_THIRD: readonly [string, string] = ['4124124 2124124', '2142142'];
const WHITE_SEVENTH: readonly [string, string] = ['123412345', '543214321'];
const SEVENTH_THUMB_ON_THIRD: readonly [string, string] = ['412341234 212341234', '214321432'];

/** Root-position arpeggios over two octaves as the manuals print them: right hand, left hand; equal ways side by side. */
const ARPEGGIOS: Readonly<Record<ArpeggioKind, Readonly<Record<string, readonly [right: string, left: string]>>>> = {
  major: {
    ...Object.fromEntries(['C', 'G', 'D', 'A', 'E', 'B', 'F', 'F#'].map((root) => [root, WHITE_TRIAD])),
    ...Object.fromEntries(['Db', 'Ab', 'Eb'].map((root) => [root, THUMB_ON_THIRD])),
    Bb: ['4124124 2124124', '3213213 2142142'],
  },
  minor: {
    ...Object.fromEntries(['C', 'G', 'D', 'A', 'E', 'B', 'F', 'Eb'].map((root) => [root, WHITE_TRIAD])),
    ...Object.fromEntries(['F#', 'C#', 'G#'].map((root) => [root, THUMB_ON_THIRD])),
    Bb: ['2312312', '3213213'],
  },
  'dominant seventh': {
    ...Object.fromEntries(['C', 'G', 'D', 'A', 'E', 'B', 'F'].map((root) => [root, WHITE_SEVENTH])),
    ...Object.fromEntries(['Ab', 'Eb'].map((root) => [root, SEVENTH_THUMB_ON_THIRD])),
    Db: ['412341234 212341234', '214321432 432143214'],
    Gb: ['234123412', '432143214 532143214'],
    Bb: ['412341234 212341234', '321432143 214321432'],
  },
};

const CHORD_OF: Readonly<Record<ArpeggioKind, readonly string[]>> = {
  major: ['1P', '3M', '5P'],
  minor: ['1P', '3m', '5P'],
  'dominant seventh': ['1P', '3M', '5P', '7m'],
};

/** Intervals of a minor scale from its tonic. */
const MINOR: Readonly<Record<Exclude<ScaleKind, 'major'>, readonly string[]>> = {
  natural: ['1P', '2M', '3m', '4P', '5P', '6m', '7m'],
  harmonic: ['1P', '2M', '3m', '4P', '5P', '6m', '7M'],
  melodic: ['1P', '2M', '3m', '4P', '5P', '6M', '7M'],
};

/** A run as the manuals give it: notes going up, and what fingers are accepted on each. */
export interface ManualRun {
  readonly name: string;
  readonly hand: 'left' | 'right';
  /** The key whose scale it is, or in which its chord is the tonic. */
  readonly key: Key;
  readonly pitches: readonly string[];
  /** Every accepted way, as digits from the lowest note up; "." takes the finger at hand. */
  readonly accepted: readonly string[];
}

/** Names going up from a first octave, `octaves` long, the first name again on top. */
function climb(names: readonly NoteName[], octave: number, octaves: number): string[] {
  const pitches: string[] = [];
  let low = midiOf(`${names[0]}${octave}`);
  for (let o = 0; o < octaves; o++)
    for (const name of names) {
      let pitch = pitchAt(name, low);
      while (midiOf(pitch) < low) pitch = `${nameOf(pitch)}${Number(/-?\d+$/.exec(pitch)?.[0]) + 1}`;
      low = midiOf(pitch);
      pitches.push(pitch);
    }
  const first = pitches[0];
  return [...pitches, `${nameOf(first)}${Number(/-?\d+$/.exec(first)?.[0]) + octaves}`];
}

/** A cycle over two octaves, up to the note that begins a third. */
function overTwoOctaves(cycle: string, hand: 'left' | 'right'): string {
  const whole = (cycle + cycle + cycle[0]).split('');
  // A run that would begin or end on a thumb with nothing beyond it takes the outer finger there.
  const [end, beside] = hand === 'right' ? [whole.length - 1, whole.length - 2] : [0, 1];
  if (whole[end] === '1') whole[end] = `${Number(whole[beside]) + 1}`;
  return whole.join('');
}

/** Before the first thumb of a right hand, and after the last of a left, the finger at hand will do. */
function openEnd(fingers: string, hand: 'left' | 'right'): string {
  const at = hand === 'right' ? fingers.indexOf('1') : fingers.lastIndexOf('1');
  return [...fingers].map((f, i) => ((hand === 'right' ? i < at : i > at) ? '.' : f)).join('');
}

/** All scales of the manuals, two octaves, both hands. */
export function manualScales(): ManualRun[] {
  return (Object.keys(SCALES) as ScaleKind[]).flatMap((kind) =>
    Object.entries(SCALES[kind]).flatMap(([tonic, [right, left]]) => {
      const names = kind === 'major' ? scaleOf({ tonic, mode: 'major' }) : MINOR[kind].map((i) => transposeName(tonic, i));
      return (['right', 'left'] as const).map((hand): ManualRun => {
        const cycle = hand === 'right' ? right : left;
        return {
          name: `${tonic} ${kind}`,
          hand,
          key: { tonic, mode: kind === 'major' ? 'major' : 'minor' },
          pitches: climb(names, hand === 'right' ? 4 : 2, 2),
          accepted: [openEnd(overTwoOctaves(cycle, hand), hand)],
        };
      });
    }),
  );
}

/** All arpeggios of the manuals, two octaves, both hands. */
export function manualArpeggios(): ManualRun[] {
  return (Object.keys(ARPEGGIOS) as ArpeggioKind[]).flatMap((kind) =>
    Object.entries(ARPEGGIOS[kind]).flatMap(([root, [right, left]]) => {
      const names = CHORD_OF[kind].map((i) => transposeName(root, i));
      return (['right', 'left'] as const).map((hand): ManualRun => ({
        name: `${root} ${kind} arpeggio`,
        hand,
        key: { tonic: root, mode: kind === 'minor' ? 'minor' : 'major' },
        pitches: climb(names, hand === 'right' ? 3 : 2, 2),
        accepted: (hand === 'right' ? right : left).split(' ').map((fingers) => openEnd(fingers, hand)),
      }));
    }),
  );
}

/** True where fingers, as digits from the lowest note up, are a way that manuals print. */
export const fitsManual = ({ accepted }: Pick<ManualRun, 'accepted'>, got: string): boolean =>
  accepted.some((way) => way.length === got.length && [...way].every((f, i) => f === '.' || f === got[i]));
