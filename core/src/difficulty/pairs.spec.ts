import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import type { Document } from '../song/decisions.js';
import { pinVoicing, setPassage, setSetting, transposeSong } from '../song/edits.js';
import type { Song } from '../song/song.js';
import { ENGLISH } from '../words/index.js';

type Row = readonly (readonly [string | null, number])[];

const inQuarters = (names: string, length = 1): Row => names.split(' ').map((n) => [n === '-' ? null : n, length] as const);
const passage = (notes: Row, chords: readonly (readonly [number, string])[] = [[0, 'C']], more: Partial<Song> = {}): Document => {
  const song = songOf(notes, chords, { tempo: 96, ...more });
  const doc = documentOf(song);
  return { ...doc, choices: { ...doc.choices, parts: [{ start: 0, end: song.length }] } };
};
const textured = (doc: Document, texture: string) => setSetting(doc, null, 'texture', texture);
const difficultyOf = (doc: Document) => arrange(doc).parts[0].difficulty;

const TONICS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
const STEPS = inQuarters('C5 D5 E5 F5 G5 F5 E5 D5');
const LEAPS = inQuarters('C5 A5 D5 B5 E5 C6 D5 B5');
const LEAPS_AND_RESTS = inQuarters('C5 A5 - B5 E5 - D5 B5');
const CROSSINGS = inQuarters('C5 D5 E5 F5 G5 A5 B5 C6');
const FOREIGN = inQuarters('C5 D#5 E5 F#5 G5 F#5 E5 D#5');
const HELD: Row = [['G5', 4], ['E5', 4]]; // prettier-ignore
const SHAPES = [[0, 'C'], [1, 'A7'], [2, 'Dm7'], [3, 'B7'], [4, 'Em'], [5, 'F#dim'], [6, 'G7'], [7, 'C']] as const; // prettier-ignore
const AGAIN = [[0, 'C'], [1, 'C'], [2, 'C'], [3, 'C'], [4, 'C'], [5, 'C'], [6, 'C'], [7, 'C']] as const; // prettier-ignore
const ROUND = [[0, 'C'], [2, 'F'], [4, 'G'], [6, 'Am']] as const; // prettier-ignore
const LONG = [...STEPS, ...STEPS, ...STEPS, ...STEPS];
const BREATHING = LONG.map(([n, l], i): Row[number] => (i % 8 === 7 ? [null, l] : [n, l]));

/** Passages in pairs, the easier first, as a teacher would put them. */
const PAIRS: readonly (readonly [string, Document, Document])[] = [
  ['steps under one hand, leaps in a row', passage(STEPS), passage(LEAPS)],
  ['leaps with rests between them, leaps in a row', passage(LEAPS_AND_RESTS), passage(LEAPS)],
  ['a tune in one place, a tune that passes the thumb', passage(STEPS), passage(CROSSINGS)],
  ['notes of the key, notes outside it', passage(STEPS), passage(FOREIGN)],
  ['crossings, leaps in a row', passage(CROSSINGS), passage(LEAPS)],
  ['one shape struck again under a held note, new shapes', passage(HELD, AGAIN), passage(HELD, SHAPES)],
  ['a chord struck again under a held note, notes outside the key', passage(HELD, AGAIN), passage(FOREIGN)],
  ['a chord struck again under a held note, leaps in a row', passage(HELD, AGAIN), passage(LEAPS)],
  [
    'chords with the tune, chords between its notes',
    textured(passage(STEPS), 'counted-block'),
    textured(passage(STEPS), 'pushed-bass'),
  ],
  ['block chords, a bass that leaps to its chord', passage(STEPS, ROUND), textured(passage(STEPS, ROUND), 'bass-chord')],
  [
    'the shape taken apart, a low bass and the chord',
    textured(passage(STEPS, ROUND), 'shape-apart'),
    textured(passage(STEPS, ROUND), 'bass-chord'),
  ],
  ['a chord within the hand, a stretch', passage(HELD), pinVoicing(passage(HELD), 0, ['C3', 'E3', 'D4'])],
  ['a tune that breathes, one without a rest', passage(BREATHING), passage(LONG)],
  ['slow, fast', passage(STEPS), passage(STEPS, [[0, 'C']], { tempo: 192 })],
  ['a tune on the beat, a tune ahead of it', passage(STEPS), passage([['C5', 0.5], ...inQuarters('D5 E5 F5 G5 F5 E5 D5'), ['C5', 0.5]])], // prettier-ignore
  ['notes outside the key, leaps in a row', passage(FOREIGN), passage(LEAPS)],
  [
    'bass notes alone, full chords',
    setPassage(passage(STEPS, SHAPES), { start: 0, end: 80640 }, { level: 'bass' }),
    passage(STEPS, SHAPES),
  ],
];

