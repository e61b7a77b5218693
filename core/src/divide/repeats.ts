import { midiOf, staffStep } from '../pitch/pitch.js';
import { keysOf, type ChordSpan, type MelodyNote, type Song } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';
import type { Stretch } from './divide.js';

/** How a part takes up an earlier one. */
export interface RepeatOf {
  /** The number of the earlier part. */
  readonly part: number;
  /**
   * exact: note for note and chord for chord. new-ending: the same up to a place. transposed: the same tune some steps higher
   * or lower. same-rhythm: other notes on the same counts.
   */
  readonly kind: 'exact' | 'new-ending' | 'transposed' | 'same-rhythm';
  /** Where the first difference of a part with a new ending lies; null for the other kinds. */
  readonly differsFrom: Ticks | null;
  /** Steps of the scale by which a transposed part lies higher; null for the other kinds. */
  readonly steps: number | null;
}

/** A part's form letter and the earlier part it takes up, if any. */
export interface FormEntry {
  readonly label: string;
  readonly repeats: RepeatOf | null;
}

/** A stretch that comes again note for note and chord for chord, and where it stood first. */
export interface ExactRepeat {
  readonly start: Ticks;
  readonly end: Ticks;
  readonly of: Ticks;
}

/** The parts that repeat an earlier one exactly. */
export const exactRepeats = (parts: readonly (Pick<Stretch, 'start' | 'end'> & Pick<FormEntry, 'repeats'>)[]): ExactRepeat[] =>
  parts.flatMap(({ start, end, repeats }) =>
    repeats?.kind === 'exact' ? [{ start, end, of: parts[repeats.part - 1].start }] : [],
  );

/** Fewest notes that make a part recognisable, and the share of it that must return before its ending may differ. */
const RECOGNISED = { notes: 4, share: 0.5 } as const;

/** A part as it is compared with others: what begins in it, in order, told from the start of the part. */
interface Print {
  readonly length: Ticks;
  readonly start: Ticks;
  readonly notes: readonly MelodyNote[];
  readonly events: readonly { readonly at: Ticks; readonly what: string; readonly note: boolean }[];
  readonly whole: string;
  readonly opening: string;
  readonly rhythm: string;
  readonly contour: string;
}

/**
 * Finds the parts that take up an earlier one and letters the form: A A′ B A. Exact repeats share a letter, new endings and
 * transposed parts get a prime of it, all others a letter of their own.
 */
export function findRepeats(song: Song, stretches: readonly Stretch[], chords: readonly ChordSpan[]): FormEntry[] {
  const prints = printsOf(song, stretches, chords);
  const entries: FormEntry[] = [];
  const primes = new Map<string, number>();
  const known = { whole: new Map<string, number>(), contour: new Map<string, number>(), rhythm: new Map<string, number>() };
  const openings = new Map<string, number[]>();
  let letters = 0;
  prints.forEach((print, i) => {
    const told = print.notes.length > 0 ? recognise(print, prints, known, openings) : null;
    if (told?.kind === 'exact') {
      entries.push({ label: entries[told.part - 1].label, repeats: told });
      return;
    }
    if (told && told.kind !== 'same-rhythm') {
      const base = entries[told.part - 1].label.replace(/′+$/, '');
      const count = (primes.get(base) ?? 0) + 1;
      primes.set(base, count);
      entries.push({ label: base + '′'.repeat(count), repeats: told });
    } else entries.push({ label: letterFor(letters++), repeats: told });
    if (print.notes.length === 0) return;
    known.whole.set(print.whole, i);
    if (!known.contour.has(print.contour)) known.contour.set(print.contour, i);
    if (!known.rhythm.has(print.rhythm)) known.rhythm.set(print.rhythm, i);
    if (print.opening) openings.set(print.opening, [...(openings.get(print.opening) ?? []), i]);
  });
  return entries;
}

type Known = Readonly<Record<'whole' | 'contour' | 'rhythm', ReadonlyMap<string, number>>>;

function recognise(
  print: Print,
  prints: readonly Print[],
  known: Known,
  openings: ReadonlyMap<string, readonly number[]>,
): RepeatOf | null {
  const plain = { differsFrom: null, steps: null };
  const exact = known.whole.get(print.whole);
  if (exact !== undefined) return { part: exact + 1, kind: 'exact', ...plain };
  if (print.notes.length < RECOGNISED.notes) return null;
  let best: RepeatOf | null = null;
  let furthest = 0;
  for (const i of openings.get(print.opening) ?? []) {
    const at = firstDifference(print, prints[i]);
    const same = print.events.filter((e) => e.note && e.at < at).length;
    const enough = at >= RECOGNISED.share * Math.max(print.length, prints[i].length) && same >= RECOGNISED.notes;
    if (!enough || at <= furthest) continue;
    furthest = at;
    best = { part: i + 1, kind: 'new-ending', differsFrom: print.start + at, steps: null };
  }
  if (best) return best;
  const moved = known.contour.get(print.contour);
  if (moved !== undefined) {
    const steps = staffStep(print.notes[0].pitch) - staffStep(prints[moved].notes[0].pitch);
    if (steps !== 0) return { part: moved + 1, kind: 'transposed', differsFrom: null, steps };
  }
  const rhythm = known.rhythm.get(print.rhythm);
  return rhythm === undefined ? null : { part: rhythm + 1, kind: 'same-rhythm', ...plain };
}

/** Where two parts first differ, from their start; the shorter length where one only stops sooner. */
function firstDifference(a: Print, b: Print): Ticks {
  for (let i = 0; ; i++) {
    const [x, y] = [a.events[i], b.events[i]];
    if (!x && !y) return Math.min(a.length, b.length);
    if (!x || !y || x.at !== y.at || x.what !== y.what) return Math.min(x?.at ?? Infinity, y?.at ?? Infinity);
  }
}

function printsOf(song: Song, stretches: readonly Stretch[], chords: readonly ChordSpan[]): Print[] {
  let n = 0;
  let c = 0;
  return stretches.map(({ start, end }): Print => {
    const notes: MelodyNote[] = [];
    const events: { at: Ticks; what: string; note: boolean }[] = [];
    for (; n < song.melody.length && song.melody[n].at < end; n++) {
      const note = song.melody[n];
      notes.push(note);
      // By its key, not by its name: a note that is spelled otherwise is the same tune.
      events.push({ at: note.at - start, what: `${keysOf(note).map(midiOf).join('+')}:${note.length}`, note: true });
    }
    for (; c < chords.length && chords[c].at < end; c++)
      events.push({ at: chords[c].at - start, what: `|${chords[c].symbol}`, note: false });
    events.sort((a, b) => a.at - b.at || Number(b.note) - Number(a.note));
    const length = end - start;
    // The last note of a part is as long as the rest of it allows: its length says nothing about the figure.
    const rhythm = notes.map((x, i) => `${x.at - start}${i < notes.length - 1 ? `:${x.length}` : ''}`).join();
    const steps = notes.map((x, i) => (i === 0 ? 0 : staffStep(x.pitch) - staffStep(notes[i - 1].pitch))).join();
    return {
      length,
      start,
      notes,
      events,
      rhythm,
      whole: `${length};${events.map((e) => `${e.at} ${e.what}`).join()}`,
      opening:
        notes.length < RECOGNISED.notes
          ? ''
          : notes
              .slice(0, 3)
              .map((x) => `${x.at - start} ${midiOf(x.pitch)}`)
              .join(),
      contour: `${rhythm};${steps}`,
    };
  });
}

/** A, B … Z, AA, AB … */
function letterFor(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : letterFor(Math.floor(index / 26) - 1) + letter;
}
