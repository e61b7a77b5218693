import { ENGLISH } from '../words/index.js';
import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { midiOf } from '../pitch/pitch.js';
import { pinVoicing } from '../song/edits.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { commonKeys, muddiness } from './costs.js';
import { noteSets } from '../catalogue/schools/note-sets.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { blockStrikes } from './strikes.js';

const midis = (...pitches: string[]) => pitches.map(midiOf);

describe('the lowest clear positions', () => {
  it.each([
    ['a small second', 'E3', 'F3'],
    ['a second', 'Eb3', 'F3'],
    ['a small third', 'C3', 'Eb3'],
    ['a third', 'Bb2', 'D3'],
    ['a fourth', 'Bb2', 'Eb3'],
    ['a tritone', 'Bb2', 'E3'],
    ['a fifth', 'Bb1', 'F2'],
    ['a small sixth', 'F2', 'Db3'],
    ['a sixth', 'F2', 'D3'],
    ['a small seventh', 'F2', 'Eb3'],
    ['a seventh', 'F2', 'E3'],
  ])('%s is clear from %s up, and muddy a half step lower', (_, low, high) => {
    expect(muddiness(midis(low, high))).toBe(0);
    expect(muddiness(midis(low, high).map((m) => m - 1))).toBe(1);
  });

  it('let an octave lie anywhere', () => {
    expect(muddiness(midis('A0', 'A1'))).toBe(0);
  });

  it('are kept by the search where it can, and marked where a pin breaks them', () => {
    const song = songOf([['C6', 4]], [[0, 'C']]);
    expect(arrange(documentOf(song)).findings).toEqual([]);
    const low = arrange(pinVoicing(documentOf(song), 0, ['C2', 'E2', 'G2']));
    expect(low.findings).toContainEqual(expect.objectContaining({ rule: 'low', severity: 'note' }));
    expect(ENGLISH.fact(low.findings[0].fact)).toContain('C at bar 1, count 1 is close and low');
  });
});

describe('candidates', () => {
  const sets = (symbol: string) => noteSets(parseChord(symbol) as Chord).map((s) => `${s.form}: ${s.names.join(' ')}`);

  it('spread a wide chord without its root: third or seventh at the bottom, the tension above', () => {
    expect(sets('G13').slice(0, 2)).toEqual(['rootless: B E F A', 'rootless: F A B E']);
    expect(sets('C9').slice(0, 3)).toEqual(['rootless: E G Bb D', 'rootless: Bb D E G', 'no-fifth: C E Bb D']);
    expect(sets('Dm11')[0]).toBe('rootless: C F G');
    expect(sets('D11')[0]).toBe('rootless: A C E G');
  });

  it('thin a triad to two notes and a seventh by its fifth first', () => {
    expect(sets('F')).toEqual(['full: F A C', 'two-note: F A', 'one-note: F']);
    expect(sets('F7')[1]).toBe('no-fifth: F A Eb');
    expect(sets('F5')).toEqual(['full: F C', 'one-note: F']);
  });

  it('are thinned, with a finding, when the tune leaves no room', () => {
    const { parts, findings } = arrange(documentOf(songOf([['A3', 4]], [[0, 'Cmaj7']])));
    expect(parts[0].chords[0]).toMatchObject({ form: 'two-note', pitches: ['C3', 'E3'], fingers: [2, 1] });
    const thinned = findings.filter((f) => f.rule === 'thinned');
    expect(thinned.map((f) => f.severity)).toEqual(['note']);
    expect(thinned[0].fixes.map((f) => f.fact)).toContainEqual({ code: 'fix.advice', advice: 'melody-octave-up' });
  });
});

describe('block strikes', () => {
  const bars = layBars({ pickup: Q, length: 13 * Q, meters: [{ at: 0, beats: 4, unit: 4 }] });

  it('strike at each change and at each bar line, filling the time exactly', () => {
    const spans = [
      { at: 0, length: 3 * Q, symbol: 'C' },
      { at: 3 * Q, length: 10 * Q, symbol: 'F' },
    ];
    const strikes = blockStrikes(spans, bars);
    expect(strikes.map((s) => [s.at / Q, s.length / Q, s.symbol, s.restruck])).toEqual([
      [0, 1, 'C', false],
      [1, 2, 'C', true],
      [3, 2, 'F', false],
      [5, 4, 'F', true],
      [9, 4, 'F', true],
    ]);
  });

  it('know a chord that is written again', () => {
    const spans = [
      { at: Q, length: 4 * Q, symbol: 'C' },
      { at: 5 * Q, length: 8 * Q, symbol: 'C' },
    ];
    expect(blockStrikes(spans, bars).map((s) => s.restruck)).toEqual([false, true, true]);
  });
});

it('counts shared keys', () => {
  expect(commonKeys(midis('C3', 'E3', 'G3'), midis('C3', 'E3', 'A3'))).toBe(2);
});
