import { describe, expect, it } from 'vitest';
import { songOf } from '../../testing/songs.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import type { Song } from '../song/song.js';
import { divide } from '../divide/divide.js';
import { newDocument } from '../song/decisions.js';
import { transposeSong } from '../song/edits.js';
import { keysOf, MODES, type Key } from './key.js';
import { degreeOf } from './naming.js';
import { suggestChords } from './suggest.js';
import { parseChord, type Chord } from './symbol.js';
import { keyChords } from './vocabulary.js';
import { VOCABULARIES } from './wishes.js';

/** A tune in 4/4 from its bars: "D5 A5 A5 G5 | …", each bar filled evenly; "-" holds the note before. */
function tuneOf(bars: string, key: Key, more: Partial<Song> = {}): Song {
  const notes: [string, number][] = [];
  for (const bar of bars.split('|')) {
    const words = bar.trim().split(/\s+/);
    for (const word of words) {
      const each = 4 / words.length;
      const last = notes.at(-1);
      if (word === '-' && last) last[1] += each;
      else notes.push([word, each]);
    }
  }
  return songOf(notes, [], { key, ...more });
}

function chordsOf(song: Song): { readonly at: number; readonly symbol: string }[] {
  const bars = layBars(song);
  const ends = divide(song, bars, newDocument(song).choices).map((p) => p.end);
  const task = { tune: song.melody, bars, key: song.key, tempo: song.tempo, ends, from: 0, to: song.length, fixed: new Map() };
  return suggestChords({ ...task, vocabulary: 'triads', rhythm: 'proposed' });
}

const numerals = (song: Song): string[] => chordsOf(song).map((c) => degreeOf(parseChord(c.symbol) as Chord, song.key));
/** The bar of each chord, from 0; halves and quarters for those inside a bar. */
const places = (song: Song): number[] => chordsOf(song).map((c) => c.at / (4 * Q));

describe('the chords of a mode', () => {
  it('are read in every key, each vocabulary holding the ones before it', () => {
    for (const mode of MODES)
      for (const key of keysOf(mode)) {
        let before: readonly string[] = [];
        for (const vocabulary of VOCABULARIES) {
          const symbols = keyChords(key, vocabulary).map((c) => c.symbol);
          expect(symbols.slice().filter((s) => before.includes(s))).toEqual(before);
          for (const symbol of symbols) expect(parseChord(symbol).kind).toBe('chord');
          before = symbols;
        }
      }
  });

  it.each([
    ['dorian', ['i', 'VII', 'IV']],
    ['mixolydian', ['I', 'bVII', 'IV']],
    ['phrygian', ['i', 'bII', 'vii']],
    ['lydian', ['I', 'II', 'V']],
    ['minor', ['i', 'iv', 'V']],
  ] as const)('begin in %s with those that its tunes are played with', (mode, three) => {
    for (const key of keysOf(mode)) expect(keyChords(key, 'three').map((c) => degreeOf(c.chord, key))).toEqual(three);
  });

  it('close a Mixolydian and a Dorian tune from the chord below home, in all twelve keys', () => {
    const mixolydian = tuneOf('G4 B4 D5 B4 | F5 D5 C5 A4 | G4 B4 D5 G5 | F5 D5 C5 A4 | G4 - - -', {
      tonic: 'G',
      mode: 'mixolydian',
    });
    const dorian = tuneOf('D5 D5 F5 A5 | G5 E5 C5 E5 | D5 F5 A5 B5 | G5 E5 C5 E5 | D5 - - -', { tonic: 'D', mode: 'dorian' });
    for (const [song, mode, closes] of [
      [mixolydian, 'mixolydian', ['bVII', 'I']],
      [dorian, 'dorian', ['VII', 'i']],
    ] as const)
      for (const key of keysOf(mode)) expect(numerals(transposeSong(song, key)).slice(-2)).toEqual(closes);
  });

  it('give a minor tune its dominant at the close, and the chord on the natural seventh where the tune has it', () => {
    const song = tuneOf('A4 C5 E5 C5 | B4 G4 D5 B4 | C5 E5 A4 C5 | B4 G#4 E4 G#4 | A4 - - -', { tonic: 'A', mode: 'minor' });
    for (const key of keysOf('minor')) expect(numerals(transposeSong(song, key))).toEqual(['i', 'VII', 'i', 'V', 'i']);
  });
});

describe('how often chords change', () => {
  const C = { tonic: 'C', mode: 'major' } as const;

  it('is by the bar in a dance, and every second bar over a vamp', () => {
    const dance = tuneOf('C5 E5 G5 E5 | D5 G5 B4 D5 | C5 F5 A5 F5 | G5 E5 C5 -', C, { tempo: 120 });
    expect(places(dance)).toEqual([0, 1, 2, 3]);
    const vamp = tuneOf('C5 E5 G5 E5 | G5 E5 C5 E5 | D5 G5 B4 D5 | B4 D5 G5 D5 | C5 E5 G5 E5 | C5 - - -', C, { tempo: 120 });
    expect(places(vamp)).toEqual([0, 2, 4]);
  });

  it('is by half bars in a slow song whose halves stand on other chords', () => {
    const ballad = tuneOf('C5 E5 F5 A5 | G5 B4 C5 E5 | F5 A5 B4 D5 | C5 - - -', C, { tempo: 66 });
    expect(places(ballad)).toEqual([0, 0.5, 1, 1.5, 2, 2.5, 3]);
  });

  it('is slower where the tempo leaves no time for more', () => {
    const song = tuneOf('E5 C5 D5 B4 | C5 E5 D5 G4 | E5 C5 A4 D5 | C5 - - -', C);
    const many = [50, 240].map((tempo) => places({ ...song, tempo }).length);
    expect(many[0]).toBeGreaterThan(many[1]);
  });

  it('is on most beats in a slow tune of leaps that no chord holds for two', () => {
    const hymn = tuneOf('C5 F5 B4 E5 | A4 D5 G5 C5 | F5 B4 E5 A4 | D5 G5 C5 -', C, { tempo: 60 });
    expect(places(hymn).length).toBeGreaterThanOrEqual(9);
  });
});
