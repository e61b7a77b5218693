import { z } from 'zod';
import type { Key } from '../harmony/key.js';
import { HIGHEST_KEY, LOWEST_KEY, isPitch, midiOf } from '../pitch/pitch.js';
import { placeName, layBars } from '../time/bars.js';

const ticks = z.number().int().min(0);
const noteName = z.string().regex(/^[A-G](b|#)?$/);

/** A sung syllable; `joins` is true where the word goes on in the next syllable. */
const Lyric = z.object({ text: z.string().max(200), joins: z.boolean() });

const MelodyNote = z.object({
  at: ticks,
  length: ticks.min(1),
  pitch: z.string().refine((p) => isPitch(p) && midiOf(p) >= LOWEST_KEY && midiOf(p) <= HIGHEST_KEY, {
    message: 'lies off the keyboard (A0 to C8)',
  }),
  lyric: Lyric.nullable(),
  /** Small notes struck just before it, as they are written; they are not played. */
  graces: z.array(z.string().refine(isPitch)).max(16).optional(),
});

/** A chord symbol at a place; it holds until the next one or the end. */
const ChordEvent = z.object({ at: ticks, symbol: z.string().min(1).max(40) });

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
  text: z.string().max(200).nullable(),
});

const MeterAt = z.object({
  at: ticks,
  beats: z.number().int().min(1).max(32),
  unit: z.union([z.literal(1), z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
});

export const MAX_NOTES = 20_000;

/** Finds the first broken invariant of a song, as a sentence with its place, or null. */
function firstFault(song: z.infer<typeof SongShape>): string | null {
  if (song.meters.length === 0 || song.meters[0].at !== 0) return 'The song has no time signature at its start.';
  const bars = layBars(song);
  let until = 0;
  for (const note of song.melody) {
    const where = () => placeName(bars, note.at);
    if (note.at < until) return `Two melody notes sound at once at ${where()}.`;
    until = note.at + note.length;
    if (until > song.length) return `The melody note at ${where()} runs past the end of the song.`;
  }
  let before = -1;
  for (const chord of song.chords) {
    if (chord.at <= before) return `The chords are out of order at ${placeName(bars, chord.at)}.`;
    if (chord.at >= song.length) return `The chord ${chord.symbol} lies past the end of the song.`;
    before = chord.at;
  }
  if (song.pickup >= song.length) return 'The pick-up is longer than the song.';
  return null;
}

const SongShape = z.object({
  title: z.string().min(1).max(200),
  composer: z.string().max(200).nullable(),
  key: z.object({ tonic: noteName, mode: z.enum(['major', 'minor']) }),
  /** Quarter notes a minute. */
  tempo: z.number().min(20).max(400),
  pickup: ticks,
  length: ticks.min(1),
  meters: z.array(MeterAt).min(1),
  melody: z.array(MelodyNote).max(MAX_NOTES),
  chords: z.array(ChordEvent).max(MAX_NOTES),
  marks: z.array(Mark).max(MAX_NOTES),
  /** Where the tempo changes, in quarter notes a minute; absent where it is the same throughout. */
  tempos: z
    .array(z.object({ at: ticks, tempo: z.number().min(20).max(400) }))
    .max(1000)
    .optional(),
  /** The measures as they are numbered on the page, in the order in which they are played: "1–8, 1–6, 9–16"; absent where none comes again. */
  order: z.string().max(2000).optional(),
});

/**
 * A song as it was brought in: one melody line and chord symbols. All positions and lengths are ticks from the
 * start of the music, the pick-up at 0. Melody notes never overlap, chords are in order, all lie inside the song.
 */
export const SongSchema = SongShape.superRefine((song, context) => {
  const fault = firstFault(song);
  if (fault) context.addIssue({ code: 'custom', message: fault });
});

export type Song = z.infer<typeof SongShape>;
export type MelodyNote = z.infer<typeof MelodyNote>;
export type ChordEvent = z.infer<typeof ChordEvent>;
export type Mark = z.infer<typeof Mark>;
export type Lyric = z.infer<typeof Lyric>;

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