describe('difficulty in a teacher’s order', () => {
  it.each(PAIRS)('%s', (_, easier, harder) => {
    expect(difficultyOf(easier).score).toBeLessThan(difficultyOf(harder).score);
  });

  it('orders every pair alike in other keys', () => {
    const inKey = (doc: Document, tonic: string): Document => ({
      ...doc,
      song: transposeSong(doc.song, { tonic, mode: 'major' }),
    });
    for (const [name, easier, harder] of PAIRS.filter(([, a, b]) => a.choices.pins.length + b.choices.pins.length === 0))
      for (const tonic of ['F', 'G', 'Bb', 'D'])
        expect([name, tonic, difficultyOf(inKey(easier, tonic)).score < difficultyOf(inKey(harder, tonic)).score]).toEqual([
          name,
          tonic,
          true,
        ]);
  });

  it('leads with the reason that a teacher would name first', () => {
    const first = (doc: Document) => ENGLISH.fact(difficultyOf(doc).reasons[0]);
    expect(first(passage(LEAPS, AGAIN))).toMatch(/leaps in a row|jumps in the right hand/);
    expect(first(passage(FOREIGN, AGAIN))).toMatch(/outside the key/);
    expect(first(passage(CROSSINGS, AGAIN))).toMatch(/position change/);
    expect(first(passage(HELD, SHAPES))).toMatch(/left-hand shapes/);
    for (const doc of [passage(HELD, AGAIN), passage(STEPS, AGAIN)])
      expect(difficultyOf(doc).reasons.map((r) => r.code)).not.toContain('difficulty.between');
  });

  it('tells black keys and full chords last in every key, and still counts them', () => {
    const last = /black$|big-chords$/;
    for (const [t, tonic] of TONICS.entries())
      for (const [name, ...pair] of PAIRS.filter((_, i) => (i + t) % 3 === 0))
        for (const doc of pair.filter((d) => d.choices.pins.length === 0)) {
          const { reasons, terms } = difficultyOf({ ...doc, song: transposeSong(doc.song, { tonic, mode: 'major' }) });
          const told = reasons.map((r) => last.test(r.code));
          expect([name, tonic, told], `${name} in ${tonic}`).toEqual([name, tonic, [...told].sort()]);
          const asked = terms.filter((t) => !last.test(t.reason.code) && t.points >= 3).length;
          expect(told.filter((isLast) => !isLast).length, `${name} in ${tonic}`).toBe(Math.min(3, asked));
        }
    const inC = difficultyOf(passage(STEPS)).score;
    const inDFlat = difficultyOf({ ...passage(STEPS), song: transposeSong(passage(STEPS).song, { tonic: 'Db', mode: 'major' }) });
    expect(inDFlat.score).toBeGreaterThan(inC);
  });

  it('says of the hardest part what it asks for, not which keys it falls on', () => {
    const notes = [...inQuarters('Db5 Eb5 F5 Gb5 Ab5 Gb5 F5 Eb5'), ...inQuarters('Db5 Bb5 Eb5 C6 F5 Db6 Eb5 C6')];
    const song = songOf(notes, [[0, 'Db']], { tempo: 96, key: { tonic: 'Db', mode: 'major' } });
    const doc = documentOf(song);
    const half = song.length / 2;
    const parts = [{ start: 0, end: half }, { start: half, end: song.length }]; // prettier-ignore
    const { hardest } = arrange({ ...doc, choices: { ...doc.choices, parts } });
    expect(hardest?.part).toBe(2);
    expect(ENGLISH.fact((hardest?.reasons ?? [])[0])).toMatch(/leaps in a row|jumps in the right hand/);
  });
});
