import { reachableBy } from '../fingers/chords.js';
import type { Chord } from '../harmony/symbol.js';
import { inversionOf } from '../harmony/naming.js';
import { bottomUp, midiOf, pitchAt, pitchClass, type NoteName, type Pitch } from '../pitch/pitch.js';
import { COMFORT_FIRST } from './costs.js';
import { KEYBOARDS, spanOf, type Hands, type School } from '../song/decisions.js';
import { SCHOOL_RULES } from '../catalogue/schools/registry.js';
import type { ShapePattern } from '../catalogue/schools/shape-pattern.js';
import type { DominantNotes } from '../catalogue/schools/thinned.js';
import type { Form } from '../catalogue/schools/thinned.js';

/** One way to play a chord with the left hand, notes bottom-up. */
export interface Voicing {
  readonly pitches: readonly Pitch[];
  readonly midis: readonly number[];
  readonly form: Form;
  /** 0 root position, 1–3 inversions, null where a note outside 1-3-5-7 lies at the bottom. */
  readonly inversion: number | null;
  /** True where the chord is wider than the hand, so that its lowest note is struck first and let go. */
  readonly spread: boolean;
  /** What the school charges for it against its first choice, in half steps of motion. */
  readonly price: number;
}

/** What is wished for the chords of a school: notes of a dominant seventh, and octaves by which they lie higher. */
export interface VoicingWish {
  readonly dominants: DominantNotes;
  readonly octave: number;
}

/** Nothing asked for: all four notes of a seventh, where the school has its usual place. */
export const USUAL_VOICING: VoicingWish = { dominants: 'four', octave: 0 };

/** Every order of a note set from its bottom note up, close together; a foreign bass stays below. */
function stacks(laying: ShapePattern, bass: NoteName | null): (readonly NoteName[])[] {
  if (laying.turns === null) return [laying.names];
  const sorted = [...laying.names].sort((a, b) => pitchClass(a) - pitchClass(b));
  const turns = sorted.map((_, i) => [...sorted.slice(i), ...sorted.slice(0, i)]);
  if (bass === null) return laying.turns === 'any' ? turns : turns.filter((t) => t[0] === laying.names[0]);
  const pc = pitchClass(bass);
  if (sorted.some((n) => pitchClass(n) === pc)) return turns.filter((t) => pitchClass(t[0]) === pc);
  const above = turns.map((t) => [bass, ...t]);
  // Four notes over a foreign bass are more than a hand holds: thinner sets follow by themselves.
  return above.filter((t) => t.length <= 4);
}

/**
 * All voicings of a chord in a school that this hand can play on this keyboard, within the school's usual register.
 * Where the school's own shape is wider than the hand it is spread: its lowest note first, the rest within reach.
 * Always at least one: the bass note alone, which every register holds.
 */
export function voicingsFor(chord: Chord, hands: Hands, school: School = 'close', wish: VoicingWish = USUAL_VOICING): Voicing[] {
  const { limit } = spanOf(hands, 'left');
  const keyboard = KEYBOARDS[hands.keys];
  const { register, patterns } = SCHOOL_RULES[school];
  const low = Math.max(keyboard.low, register.low + 12 * wish.octave);
  const high = Math.min(keyboard.high, register.high + 12 * wish.octave);
  const reachable = reachableBy(hands, 'left');
  const found: Voicing[] = [];
  for (const laying of patterns(chord, wish.dominants)) {
    for (const names of stacks(laying, chord.bass)) {
      for (let octave = 0; octave <= 6; octave++) {
        const pitches = laying.gaps === null ? stackUp(names, octave) : stackAt(names, laying.gaps, octave);
        const midis = pitches.map(midiOf);
        const [bottom, top] = [midis[0], midis[midis.length - 1]];
        if (bottom < low || top > high) continue;
        const spread = top - bottom > limit;
        if (spread && (laying.gaps === null || top - midis[1] > limit)) continue;
        if (!reachable(spread ? midis.slice(1) : midis)) continue;
        const { form, price } = laying;
        found.push({ pitches, midis, form, inversion: inversionOf(chord, names[0]), spread, price });
      }
    }
  }
  const clear = unlessEmpty(found, (v) => !isClustered(v.midis) && !isLowSecond(v.midis));
  const { comfortable } = spanOf(hands, 'left');
  return comfortable <= COMFORT_FIRST ? unlessEmpty(clear, (v) => isWithin(v, comfortable)) : clear;
}

/** The voicings that pass a test, or all where none but the bass alone does. */
function unlessEmpty(voicings: Voicing[], test: (v: Voicing) => boolean): Voicing[] {
  const passed = voicings.filter(test);
  return passed.some((v) => v.midis.length > 1) || voicings.every((v) => v.midis.length === 1) ? passed : voicings;
}

/** True where the keys that are held together lie within a span. */
function isWithin({ midis, spread }: Voicing, span: number): boolean {
  return midis[midis.length - 1] - midis[spread ? 1 : 0] <= span;
}

/** Half steps within which three notes side by side are a cluster. */
const CLUSTER = 4;

/** True where three notes of a chord lie side by side. */
const isClustered = (midis: readonly number[]): boolean => midis.some((m, i) => i >= 2 && m - midis[i - 2] <= CLUSTER);

/** The lowest key on which a second may be the lowest interval of a chord: E3. */
const LOWEST_SECOND = 52;

/** True where the lowest interval of a chord is a second so low that it growls. */
const isLowSecond = (midis: readonly number[]): boolean =>
  midis.length > 1 && midis[1] - midis[0] <= 2 && midis[0] < LOWEST_SECOND;

function stackUp(names: readonly NoteName[], octave: number): Pitch[] {
  const pitches = [`${names[0]}${octave}`];
  let last = midiOf(pitches[0]);
  for (const name of names.slice(1)) {
    const step = (pitchClass(name) - (last % 12) + 12) % 12 || 12;
    last += step;
    pitches.push(pitchAt(name, last));
  }
  return pitches;
}

function stackAt(names: readonly NoteName[], gaps: readonly number[], octave: number): Pitch[] {
  const bottom = `${names[0]}${octave}`;
  return [bottom, ...gaps.map((gap, i) => pitchAt(names[i + 1], midiOf(bottom) + gap))];
}

/** A voicing for keys that the pianist pinned, as they stand. */
export function pinnedVoicing(chord: Chord, pitches: readonly Pitch[]): Voicing {
  const sorted = bottomUp(pitches);
  const names = sorted.map((p) => pitchClass(p.replace(/-?\d+$/, '')));
  const has = (degree: number) => chord.tones.some((t) => t.degree === degree && names.includes(pitchClass(t.name)));
  const form: Form =
    sorted.length === 1 ? 'one-note' : sorted.length === 2 ? 'two-note' : !has(1) ? 'rootless' : has(5) ? 'full' : 'no-fifth';
  return {
    pitches: sorted,
    midis: sorted.map(midiOf),
    form: chord.tones.length === sorted.length && form === 'no-fifth' ? 'full' : form,
    inversion: inversionOf(chord, sorted[0].replace(/-?\d+$/, '')),
    spread: false,
    price: 0,
  };
}
