import { VOCABULARIES, type Vocabulary } from './wishes.js';
import { pitchClass, transposeName } from '../pitch/pitch.js';
import type { Key, Mode } from './key.js';
import { plainRoot } from './naming.js';
import { parseChord, type Chord } from './symbol.js';
import { remembered } from '../lists/remembered.js';

/** What a chord does in its key, for the ways that lead on from it. */
export type Role = 'tonic' | 'predominant' | 'dominant' | 'secondary' | 'colour';

/** What a chord is in its key; "outside" for one that no key of the vocabulary knows. */
export type ChordFunction =
  | 'home'
  | 'fourth'
  | 'dominant'
  | 'relative-minor'
  | 'minor-second'
  | 'minor-third'
  | 'dominant-third-below'
  | 'dominant-seventh'
  | 'second-seventh'
  | 'home-major-seventh'
  | 'fourth-major-seventh'
  | 'relative-minor-seventh'
  | 'third-seventh'
  | 'leading-half-diminished'
  | 'dominant-of-dominant'
  | 'dominant-of-relative-minor'
  | 'dominant-of-second'
  | 'dominant-of-fourth'
  | 'dominant-of-third'
  | 'fourth-minor'
  | 'raised-fourth'
  | 'passing-diminished'
  | 'tritone-substitute'
  | 'sixth-major'
  | 'relative-major'
  | 'subtonic'
  | 'second-half-diminished'
  | 'home-seventh'
  | 'fourth-seventh'
  | 'sixth-major-seventh'
  | 'relative-major-seventh'
  | 'dominant-of-relative-major'
  | 'dominant-of-sixth'
  | 'leading-diminished'
  | 'dominant-minor'
  | 'dominant-minor-seventh'
  | 'fourth-major'
  | 'fourth-dominant-seventh'
  | 'subtonic-major-seventh'
  | 'subtonic-minor'
  | 'second-flat'
  | 'second-major'
  | 'leading-minor'
  | 'outside';

/** A chord of a key that may be suggested. */
export interface KeyChord {
  readonly chord: Chord;
  readonly symbol: string;
  readonly role: Role;
  /** What it costs to choose it at all, in the units of the suggestion's table: plain chords are cheap. */
  readonly price: number;
  /** Pitch classes of the roots it wants to move to, or null where it is free. */
  readonly leadsTo: readonly number[] | null;
  /** The scale degree of its root, 1–7, or null for one outside the scale. */
  readonly degree: number | null;
  /** What it is in this key. */
  readonly what: ChordFunction;
}

interface Entry {
  readonly up: string;
  readonly suffix: string;
  /** Interval of the bass, where it is not the root. */
  readonly bass?: string;
  readonly from: Vocabulary;
  readonly role: Role;
  readonly price: number;
  readonly leads?: readonly string[];
  readonly degree: number | null;
  readonly what: ChordFunction;
}

const row = (
  up: string,
  suffix: string,
  from: Vocabulary,
  role: Role,
  price: number,
  degree: number | null,
  what: ChordFunction,
  more: Pick<Entry, 'bass' | 'leads'> = {},
): Entry => ({ up, suffix, from, role, price, degree, what, ...more });

