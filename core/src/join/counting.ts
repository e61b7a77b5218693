import { isSyncopated } from '../song/rhythm.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, countIn, type Bar } from '../time/bars.js';
import { countTicks } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** A melody note as it is counted aloud. */
export interface CountedNote {
  readonly at: Ticks;
  /** "1", "2 &": what is said as it is struck. */
  readonly count: string;
  /** The counts that pass while it is held: "2", "3"; empty for a note that is over before the next, and for one that is held long. */
  readonly passed: readonly string[];
  /** Counts to hold a note that is too long to be counted through, in halves; null for the others. */
  readonly hold: number | null;
  /** Whole counts that it lasts, over bar lines too. */
  readonly counts: number;
  readonly tied: boolean;
  /** True where it is struck between counts and held over the next one. */
  readonly syncopated: boolean;
}

/** A note longer than this many counts is counted as a number to hold and not count by count. */
const NAMED_COUNTS = 4;

/** The notes of a part as they are counted, ties counted through. */
export function countNotes(notes: readonly MelodyNote[], bars: readonly Bar[]): CountedNote[] {
  return notes.map((note): CountedNote => {
    const bar = barAt(bars, note.at);
    const unit = countTicks(bar.meter);
    const end = note.at + note.length;
    const counts = note.length / unit;
    const passed: string[] = [];
    for (let here = bar; here.start < end;) {
      const first = here.start - (here.lead % unit);
      for (let at = first; at < here.end; at += unit) if (at > note.at && at < end) passed.push(countIn(bars, at));
      const next = barAt(bars, here.end);
      if (next.start <= here.start) break;
      here = next;
    }
    const long = counts > NAMED_COUNTS;
    return {
      at: note.at,
      count: countIn(bars, note.at),
      passed: long ? [] : passed,
      hold: long ? Math.round(counts * 2) / 2 : null,
      counts,
      tied: end > bar.end,
      syncopated: isSyncopated(note, bars),
    };
  });
}

/** Where a syllable stands in its word. */
export interface SungSyllable {
  /** The whole word, its syllables put together. */
  readonly word: string;
  /** Which syllable, from 1, of how many. */
  readonly syllable: number;
  readonly of: number;
}

/** For every note, the word that is sung on it or still held from a note before; null where there are no words. */
export function sungWords(notes: readonly MelodyNote[]): (SungSyllable | null)[] {
  const sung: (SungSyllable | null)[] = notes.map(() => null);
  for (let i = 0; i < notes.length;) {
    if (!notes[i].lyric) {
      i++;
      continue;
    }
    const places: number[] = [];
    let word = '';
    let k = i;
    for (; k < notes.length; k++) {
      const lyric = notes[k].lyric;
      if (!lyric) continue;
      places.push(k);
      word += lyric.text;
      if (!lyric.joins) break;
    }
    let until = places[places.length - 1] + 1;
    while (until < notes.length && !notes[until].lyric) until++;
    const plain = word.replace(/[.,;:!?…"“”]+$/, '');
    places.forEach((from, s) => {
      for (let n = from; n < (places[s + 1] ?? until); n++) sung[n] = { word: plain, syllable: s + 1, of: places.length };
    });
    i = until;
  }
  return sung;
}
