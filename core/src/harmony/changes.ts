import { pitchClass, transposeName, type NoteName } from '../pitch/pitch.js';
import { hasMinorThird, scaleOf, type Key } from './key.js';
import { intervalOf, plainRoot, renamedSymbol, transposeSymbol } from './naming.js';
import { parseChord, type Chord } from './symbol.js';

/** Kinds of chord that another can be turned into, and moves of the whole chord. */
export type ChordChangeKind =
  | 'dominant-seventh'
  | 'minor'
  | 'major'
  | 'diminished'
  | 'half-diminished'
  | 'diminished-seventh'
  | 'augmented'
  | 'major-seventh'
  | 'sixth'
  | 'ninth'
  | 'sus4'
  | 'sus2'
  | 'half-step-up'
  | 'half-step-down';

/** Something that can be done to a chord, with the chord it makes. */
export interface ChordChange {
  readonly kind: ChordChangeKind;
  readonly symbol: string;
}

/** How a chord leads to the one after it. */
export type ApproachFact =
  | { readonly code: 'approach.dominant'; readonly to: NoteName }
  | { readonly code: 'approach.half-step-above'; readonly to: NoteName }
  | { readonly code: 'approach.diminished-between'; readonly from: NoteName; readonly to: NoteName }
  | { readonly code: 'approach.chromatic-between'; readonly roots: readonly NoteName[] }
  | { readonly code: 'approach.raised-fourth'; readonly from: string }
  | { readonly code: 'approach.minor-fourth'; readonly from: string }
  | { readonly code: 'turnaround.dominant'; readonly symbol: string; readonly tonic: NoteName }
  | { readonly code: 'turnaround.tritone'; readonly symbol: string; readonly tonic: NoteName }
  | { readonly code: 'turnaround.tritone-of-dominant'; readonly symbol: string };

/** A chord to be struck before the one it leads to. */
export interface ApproachChord {
  readonly symbol: string;
  readonly why: ApproachFact;
}

/** Kinds of chord one press away, as they are asked for. */
const KINDS: readonly { readonly kind: ChordChangeKind; readonly suffix: (chord: Chord) => string | null }[] = [
  { kind: 'dominant-seventh', suffix: () => '7' },
  { kind: 'minor', suffix: (c) => (c.tones.some((t) => t.degree === 7) ? 'm7' : 'm') },
  { kind: 'major', suffix: () => '' },
  { kind: 'diminished', suffix: () => 'dim' },
  { kind: 'half-diminished', suffix: () => 'm7b5' },
  { kind: 'diminished-seventh', suffix: () => 'dim7' },
  { kind: 'augmented', suffix: () => 'aug' },
  { kind: 'major-seventh', suffix: () => 'maj7' },
  { kind: 'sixth', suffix: (c) => (isMinor(c) ? 'm6' : '6') },
  { kind: 'ninth', suffix: (c) => withNinth(c) },
  { kind: 'sus4', suffix: (c) => (intervalOf(c, 7) === '7m' ? '7sus4' : 'sus4') },
  { kind: 'sus2', suffix: () => 'sus2' },
];

const isMinor = (chord: Chord) => intervalOf(chord, 3) === '3m';

function withNinth(chord: Chord): string {
  const seventh = intervalOf(chord, 7);
  if (seventh === '7M') return isMinor(chord) ? 'm(add9)' : 'maj9';
  if (seventh === '7m') return isMinor(chord) ? 'm9' : '9';
  return isMinor(chord) ? 'm(add9)' : 'add9';
}