/** The chords of a major key: their root above the tonic, their kind, and what they are for. */
const MAJOR: readonly Entry[] = [
  row('1P', '', 'three', 'tonic', 0, 1, 'home'),
  row('4P', '', 'three', 'predominant', 0.3, 4, 'fourth'),
  row('5P', '', 'three', 'dominant', 0.2, 5, 'dominant'),
  row('6M', 'm', 'triads', 'tonic', 0.7, 6, 'relative-minor'),
  row('2M', 'm', 'triads', 'predominant', 0.6, 2, 'minor-second'),
  row('3M', 'm', 'triads', 'tonic', 1.5, 3, 'minor-third'),
  row('5P', '', 'triads', 'dominant', 1, 5, 'dominant-third-below', { bass: '7M', leads: ['1P', '6M'] }),
  row('5P', '7', 'sevenths', 'dominant', 0.1, 5, 'dominant-seventh'),
  row('2M', 'm7', 'sevenths', 'predominant', 0.5, 2, 'second-seventh'),
  row('1P', 'maj7', 'sevenths', 'tonic', 0.5, 1, 'home-major-seventh'),
  row('4P', 'maj7', 'sevenths', 'predominant', 0.6, 4, 'fourth-major-seventh'),
  row('6M', 'm7', 'sevenths', 'tonic', 0.8, 6, 'relative-minor-seventh'),
  row('3M', 'm7', 'sevenths', 'tonic', 1.3, 3, 'third-seventh'),
  row('7M', 'm7b5', 'sevenths', 'dominant', 1.7, 7, 'leading-half-diminished', { leads: ['1P', '3M'] }),
  row('2M', '7', 'rich', 'secondary', 1.4, 2, 'dominant-of-dominant', { leads: ['5P'] }),
  row('3M', '7', 'rich', 'secondary', 1.5, 3, 'dominant-of-relative-minor', { leads: ['6M'] }),
  row('6M', '7', 'rich', 'secondary', 1.5, 6, 'dominant-of-second', { leads: ['2M'] }),
  row('1P', '7', 'rich', 'secondary', 1.5, 1, 'dominant-of-fourth', { leads: ['4P'] }),
  row('7M', '7', 'rich', 'secondary', 1.9, 7, 'dominant-of-third', { leads: ['3M'] }),
  row('4P', 'm', 'rich', 'colour', 1.5, 4, 'fourth-minor', { leads: ['1P', '5P'] }),
  row('4A', 'm7b5', 'rich', 'colour', 1.9, null, 'raised-fourth', { leads: ['5P', '1P', '3M'] }),
  row('1A', 'dim7', 'rich', 'colour', 2, null, 'passing-diminished', { leads: ['2M'] }),
  row('2A', 'dim7', 'rich', 'colour', 2.2, null, 'passing-diminished', { leads: ['3M'] }),
  row('5A', 'dim7', 'rich', 'colour', 2.1, null, 'passing-diminished', { leads: ['6M'] }),
  row('2m', '7', 'rich', 'colour', 2, null, 'tritone-substitute', { leads: ['1P'] }),
];

/** The chords of a minor key. */
const MINOR: readonly Entry[] = [
  row('1P', 'm', 'three', 'tonic', 0, 1, 'home'),
  row('4P', 'm', 'three', 'predominant', 0.3, 4, 'fourth'),
  row('5P', '', 'three', 'dominant', 0.2, 5, 'dominant'),
  row('6m', '', 'triads', 'predominant', 0.6, 6, 'sixth-major'),
  row('3m', '', 'triads', 'tonic', 0.8, 3, 'relative-major'),
  row('7m', '', 'triads', 'dominant', 0.5, 7, 'subtonic'),
  row('5P', 'm', 'triads', 'colour', 1, 5, 'dominant-minor'),
  row('5P', '', 'triads', 'dominant', 1, 5, 'dominant-third-below', { bass: '7M', leads: ['1P', '6m'] }),
  row('5P', '7', 'sevenths', 'dominant', 0.1, 5, 'dominant-seventh'),
  row('2M', 'm7b5', 'sevenths', 'predominant', 0.8, 2, 'second-half-diminished', {
    leads: ['5P', '1P'],
  }),
  row('1P', 'm7', 'sevenths', 'tonic', 0.5, 1, 'home-seventh'),
  row('4P', 'm7', 'sevenths', 'predominant', 0.5, 4, 'fourth-seventh'),
  row('6m', 'maj7', 'sevenths', 'predominant', 0.7, 6, 'sixth-major-seventh'),
  row('3m', 'maj7', 'sevenths', 'tonic', 1, 3, 'relative-major-seventh'),
  row('7m', '7', 'sevenths', 'dominant', 0.9, 7, 'dominant-of-relative-major', { leads: ['3m', '1P'] }),
  row('4P', '', 'rich', 'colour', 1.2, 4, 'fourth-major'),
  row('1P', '7', 'rich', 'secondary', 1.5, 1, 'dominant-of-fourth', { leads: ['4P'] }),
  row('2M', '7', 'rich', 'secondary', 1.5, 2, 'dominant-of-dominant', { leads: ['5P'] }),
  row('3m', '7', 'rich', 'secondary', 1.8, 3, 'dominant-of-sixth', { leads: ['6m'] }),
  row('4A', 'm7b5', 'rich', 'colour', 1.9, null, 'raised-fourth', { leads: ['5P', '1P'] }),
  row('4A', 'dim7', 'rich', 'colour', 2, null, 'passing-diminished', { leads: ['5P'] }),
  row('7M', 'dim7', 'rich', 'dominant', 1.5, 7, 'leading-diminished', { leads: ['1P'] }),
  row('2m', '7', 'rich', 'colour', 2, null, 'tritone-substitute', { leads: ['1P'] }),
];

