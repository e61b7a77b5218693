import { describe, expect, it } from 'vitest';
import { songOf } from '../../testing/songs.js';
import type { Mark, Song } from '../song/song.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { findBoundaries } from './boundaries.js';

const EVEN: [string, number][] = Array.from({ length: 16 }, (_, i) => [['C5', 'D5', 'E5', 'F5'][(i * 3 + (i >> 2)) % 4], 1]);

/** How much more speaks for a place when something is changed about a song of even quarter notes. */
function gain(place: number, change: (song: Song) => void): { gain: number; reasons: readonly string[] } {
  const plain = songOf(EVEN);
  const changed = songOf(EVEN);
  change(changed);
  const at = (song: Song) => findBoundaries(song, layBars(song)).find((b) => b.at === place * Q);
  const [before, after] = [at(plain), at(changed)];
  return { gain: (after?.strength ?? 0) - (before?.strength ?? 0), reasons: after?.terms.map((t) => t.term) ?? [] };
}

const mark = (kind: Mark['kind'], at: number) => (song: Song) => void song.marks.push({ at: at * Q, kind, text: null });

describe('what speaks for a boundary', () => {
  it.each([
    ['section', 'section'],
    ['line-end', 'lineEnd'],
    ['double-bar', 'doubleBar'],
    ['repeat', 'repeat'],
    ['ending', 'repeat'],
    ['slur-end', 'slurEnd'],
    ['breath', 'breath'],
  ] as const)('a mark: %s', (kind, reason) => {
    const told = gain(8, mark(kind, 8));
    expect(told.gain).toBeGreaterThan(0);
    expect(told.reasons).toContain(reason);
  });

  it('punctuation under the note before, a full stop more than a comma', () => {
    const word = (text: string) =>
      gain(8, (s) => {
        s.melody[7].lyric = { text, joins: false };
      });
    expect(word('home.').reasons).toContain('sentenceEnd');
    expect(word('home,').reasons).toContain('comma');
    expect(word('home.').gain).toBeGreaterThan(word('home,').gain);
    expect(word('home').gain).toBe(0);
  });

  it('a long note before and a rest, longer ones more', () => {
    const held = gain(8, (s) => {
      s.melody.splice(6, 2, { ...s.melody[6], length: 2 * Q });
    });
    expect(held.reasons).toContain('longNote');
    const rested = (quarters: number) =>
      gain(8, (s) => {
        s.melody.splice(8 - quarters, quarters);
      });
    expect(rested(1).reasons).toContain('rest');
    expect(rested(2).gain).toBeGreaterThan(rested(1).gain);
  });

  it('a leap of a fifth or more', () => {
    const leap = gain(8, (s) => {
      s.melody[8].pitch = 'C6';
    });
    expect(leap.reasons).toContain('leap');
  });

  it('earlier notes that come back', () => {
    const returns = gain(8, (s) => {
      for (let i = 0; i < 8; i++) s.melody[8 + i].pitch = s.melody[i].pitch;
    });
    expect(returns.reasons).toContain('returns');
  });

  it('regular lengths: four full bars more than two, a bar line more than none', () => {
    const song = songOf([...EVEN, ...EVEN]);
    const strength = (quarters: number) =>
      findBoundaries(song, layBars(song)).find((b) => b.at === quarters * Q)?.strength ?? NaN;
    expect(strength(16)).toBeGreaterThan(strength(8));
    expect(strength(8)).toBeGreaterThan(strength(4));
    expect(strength(4)).toBeGreaterThan(strength(6));
  });

  it('nothing inside a word', () => {
    const word = gain(8, (s) => {
      s.melody[7].lyric = { text: 'har', joins: true };
    });
    expect(word.gain).toBeLessThan(-2);
  });

  it('a mark at the bar line speaks for the pick-up in front of it', () => {
    const song = songOf(EVEN, [], { pickup: Q, marks: [{ at: 9 * Q, kind: 'line-end', text: null }] });
    const found = findBoundaries(song, layBars(song)).filter((b) => b.terms.some((t) => t.term === 'lineEnd'));
    expect(found.map((b) => b.at / Q)).toEqual([8]);
  });
});
