import { pitchAt, midiOf, HIGHEST_KEY, LOWEST_KEY, type Pitch } from '../pitch/pitch.js';
import { spelledIn } from '../harmony/from-notes.js';
import { TICKS_PER_QUARTER, type Ticks } from '../time/ticks.js';
import type { Document } from './decisions.js';
import { onKeys, type MelodyNote, type Song } from './song.js';

/** How a note of the tune is put right: so many half steps higher, beginning so many ticks later, in two halves, one with the next, or gone. */
export type NoteChange =
  | { readonly kind: 'pitch'; readonly by: number }
  | { readonly kind: 'begin'; readonly by: Ticks }
  | { readonly kind: 'split' }
  | { readonly kind: 'join' }
  | { readonly kind: 'remove' };

/** The shortest note that is made by hand. */
const SHORTEST = TICKS_PER_QUARTER / 4;

/** A key so many half steps from another, named by the key of the song. */
function higher({ key }: Song, pitch: Pitch, by: number): Pitch {
  const midi = midiOf(pitch) + by;
  return by % 12 === 0 ? pitchAt(pitch.replace(/-?\d+$/, ''), midi) : pitchAt(spelledIn(key, midi % 12), midi);
}

/** The tune with the note at a place changed; null where it cannot be, or where there is none. */
export function changedTune(song: Song, at: Ticks, change: NoteChange): readonly MelodyNote[] | null {
  const { melody } = song;
  const i = melody.findIndex((n) => n.at === at);
  const note = melody.at(i);
  if (i < 0 || !note) return null;
  const before = i > 0 ? melody[i - 1] : null;
  const next = melody.at(i + 1);
  const end = at + note.length;
  switch (change.kind) {
    case 'pitch': {
      const moved = onKeys(note, (p) => higher(song, p, change.by));
      const keys = [moved.pitch, ...(moved.with ?? [])].map(midiOf);
      return keys.some((k) => k < LOWEST_KEY || k > HIGHEST_KEY) ? null : melody.with(i, moved);
    }
    case 'begin': {
      const begin = at + change.by;
      if (begin < 0 || end - begin < SHORTEST || (before && begin - before.at < SHORTEST)) return null;
      const moved = melody.with(i, { ...note, at: begin, length: end - begin });
      if (!before) return moved;
      // The note before gives way, or goes on up to it where it did.
      const touched = before.at + before.length === at;
      const length = touched ? begin - before.at : Math.min(before.length, begin - before.at);
      return moved.with(i - 1, { ...before, length });
    }
    case 'split': {
      const half = Math.round(note.length / 2);
      if (half < SHORTEST) return null;
      const { with: beside } = note;
      const second: MelodyNote = {
        at: at + half,
        length: note.length - half,
        pitch: note.pitch,
        lyric: null,
        ...(beside ? { with: beside } : {}),
      };
      return melody.toSpliced(i, 1, { ...note, length: half }, second);
    }
    case 'join':
      return next ? melody.toSpliced(i, 2, { ...note, length: next.at + next.length - at }) : null;
    case 'remove':
      return melody.length > 1 ? melody.toSpliced(i, 1) : null;
  }
}

/** The document with a note of the tune put right; as it is where that cannot be. */
export function changeNote(doc: Document, at: Ticks, change: NoteChange): Document {
  const melody = changedTune(doc.song, at, change);
  return melody ? { ...doc, song: { ...doc.song, melody: [...melody] } } : doc;
}
