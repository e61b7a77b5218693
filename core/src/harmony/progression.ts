import { pitchClass } from '../pitch/pitch.js';
import { scaleOf, type Key } from './key.js';
import { intervalOf } from './naming.js';
import { parseChord, type Chord } from './symbol.js';
import { keyChords, type KeyChord } from './vocabulary.js';

/**
 * What a row of chords costs beside the fit to the tune, in weighted beats of a note outside its chord. Starting
 * points after the usual rules of harmony: roots that fall by fifths, dominants that resolve, endings at home.
 */
export const PROGRESSION_COSTS = {
  /** By the semitones that the root moves up; a fifth down is the strongest. */
  rootMotion: [0, 0.4, 0.1, 0.2, 0.2, -0.4, 0.7, 0, -0.1, -0.2, 0.2, 0.3],
  /** A dominant that goes home, that goes elsewhere, that falls back. */
  resolves: -0.5,
  backwards: 0.5,
  /** A chord that wants to lead on, and does or does not. */
  ledOn: -0.8,
  leftHanging: 2.5,
  /** A part that ends at home, on the dominant, or elsewhere. */
  endsHome: -1,
  endsDominant: -0.4,
  endsElsewhere: 0.4,
  /** The same where the tune itself stays open, on a note that is neither the tonic nor its third. */
  openHome: -0.65,
  openDominant: -0.8,
  /** A chord that is not the one that the same tune had before. */
  unlikeBefore: 1.5,
  /** A chord that has not moved along with the tune where it comes again on other steps of the scale. */
  unlikeMoved: 0.8,
  /** The end and the start of the song away from home. */
  lastElsewhere: 6,
  firstElsewhere: 3,
  /** A dominant that goes home where a part closes. */
  cadence: -1,
  /** Leaving the key for a near one, coming back, and each bar spent away. */
  leavesKey: 4.2,
  comesBack: 1,
  barAway: 0.8,
} as const;

/** True for the home chord of its key. */
export const isHome = ({ role, degree }: KeyChord): boolean => role === 'tonic' && degree === 1;

/** What it costs a part to end on a chord, under the pitch class of its last note. */
export function endingCost(chord: KeyChord, last: number, key: Key): number {
  const C = PROGRESSION_COSTS;
  const [tonic, , third] = scaleOf(key).map(pitchClass);
  const open = last !== tonic && last !== third;
  if (isHome(chord)) return open ? C.openHome : C.endsHome;
  if (chord.role === 'dominant') return open ? C.openDominant : C.endsDominant;
  return C.endsElsewhere;
}

/** What one chord after another costs within a key, without the charge for changing at all. */
export function progressionCost(from: KeyChord, to: KeyChord): number {
  if (from.symbol === to.symbol) return 0;
  const C = PROGRESSION_COSTS;
  const root = pitchClass(to.chord.root);
  const sameRoot = root === pitchClass(from.chord.root);
  let cost: number = C.rootMotion[(root - pitchClass(from.chord.root) + 12) % 12];
  if (from.leadsTo !== null && !sameRoot) cost += from.leadsTo.includes(root) ? C.ledOn : C.leftHanging;
  if (from.role === 'dominant' && to.role === 'tonic') cost += C.resolves;
  if (from.role === 'dominant' && to.role === 'predominant') cost += C.backwards;
  return cost;
}

const FIFTH_DOWN = 5;

/** Any chord as a key hears it: one of its own, or a stranger that leads on where it is a dominant seventh. */
export function asKeyChord(symbol: string, key: Key): KeyChord | null {
  const chord = parseChord(symbol);
  if (chord.kind !== 'chord') return null;
  const own = keyChords(key, 'rich');
  const exact = own.find((c) => c.symbol === chord.text);
  if (exact) return exact;
  const akin = own.find((c) => c.chord.root === chord.root && c.chord.bass === null && sameKind(c.chord, chord));
  if (akin) return { ...akin, chord, symbol: chord.text };
  const dominant = intervalOf(chord, 3) === '3M' && intervalOf(chord, 7) === '7m';
  const degree = scaleOf(key).findIndex((n) => pitchClass(n) === pitchClass(chord.root));
  return {
    chord,
    symbol: chord.text,
    role: dominant ? 'secondary' : 'colour',
    price: 1.5,
    leadsTo: dominant ? [(pitchClass(chord.root) + FIFTH_DOWN) % 12, (pitchClass(chord.root) + 11) % 12] : null,
    degree: degree < 0 ? null : degree + 1,
    what: 'outside',
  };
}

/** Two chords on one root of the same kind: thirds, fifths and sevenths agree where both have them. */
function sameKind(a: Chord, b: Chord): boolean {
  return [3, 5, 7].every((d) => {
    const [x, y] = [intervalOf(a, d), intervalOf(b, d)];
    return x === null || y === null || x === y;
  });
}
