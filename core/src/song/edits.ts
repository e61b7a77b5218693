import { intervalToKey, transposeSymbol } from '../harmony/naming.js';
import { spelledIn } from '../harmony/from-notes.js';
import type { Key } from '../harmony/key.js';
import { parseChord } from '../harmony/symbol.js';
import {
  HIGHEST_KEY,
  LOWEST_KEY,
  midiOf,
  nameOf,
  octaveUp,
  pitchAt,
  pitchClass,
  transposePitch,
  type NoteName,
  type Pitch,
} from '../pitch/pitch.js';
import { lastFrom } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import {
  LONGEST_REMINDER,
  type BassWish,
  type Choices,
  type Document,
  type Hand,
  type Passage,
  type School,
  type Stop,
  type Suggesting,
} from './decisions.js';
import { oneLine } from './text.js';
import {
  besides,
  keysOf,
  handsOnKeys,
  MOST_BESIDE,
  onKeys,
  type ChordEvent,
  type KeyNote,
  type MelodyNote,
  type Song,
} from './song.js';

/** A part as edits see it. */
export interface TickRange {
  readonly start: Ticks;
  readonly end: Ticks;
}

/** Where a part begins and ends, without the rest of it. */
export const rangeOf = ({ start, end }: TickRange): TickRange => ({ start, end });

/**
 * The chords of the song with the pianist's in their place. A chord that was left out lets the one before it go on;
 * chords outside the song are passed over.
 */
export function resolveChords(doc: Pick<Document, 'song' | 'choices'>): readonly ChordEvent[] {
  const { song, choices } = doc;
  return withWritten(song.chords, new Map(choices.chords.filter((c) => c.at < song.length).map((c) => [c.at, c.symbol])));
}

/** Chords with written ones in their place; null leaves the one that stood there out. */
export function withWritten(chords: readonly ChordEvent[], written: ReadonlyMap<Ticks, string | null>): readonly ChordEvent[] {
  if (written.size === 0) return chords;
  const fresh = [...written].flatMap(([at, symbol]) => (symbol === null ? [] : [{ at, symbol }]));
  return byPlace([...chords.filter((c) => !written.has(c.at)), ...fresh]);
}

/** The document with some of its choices changed. */
export const withChoices = (doc: Document, change: Partial<Choices>): Document => ({
  ...doc,
  choices: { ...doc.choices, ...change },
});

const byPlace = <T extends { readonly at: Ticks }>(items: T[]): T[] => items.sort((a, b) => a.at - b.at);

/** Where the chord at a place ends: at the next one, or with the song. */
const chordEnd = (doc: Document, at: Ticks): Ticks => resolveChords(doc).find((c) => c.at > at)?.at ?? doc.song.length;

/** The choices without what belonged to the chord that stood in a stretch: its pinned keys and its school. */
const withoutChordChoices = ({ pins, chordSchools }: Choices, at: Ticks, until: Ticks): Partial<Choices> => ({
  pins: pins.filter((p) => p.at < at || p.at >= until),
  chordSchools: chordSchools.filter((c) => c.at !== at),
});

/**
 * Writes a chord at a place, or a new one where there was none. A voicing pinned for the chord that stood there, up to
 * `until`, is let go, since its keys belonged to that chord.
 */
export function setChord(doc: Document, at: Ticks, symbol: string, until = chordEnd(doc, at)): Document {
  const { choices, song } = doc;
  const others = choices.chords.filter((c) => c.at !== at);
  const original = isSuggestedAt(doc, at) ? null : song.chords.find((c) => c.at === at)?.symbol;
  const chords = original === symbol ? others : byPlace([...others, { at, symbol }]);
  return withChoices(doc, { chords, pins: withoutChordChoices(choices, at, until).pins });
}

/** Leaves the chord at a place out, so that the one before it goes on. */
export function removeChord(doc: Document, at: Ticks, until = chordEnd(doc, at)): Document {
  const { choices, song } = doc;
  const others = choices.chords.filter((c) => c.at !== at);
  const comesBack = isSuggestedAt(doc, at) || song.chords.some((c) => c.at === at);
  const chords = comesBack ? byPlace([...others, { at, symbol: null }]) : others;
  return withChoices(doc, { chords, ...withoutChordChoices(choices, at, until) });
}

