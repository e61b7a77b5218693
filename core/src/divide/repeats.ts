import type { ChordSpan, Song } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';
import type { Stretch } from './divide.js';

/** How a part takes up an earlier one. `part` is its number; `differsFrom` is null for an exact repeat. */
export interface RepeatOf {
  readonly part: number;
  readonly kind: 'exact';
  readonly differsFrom: Ticks | null;
}

/** A part's form letter and the earlier part it repeats, if any. */
export interface FormEntry {
  readonly label: string;
  readonly repeats: RepeatOf | null;
}

/** Finds parts that return note for note and chord for chord, and letters the form: A B A C. */
export function findRepeats(song: Song, stretches: readonly Stretch[], chords: readonly ChordSpan[]): FormEntry[] {
  const firstWith = new Map<string, number>();
  const entries: FormEntry[] = [];
  let letters = 0;
  let note = 0;
  let chord = 0;
  stretches.forEach((stretch, i) => {
    let print = `${stretch.end - stretch.start};`;
    const notesFrom = note;
    for (; note < song.melody.length && song.melody[note].at < stretch.end; note++) {
      const n = song.melody[note];
      print += `${n.at - stretch.start}:${n.length}:${n.pitch},`;
    }
    for (; chord < chords.length && chords[chord].at < stretch.end; chord++) {
      print += `|${chords[chord].at - stretch.start}:${chords[chord].symbol}`;
    }
    const first = note > notesFrom ? firstWith.get(print) : undefined;
    if (first !== undefined) {
      const { label } = entries[first];
      entries.push({ label, repeats: { part: first + 1, kind: 'exact', differsFrom: null } });
      return;
    }
    firstWith.set(print, i);
    entries.push({ label: letterFor(letters++), repeats: null });
  });
  return entries;
}

/** A, B … Z, AA, AB … */
function letterFor(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : letterFor(Math.floor(index / 26) - 1) + letter;
}
