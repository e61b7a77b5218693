import { intervalToKey, transposeSymbol } from '../harmony/naming.js';
import type { Key } from '../harmony/key.js';
import { parseChord } from '../harmony/symbol.js';
import { HIGHEST_KEY, LOWEST_KEY, midiOf, nameOf, octaveUp, pitchClass, transposePitch, type Pitch } from '../pitch/pitch.js';
import type { Ticks } from '../time/ticks.js';
import type { Choices, Document } from './decisions.js';
import type { ChordEvent, Song } from './song.js';

/** A part as edits see it. */
export interface PartRange {
  readonly start: Ticks;
  readonly end: Ticks;
}

/** The chords of the song with the pianist's in their place; chords outside the song are passed over. */
export function resolveChords(doc: Pick<Document, 'song' | 'choices'>): ChordEvent[] {
  const { song, choices } = doc;
  if (choices.chords.length === 0) return song.chords;
  const chosen = new Map(choices.chords.filter((c) => c.at < song.length).map((c) => [c.at, c.symbol]));
  const kept = song.chords.filter((c) => !chosen.has(c.at));
  return [...kept, ...[...chosen].map(([at, symbol]) => ({ at, symbol }))].sort((a, b) => a.at - b.at);
}

const withChoices = (doc: Document, change: Partial<Choices>): Document => ({
  ...doc,
  choices: { ...doc.choices, ...change },
});

const byPlace = <T extends { readonly at: Ticks }>(items: T[]): T[] => items.sort((a, b) => a.at - b.at);

/**
 * Writes a chord at a place, or a new one where the song had none. A voicing pinned for the chord that stood there is
 * let go, since its keys belonged to that chord.
 */
export function setChord(doc: Document, at: Ticks, symbol: string): Document {
  const { choices, song } = doc;
  const others = choices.chords.filter((c) => c.at !== at);
  const original = song.chords.find((c) => c.at === at)?.symbol;
  const chords = original === symbol ? others : byPlace([...others, { at, symbol }]);
  const until = resolveChords(doc).find((c) => c.at > at)?.at ?? song.length;
  return withChoices(doc, { chords, pins: choices.pins.filter((p) => p.at < at || p.at >= until) });
}

/** Pins the keys of the chord struck at a place. */
export function pinVoicing(doc: Document, at: Ticks, pitches: readonly Pitch[]): Document {
  const others = doc.choices.pins.filter((p) => p.at !== at);
  return withChoices(doc, { pins: byPlace([...others, { at, pitches: [...pitches] }]) });
}

/** Lets a pinned chord find its own place again. */
export function unpinVoicing(doc: Document, at: Ticks): Document {
  return withChoices(doc, { pins: doc.choices.pins.filter((p) => p.at !== at) });
}

/** Makes each stretch a part of its own; choices that overlap them give way. */
function fixParts(doc: Document, ranges: readonly PartRange[]): Choices['parts'] {
  const clear = doc.choices.parts.filter((p) => ranges.every((r) => p.end <= r.start || p.start >= r.end));
  return [...clear, ...ranges].map(({ start, end }) => ({ start, end })).sort((a, b) => a.start - b.start);
}

/**
 * Moves the boundary between part `index - 1` and part `index` (from 0) to a place inside either; a name goes with
 * the part. Null when the place would leave one of the two empty.
 */
export function moveCut(doc: Document, parts: readonly PartRange[], index: number, to: Ticks): Document | null {
  const before = parts[index - 1];
  const after = parts[index];
  if (!before || !after || to <= before.start || to >= after.end) return null;
  if (to === after.start) return doc;
  const names = doc.choices.names.map((n) => (n.at === after.start ? { ...n, at: to } : n));
  return withChoices(doc, {
    parts: fixParts(doc, [
      { start: before.start, end: to },
      { start: to, end: after.end },
    ]),
    names: byPlace(names),
  });
}

/** Splits the part (index from 0) at a place inside it. Null when the place is not inside. */
export function splitPart(doc: Document, parts: readonly PartRange[], index: number, at: Ticks): Document | null {
  const part = parts[index];
  if (!part || at <= part.start || at >= part.end) return null;
  return withChoices(doc, {
    parts: fixParts(doc, [
      { start: part.start, end: at },
      { start: at, end: part.end },
    ]),
  });
}

/** Joins the part (index from 0) to the one before it. Null for the first. */
export function mergePart(doc: Document, parts: readonly PartRange[], index: number): Document | null {
  const before = parts[index - 1];
  const part = parts[index];
  if (!before || !part) return null;
  return withChoices(doc, {
    parts: fixParts(doc, [{ start: before.start, end: part.end }]),
    names: doc.choices.names.filter((n) => n.at !== part.start),
  });
}

/** Gives the part that begins at a place a name, or takes it away when the name is empty. */
export function renamePart(doc: Document, start: Ticks, name: string): Document {
  const others = doc.choices.names.filter((n) => n.at !== start);
  const trimmed = name.trim().slice(0, 80);
  return withChoices(doc, { names: trimmed ? byPlace([...others, { at: start, name: trimmed }]) : others });
}

/** Chooses how large parts should be; the pianist's own parts stay. */
export function setPartSize(doc: Document, partSize: Choices['partSize']): Document {
  return withChoices(doc, { partSize });
}

/** Lets every part be cut by the music again. */
export function clearParts(doc: Document): Document {
  return withChoices(doc, { parts: [] });
}

/** The song in another key, spelled for it, by the shorter way; an octave is mended where the tune leaves the piano. */
export function transposeSong(song: Song, to: Key): Song {
  const interval = intervalToKey(song.key, to);
  const moved = song.melody.map((n) => ({ ...n, pitch: plainPitch(transposePitch(n.pitch, interval)) }));
  const midis = moved.map((n) => midiOf(n.pitch));
  const octaves = Math.max(...midis, 0) > HIGHEST_KEY ? -1 : Math.min(...midis, HIGHEST_KEY) < LOWEST_KEY ? 1 : 0;
  return {
    ...song,
    key: { ...to },
    melody: moved.map((n) => ({ ...n, pitch: octaveUp(n.pitch, octaves) })),
    chords: song.chords.map((c) => ({ ...c, symbol: transposeSymbol(c.symbol, interval) })),
  };
}

/** A pitch without triple signs, which no one writes. */
function plainPitch(pitch: Pitch): Pitch {
  if (!/(bbb|###)/.test(pitch)) return pitch;
  const plain = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'][pitchClass(nameOf(pitch))];
  return `${plain}${Math.floor(midiOf(pitch) / 12) - 1}`;
}

/** True for text that can stand as a chord symbol. */
export function isChordText(text: string): boolean {
  return parseChord(text).kind !== 'unread';
}