/** The other kinds of chord on the same root, and the same chord a half step up or down. A slash bass stays under a new kind. */
export function chordChanges(chord: Chord): ChordChange[] {
  const bass = chord.bass ? `/${chord.bass}` : '';
  const kinds = KINDS.flatMap(({ kind, suffix }): ChordChange[] => {
    const made = suffix(chord);
    return made === null ? [] : [{ kind, symbol: chord.root + made + bass }];
  });
  const steps: ChordChange[] = [
    { kind: 'half-step-up', symbol: readable(transposeSymbol(chord.text, '2m')) },
    { kind: 'half-step-down', symbol: readable(transposeSymbol(chord.text, '-2m')) },
  ];
  const own = kindOf(chord);
  return [...kinds.filter((k) => kindOf(parseChord(k.symbol) as Chord) !== own), ...steps];
}

/** Names that lead sheets avoid where another is plainer. */
const PLAINER: Readonly<Record<string, NoteName>> = { Cb: 'B', Fb: 'E', 'E#': 'F', 'B#': 'C' };

/** A symbol with a root and a bass that are read at sight: a half step over B♭ minor is B minor. */
const readable = (symbol: string): string => renamedSymbol(symbol, (name) => PLAINER[name] ?? name);

const kindOf = (chord: Chord) => `${chord.root} ${chord.tones.map((t) => t.interval).join(' ')}`;

/**
 * The chord that is written in place of a diminished triad on the leading note: the dominant in first inversion, which
 * has the same third and fifth and the root that the ear adds. Null for any other chord.
 */
export function forLeadingTriad(chord: Chord, key: Key): string | null {
  const leading = (pitchClass(key.tonic) + 11) % 12;
  if (pitchClass(chord.root) !== leading || intervalOf(chord, 5) !== '5d' || chord.tones.length !== 3) return null;
  return `${transposeName(key.tonic, '5P')}/${chord.root}`;
}

/** Chords that lead by one step or fifth to the chord that follows, where a stretch leaves room for one more. */
export function approachChords(from: Chord, to: Chord, key: Key): ApproachChord[] {
  if (from.text === to.text) return [];
  const found: ApproachChord[] = [];
  const add = (root: NoteName, suffix: string, why: ApproachFact) => {
    const symbol = plainRoot(root) + suffix;
    if (symbol === from.text || symbol === to.text || found.some((f) => f.symbol === symbol)) return;
    found.push({ symbol, why });
  };
  const up = (steps: string) => transposeName(to.root, steps);
  const gap = (pitchClass(to.root) - pitchClass(from.root) + 12) % 12;
  add(up('5P'), '7', { code: 'approach.dominant', to: to.root });
  add(up('2m'), '7', { code: 'approach.half-step-above', to: to.root });
  if (gap === 2)
    add(transposeName(to.root, '-2m'), 'dim7', { code: 'approach.diminished-between', from: from.root, to: to.root });
  if (gap === 10) {
    const between = plainRoot(transposeName(from.root, '-2m'));
    add(between, '7', { code: 'approach.chromatic-between', roots: [from.root, between, to.root] });
  }
  const fourth = scaleOf(key)[3];
  if (from.root === fourth && intervalOf(from, 3) === '3M' && !hasMinorThird(key)) {
    add(transposeName(fourth, '1A'), 'm7b5', { code: 'approach.raised-fourth', from: from.text });
    add(fourth, 'm6', { code: 'approach.minor-fourth', from: from.text });
  }
  return found.slice(0, 4);
}

/** Chords that turn the last one back to the start of the song, or of the part that comes again. */
export function turnBacks(key: Key): ApproachChord[] {
  const dominant = transposeName(key.tonic, '5P');
  const above = plainRoot(transposeName(key.tonic, '2m'));
  const aboveDominant = plainRoot(transposeName(dominant, '2m'));
  return [
    { symbol: `${dominant}7`, why: { code: 'turnaround.dominant', symbol: `${dominant}7`, tonic: key.tonic } },
    { symbol: `${above}7`, why: { code: 'turnaround.tritone', symbol: `${above}7`, tonic: key.tonic } },
    { symbol: `${aboveDominant}7`, why: { code: 'turnaround.tritone-of-dominant', symbol: `${aboveDominant}7` } },
  ];
}
