import type { Chord, ChordTone } from '../harmony/symbol.js';
import { inversionOf } from '../harmony/naming.js';
import { midiOf, pitchAt, pitchClass, type NoteName, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf, type Hands, type School } from '../song/decisions.js';
import { VOICING_COSTS } from './costs.js';
import { SCHOOL_RULES } from './schools.js';

/** Which notes of the chord a voicing keeps. */
export type Form = 'full' | 'no-fifth' | 'two-note' | 'one-note' | 'rootless';

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

/** Notes to play, bottom note first where their order is given. */
export interface NoteSet {
  readonly form: Form;
  readonly names: readonly NoteName[];
}

/** A note set as a school lays it: which turns it may take, and whether the hand may strike it one after the other. */
interface ShapePattern extends NoteSet {
  /** Which notes may lie at the bottom, the rest close above it; null where the order is given. */
  readonly turns: 'any' | 'root' | null;
  /** Semitones from the bottom note up to each of the others, where the school says how far apart they lie. */
  readonly gaps: readonly number[] | null;
  readonly price: number;
}

const byDegree = (chord: Chord, ...degrees: number[]): ChordTone[] =>
  degrees.map((d) => chord.tones.find((t) => t.degree === d)).filter((t): t is ChordTone => t !== undefined);

const rootOf = (chord: Chord) => byDegree(chord, 1);
/** The third, or what stands in its place. */
const thirdOf = (chord: Chord) => byDegree(chord, 3, 4, 2).slice(0, 1);
const fifthOf = (chord: Chord) => byDegree(chord, 5);
const seventhOf = (chord: Chord) => byDegree(chord, 7, 6).slice(0, 1);

/** The note sets a chord may be played with, fullest first; at most four notes. */
export function noteSets(chord: Chord): NoteSet[] {
  const sets: NoteSet[] = [];
  const add = (form: Form, tones: readonly ChordTone[]) => {
    const names = [...new Set(tones.map((t) => t.name))];
    if (names.length === 0 || sets.some((s) => s.names.join() === names.join())) return;
    sets.push({ form, names });
  };
  const [root, third, fifth, seventh] = [rootOf(chord), thirdOf(chord), fifthOf(chord), seventhOf(chord)];
  const tensions = byDegree(chord, 13, 11, 9);
  if (chord.tones.length <= 4) add('full', chord.tones);
  else {
    const top = tensions.slice(0, 1);
    add('no-fifth', [...root, ...third, ...seventh, ...top]);
    if (third.length > 0 && seventh.length > 0) {
      const second = tensions.slice(1, 2);
      add('rootless', [...third, ...(second.length ? second : fifth), ...seventh, ...top]);
    }
  }
  if (seventh.length > 0) {
    add('no-fifth', [...root, ...third, ...seventh]);
    add('two-note', [...third, ...seventh]);
    add('two-note', [...root, ...seventh]);
  } else if (tensions.length > 0 && chord.tones.length <= 4) add('no-fifth', [...root, ...third, ...tensions]);
  if (third.length > 0) add('two-note', [...root, ...third]);
  else add('two-note', [...root, ...fifth]);
  add('one-note', root);
  return sets;
}

/** What a chord costs that is not played in full. */
const THINNED: Readonly<Record<Form, number>> = {
  full: 0,
  'no-fifth': VOICING_COSTS.withoutFifth,
  'two-note': VOICING_COSTS.twoNotes,
  'one-note': VOICING_COSTS.oneNote,
  rootless: VOICING_COSTS.rootless,
};

/** The same in root position, whose point is the full chord. */
const THINNED_ROOT: Readonly<Record<Form, number>> = { ...THINNED, 'no-fifth': 30, 'two-note': 60, 'one-note': 90 };

/** What the open school charges for a plain fifth in place of its tenth. */
const NO_TENTH = 40;

/** Thirds and sevenths say which chord it is; two notes without either cost this much more. */
const BARE = 2;

