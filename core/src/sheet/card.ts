import type { Key } from '../harmony/key.js';
import { resolveChords } from '../song/edits.js';
import { staffStep } from '../pitch/pitch.js';
import { DocumentSchema, isNewerDocument, type Document } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import { oneLine } from '../song/text.js';
import { layBars } from '../time/bars.js';
import { meterName } from '../time/meter.js';

/** What a song shows of itself on the shelf. */
export interface SongCard {
  readonly title: string;
  /** Key, meter and bars; null for a song that cannot be opened. */
  readonly facts: { readonly key: Key; readonly meter: string; readonly bars: number } | null;
  /** The first different chords, up to six. */
  readonly chords: readonly string[];
  /** The first notes of the tune, x and y from 0 to 1, y downwards. */
  readonly contour: readonly { readonly x: number; readonly y: number; readonly long: boolean }[];
  /** Why it cannot be opened: it is damaged at a place, or of a newer version. Null for a song that can. */
  readonly fault: { readonly why: 'damaged' | 'newer'; readonly place: string } | null;
}

/** Saved data as a document, or why it is none. */
export type Checked =
  | { readonly ok: true; readonly document: Document }
  | { readonly ok: false; readonly title: string; readonly fault: NonNullable<SongCard['fault']> };

/** Checks a document as it was saved, and brings it forward. */
export function checkDocument(data: unknown): Checked {
  const saved = (typeof data === 'object' && data !== null ? data : {}) as { version?: unknown; song?: { title?: unknown } };
  const read = DocumentSchema.safeParse(data);
  if (read.success) return { ok: true, document: read.data };
  const written = saved.song?.title;
  const title = (typeof written === 'string' && oneLine(written)) || 'Untitled';
  if (isNewerDocument(saved.version)) return { ok: false, title, fault: { why: 'newer', place: String(saved.version) } };
  return { ok: false, title, fault: { why: 'damaged', place: read.error.issues[0].path.join(' › ') } };
}

/** The card of saved data, whatever it is: what cannot be opened has one too. */
export function cardOf(data: unknown): SongCard {
  const checked = checkDocument(data);
  if (!checked.ok) return { title: checked.title, facts: null, chords: [], contour: [], fault: checked.fault };
  const { song } = checked.document;
  const bars = layBars(song).filter((b) => b.number > 0).length;
  const names = new Set(resolveChords(checked.document).map((c) => c.symbol));
  return {
    title: song.title,
    facts: { key: song.key, meter: meterName(song.meters[0]), bars },
    chords: [...names].slice(0, 6),
    contour: contourOf(song),
    fault: null,
  };
}

function contourOf({ melody }: Song): SongCard['contour'] {
  const notes = melody.slice(0, 16);
  if (notes.length === 0) return [];
  const steps = notes.map((n) => staffStep(n.pitch));
  const low = Math.min(...steps);
  const range = Math.max(1, Math.max(...steps) - low);
  const end = notes[notes.length - 1].at || 1;
  const longest = Math.max(...notes.map((n) => n.length));
  return notes.map((n, i) => ({ x: n.at / end, y: 1 - (steps[i] - low) / range, long: n.length > longest / 2 }));
}
