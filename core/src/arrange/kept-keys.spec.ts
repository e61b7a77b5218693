import { describe, expect, it } from 'vitest';
import { demo } from '../../testing/songs.js';
import { applyEdit } from '../song/edit.js';
import { ENGLISH } from '../words/index.js';
import { arrange } from './arrange.js';
import { nameOfKeys, shapeWherever, spellKeys } from './kept-keys.js';

const C = { tonic: 'C', mode: 'major' } as const;

describe('keys that the pianist presses', () => {
  it('are spelled as the chord has them, others as the key has them', () => {
    expect(spellKeys([63, 55, 60], 'Cm', C)).toEqual(['G3', 'C4', 'Eb4']);
    expect(spellKeys([56, 52, 59], 'E', C)).toEqual(['E3', 'G#3', 'B3']);
    expect(spellKeys([48, 54, 48], 'C', C)).toEqual(['C3', 'F#3']);
  });

  it('have a name where they make a chord, whatever they stand for', () => {
    expect(nameOfKeys(['E3', 'A3', 'C4'], C)).toBe('Am/E');
    expect(nameOfKeys(['C3', 'E3', 'G3', 'B3'], C)).toBe('Cmaj7');
    expect(nameOfKeys(['C3', 'G3'], C)).toBeNull();
  });

  it('are kept wherever the chord comes, in one change that goes back in one', () => {
    const doc = demo('lamps-across-the-sound.letters');
    const { parts } = arrange(doc);
    const edit = shapeWherever(parts, 'Gm', ['G2', 'D3', 'Bb3']);
    const kept = arrange(applyEdit(doc, edit)).parts.flatMap((p) => p.chords);
    const everywhere = kept.filter((c) => c.symbol === 'Gm');
    expect(everywhere.length).toBeGreaterThan(3);
    for (const c of everywhere) expect([c.pinned, c.pitches]).toEqual([true, ['G2', 'D3', 'Bb3']]);
    expect(kept.filter((c) => c.symbol !== 'Gm').every((c) => !c.pinned)).toBe(true);
    expect(ENGLISH.fact(edit)).toBe('Gm as G2 D3 Bb3 everywhere');
  });
});