/** The chords of a Dorian key: its major IV and the VII a whole step below home stand where minor keys have iv and V. */
const DORIAN: readonly Entry[] = [
  row('1P', 'm', 'three', 'tonic', 0, 1, 'home'),
  row('7m', '', 'three', 'dominant', 0.1, 7, 'subtonic'),
  row('4P', '', 'three', 'predominant', 0.3, 4, 'fourth-major'),
  row('3m', '', 'triads', 'tonic', 0.7, 3, 'relative-major'),
  row('5P', 'm', 'triads', 'dominant', 0.6, 5, 'dominant-minor'),
  row('2M', 'm', 'triads', 'predominant', 0.9, 2, 'minor-second'),
  row('5P', '', 'triads', 'dominant', 1.1, 5, 'dominant'),
  row('1P', 'm7', 'sevenths', 'tonic', 0.4, 1, 'home-seventh'),
  row('4P', '7', 'sevenths', 'predominant', 0.5, 4, 'fourth-dominant-seventh'),
  row('7m', 'maj7', 'sevenths', 'dominant', 0.7, 7, 'subtonic-major-seventh'),
  row('3m', 'maj7', 'sevenths', 'tonic', 0.9, 3, 'relative-major-seventh'),
  row('5P', 'm7', 'sevenths', 'dominant', 0.6, 5, 'dominant-minor-seventh'),
  row('2M', 'm7', 'sevenths', 'predominant', 0.9, 2, 'second-seventh'),
  row('5P', '7', 'rich', 'dominant', 1.2, 5, 'dominant-seventh'),
  row('4P', 'm', 'rich', 'colour', 1.5, 4, 'fourth-minor'),
  row('6m', '', 'rich', 'colour', 1.5, 6, 'sixth-major'),
  row('2M', '7', 'rich', 'secondary', 1.8, 2, 'dominant-of-dominant', { leads: ['5P'] }),
];

/** The chords of a Mixolydian key: the VII a whole step below home closes its phrases. */
const MIXOLYDIAN: readonly Entry[] = [
  row('1P', '', 'three', 'tonic', 0, 1, 'home'),
  row('7m', '', 'three', 'dominant', 0.1, 7, 'subtonic'),
  row('4P', '', 'three', 'predominant', 0.3, 4, 'fourth'),
  row('5P', 'm', 'triads', 'dominant', 0.6, 5, 'dominant-minor'),
  row('6M', 'm', 'triads', 'tonic', 0.8, 6, 'relative-minor'),
  row('2M', 'm', 'triads', 'predominant', 0.7, 2, 'minor-second'),
  row('5P', '', 'triads', 'dominant', 0.9, 5, 'dominant'),
  row('1P', '7', 'sevenths', 'tonic', 0.5, 1, 'home-seventh'),
  row('7m', 'maj7', 'sevenths', 'dominant', 0.6, 7, 'subtonic-major-seventh'),
  row('4P', 'maj7', 'sevenths', 'predominant', 0.6, 4, 'fourth-major-seventh'),
  row('5P', 'm7', 'sevenths', 'dominant', 0.6, 5, 'dominant-minor-seventh'),
  row('6M', 'm7', 'sevenths', 'tonic', 0.9, 6, 'relative-minor-seventh'),
  row('2M', 'm7', 'sevenths', 'predominant', 0.7, 2, 'second-seventh'),
  row('5P', '7', 'rich', 'dominant', 1.1, 5, 'dominant-seventh'),
  row('4P', 'm', 'rich', 'colour', 1.5, 4, 'fourth-minor', { leads: ['1P'] }),
  row('3m', '', 'rich', 'colour', 1.6, null, 'relative-major'),
  row('2M', '7', 'rich', 'secondary', 1.6, 2, 'dominant-of-dominant', { leads: ['5P'] }),
];