/** Lets a chord be as the song brought it, or as it is suggested. */
export function restoreChord(doc: Document, at: Ticks): Document {
  return withChoices(doc, {
    chords: doc.choices.chords.filter((c) => c.at !== at),
    ...withoutChordChoices(doc.choices, at, chordEnd(doc, at)),
  });
}

/** True where chords are suggested rather than given. */
function isSuggestedAt({ song, choices }: Pick<Document, 'song' | 'choices'>, at: Ticks): boolean {
  return (passageAt(choices.passages, at)?.suggest ?? choices.suggest ?? null) !== null || song.chords.length === 0;
}

/** The stretch with wishes of its own that a place lies in. */
export function passageAt(passages: readonly Passage[], at: Ticks): Passage | null {
  const passage = lastFrom(passages, at);
  return passage && passage.start <= at && at < passage.end ? passage : null;
}

/** Suggests chords for the whole song in place of its own, or keeps its own (null). */
export function setSuggestion(doc: Document, suggest: Suggesting | null): Document {
  return withChoices(doc, { suggest });
}

/** The school of the whole song; null for the usual one of the hand that plays. */
export function setSchool(doc: Document, school: School | null): Document {
  return withChoices(doc, { school });
}

/** A school for the whole song in place of those of its parts and chords. */
export function setSchoolEverywhere(doc: Document, school: School | null): Document {
  const plain = setPassage(setSchool(doc, school), { start: 0, end: doc.song.length }, { school: null });
  return withChoices(plain, { chordSchools: [] });
}

/** How the bass of the whole song should go. */
export function setBass(doc: Document, bass: BassWish): Document {
  return withChoices(doc, { bass });
}

/** Lays one chord in a school of its own, or in that of its surroundings (null). */
export function setChordSchool(doc: Document, at: Ticks, school: School | null): Document {
  const others = doc.choices.chordSchools.filter((c) => c.at !== at);
  return withChoices(doc, { chordSchools: school === null ? others : byPlace([...others, { at, school }]) });
}

/** What may be wished for in a stretch; null takes a wish back. */
export type Wishes = { readonly [K in keyof Omit<Passage, 'start' | 'end'>]?: Passage[K] | null };

/** A stretch with some wishes changed. */
function withWishes(passage: Passage, wishes: Wishes): Passage {
  const { start, end, ...own } = { ...passage, ...wishes };
  const wished = Object.entries(own).filter(([, value]) => value !== null && value !== undefined);
  return { start, end, ...(Object.fromEntries(wished) as Omit<Passage, 'start' | 'end'>) };
}

/** Sets what is wished for in a stretch; the rest of what was wished there, and all that was wished around it, stays. */
export function setPassage(doc: Document, { start, end }: TickRange, change: Wishes): Document {
  const cut = doc.choices.passages.flatMap((p): Passage[] =>
    [
      { ...p, end: Math.min(p.end, start) },
      { ...p, start: Math.max(p.start, start), end: Math.min(p.end, end) },
      { ...p, start: Math.max(p.start, end) },
    ].filter((q) => q.start < q.end),
  );
  const outside = cut.filter((p) => p.end <= start || p.start >= end);
  const inside: Passage[] = [];
  let at = start;
  for (const p of [...cut.filter((q) => q.start >= start && q.end <= end).sort((a, b) => a.start - b.start), null]) {
    const until = p?.start ?? end;
    if (until > at) inside.push(withWishes({ start: at, end: until }, change));
    if (p) inside.push(withWishes(p, change));
    at = p?.end ?? end;
  }
  // A stretch is kept for what is wished for in it, beside its two ends.
  const wished = [...outside, ...inside].filter((p) => Object.keys(p).length > 2);
  return withChoices(doc, { passages: wished.sort((a, b) => a.start - b.start) });
}

/** Wishes that hold for the whole song as well as for a stretch. */
export type InheritableSettings = Pick<
  Choices,
  | 'timing'
  | 'touch'
  | 'rhythm'
  | 'octave'
  | 'level'
  | 'dominants'
  | 'under'
  | 'leftOctave'
  | 'texture'
  | 'harmony'
  | 'pedal'
  | 'walk'
  | 'loudness'
  | 'swell'
  | 'ending'
