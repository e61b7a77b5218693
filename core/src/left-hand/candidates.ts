import type { Chord, ChordTone } from '../harmony/symbol.js';
import { inversionOf } from '../harmony/naming.js';
import { midiOf, pitchAt, pitchClass, type NoteName, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, SPANS, type Hands } from '../song/decisions.js';
import { REGISTER } from './costs.js';

/** Which notes of the chord a voicing keeps. */
export type Form = 'full' | 'no-fifth' | 'two-note' | 'one-note' | 'rootless';

/** One way to play a chord with the left hand, notes bottom-up. */
export interface Voicing {
  readonly pitches: readonly Pitch[];
  readonly midis: readonly number[];
  readonly form: Form;
  /** 0 root position, 1–3 inversions, null where a note outside 1-3-5-7 lies at the bottom. */
  readonly inversion: number | null;
}

interface NoteSet {
  readonly form: Form;
  readonly names: readonly NoteName[];
}

const byDegree = (chord: Chord, ...degrees: number[]): ChordTone[] =>
  degrees.map((d) => chord.tones.find((t) => t.degree === d)).filter((t): t is ChordTone => t !== undefined);

/** The note sets a chord may be played with, fullest first; at most four notes. */
export function noteSets(chord: Chord): NoteSet[] {
  const sets: NoteSet[] = [];
  const add = (form: Form, tones: readonly ChordTone[]) => {
    const names = [...new Set(tones.map((t) => t.name))];
    if (names.length === 0 || sets.some((s) => s.names.join() === names.join())) return;
    sets.push({ form, names });
  };
  const root = byDegree(chord, 1);
  const third = byDegree(chord, 3, 4, 2).slice(0, 1);
  const fifth = byDegree(chord, 5);
  const seventh = byDegree(chord, 7, 6).slice(0, 1);
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

/** Every order of a note set from its bottom note up, close together; a foreign bass stays below. */
function stacks(set: NoteSet, bass: NoteName | null): NoteName[][] {
  const sorted = [...set.names].sort((a, b) => pitchClass(a) - pitchClass(b));
  const turns = sorted.map((_, i) => [...sorted.slice(i), ...sorted.slice(0, i)]);
  if (bass === null) return turns;
  const pc = pitchClass(bass);
  if (sorted.some((n) => pitchClass(n) === pc)) return turns.filter((t) => pitchClass(t[0]) === pc);
  const above = turns.map((t) => [bass, ...t]);
  // Four notes over a foreign bass are more than a hand holds: thinner sets follow by themselves.
  return above.filter((t) => t.length <= 4);
}

/**
 * All voicings of a chord that this hand can play on this keyboard, in every inversion, within the usual register
 * where any fits there. Always at least one: a single note, when nothing more fits.
 */
export function voicingsFor(chord: Chord, hands: Hands): Voicing[] {
  const limit = SPANS[hands.profile].limit;
  const keyboard = KEYBOARDS[hands.keys];
  const within = (low: number, high: number) => {
    const found: Voicing[] = [];
    for (const set of noteSets(chord)) {
      for (const names of stacks(set, chord.bass)) {
        for (let octave = 1; octave <= 5; octave++) {
          const pitches = stackUp(names, octave);
          const midis = pitches.map(midiOf);
          if (midis[0] < low || midis[midis.length - 1] > high) continue;
          if (midis[midis.length - 1] - midis[0] > limit) continue;
          found.push({ pitches, midis, form: set.form, inversion: inversionOf(chord, names[0]) });
        }
      }
    }
    return found;
  };
  const usual = within(Math.max(keyboard.low, REGISTER.low), Math.min(keyboard.high, REGISTER.high));
  if (usual.length > 0) return usual;
  const anywhere = within(keyboard.low, keyboard.high);
  return anywhere.length > 0 ? anywhere : singleBass(chord, keyboard.low);
}

/** The bass note alone, at the lowest place from C3 up: what is left when the written bass and any chord note are out of reach. */
function singleBass(chord: Chord, low: number): Voicing[] {
  const name = chord.bass ?? chord.root;
  const midi = Math.max(48, low) + ((pitchClass(name) - (Math.max(48, low) % 12) + 12) % 12);
  return [{ pitches: [pitchAt(name, midi)], midis: [midi], form: 'one-note', inversion: inversionOf(chord, name) }];
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
  };
}
