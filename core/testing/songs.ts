import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ENGLISH } from '../src/words/index.js';
import { openFile } from '../src/formats/index.js';
import { newDocument, type Document } from '../src/song/decisions.js';
import { KEY_NAMES } from '../src/pitch/note-names.js';
import { midiOf, pitchAt } from '../src/pitch/pitch.js';
import { besides, emptySong, keysOf, type Song } from '../src/song/song.js';
import { barTicks } from '../src/time/meter.js';
import { TICKS_PER_QUARTER as Q } from '../src/time/ticks.js';

/** Opens one of the demo songs. */
export function demo(name: string): Document {
  const opened = openFile(name, new Uint8Array(readFileSync(join(import.meta.dirname, '../../demo', name))));
  if (!opened.ok) throw new Error(ENGLISH.fact(opened.fault));
  return opened.document;
}

export const DEMOS = ['lamps-across-the-sound.letters', 'harbour-glass.abc', 'all-aboard-for-nettle-point.musicxml'];

/** A song from plain words: notes as [pitch, quarters], chords as [quarters from the start, symbol]. */
export function songOf(
  notes: readonly (readonly [pitch: string | null, quarters: number])[],
  chords: readonly (readonly [at: number, symbol: string])[] = [],
  more: Partial<Song> = {},
): Song {
  const melody: Song['melody'] = [];
  let at = 0;
  for (const [pitch, quarters] of notes) {
    const length = Math.round(quarters * Q);
    // Several keys of one moment stand together, the tune's first: "C5+E4".
    const [tune, ...beside] = pitch?.split('+') ?? [];
    if (tune) melody.push(besides({ at, length, pitch: tune, lyric: null }, beside));
    at += length;
  }
  return {
    ...emptySong(),
    title: 'Test',
    length: at,
    melody,
    chords: chords.map(([place, symbol]) => ({ at: Math.round(place * Q), symbol })),
    ...more,
  };
}

/** Two, five and one of C in seventh chords, a bar each, under a tune that is out of their way. */
export const TWO_FIVE_ONE: Song = songOf(
  [
    ['A5', 4],
    ['B5', 4],
    ['G5', 4],
  ],
  [
    [0, 'Dm7'],
    [4, 'G7'],
    [8, 'Cmaj7'],
  ],
);

export const documentOf = (song: Song): Document => newDocument(song);

const METERS = [
  { beats: 2, unit: 4 as const },
  { beats: 3, unit: 4 as const },
  { beats: 4, unit: 4 as const },
  { beats: 6, unit: 8 as const },
];

export const SYMBOLS = [
  'C',
  'Dm',
  'Em',
  'F',
  'G',
  'Am',
  'Bdim',
  'Eb',
  'Bbm',
  'F#m',
  'Caug',
  'Gsus4',
  'Asus2',
  'E5',
  'C6',
  'Dm6',
  'G7',
  'Cmaj7',
  'Dm7',
  'Bm7b5',
  'Bdim7',
  'CmMaj7',
  'G7sus4',
  'C7#5',
  'D7b5',
  'Gb7',
  'Abmaj7',
  'C#m7',
  'G9',
  'Fmaj9',
  'Em9',
  'Cadd9',
  'G7b9',
  'E7#9',
  'D11',
  'F7#11',
  'G13',
  'C6/9',
  'C/E',
  'F/A',
  'D/F#',
  'Gm/D',
  'C/D',
  'F/G',
  'Am7/G',
  'N.C.',
];

/** Notes of one beat or more that fill whole quarters, some of them triplets. */
const FIGURES = [[1], [0.5, 0.5], [1.5, 0.5], [2], [0.25, 0.25, 0.5], [1 / 3, 1 / 3, 1 / 3], [0.75, 0.25], [3]];

interface SongLimits {
  readonly symbols?: readonly string[];
  readonly maxBars?: number;
  readonly triplets?: boolean;
  /** False where the tune is one note at a time; in a third of the songs else some notes are struck together. */
  readonly stacks?: boolean;
}