>;

/** Sets a wish for a stretch, or for the whole song (null), where it takes the place of those of its stretches. */
export function setSetting<K extends keyof InheritableSettings>(
  doc: Document,
  range: TickRange | null,
  wish: K,
  value: InheritableSettings[K],
): Document {
  if (range) return setPassage(doc, range, { [wish]: sameWish(value, doc.choices[wish]) ? null : value });
  const plain = setPassage(doc, { start: 0, end: doc.song.length }, { [wish]: null });
  return withChoices(plain, { [wish]: value });
}

/** True for equal wishes; harmony is a density and a size, equal where both are. */
function sameWish(a: InheritableSettings[keyof InheritableSettings], b: InheritableSettings[keyof InheritableSettings]): boolean {
  if (typeof a !== 'object' || typeof b !== 'object') return a === b;
  return a.density === b.density && a.size === b.size;
}

/** What is wished for at a place: by its stretch, else by the song. */
export function settingAt<K extends keyof InheritableSettings>(
  { choices }: Pick<Document, 'choices'>,
  at: Ticks,
  wish: K,
): InheritableSettings[K] {
  return (passageAt(choices.passages, at)?.[wish] as InheritableSettings[K] | undefined) ?? choices[wish];
}

/** Chooses the fingers, bottom-up, of what a hand strikes at a place; none to let them be found again. */
export function setFingers(doc: Document, hand: Hand, at: Ticks, fingers: readonly number[] | null): Document {
  const others = doc.choices.fingers.filter((f) => f.at !== at || f.hand !== hand);
  return withChoices(doc, { fingers: fingers === null ? others : byPlace([...others, { at, hand, fingers: [...fingers] }]) });
}

/** Names the section that begins at a place, or takes the name away when it is empty. */
export function nameSection(doc: Document, at: Ticks, name: string): Document {
  const others = doc.choices.sections.filter((s) => s.at !== at);
  const trimmed = name.trim().slice(0, 80);
  return withChoices(doc, { sections: trimmed ? byPlace([...others, { at, name: trimmed }]) : others });
}

/** Writes a line to be reminded by at a place, or takes it away when it is empty. */
export function remind(doc: Document, at: Ticks, text: string): Document {
  const others = doc.choices.reminders.filter((r) => r.at !== at);
  const written = oneLine(text, LONGEST_REMINDER);
  return withChoices(doc, { reminders: written ? byPlace([...others, { at, text: written }]) : others });
}

/** Sets a fermata or a breath at a place inside the song, or takes it away. */
export function setStop(doc: Document, at: Ticks, kind: Stop, there: boolean): Document {
  const others = doc.choices.stops.filter((s) => s.at !== at || s.kind !== kind);
  return withChoices(doc, { stops: there && at < doc.song.length ? byPlace([...others, { at, kind }]) : others });
}

/** The rows of keys with lengths of their own: the left hand, and what the right hand plays beside its tune. */
export type KeysOf = 'left' | 'inner';

