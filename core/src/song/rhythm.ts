import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, countTicks, isCompound } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import type { MelodyNote } from './song.js';

/** A stretch of the tune, in ticks. */
export interface TuneStretch {
  readonly start: Ticks;
  readonly end: Ticks;
}

/** True where a note begins between the counts and still sounds on the next one: it is sung ahead of the beat. */
export function isSyncopated(note: Pick<MelodyNote, 'at' | 'length'>, bars: readonly Bar[]): boolean {
  const bar = barAt(bars, note.at);
  const count = isCompound(bar.meter) ? beatTicks(bar.meter) : countTicks(bar.meter);
  const late = offsetInBar(bar, note.at) % count;
  return late !== 0 && late * 2 >= count && note.length > count - late;
}

/** The count that a note sung ahead of it stands for. */
export function countAhead(note: Pick<MelodyNote, 'at'>, bars: readonly Bar[]): Ticks {
  const bar = barAt(bars, note.at);
  const count = isCompound(bar.meter) ? beatTicks(bar.meter) : countTicks(bar.meter);
  return note.at + count - (offsetInBar(bar, note.at) % count);
}

/**
 * A straightened version of the tune to learn first: dotted pairs are evened, and notes sung ahead of a count move onto it.
 * Every note keeps its pitch, its word and its order and stays in its stretch; none moves by a count or more.
 */
export function straighten(notes: readonly MelodyNote[], { end }: TuneStretch, bars: readonly Bar[]): MelodyNote[] {
  return ontoCounts(evenPairs(notes, bars), end, bars);
}

/** A long and a short note (3:1 or 1:3) that fill one or two counts from a count on become equal. */
function evenPairs(notes: readonly MelodyNote[], bars: readonly Bar[]): MelodyNote[] {
  const even = [...notes];
  for (let i = 0; i + 1 < even.length; i++) {
    const [a, b] = [even[i], even[i + 1]];
    const bar = barAt(bars, a.at);
    const count = countTicks(bar.meter);
    const whole = a.length + b.length;
    const touching = a.at + a.length === b.at;
    const dotted = a.length === 3 * b.length || b.length === 3 * a.length;
    const fills = whole === count || (whole === 2 * count && !isCompound(bar.meter));
    if (!touching || !dotted || !fills || offsetInBar(bar, a.at) % count !== 0) continue;
    even[i] = { ...a, length: whole / 2 };
    even[i + 1] = { ...b, at: a.at + whole / 2, length: whole / 2 };
    i++;
  }
  return even;
}

/** Notes sung ahead of a count begin on it; the note before is held until then. */
function ontoCounts(notes: readonly MelodyNote[], end: Ticks, bars: readonly Bar[]): MelodyNote[] {
  const plain = [...notes];
  for (let i = plain.length - 1; i >= 0; i--) {
    const note = plain[i];
    if (!isSyncopated(note, bars)) continue;
    const to = countAhead(note, bars);
    if (to >= end || to >= note.at + note.length) continue;
    plain[i] = { ...note, at: to, length: note.at + note.length - to };
    const before = plain[i - 1];
    if (before && before.at + before.length === note.at) plain[i - 1] = { ...before, length: to - before.at };
  }
  return plain;
}
