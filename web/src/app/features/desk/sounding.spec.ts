import { parseChord, toneFor, type Chord } from '@joined-hands/core/harmony';
import type { VoicedChord } from '@joined-hands/core/left-hand';
import { midiOf } from '@joined-hands/core/pitch';
import { handsOf } from '@joined-hands/core/song';
import { describe, expect, it } from 'vitest';
import { keysFor, turned } from './sounding';

const chord = (symbol: string, pitches: readonly string[]) => ({ symbol, pitches }) as VoicedChord;

describe('the keys a chord is heard with', () => {
  it('are the whole chord, near to what lies there', () => {
    expect(keysFor('G7', handsOf(), ['D3', 'F3', 'A3', 'C4'])).toEqual(['D3', 'F3', 'G3', 'B3']);
    for (const symbol of ['Bbm6', 'F#m7b5', 'C/E']) {
      const keys = keysFor(symbol, handsOf(), ['C3', 'E3', 'G3']);
      const names = keys.map((k) => toneFor(parseChord(symbol) as Chord, k.replace(/\d/, ''))?.degree);
      expect(names).toContain(1);
      expect(keys.length).toBeGreaterThanOrEqual(3);
    }
  });

  it('are within the hand, and none for text that is no chord', () => {
    const keys = keysFor('Cmaj7', handsOf('child'), []).map(midiOf);
    expect(keys[keys.length - 1] - keys[0]).toBeLessThanOrEqual(10);
    expect(keysFor('N.C.', handsOf(), [])).toEqual([]);
  });
});

describe('a chord turned over', () => {
  it('goes to the next inversion, up and down again', () => {
    const up = turned(chord('F', ['F3', 'A3', 'C4']), handsOf(), 1);
    expect(up).toEqual(['A3', 'C4', 'F4']);
    expect(turned(chord('F', up ?? []), handsOf(), -1)).toEqual(['F3', 'A3', 'C4']);
  });

  it('ends at the end of the register', () => {
    let pitches: readonly string[] | null = ['F3', 'A3', 'C4'];
    let turns = 0;
    while (pitches && turns < 20) {
      pitches = turned(chord('F', pitches), handsOf(), 1);
      turns++;
    }
    expect(pitches).toBeNull();
    expect(turns).toBeLessThan(12);
  });
});