/** Writes the keys of a hand in a stretch inside the song, in place of what was written there. */
export function writeKeys(doc: Document, hand: KeysOf, at: Ticks, length: Ticks, notes: readonly KeyNote[]): Document {
  const end = Math.min(at + length, doc.song.length);
  const others = (doc.song[hand] ?? []).filter((n) => n.at < at || n.at >= end);
  const within = notes
    .filter((n) => n.at >= at && n.at < end && midiOf(n.pitch) >= LOWEST_KEY && midiOf(n.pitch) <= HIGHEST_KEY)
    .map((n) => ({ ...n, length: Math.min(n.length, end - n.at) }));
  const keys = byPlace([...others, ...within]).sort((a, b) => a.at - b.at || midiOf(a.pitch) - midiOf(b.pitch));
  const { [hand]: _, ...song } = doc.song;
  return { ...doc, song: keys.length > 0 ? { ...song, [hand]: keys } : song };
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
function fixParts(doc: Document, ranges: readonly TickRange[]): Choices['parts'] {
  const clear = doc.choices.parts.filter((p) => ranges.every((r) => p.end <= r.start || p.start >= r.end));
  return [...clear, ...ranges].map(({ start, end }) => ({ start, end })).sort((a, b) => a.start - b.start);
}

/**
 * Moves the boundary between part `index - 1` and part `index` (from 0) to a place inside either; a name goes with
 * the part. Null when the place would leave one of the two empty.
 */
export function moveCut(doc: Document, parts: readonly TickRange[], index: number, to: Ticks): Document | null {
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
export function splitPart(doc: Document, parts: readonly TickRange[], index: number, at: Ticks): Document | null {
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
export function mergePart(doc: Document, parts: readonly TickRange[], index: number): Document | null {
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

/** Gives a song a tune in place of what it had, as far as the song is long; words alone are sung along to no more. */
export function giveTune(doc: Document, notes: readonly MelodyNote[]): Document {
  const { length } = doc.song;
  const melody = notes.flatMap((n) => (n.at < length ? [{ ...n, length: Math.min(n.length, length - n.at) }] : []));
  if (melody.length === 0) return doc;
  return withChoices({ ...doc, song: { ...doc.song, melody } }, { playMode: 'arranged' });
}

/** Gives a note of the tune another name for the key it has. A name of another key changes nothing. */
export function respell(doc: Document, at: Ticks, name: NoteName): Document {
  const { melody } = doc.song;
  const i = melody.findIndex((n) => n.at === at && nameOf(n.pitch) !== name && pitchClass(nameOf(n.pitch)) === pitchClass(name));
  if (i < 0) return doc;
  return {
    ...doc,
    song: { ...doc.song, melody: melody.with(i, { ...melody[i], pitch: pitchAt(name, midiOf(melody[i].pitch)) }) },
  };
}

/** Strikes a note of the tune together with others, given in half steps below it and named by the key; alone where there are none. */
export function strikeWith(doc: Document, at: Ticks, below: readonly number[]): Document {
  const { melody, key } = doc.song;
  const i = melody.findIndex((n) => n.at === at);
  if (i < 0) return doc;
  const tune = midiOf(melody[i].pitch);
  const keys = [...new Set(below.map((by) => tune - by))].filter((k) => k !== tune && k >= LOWEST_KEY && k <= HIGHEST_KEY);
  // Those that are there keep their names.
  const named = new Map((melody[i].with ?? []).map((p) => [midiOf(p), p]));
  const beside = keys.slice(0, MOST_BESIDE).map((k) => named.get(k) ?? pitchAt(spelledIn(key, k % 12), k));
  return { ...doc, song: { ...doc.song, melody: melody.with(i, besides(melody[i], beside)) } };
}

/** The song in another key, spelled for it, by the shorter way; an octave is mended where the tune leaves the piano. */
export function transposeSong(song: Song, to: Key): Song {
  const interval = intervalToKey(song.key, to);
  const moved = song.melody.map((n) => onKeys(n, (pitch) => plainPitch(transposePitch(pitch, interval))));
  const midis = moved.flatMap(keysOf).map(midiOf);
  const octaves = Math.max(...midis, 0) > HIGHEST_KEY ? -1 : Math.min(...midis, HIGHEST_KEY) < LOWEST_KEY ? 1 : 0;
  return {
    ...song,
    key: { ...to },
    melody: moved.map((n) => onKeys(n, (pitch) => octaveUp(pitch, octaves))),
    ...handsOnKeys(song, (pitch) => plainPitch(transposePitch(pitch, interval))),
    chords: song.chords.map((c) => ({ ...c, symbol: transposeSymbol(c.symbol, interval) })),
  };
}

/**
 * The document in another key: the song with the chords and pinned keys that the pianist chose. What was decided by place
 * stays where it is.
 */
export function transposeDocument(doc: Document, to: Key): Document {
  const interval = intervalToKey(doc.song.key, to);
  const { choices } = doc;
  const song = transposeSong(doc.song, to);
  const pins = choices.pins.map((p) => ({ ...p, pitches: p.pitches.map((x) => plainPitch(transposePitch(x, interval))) }));
  const chords = choices.chords.map((c) => ({ ...c, symbol: c.symbol && transposeSymbol(c.symbol, interval) }));
  return { ...doc, song, choices: { ...choices, pins, chords } };
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
