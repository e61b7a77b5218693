import { parseChord, type Chord } from '../harmony/symbol.js';
import type { SoundingNote } from '../join/collisions.js';
import { CLEAR_OF_TUNE } from '../left-hand/costs.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, octaveUp, pitchAt, pitchClass, type Pitch } from '../pitch/pitch.js';
import { hangable, type UnderNote } from '../right-hand/under-melody.js';
import { KEYBOARDS, spanOf, type Hands, type Harmony } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, cutAt, firstAtOrAfter, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** Never every note of the tune. */
export const MOST_HARMONY = 80;

/** What speaks for harmony under a note: its length in beats, its place in the bar. */
const WEIGHT = { beat: 1, strength: 0.8, longestBeats: 4 } as const;

/** Half steps under the tune at which one chord note lies best, best first: sixths and thirds before fourths and fifths. */
const BEST_BELOW = [3, 4, 9, 8, 5, 7] as const;

/** Beats from which a note is long enough to carry more than one note under it. */
const LONG = 2;

/** What harmony is found for. */
export interface HarmonyTask {
  readonly tune: readonly MelodyNote[];
  /** The chords with all that the left hand really strikes, in order. */
  readonly chords: readonly VoicedChord[];
  readonly bars: readonly Bar[];
  readonly hands: Hands;
  readonly harmonyAt: (at: Ticks) => Harmony;
  /** Places where the right hand holds chord notes already. */
  readonly taken: ReadonlySet<Ticks>;
  /** Ends of the parts: the share is kept in each of them. */
  readonly ends: readonly Ticks[];
}

/**
 * Chord notes under the tune: the strong and long notes of every part first, as many as are wished for; never above the tune, never
 * past the hand's comfortable span, never in the left hand's space.
 */
export function harmonyUnder(task: HarmonyTask): AddedHarmony {
  const parts = cutAt(task.tune, task.ends).map((notes) => inPart(notes, task));
  return { under: parts.flatMap((p) => p.under), without: parts.flatMap((p) => p.without) };
}

/** Harmony that is played, and where an octave that was wished for has no room. */
export interface AddedHarmony {
  readonly under: readonly UnderNote[];
  readonly without: readonly NoOctave[];
}

/** A note of the tune that cannot be doubled an octave below: the hand is too small for it, or the left hand lies there. */
export interface NoOctave {
  readonly at: Ticks;
  readonly pitch: Pitch;
  readonly cause: 'hand' | 'left-hand';
}

function inPart(notes: readonly MelodyNote[], task: HarmonyTask): AddedHarmony {
  const none = { under: [], without: [] };
  if (notes.length === 0) return none;
  const wish = task.harmonyAt(notes[0].at);
  if (wish.density <= 0) return none;
  const most = Math.floor((notes.length * Math.min(MOST_HARMONY, wish.density)) / 100);
  const ranked = notes
    .filter((n) => !task.taken.has(n.at))
    .map((note) => ({ note, weight: weightOf(note, task.bars) }))
    .sort((a, b) => b.weight - a.weight || a.note.at - b.note.at);
  const found: UnderNote[] = [];
  const without: NoOctave[] = [];
  for (const { note } of ranked) {
    if (found.length >= most) break;
    const under = hang(note, wish.size, task);
    if (under) found.push(under);
    else if (wish.size === 'octave') {
      const cause = spanOf(task.hands, 'right').limit < OCTAVE ? 'hand' : 'left-hand';
      without.push({ at: note.at, pitch: note.pitch, cause });
    }
  }
  return { under: found.sort((a, b) => a.at - b.at), without: without.sort((a, b) => a.at - b.at) };
}

/** Half steps of an octave. */
const OCTAVE = 12;

function weightOf(note: MelodyNote, bars: readonly Bar[]): number {
  const bar = barAt(bars, note.at);
  const beats = Math.min(WEIGHT.longestBeats, note.length / beatTicks(bar.meter));
  return WEIGHT.beat * beats + WEIGHT.strength * metricStrength(offsetInBar(bar, note.at), bar.meter);
}

/** What hangs under a note, or null where nothing of the chord has room. */
function hang(note: MelodyNote, size: Harmony['size'], { chords, bars, hands }: HarmonyTask): UnderNote | null {
  const voiced = chords[firstAtOrAfter(chords, note.at + 1) - 1];
  const chord = voiced ? parseChord(voiced.symbol) : null;
  if (!voiced || chord?.kind !== 'chord' || voiced.at + voiced.length <= note.at) return null;
  // Where the chord changes under the note its harmony ends with the old chord.
  const length = Math.min(note.length, voiced.at + voiced.length - note.at);
  const top = midiOf(note.pitch);
  const left = highestLeft(voiced, note.at, note.at + length);
  const span = spanOf(hands, 'right');
  // An octave that was asked for may take the hand as far as it goes.
  const reach = size === 'octave' ? span.limit : span.comfortable;
  const floor = Math.max(top - reach, left + CLEAR_OF_TUNE, KEYBOARDS[hands.keys].low);
  const long = note.length >= LONG * beatTicks(barAt(bars, note.at).meter);
  const wished = notesFor(size, long, chord, note.pitch, floor).sort((a, b) => midiOf(a) - midiOf(b));
  const pitches = hangable(wished, note.pitch, hands);
  return pitches.length > 0 ? { at: note.at, length, pitches, tune: note.pitch, added: true } : null;
}

function notesFor(size: Harmony['size'], long: boolean, chord: Chord, tune: Pitch, floor: number): Pitch[] {
  if (size === 'octave') {
    const octave = octaveUp(tune, -1);
    return midiOf(octave) >= floor ? [octave] : [];
  }
  const below = BEST_BELOW.flatMap((n) => chordNoteAt(chord, midiOf(tune) - n, floor));
  if (size === 'one' || (size === 'full' && !long)) return below.slice(0, 1);
  const wanted = size === 'two' ? 2 : 3;
  const kept: Pitch[] = [];
  // Notes of a chord that hangs from the tune lie a third or more apart.
  for (const pitch of [...below].sort((a, b) => midiOf(b) - midiOf(a)))
    if (kept.length < wanted && kept.every((k) => Math.abs(midiOf(k) - midiOf(pitch)) >= 3)) kept.push(pitch);
  return kept;
}

/** The chord's note on a key, if it has one there and the key is not too low. */
function chordNoteAt(chord: Chord, midi: number, floor: number): Pitch[] {
  const tone = chord.tones.find((t) => pitchClass(t.name) === ((midi % 12) + 12) % 12);
  return tone && midi >= floor ? [pitchAt(tone.name, midi)] : [];
}

const highestLeft = ({ struck }: { readonly struck: readonly SoundingNote[] }, from: Ticks, to: Ticks): number =>
  Math.max(-Infinity, ...struck.filter((n) => n.at < to && n.at + n.length > from).map((n) => midiOf(n.pitch)));
