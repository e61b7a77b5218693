import { reachableBy } from '../fingers/chords.js';
import { CLEAR_OF_TUNE, isMuddy } from '../left-hand/costs.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { toneFor } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { midiOf, nameOf, pitchAt, pitchClass, type Pitch } from '../pitch/pitch.js';
import { spanOf, KEYBOARDS, type Hands } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** Chord notes that the right hand holds under a note of the tune. */
export interface UnderNote {
  readonly at: Ticks;
  readonly length: Ticks;
  /** Bottom-up, the tune's own note left out. */
  readonly pitches: readonly Pitch[];
  /** The tune's note that sounds meanwhile; of a second voice its own top note where the tune rests. */
  readonly tune: Pitch;
  /** True for harmony that was added once the plain version held. */
  readonly added?: boolean;
  /** True for notes of the song itself that are struck with the tune. */
  readonly written?: boolean;
  /** True for written notes with lengths of their own: a second voice beside the tune. */
  readonly inner?: boolean;
}

/** The notes of the song that are struck with its tune, as what the right hand holds beside it. */
export const notesWithTune = (tune: readonly MelodyNote[]): UnderNote[] =>
  tune.flatMap(({ at, length, pitch, with: beside }) =>
    beside ? [{ at, length, pitches: beside, tune: pitch, written: true }] : [],
  );

/** Beats from which a note is long wherever it falls, and the metric strength from which a single beat is enough. */
const LONG = 2;
const STRONG = 3;

/** Half steps under the tune that a chord note keeps: no second hangs directly under it. */
const CLEAR_UNDER = 3;

/** A chord as what hangs under the tune is found for it. */
type Hung = Pick<VoicedChord, 'at' | 'length' | 'symbol' | 'school' | 'pitches' | 'restruck'>;

/**
 * The chord notes under the tune for chords of the under-melody school. They are struck where the chord changes, with the first of its own
 * notes that the tune has there, and with further notes of the chord that are long or strong; or with long notes alone. A tied note is
 * struck once: it is held while its chord is pressed again. The hand's span holds them and the tune; the left hand stays clear below.
 */
export function notesUnderTune(
  chords: readonly Hung[],
  tune: readonly MelodyNote[],
  hands: Hands,
  bars: readonly Bar[],
  longOnly: (at: Ticks) => boolean = () => false,
): UnderNote[] {
  const found: UnderNote[] = [];
  let from = 0;
  for (const voiced of chords) {
    const end = voiced.at + voiced.length;
    while (from < tune.length && tune[from].at + tune[from].length <= voiced.at) from++;
    const chord = parseChord(voiced.symbol);
    if (voiced.school !== 'under-melody' || chord.kind !== 'chord') continue;
    const left = midiOf(voiced.pitches[voiced.pitches.length - 1]);
    let struck = voiced.restruck;
    for (let i = from; i < tune.length && tune[i].at < end; i++) {
      const note = tune[i];
      const at = Math.max(note.at, voiced.at);
      const length = Math.min(note.at + note.length, end) - at;
      const last = found.at(-1);
      if (voiced.restruck && note.at < voiced.at && last && last.at + last.length === at) {
        found[found.length - 1] = { ...last, length: last.length + length };
        continue;
      }
      const isLong = length >= LONG * beatTicks(barAt(bars, at).meter);
      if (!isOf(chord, note.pitch) || (longOnly(at) ? !isLong : struck && !isLong && !isStrong(at, length, bars))) continue;
      const pitches = hangBelow(chord, note.pitch, left, hands, last?.pitches ?? []);
      if (pitches.length === 0) continue;
      found.push({ at, length, pitches, tune: note.pitch });
      struck = true;
    }
  }
  return found;
}

const isOf = (chord: Chord, pitch: Pitch): boolean => toneFor(chord, nameOf(pitch)) !== null;

/** True for a note of a beat that falls on a strong count. */
function isStrong(at: Ticks, length: Ticks, bars: readonly Bar[]): boolean {
  const bar = barAt(bars, at);
  return length >= beatTicks(bar.meter) && metricStrength(offsetInBar(bar, at), bar.meter) >= STRONG;
}

/**
 * As much of the chord as the right hand holds below a note: its nearest notes down to the span, clear of the left hand. Notes that were
 * held before stay on their keys; no two notes lie a second apart.
 */
function hangBelow(chord: Chord, tune: Pitch, left: number, hands: Hands, before: readonly Pitch[]): Pitch[] {
  const top = midiOf(tune);
  const floor = Math.max(top - spanOf(hands, 'right').comfortable, left + CLEAR_OF_TUNE, KEYBOARDS[hands.keys].low);
  const held = new Map(before.map((p) => [midiOf(p) % 12, midiOf(p)]));
  const fits = (midi: number) => midi >= floor && midi <= top - CLEAR_UNDER;
  const tones = [...chord.tones].sort((a, b) => weight(b.degree) - weight(a.degree));
  const placed: { pitch: Pitch; midi: number }[] = [];
  for (const { name } of tones.filter((t) => pitchClass(t.name) !== top % 12)) {
    const pc = pitchClass(name);
    const stays = held.get(pc);
    const nearest = top - ((top - pc + 120) % 12);
    const midi = stays !== undefined && fits(stays) ? stays : nearest;
    if (placed.length === MOST_UNDER || !fits(midi) || placed.some((p) => Math.abs(p.midi - midi) < CLEAR_UNDER)) continue;
    placed.push({ pitch: pitchAt(name, midi), midi });
  }
  placed.sort((a, b) => a.midi - b.midi);
  return hangable(
    placed.map((p) => p.pitch),
    tune,
    hands,
  );
}

/** Most notes that hang under the tune. */
const MOST_UNDER = 3;

/** Chord notes under the tune, bottom-up, without the lowest ones that would blur so low or that no fingers reach below it. */
export function hangable(pitches: readonly Pitch[], tune: Pitch, hands: Hands): Pitch[] {
  const reachable = reachableBy(hands, 'right');
  const lies = (from: number) => {
    const keys = [...pitches.slice(from), tune].map(midiOf);
    return !isMuddy(keys) && reachable(keys);
  };
  const from = pitches.findIndex((_, i) => lies(i));
  return from < 0 ? [] : pitches.slice(from);
}

/** The third and the seventh say which chord it is; the root is left out first, since the bass has it. */
const weight = (degree: number): number => ({ 3: 6, 4: 6, 2: 6, 7: 5, 6: 4, 5: 3, 1: 1 })[degree] ?? 2;