/** The chords of a Phrygian key: its II a half step above home leads down to it. */
const PHRYGIAN: readonly Entry[] = [
  row('1P', 'm', 'three', 'tonic', 0, 1, 'home'),
  row('2m', '', 'three', 'dominant', 0.1, 2, 'second-flat'),
  row('7m', 'm', 'three', 'dominant', 0.3, 7, 'subtonic-minor'),
  row('6m', '', 'triads', 'predominant', 0.6, 6, 'sixth-major'),
  row('3m', '', 'triads', 'tonic', 0.8, 3, 'relative-major'),
  row('4P', 'm', 'triads', 'predominant', 0.5, 4, 'fourth'),
  row('1P', '', 'triads', 'tonic', 1.2, 1, 'home'),
  row('1P', 'm7', 'sevenths', 'tonic', 0.5, 1, 'home-seventh'),
  row('2m', 'maj7', 'sevenths', 'dominant', 0.5, 2, 'second-flat'),
  row('7m', 'm7', 'sevenths', 'dominant', 0.6, 7, 'subtonic-minor'),
  row('6m', 'maj7', 'sevenths', 'predominant', 0.8, 6, 'sixth-major-seventh'),
  row('4P', 'm7', 'sevenths', 'predominant', 0.7, 4, 'fourth-seventh'),
  row('3m', '7', 'sevenths', 'secondary', 1.2, 3, 'dominant-of-sixth', { leads: ['6m'] }),
  row('5P', '7', 'rich', 'dominant', 1.5, 5, 'dominant-seventh'),
];

/** The chords of a Lydian key: its major II stands where major keys have IV. */
const LYDIAN: readonly Entry[] = [
  row('1P', '', 'three', 'tonic', 0, 1, 'home'),
  row('2M', '', 'three', 'predominant', 0.2, 2, 'second-major'),
  row('5P', '', 'three', 'dominant', 0.2, 5, 'dominant'),
  row('6M', 'm', 'triads', 'tonic', 0.7, 6, 'relative-minor'),
  row('3M', 'm', 'triads', 'tonic', 1.2, 3, 'minor-third'),
  row('7M', 'm', 'triads', 'dominant', 0.9, 7, 'leading-minor'),
  row('1P', 'maj7', 'sevenths', 'tonic', 0.4, 1, 'home-major-seventh'),
  row('2M', '7', 'sevenths', 'predominant', 0.5, 2, 'dominant-of-dominant'),
  row('5P', 'maj7', 'sevenths', 'dominant', 0.6, 5, 'dominant'),
  row('6M', 'm7', 'sevenths', 'tonic', 0.8, 6, 'relative-minor-seventh'),
  row('3M', 'm7', 'sevenths', 'tonic', 1.3, 3, 'third-seventh'),
  row('5P', '7', 'rich', 'dominant', 1.4, 5, 'dominant-seventh'),
  row('4P', '', 'rich', 'colour', 1.5, null, 'fourth'),
];

const CHORDS: Readonly<Record<Mode, readonly Entry[]>> = {
  major: MAJOR,
  minor: MINOR,
  dorian: DORIAN,
  mixolydian: MIXOLYDIAN,
  phrygian: PHRYGIAN,
  lydian: LYDIAN,
};

/**
 * The chords of a key that a vocabulary holds: three chords; the six triads, with the diminished seventh degree given
 * as the dominant in first inversion; the diatonic sevenths; or all with their secondary dominants and colours.
 */
export const keyChords: (key: Key, vocabulary: Vocabulary) => readonly KeyChord[] = remembered(
  1000,
  (key, vocabulary) => `${key.tonic} ${key.mode} ${vocabulary}`,
  (key, vocabulary) => {
    const most = VOCABULARIES.indexOf(vocabulary);
    const entries = CHORDS[key.mode].filter((e) => VOCABULARIES.indexOf(e.from) <= most);
    return entries.map((e) => build(e, key));
  },
);

function build(entry: Entry, key: Key): KeyChord {
  const name = (interval: string) => plainRoot(transposeName(key.tonic, interval));
  const symbol = name(entry.up) + entry.suffix + (entry.bass ? `/${name(entry.bass)}` : '');
  return {
    chord: parseChord(symbol) as Chord,
    symbol,
    role: entry.role,
    price: entry.price,
    leadsTo: entry.leads?.map((i) => pitchClass(transposeName(key.tonic, i))) ?? null,
    degree: entry.degree,
    what: entry.what,
  };
}