/** How a school lays a chord, its own shape first. Every school can fall back on the bass note alone. */
function shapePatterns(chord: Chord, school: School): ShapePattern[] {
  const bass: NoteName = chord.bass ?? chord.root;
  const [third, fifth, seventh] = [thirdOf(chord), fifthOf(chord), seventhOf(chord)];
  const free = (set: NoteSet, price = 0): ShapePattern => ({ ...set, turns: 'any', gaps: null, price });
  /** Notes over the bass; a note that is the bass already is not doubled. */
  const over = (form: Form, tones: readonly ChordTone[], price = 0): ShapePattern[] => {
    const names = tones.map((t) => t.name).filter((n) => pitchClass(n) !== pitchClass(bass));
    return names.length === 0 ? [] : [{ form, names: [bass, ...names], turns: null, gaps: null, price }];
  };
  const alone: ShapePattern = { form: 'one-note', names: [bass], turns: null, gaps: null, price: VOICING_COSTS.fallback };
  const lastResort = chord.bass === null ? [] : [{ ...alone, price: THINNED['one-note'] + THINNED['two-note'] }];
  switch (school) {
    case 'close':
      return [...noteSets(chord).map((s) => free(s, THINNED[s.form])), ...lastResort];
    case 'root':
      return [
        ...noteSets(chord)
          .filter((s) => s.form !== 'rootless' && s.names[0] === chord.root)
          .map((s): ShapePattern => ({ ...free(s, THINNED_ROOT[s.form]), turns: 'root' })),
        ...lastResort,
      ];
    case 'two-note': {
      if (chord.bass !== null)
        return [...[third, rootOf(chord), seventh, fifth].flatMap((tones, k) => over('two-note', tones, k / 2)), alone];
      const pairs: [ChordTone[], number][] = [
        [[...third, ...seventh], 0],
        [[...rootOf(chord), ...third], 0],
        [[...rootOf(chord), ...seventh], 1],
        [[...third, ...fifth], 1],
        [[...rootOf(chord), ...fifth], BARE],
      ];
      return [
        ...pairs
          .filter(([p]) => p.length === 2)
          .map(([p, price]) => free({ form: 'two-note', names: p.map((t) => t.name) }, price)),
        alone,
      ];
    }
    case 'shell':
      return [...over('two-note', seventh), ...over('two-note', third, seventh.length > 0 ? 1 : 0), alone];
    case 'fifths':
      return [...over('two-note', fifth), ...(chord.bass === null ? [] : over('two-note', rootOf(chord))), alone];
    case 'open':
      return [...openLayings(chord, bass), ...over('two-note', fifth, NO_TENTH), alone];
    case 'octave':
      return [{ form: 'two-note', names: [bass, bass], turns: null, gaps: [12], price: 0 }, alone];
    case 'single-bass':
      return [{ ...alone, price: 0 }];
    case 'under-melody':
      return [
        { ...alone, price: 0 },
        { form: 'two-note', names: [bass, bass], turns: null, gaps: [12], price: 2 },
      ];
  }
}

/** The bass, the fifth or seventh over it, and the third a tenth above. */
function openLayings(chord: Chord, bass: NoteName): ShapePattern[] {
  const [root] = rootOf(chord);
  const over = (name: NoteName, octaves: number) => ((pitchClass(name) - pitchClass(bass) + 12) % 12 || 12) + 12 * octaves;
  const found: ShapePattern[] = [];
  const add = (middle: ChordTone | undefined, top: ChordTone | undefined, price: number) => {
    if (!middle || !top || [middle, top].some((t) => pitchClass(t.name) === pitchClass(bass))) return;
    const low = over(middle.name, 0);
    // The top lies past the octave; over a foreign bass it keeps clear of the middle note all the same.
    const high = over(top.name, 1);
    found.push({ form: 'full', names: [bass, middle.name, top.name], turns: null, gaps: [low, high], price });
  };
  const [third] = thirdOf(chord);
  const [fifth] = fifthOf(chord);
  const [seventh] = seventhOf(chord);
  if (chord.bass === null) {
    add(fifth, third, seventh ? 1 : 0);
    add(seventh, third, 0);
  } else {
    add(fifth, root, 0);
    add(fifth, third, 0);
    add(root, third, 0);
  }
  return found;
}

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
export function voicingsFor(chord: Chord, hands: Hands, school: School = 'close'): Voicing[] {
  const { limit } = spanOf(hands, 'left');
  const keyboard = KEYBOARDS[hands.keys];
  const { register } = SCHOOL_RULES[school];
  const low = Math.max(keyboard.low, register.low);
  const high = Math.min(keyboard.high, register.high);
  const found: Voicing[] = [];
  for (const laying of shapePatterns(chord, school)) {
    for (const names of stacks(laying, chord.bass)) {
      for (let octave = 1; octave <= 5; octave++) {
        const pitches = laying.gaps === null ? stackUp(names, octave) : stackAt(names, laying.gaps, octave);
        const midis = pitches.map(midiOf);
        const [bottom, top] = [midis[0], midis[midis.length - 1]];
        if (bottom < low || top > high) continue;
        const spread = top - bottom > limit;
        if (spread && (laying.gaps === null || top - midis[1] > limit)) continue;
        const { form, price } = laying;
        found.push({ pitches, midis, form, inversion: inversionOf(chord, names[0]), spread, price });
      }
    }
  }
  return found;
}

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
  const sorted = [...pitches].sort((a, b) => midiOf(a) - midiOf(b));
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
