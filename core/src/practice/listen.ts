import { grouped } from '../lists/grouped.js';
import type { ExpectedNote, HeardNote } from './grade.js';

/** Shares of the notes that must have been heard before the last ones can be the end of a pass. */
const NEARLY_ALL = 0.7;

/** True once the keys of the last place were heard as often as they are asked for, after most of the pass: nothing more is to come. */
export function isOver(notes: readonly ExpectedNote[], heard: readonly HeardNote[]): boolean {
  if (notes.length === 0 || heard.length < notes.length * NEARLY_ALL) return false;
  const at = Math.max(...notes.map((n) => n.at));
  const last = notes.filter((n) => n.at === at).map((n) => n.midi);
  const ending = new Set(heard.slice(-last.length).map((h) => h.midi));
  const times = (list: readonly { readonly midi: number }[], midi: number) => list.filter((n) => n.midi === midi).length;
  return last.every((midi) => ending.has(midi) && times(heard, midi) >= times(notes, midi));
}

/** Keys that are struck together, at a place of the song in quarter notes. */
export interface WaitPlace {
  readonly at: number;
  readonly midis: readonly number[];
}

/** The places at which the music waits, in order. */
export function waitPlaces(notes: readonly ExpectedNote[]): WaitPlace[] {
  const places = grouped(
    [...notes].sort((a, b) => a.at - b.at),
    (n) => n.at,
  );
  return [...places].map(([at, own]) => ({ at, midis: [...new Set(own.map((n) => n.midi))].sort((a, b) => a - b) }));
}

/** Where the waiting music stands: the place, and which of its keys are down. */
export interface Waiting {
  readonly index: number;
  readonly down: readonly number[];
}

export const WAITING: Waiting = { index: 0, down: [] };

/** What a pressed key does: `moved` when the place is complete, `wrong` when the place does not ask for it. */
export function pressWhileWaiting(
  places: readonly WaitPlace[],
  { index, down }: Waiting,
  midi: number,
  octavesForgiven: boolean,
): { readonly waiting: Waiting; readonly what: 'moved' | 'held' | 'wrong' } {
  const place = places[index];
  const same = (a: number) => a === midi || (octavesForgiven && (a - midi) % 12 === 0);
  const asked = place?.midis.find((m) => same(m) && !down.includes(m));
  if (asked === undefined) return { waiting: { index, down }, what: place?.midis.some(same) ? 'held' : 'wrong' };
  const now = [...down, asked];
  if (now.length < place.midis.length) return { waiting: { index, down: now }, what: 'held' };
  return { waiting: { index: index + 1, down: [] }, what: 'moved' };
}

/** What a released key does: it is no longer down. */
export function releaseWhileWaiting({ index, down }: Waiting, midi: number, octavesForgiven: boolean): Waiting {
  return { index, down: down.filter((m) => m !== midi && !(octavesForgiven && (m - midi) % 12 === 0)) };
}