/** Random songs: a meter, perhaps a pick-up, a tune with rests and tuplets, chords, words. */
export function songs(limits: SongLimits = {}): fc.Arbitrary<Song> {
  const symbols = limits.symbols ?? SYMBOLS;
  const note = fc.record({
    pitch: fc.constantFrom(
      'C4',
      'D4',
      'E4',
      'F4',
      'F#4',
      'G4',
      'Ab4',
      'A4',
      'Bb4',
      'B4',
      'C5',
      'C#5',
      'D5',
      'Eb5',
      'E5',
      'G5',
      'A5',
    ),
    rest: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
    word: fc.option(fc.constantFrom('sea', 'har', 'lamp,', 'tide.', 'the'), { nil: null }),
    joins: fc.boolean(),
    // Half steps under it, where other notes are struck with it.
    under: fc.constantFrom<readonly number[]>(
      [],
      [],
      [],
      [],
      [],
      [],
      [],
      [],
      [3],
      [4],
      [7],
      [9],
      [12],
      [3, 8],
      [5, 9],
      [4, 7, 12],
    ),
  });
  return fc
    .record({
      meter: fc.constantFrom(...METERS),
      bars: fc.integer({ min: 1, max: limits.maxBars ?? 10 }),
      hasPickup: fc.boolean(),
      figures: fc.array(fc.constantFrom(...FIGURES.slice(0, limits.triplets === false ? 5 : FIGURES.length)), {
        minLength: 60,
        maxLength: 60,
      }),
      notes: fc.array(note, { minLength: 90, maxLength: 90 }),
      chords: fc.array(fc.constantFrom(...symbols), { minLength: 24, maxLength: 24 }),
      halves: fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
      tempo: fc.integer({ min: 50, max: 160 }),
      stacked: limits.stacks === false ? fc.constant(false) : fc.integer({ min: 0, max: 2 }).map((n) => n === 0),
    })
    .map(({ meter, bars, hasPickup, figures, notes, chords, halves, tempo, stacked }): Song => {
      const bar = barTicks(meter);
      const pickup = hasPickup ? Q : 0;
      const length = pickup + bars * bar;
      const melody: Song['melody'] = [];
      let at = 0;
      let n = 0;
      for (const figure of figures) {
        for (const share of figure) {
          const size = Math.round(share * Q);
          if (at + size > length) continue;
          const { pitch, rest, word, joins, under } = notes[n++ % notes.length];
          const beside = stacked ? under.map((by) => pitchAt(KEY_NAMES[(midiOf(pitch) - by) % 12], midiOf(pitch) - by)) : [];
          if (!rest || (at === 0 && pickup > 0))
            melody.push(besides({ at, length: size, pitch, lyric: word ? { text: word, joins } : null }, beside));
          at += size;
        }
      }
      if (melody.length === 0) melody.push({ at: 0, length: Q, pitch: 'C5', lyric: null });
      const events: Song['chords'] = [];
      let c = 0;
      for (let b = 0; b < bars; b++) {
        events.push({ at: pickup + b * bar, symbol: chords[c++ % chords.length] });
        if (halves[b % halves.length] && meter.beats % 2 === 0)
          events.push({ at: pickup + b * bar + bar / 2, symbol: chords[c++ % chords.length] });
      }
      return {
        ...emptySong(),
        title: 'Random tune',
        tempo,
        pickup,
        length,
        meters: [{ at: 0, ...meter }],
        melody,
        chords: events,
      };
    });
}

/** What has to survive a round trip: every note with its syllable, every chord. */
export function essence(song: Song): object {
  return {
    notes: song.melody.map((n) => `${n.at} ${n.length} ${keysOf(n).join('+')} ${n.lyric?.text ?? ''}`),
    chords: song.chords.map((c) => `${c.at} ${c.symbol}`),
    pickup: song.pickup,
    meters: song.meters,
  };
}
