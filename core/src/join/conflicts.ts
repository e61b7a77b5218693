import { isPassing, STEP } from '../harmony/fit.js';
import { intervalOf, toneFor } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, nameOf, type Pitch } from '../pitch/pitch.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** What grates with what. */
export interface ConflictFacts {
  readonly note: Pitch;
  readonly against: Pitch;
  /** A half step, or an octave and a half step, above a chord note; or a third that says major against minor. */
  readonly kind: 'half-step' | 'third';
  /** True for a note that only passes, which is fine. */
  readonly passing: boolean;
}

/** A melody note that grates with the chord under it. */
export interface Conflict extends ConflictFacts {
  readonly at: Ticks;
  readonly chord: VoicedChord;
}

/** A half step and a half step with an octave between: farther off the ear lets it go. */
const GRATING: ReadonlySet<number> = new Set([1, 13]);

/** The note of a sounding chord that a melody note grates with, or null. Tensions that the symbol names are wanted. */
export function gratesWith(chord: Chord, sounding: readonly Pitch[], note: Pitch): Pick<Conflict, 'against' | 'kind'> | null {
  const name = nameOf(note);
  const tone = toneFor(chord, name);
  if (tone && tone.degree >= 9) return null;
  const third = intervalOf(chord, 3);
  const midi = midiOf(note);
  const above = (midi - midiOf(`${chord.root}0`) + 1200) % 12;
  for (const against of sounding) {
    const isThird = third !== null && toneFor(chord, nameOf(against))?.degree === 3;
    if (isThird && !tone && above === (third === '3M' ? 3 : 4)) return { against, kind: 'third' };
    if (GRATING.has(midi - midiOf(against))) return { against, kind: 'half-step' };
  }
  return null;
}

/** The melody notes that sound with a chord, with the ticks that each lasts there. */
export interface NotesOver {
  readonly chord: VoicedChord;
  readonly notes: readonly { readonly note: MelodyNote; readonly stays: boolean; readonly lasts: Ticks }[];
}

/**
 * The melody over every chord. A note stays where it sounds for a beat or more with the chord and does not pass from one chord note to
 * another by step off the strong counts, or falls on a strong count and does not merely pass.
 */
export function notesOver(chords: readonly VoicedChord[], tune: readonly MelodyNote[], bars: readonly Bar[]): NotesOver[] {
  let from = 0;
  return chords.map((chord) => {
    const end = chord.at + chord.length;
    while (from < tune.length && tune[from].at + tune[from].length <= chord.at) from++;
    const notes: NotesOver['notes'][number][] = [];
    for (let i = from; i < tune.length && tune[i].at < end; i++) {
      const at = Math.max(tune[i].at, chord.at);
      const lasts = Math.min(tune[i].at + tune[i].length, end) - at;
      const bar = barAt(bars, at);
      const strong = metricStrength(offsetInBar(bar, at), bar.meter) >= 3 && lasts * 2 >= beatTicks(bar.meter);
      const beat = beatTicks(bar.meter);
      const stays = lasts >= 2 * beat || (lasts >= beat && !passesThrough(tune, i, chord, strong));
      notes.push({ note: tune[i], lasts, stays: stays || (strong && lasts < beat && !isPassing(tune, i, bars)) });
    }
    return { chord, notes };
  });
}

/** The chord notes that sound while a melody note does: what is struck, a note that stays in the bass for its own sake apart. */
function soundingWith({ at, struck }: VoicedChord, chord: Chord, note: MelodyNote, lasts: Ticks): Pitch[] {
  const from = Math.max(note.at, at);
  const sounding = struck.filter((s) => s.at < from + lasts && from < s.at + s.length).map((s) => s.pitch);
  return [...new Set(sounding)].filter((p) => toneFor(chord, nameOf(p)) !== null || chord.bass === nameOf(p));
}

/** True for a note off the strong counts that goes by step from one note of the chord to another, or to the same. */
function passesThrough(tune: readonly MelodyNote[], i: number, { symbol }: VoicedChord, strong: boolean): boolean {
  const chord = parseChord(symbol);
  if (strong || chord.kind !== 'chord') return false;
  return [tune[i - 1], tune[i + 1]].every(
    (near) =>
      near !== undefined &&
      Math.abs(midiOf(near.pitch) - midiOf(tune[i].pitch)) <= STEP &&
      toneFor(chord, nameOf(near.pitch)) !== null,
  );
}

/** Every melody note that grates with its chord, those that only pass among them. */
export function findConflicts(over: readonly NotesOver[]): Conflict[] {
  return over.flatMap(({ chord, notes }) => {
    const parsed = parseChord(chord.symbol);
    if (parsed.kind !== 'chord') return [];
    return notes.flatMap(({ note, stays, lasts }): Conflict[] => {
      const hit = gratesWith(parsed, soundingWith(chord, parsed, note, lasts), note.pitch);
      return hit ? [{ ...hit, at: Math.max(note.at, chord.at), chord, note: note.pitch, passing: !stays }] : [];
    });
  });
}
