import { midiOf, nameOf, pitchAt, pitchClass, transposeName, type NoteName, type Pitch } from '../pitch/pitch.js';
import type { Key } from '../harmony/key.js';
import type { Stay } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, type Bar } from '../time/bars.js';
import { barTicks, beatTicks, isCompound } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import type { UnderNote } from './under-melody.js';

/** A note lies here when the tune gives no height: the octave above middle C. */
const USUAL_MIDDLE = 72;

/** Onsets and lengths of a figure in a full bar. */
function figureIn(figure: Stay['figure'], bar: Bar): { readonly at: Ticks; readonly length: Ticks }[] {
  const beat = beatTicks(bar.meter);
  const whole = barTicks(bar.meter);
  const beats = Math.max(1, Math.round(whole / beat));
  const each = (n: number, make: (k: number) => { at: Ticks; length: Ticks }[]) =>
    Array.from({ length: n }, (_, k) => make(k)).flat();
  // A plain beat has its short note in the last quarter, a dotted one in the last third.
  const short = isCompound(bar.meter) ? beat / 3 : beat / 4;
  switch (figure) {
    case 'held':
      return [{ at: 0, length: whole }];
    case 'counts':
      return each(beats, (k) => [{ at: k * beat, length: beat }]);
    case 'off-beats':
      return each(beats, (k) => [{ at: k * beat + beat / 2, length: beat / 2 }]);
    case 'long-short':
      return each(beats, (k) => [
        { at: k * beat, length: beat - short },
        { at: (k + 1) * beat - short, length: short },
      ]);
    case 'rocking':
      return each(beats, (k) => [
        { at: k * beat, length: beat / 2 },
        { at: k * beat + beat / 2, length: beat / 2 },
      ]);
  }
}

/** Keys from lowest to highest. */
interface KeyRange {
  readonly low: number;
  readonly high: number;
}

/** The pitch of a name nearest to the middle of the tune, on the keyboard. */
function nearest(name: NoteName, middle: number, { low, high }: KeyRange): Pitch {
  const off = (pitch: Pitch) => Math.abs(midiOf(pitch) - middle) + (midiOf(pitch) < low || midiOf(pitch) > high ? 1000 : 0);
  return [1, 2, 3, 4, 5, 6, 7].map((octave) => `${name}${octave}`).reduce((best, p) => (off(p) < off(best) ? p : best));
}

/**
 * A right hand that stays on the tonic, the fifth or both by turns, in a rhythm figure, through a stretch of the song:
 * the tune rests and the chords move under it. It keeps the height of the tune it stands for.
 */
function stayingNotes(
  stay: Stay,
  { start, end }: { readonly start: Ticks; readonly end: Ticks },
  key: Key,
  bars: readonly Bar[],
  tune: readonly MelodyNote[],
  keys: KeyRange,
): MelodyNote[] {
  const heights = tune.filter((n) => n.at >= start && n.at < end).map((n) => midiOf(n.pitch));
  const middle = heights.length > 0 ? heights.reduce((a, b) => a + b, 0) / heights.length : USUAL_MIDDLE;
  const tonic = nearest(key.tonic, Math.max(middle, USUAL_MIDDLE - 4), keys);
  const fifth = nearest(transposeName(key.tonic, '5P'), midiOf(tonic), keys);
  const upper = midiOf(tonic) > midiOf(fifth) ? tonic : fifth;
  const names = { tonic: [tonic], fifth: [fifth], both: [tonic, fifth], together: [upper] }[stay.notes];
  const notes: MelodyNote[] = [];
  for (let bar = barAt(bars, start); bar.start < end;) {
    for (const { at, length } of figureIn(stay.figure, bar)) {
      const from = Math.max(bar.start, start, bar.start - bar.lead + at);
      const to = Math.min(bar.end, end, bar.start - bar.lead + at + length);
      if (to > from) notes.push({ at: from, length: to - from, pitch: names[notes.length % names.length], lyric: null });
    }
    const next = barAt(bars, bar.end);
    if (next.start <= bar.start) break;
    bar = next;
  }
  return notes;
}

/** The tune with its stretches of staying notes in place; a note that reaches into one is cut short. */
export function withStays(
  tune: readonly MelodyNote[],
  stays: readonly { readonly start: Ticks; readonly end: Ticks; readonly stay: Stay }[],
  key: Key,
  bars: readonly Bar[],
  keys: KeyRange,
): MelodyNote[] {
  let notes: MelodyNote[] = [...tune];
  for (const { start, end, stay } of stays) {
    const around = notes.flatMap((n) => {
      if (n.at >= start && n.at < end) return [];
      return n.at < start && n.at + n.length > start ? [{ ...n, length: start - n.at }] : [n];
    });
    notes = [...around, ...stayingNotes(stay, { start, end }, key, bars, tune, keys)].sort((a, b) => a.at - b.at);
  }
  return notes;
}

/** The lower of two notes that a hand holds at once where it stays on both: a fourth or fifth under the one that stands for the tune. */
export function notesUnderStay(tune: readonly MelodyNote[], stayAt: (at: Ticks) => Stay | null, key: Key): UnderNote[] {
  return tune.flatMap(({ at, length, pitch }): UnderNote[] => {
    if (stayAt(at)?.notes !== 'together') return [];
    const other = nameOf(pitch) === key.tonic ? transposeName(key.tonic, '5P') : key.tonic;
    const below = midiOf(pitch) - ((midiOf(pitch) - pitchClass(other) + 120) % 12);
    return [{ at, length, pitches: [pitchAt(other, below)], tune: pitch, added: true }];
  });
}
