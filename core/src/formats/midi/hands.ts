import { HIGHEST_KEY, LOWEST_KEY } from '../../pitch/pitch.js';
import { MOST } from '../../song/limits.js';
import { MOST_BESIDE } from '../../song/song.js';
import { TICKS_PER_QUARTER as Q, type Ticks } from '../../time/ticks.js';
import { snap, type GridName } from './quantise.js';
import { writtenPlace, type RecordedNote } from './written.js';

/** A track of a file, or of one channel of it. */
export interface Track {
  readonly id: string;
  readonly name: string | null;
  /** From 1, in the order of the file. */
  readonly number: number;
  readonly notes: readonly RecordedNote[];
}

/** Names of tracks that are the tune's, or the right hand's. */
export const TUNEFUL = /voice|vocal|melody|lead|solo|sing|tune|right/i;

/** The track that is named for the tune, else the one that is highest and plays one note at a time. */
export function likelyTune(tracks: readonly Track[]): Track {
  const mean = (t: Track) => t.notes.reduce((sum, n) => sum + n.midi, 0) / t.notes.length;
  const single = (t: Track) => singleLine(t.notes).length / t.notes.length;
  const score = (t: Track) =>
    (TUNEFUL.test(t.name ?? '') ? 30 : 0) + mean(t) / 4 + 20 * single(t) - (t.notes.length < 8 ? 25 : 0);
  return tracks.reduce((best, t) => (score(t) > score(best) ? t : best));
}

/** One note at a time: the top one of what is struck together, without what lies under it in the other hand's half. */
export function singleLine(notes: readonly RecordedNote[], split = splitOf(notes)): RecordedNote[] {
  const line: RecordedNote[] = [];
  for (const note of notes) {
    const last = line[line.length - 1];
    if (note.midi < split) continue;
    if (last && note.at - last.at < TOGETHER) {
      if (note.midi > last.midi) line[line.length - 1] = { ...note, at: last.at };
      continue;
    }
    // A note under one that goes on sounding accompanies it.
    if (last && note.midi < last.midi && last.until - note.at > UNDER) continue;
    if (last && last.until > note.at) line[line.length - 1] = { ...last, until: note.at };
    line.push(note);
  }
  return line;
}

/** A line with the keys under its notes that are struck and let go with them: what a hand plays at once. */
export function withBeside(
  line: readonly RecordedNote[],
  notes: readonly RecordedNote[],
  split = splitOf(notes),
): RecordedNote[] {
  let from = 0;
  return line.map((note) => {
    while (from < notes.length && notes[from].at < note.at - TOGETHER) from++;
    const most = SAME_LENGTH * (note.until - note.at);
    const beside: number[] = [];
    for (let i = from; i < notes.length && notes[i].at < note.at + TOGETHER; i++) {
      const { midi, until } = notes[i];
      const held = Math.abs(until - note.until) <= Math.max(TOGETHER, most);
      if (midi < note.midi && midi >= split && midi >= note.midi - WIDEST && held && !beside.includes(midi)) beside.push(midi);
    }
    return beside.length > 0 ? { ...note, beside: beside.sort((a, b) => b - a).slice(0, MOST_BESIDE) } : note;
  });
}

/** Share of a note's length by which what is struck with it may end sooner or later, and the half steps that a hand spans at most. */
const SAME_LENGTH = 0.3;
const WIDEST = 16;

/** The lowest of what is struck together, alone. */
export const lowestOf = ({ beside, ...note }: RecordedNote): RecordedNote => ({ ...note, midi: beside?.at(-1) ?? note.midi });

/** Quarter notes within which notes are struck together, and by which a tune's note must outlast one under it. */
const TOGETHER = 0.06;
const UNDER = 0.24;

/** The key between two hands that play one track: the middle of the two heaps of its pitches; 0 where there is one heap. */
export function splitOf(notes: readonly RecordedNote[]): number {
  const midis = notes.map((n) => n.midi);
  const [low, high] = [Math.min(...midis), Math.max(...midis)];
  if (high - low < 24) return 0;
  let [a, b] = [low, high];
  for (let k = 0; k < 12; k++) {
    const [under, over] = [midis.filter((m) => m - a < b - m), midis.filter((m) => m - a >= b - m)];
    if (under.length === 0 || over.length === 0) return 0;
    a = under.reduce((x, y) => x + y, 0) / under.length;
    b = over.reduce((x, y) => x + y, 0) / over.length;
  }
  return b - a < 12 ? 0 : (a + b) / 2;
}

/** The track of the left hand, by its name or as the only other one, or what the lower hand plays in a track of both; on the same grid. */
export function leftHand(tracks: readonly Track[], tune: Track, split: number, exact: boolean, grid: GridName): TimedKey[] {
  const others = tracks.filter((t) => t.id !== tune.id);
  const track =
    others.find((t) => /left/i.test(t.name ?? '')) ?? (others.length === 1 && TUNEFUL.test(tune.name ?? '') ? others[0] : null);
  const all = track?.notes ?? (split > 0 ? tune.notes.filter((n) => n.midi < split) : []);
  return inTime(all, exact, grid);
}

/**
 * What one hand plays beside its line for lengths of its own: the other notes of its track above the split, no further under the line than
 * a hand spans. A track that stands alone, and is named for no hand, may be an accompaniment too: of that nothing is taken.
 */
export function besideLine(tracks: readonly Track[], tune: Track, line: readonly RecordedNote[], split: number): RecordedNote[] {
  const twoHands = split > 0 || tracks.length > 1 || TUNEFUL.test(tune.name ?? '');
  return twoHands ? restOf(tune.notes, line, split) : [];
}

/** The notes of a hand that are not in its line, nor struck and let go with its notes, and lie in its reach under what sounds. */
export function restOf(notes: readonly RecordedNote[], line: readonly RecordedNote[], split: number): RecordedNote[] {
  let k = 0;
  return notes.filter(({ at, midi }) => {
    while (k + 1 < line.length && line[k + 1].at <= at + TOGETHER) k++;
    const over = line[k] as RecordedNote | undefined;
    if (midi < split || !over || at < over.at - TOGETHER) return false;
    const struck = Math.abs(at - over.at) < TOGETHER && (midi === over.midi || over.beside?.includes(midi));
    return !struck && midi < over.midi && midi >= over.midi - WIDEST && over.until - at > -UNDER;
  });
}

/** Notes in their written time: as they stand where the file was written, else on the grid. */
export function inTime(all: readonly RecordedNote[], exact: boolean, grid: GridName): TimedKey[] {
  const notes = all.filter((n) => n.midi >= LOWEST_KEY && n.midi <= HIGHEST_KEY).slice(0, MOST.notes);
  const snapped = (quarters: readonly number[]) => snap(quarters, grid).map((q) => Math.round(q * Q));
  const written = (quarters: number[]): number[] => {
    const places = exact ? quarters.map(writtenPlace) : [];
    return exact && places.every((p) => p !== null) ? places : snapped(quarters);
  };
  const [starts, ends] = [written(notes.map((n) => n.at)), written(notes.map((n) => n.until))];
  return notes.flatMap(({ midi }, i): TimedKey[] =>
    ends[i] > starts[i] ? [{ at: starts[i], length: ends[i] - starts[i], midi }] : [],
  );
}

/** A key with a length of its own in its written time. */
export interface TimedKey {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly midi: number;
}
