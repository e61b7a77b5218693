import * as z from 'zod';
import '../zod.js';
import { MODES, type Key } from '../harmony/key.js';
import { HIGHEST_KEY, LOWEST_KEY, isPitch, midiOf, octaveUp } from '../pitch/pitch.js';
import { countBars, layBars, placeOf, type Bar, type Place } from '../time/bars.js';
import { MOST } from './limits.js';
import { oneLine } from './text.js';

/** A place or a length, in ticks. */
export const ticks = z.number().int().min(0).max(MOST.ticks);

/** Text that stands on one line, made so as it comes in and cut where it is too long. */
export const line = (most: number) => z.string().overwrite((text) => oneLine(text, most));

/** Such text where there may be none. */
const lineOrNone = (most: number) =>
  line(most)
    .nullable()
    .transform((text) => text || null);

/** A chord symbol: one line, and none of the marks that its formats put around it. */
export const symbolText = z
  .string()
  .overwrite((text) => oneLine(text.replaceAll('"', '”'), 40))
  .min(1);

const noteName = z.string().regex(/^[A-G](b|#)?$/);

/** A sung syllable; `joins` is true where the word goes on in the next syllable. */
const Lyric = z.object({ text: line(200), joins: z.boolean() });

const keyboardPitch = z.string().refine((p) => isPitch(p) && midiOf(p) >= LOWEST_KEY && midiOf(p) <= HIGHEST_KEY, {
  message: 'off-keyboard',
});

/** Most notes that are struck with one of the tune: a hand has five fingers. */
export const MOST_BESIDE = 4;

const MelodyNote = z.object({
  at: ticks,
  length: ticks.min(1),
  pitch: keyboardPitch,
  /** What the right hand strikes together with it and holds as long, bottom-up; absent where it is struck alone. */
  with: z.array(keyboardPitch).min(1).max(MOST_BESIDE).optional(),
  lyric: Lyric.nullable().transform((sung) => (sung?.text ? sung : null)),
  /** Small notes struck just before it. They are heard, and not counted among what is to be practised. */
  graces: z.array(z.string().refine(isPitch)).max(16).optional(),
});

/** Words that are sung from a place on; `joins` is true where the last one goes on in the next stretch. */
const SungWords = z.object({ at: ticks, text: line(200).min(1), joins: z.boolean() });

/** A key that a hand strikes for a length of its own. */
const KeyNote = z.object({ at: ticks, length: ticks.min(1), pitch: keyboardPitch });

/** Such keys in order and bottom-up. */
const keyNotes = z
  .array(KeyNote)
  .max(MOST.notes)
  .overwrite((notes) => [...notes].sort((a, b) => a.at - b.at || midiOf(a.pitch) - midiOf(b.pitch)));

/** A chord symbol at a place; it holds until the next one or the end. */
const ChordEvent = z.object({ at: ticks, symbol: symbolText });

/** What the written music says about its own shape, at the place where something begins or ends. */
const Mark = z.object({
  at: ticks,
  kind: z.enum([
    'section',
    'double-bar',
    'repeat',
    'ending',
    'slur-start',
    'slur-end',
    'line-end',
    'breath',
    'fermata',
    'ornament',
    'words',
    'jump',
  ]),
  text: lineOrNone(200),
});

const MeterAt = z.object({
  at: ticks,
  beats: z.number().int().min(1).max(MOST.counts),
  unit: z.union([z.literal(1), z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
});

/** What is wrong with a song as a whole. */
export type SongFault =
  | { readonly code: 'song.no-meter' }
  | { readonly code: 'song.meters-out-of-order' }
  | { readonly code: 'song.long-pickup' }
  | { readonly code: 'song.too-many-bars'; readonly most: number }
  | { readonly code: 'song.overlap'; readonly place: Place }
  | { readonly code: 'song.key-twice'; readonly place: Place }
  | { readonly code: 'song.note-past-end'; readonly place: Place }
  | { readonly code: 'song.chords-out-of-order'; readonly place: Place }
  | { readonly code: 'song.chord-past-end'; readonly symbol: string };

/** Finds the first broken invariant of a song with its place, or null. */
function faultOf(song: z.infer<typeof SongShape>): SongFault | null {
  if (song.meters.length === 0 || song.meters[0].at !== 0) return { code: 'song.no-meter' };
  if (song.meters.some((m, i) => i > 0 && m.at <= song.meters[i - 1].at)) return { code: 'song.meters-out-of-order' };
  if (song.pickup >= song.length) return { code: 'song.long-pickup' };
  if (countBars(song, MOST.bars) > MOST.bars) return { code: 'song.too-many-bars', most: MOST.bars };
  // Bars are laid only where there is a place to name.
  let bars: readonly Bar[] | null = null;
  const placeAt = (at: number) => placeOf((bars ??= layBars(song)), at);
  let until = 0;
  for (const note of song.melody) {
    if (note.at < until) return { code: 'song.overlap', place: placeAt(note.at) };
    const keys = keysOf(note).map(midiOf);
    if (keys.some((k, i) => keys.indexOf(k) < i)) return { code: 'song.key-twice', place: placeAt(note.at) };
    until = note.at + note.length;
    if (until > song.length) return { code: 'song.note-past-end', place: placeAt(note.at) };
  }
  const past = (n: KeyNote) => n.at + n.length > song.length;
  const late = song.left?.find(past) ?? song.inner?.find(past) ?? song.words?.find((w) => w.at >= song.length);
  if (late) return { code: 'song.note-past-end', place: placeAt(late.at) };
  let before = -1;
  for (const chord of song.chords) {
    if (chord.at <= before) return { code: 'song.chords-out-of-order', place: placeAt(chord.at) };
    if (chord.at >= song.length) return { code: 'song.chord-past-end', symbol: chord.symbol };
    before = chord.at;
  }
  return null;
}

const SongShape = z.object({
  title: line(200).overwrite((title) => title || 'Untitled'),
  composer: lineOrNone(200),
  key: z.object({ tonic: noteName, mode: z.enum(MODES) }),
  /** Quarter notes a minute. */
  tempo: z.number().min(20).max(400),
  pickup: ticks,
  length: ticks.min(1),
  meters: z.array(MeterAt).min(1).max(MOST.changes),
  melody: z.array(MelodyNote).max(MOST.notes),
  chords: z.array(ChordEvent).max(MOST.chords),
  /** The left hand as it was written, in order and bottom-up; its notes may overlap. Absent where the music has none. */
  left: keyNotes.optional(),
  /** What the right hand plays beside its tune for lengths of its own: a second voice, or keys held while the tune moves. Absent without. */
  inner: keyNotes.optional(),
  /** The words of a song without a tune, each stretch at the place from which it is sung. Where there is a tune its notes carry them. */
  words: z
    .array(SungWords)
    .max(MOST.notes)
    .overwrite((words) => [...words].sort((a, b) => a.at - b.at))
    .optional(),
  marks: z.array(Mark).max(MOST.marks),
  /** Where the tempo changes, in quarter notes a minute; absent where it is the same throughout. */
  tempos: z
    .array(z.object({ at: ticks, tempo: z.number().min(20).max(400) }))
    .max(MOST.changes)
    .optional(),
  /** The measures as they are numbered on the page, in the order in which they are played: "1–8, 1–6, 9–16"; absent where none comes again. */
  order: line(2000).optional(),
});

/**
 * A song as it was brought in: one melody line and chord symbols. All positions and lengths are ticks from the
 * start of the music, the pick-up at 0. Melody notes never overlap, chords are in order, all lie inside the song.
 */
export const SongSchema = SongShape.superRefine((song, context) => {
  const fault = faultOf(song);
  if (fault) context.addIssue({ code: 'custom', message: fault.code, params: { fault } });
});

export type Song = z.infer<typeof SongShape>;
export type MelodyNote = z.infer<typeof MelodyNote>;
export type SungWords = z.infer<typeof SungWords>;
export type KeyNote = z.infer<typeof KeyNote>;
export type ChordEvent = z.infer<typeof ChordEvent>;
export type Mark = z.infer<typeof Mark>;
export type Lyric = z.infer<typeof Lyric>;

/** All keys that a note of the tune is struck with, bottom-up. */
export const keysOf = ({ pitch, with: beside }: Pick<MelodyNote, 'pitch' | 'with'>): string[] =>
  beside ? [...beside, pitch].sort((a, b) => midiOf(a) - midiOf(b)) : [pitch];

/** A note with other notes struck together with it, bottom-up; alone where there are none. */
export function besides(note: MelodyNote, beside: readonly string[]): MelodyNote {
  const { with: _, ...alone } = note;
  return beside.length === 0 ? alone : { ...alone, with: [...beside].sort((a, b) => midiOf(a) - midiOf(b)) };
}

/** A note of the tune on other keys, with what is struck with it and the small notes before it. */
export function onKeys(note: MelodyNote, move: (pitch: string) => string): MelodyNote {
  const moved = { ...note, pitch: move(note.pitch), ...(note.graces ? { graces: note.graces.map(move) } : {}) };
  return besides(moved, (note.with ?? []).map(move));
}

/** The written left hand and the second voice of the right on other keys; a note that would leave the piano is taken in the nearest octave on it. */
export function handsOnKeys(
  { left, inner }: Pick<Song, 'left' | 'inner'>,
  move: (pitch: string) => string,
): Pick<Song, 'left' | 'inner'> {
  return { ...(left ? { left: keysMoved(left, move) } : {}), ...(inner ? { inner: keysMoved(inner, move) } : {}) };
}

function keysMoved(notes: readonly KeyNote[], move: (pitch: string) => string): KeyNote[] {
  return notes.map((note) => {
    let pitch = move(note.pitch);
    while (midiOf(pitch) < LOWEST_KEY) pitch = octaveUp(pitch, 1);
    while (midiOf(pitch) > HIGHEST_KEY) pitch = octaveUp(pitch, -1);
    return { ...note, pitch };
  });
}

/** A chord symbol with the stretch it holds for, in ticks. */
export interface ChordSpan {
  readonly at: number;
  readonly length: number;
  readonly symbol: string;
}

/** The chords with their lengths, each up to the next or the end of the song. */
export function chordSpans(song: Pick<Song, 'chords' | 'length'>): ChordSpan[] {
  return song.chords.map((c, i) => ({
    at: c.at,
    length: (song.chords[i + 1]?.at ?? song.length) - c.at,
    symbol: c.symbol,
  }));
}

/** An empty song to start from. */
export function emptySong(key: Key = { tonic: 'C', mode: 'major' }): Song {
  return {
    title: 'Untitled',
    composer: null,
    key: { ...key },
    tempo: 96,
    pickup: 0,
    length: 1,
    meters: [{ at: 0, beats: 4, unit: 4 }],
    melody: [],
    chords: [],
    marks: [],
  };
}
