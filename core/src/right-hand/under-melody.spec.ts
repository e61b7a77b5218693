import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { documentOf, songOf, songs, SYMBOLS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { toneFor } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { setSchool, setSetting } from '../song/edits.js';
import type { Song } from '../song/song.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';

const under = (song: Song, long = false) => {
  const doc = setSchool(documentOf(song), 'under-melody');
  return arrange(long ? setSetting(doc, null, 'under', 'long') : doc).parts.flatMap((p) => p.under.filter((u) => !u.written));
};
const degrees = (symbol: string, pitches: readonly string[]) =>
  pitches.map((p) => toneFor(parseChord(symbol) as Chord, nameOf(p))?.degree).sort();

describe('the chord under the tune', () => {
  it('leaves the root to the bass and keeps third, fifth and seventh under a ninth', () => {
    for (const [symbol, ninth] of [
      ['Fmaj9', 'G5'],
      ['Dm9', 'E5'],
      ['C9', 'D5'],
      ['Bbmaj9', 'C5'],
    ] as const)
      // prettier-ignore
      expect([symbol, ...under(songOf([[ninth, 4]], [[0, symbol]])).map((u) => degrees(symbol, u.pitches))]).toEqual([
        symbol,
        [3, 5, 7],
      ]);
  });

  it('has no second in it, neither under the tune nor between its notes, and only notes of the chord', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...SYMBOLS.filter((s) => s !== 'N.C.')), { minLength: 1, maxLength: 6 }),
        fc.array(fc.constantFrom('C5', 'D5', 'Eb5', 'E5', 'F5', 'F#5', 'G5', 'A5', 'Bb5', 'B5'), { minLength: 6, maxLength: 6 }),
        (symbols, tune) => {
          const song = songOf(symbols.map((_, i) => [tune[i], 4] as const), symbols.map((s, i) => [i * 4, s] as const)); // prettier-ignore
          for (const { at, pitches, tune: top } of under(song)) {
            const chord = parseChord(symbols[at / (4 * Q)]) as Chord;
            const keys = [...pitches, top].map(midiOf);
            for (let i = 1; i < keys.length; i++) expect(keys[i] - keys[i - 1]).toBeGreaterThanOrEqual(3);
            for (const p of [...pitches, top]) expect(toneFor(chord, nameOf(p))).not.toBeNull();
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  it('is struck once under a tied note, and again only where the chord changes', () => {
    const held = under(songOf([['E5', 12]], [[0, 'C'], [8, 'Am']])); // prettier-ignore
    expect(held.map((u) => [u.at / Q, u.length / Q])).toEqual([[0, 8], [8, 4]]); // prettier-ignore
  });

  it('is struck where the chord changes, with the first note that belongs to it, however short', () => {
    const song = songOf([['E5', 0.5], ['D5', 0.5], ['C5', 1], ['D5', 0.5], ['C5', 0.5], ['A5', 1]], [[0, 'C'], [2, 'F']]); // prettier-ignore
    expect(under(song).map((u) => u.at / Q)).toEqual([0, 2.5]);
  });

  it('is struck under long notes only where that is wished for', () => {
    fc.assert(
      fc.property(songs({ maxBars: 5 }), (song) => {
        const some = under(song, true);
        for (const u of some) expect(u.length).toBeGreaterThanOrEqual(2 * Q);
        expect(some.length).toBeLessThanOrEqual(under(song).length);
      }),
      { numRuns: 40 },
    );
  });

  it('keeps the notes that two chords share on their keys', () => {
    const [first, second] = under(songOf([['G5', 4], ['A5', 4]], [[0, 'C'], [4, 'Am']])); // prettier-ignore
    expect(first.pitches.filter((p) => second.pitches.includes(p))).toEqual(first.pitches);
  });
});

describe('open chords', () => {
  const open = (symbols: readonly string[]) =>
    arrange(
      setSchool(documentOf(songOf(symbols.map(() => ['C6', 4] as const), symbols.map((s, i) => [i * 4, s] as const))), 'open'), // prettier-ignore
    ).parts.flatMap((p) => p.chords);

  it('are open over their third and fifth too: three notes, a tenth and more from end to end', () => {
    for (const symbol of ['C/E', 'Dm/F', 'G/B', 'F/A', 'C/G', 'Am/E', 'D/F#'])
      for (const { pitches } of open([symbol])) {
        expect(pitches).toHaveLength(3);
        expect(midiOf(pitches[2]) - midiOf(pitches[0])).toBeGreaterThan(12);
        expect(midiOf(pitches[1]) - midiOf(pitches[0])).toBeGreaterThanOrEqual(5);
      }
  });

  it.each([
    ['C', 'Dm', 'Em', 'F', 'G', 'Am'],
    ['Eb', 'Fm', 'Gm', 'Ab', 'Bb', 'Cm'],
    ['F', 'Gm', 'Am', 'Bb', 'C', 'Dm'],
  ])(
    // prettier-ignore
    'let a bass rise that rises: %s',
    (...symbols) => {
      const basses = open(symbols).map((c) => midiOf(c.pitches[0]));
      basses.slice(1).forEach((bass, i) => expect(bass - basses[i]).toBeGreaterThan(0));
    },
  );
});
