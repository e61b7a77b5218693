import { pitchClass, transposeName, type NoteName } from '../pitch/pitch.js';
import { scaleOf, type Key } from './key.js';
import { intervalOf, plainRoot, transposeSymbol } from './naming.js';
import { parseChord, type Chord } from './symbol.js';

/** Something that can be done to a chord, with the chord it makes. */
export interface ChordChange {
  /** "make it a dominant seventh". */
  readonly label: string;
  readonly symbol: string;
}

/** A chord to be struck before the one it leads to. */
export interface ApproachChord extends ChordChange {
  readonly why: string;
}

/** Kinds of chord one press away, as they are asked for. */
const KINDS: readonly { readonly label: string; readonly suffix: (chord: Chord) => string | null }[] = [
  { label: 'dominant seventh', suffix: () => '7' },
  { label: 'minor', suffix: (c) => (c.tones.some((t) => t.degree === 7) ? 'm7' : 'm') },
  { label: 'major', suffix: () => '' },
  { label: 'half-diminished', suffix: () => 'm7b5' },
  { label: 'major seventh', suffix: () => 'maj7' },
  { label: 'with a sixth', suffix: (c) => (isMinor(c) ? 'm6' : '6') },
  { label: 'with a ninth', suffix: (c) => withNinth(c) },
  { label: 'suspended fourth', suffix: (c) => (intervalOf(c, 7) === '7m' ? '7sus4' : 'sus4') },
  { label: 'suspended second', suffix: () => 'sus2' },
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
  const kinds = KINDS.flatMap(({ label, suffix }) => {
    const made = suffix(chord);
    return made === null ? [] : [{ label, symbol: chord.root + made + bass }];
  });
  const steps = [
    { label: 'a half step up', symbol: transposeSymbol(chord.text, '2m') },
    { label: 'a half step down', symbol: transposeSymbol(chord.text, '-2m') },
  ];
  const own = kindOf(chord);
  return [...kinds.filter((k) => kindOf(parseChord(k.symbol) as Chord) !== own), ...steps];
}

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
  const add = (label: string, root: NoteName, suffix: string, why: string) => {
    const symbol = plainRoot(root) + suffix;
    if (symbol === from.text || symbol === to.text || found.some((f) => f.symbol === symbol)) return;
    found.push({ label, symbol, why });
  };
  const up = (steps: string) => transposeName(to.root, steps);
  const gap = (pitchClass(to.root) - pitchClass(from.root) + 12) % 12;
  add('its dominant', up('5P'), '7', `The root falls a fifth to ${to.root}.`);
  add('a half step above', up('2m'), '7', `A dominant that slides down a half step to ${to.root}.`);
  if (gap === 2)
    add('between the two', transposeName(to.root, '-2m'), 'dim7', `A diminished chord between ${from.root} and ${to.root}.`);
  if (gap === 10) {
    const between = transposeName(from.root, '-2m');
    add(
      'between the two',
      plainRoot(between),
      '7',
      `The roots fall by half steps: ${from.root}, ${plainRoot(between)}, ${to.root}.`,
    );
  }
  const fourth = scaleOf(key)[3];
  if (from.root === fourth && intervalOf(from, 3) === '3M' && key.mode === 'major') {
    add('the fourth raised', transposeName(fourth, '1A'), 'm7b5', `The root of ${from.text} rises a half step.`);
    add('the fourth turned minor', fourth, 'm6', `The third of ${from.text} falls a half step on its way.`);
  }
  return found.slice(0, 4);
}

/** Chords that turn the last one back to the start of the song, or of the part that comes again. */
export function turnBacks(key: Key): ApproachChord[] {
  const dominant = transposeName(key.tonic, '5P');
  const above = plainRoot(transposeName(key.tonic, '2m'));
  const aboveDominant = plainRoot(transposeName(dominant, '2m'));
  return [
    { label: 'back by the dominant', symbol: `${dominant}7`, why: `${dominant}7 asks for ${key.tonic} again.` },
    { label: 'a half step above home', symbol: `${above}7`, why: `${above}7 slides down to ${key.tonic} at the start.` },
    {
      label: 'a half step above the dominant',
      symbol: `${aboveDominant}7`,
      why: `${aboveDominant}7 slides down to the dominant, which leads home.`,
    },
  ];
}
