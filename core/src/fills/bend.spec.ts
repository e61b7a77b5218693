import { describe, expect, it } from 'vitest';
import { midiOf } from '../pitch/pitch.js';
import { handsOf, HAND_PROFILES, spanOf } from '../song/decisions.js';
import { Bends, inHand, underTune, type Laid } from './bend.js';

const hands = handsOf();
const laid = (...rows: readonly (readonly string[])[]): Laid[] =>
  rows.map((pitches, i) => ({ at: i * 10, length: 10, token: '10', pitches }));
const under = (attacks: readonly Laid[], lowest: readonly string[], shaped = false) => {
  const bends = new Bends();
  const ceiling = (from: number, to: number) => Math.min(...lowest.slice(Math.floor(from / 10), Math.ceil(to / 10)).map(midiOf));
  const kept = underTune(attacks, 'C', { ceiling, shaped, tells: () => true }, hands, bends);
  return { pitches: kept.map((a) => a.pitches), lengths: kept.map((a) => a.length), bends: bends.all() };
};

describe('an attack', () => {
  it('keeps the upper note of an octave that the hand does not reach, and loses its top where it is wider otherwise', () => {
    for (const profile of HAND_PROFILES) {
      const bends = new Bends();
      const octave = inHand(['C2', 'C3'], handsOf(profile), bends);
      expect(octave).toEqual(spanOf(handsOf(profile), 'left').limit < 12 ? ['C3'] : ['C2', 'C3']);
    }
    const bends = new Bends();
    expect(inHand(['C3', 'G3', 'E4'], handsOf('child'), bends)).toEqual(['C3', 'G3']);
    expect(bends.all()).toEqual([{ code: 'bend.left-out', pitch: 'E4', cause: 'reach' }]);
  });

  it('comes onto a short keyboard by octaves, and is thinned where it would growl', () => {
    const bends = new Bends();
    expect(inHand(['A1'], handsOf('medium', 49), bends)).toEqual(['A2']);
    expect(inHand(['C2', 'E2', 'C3'], hands, bends)).toEqual(['C2', 'C3']);
    expect(bends.all().map((b) => b.code)).toEqual(['bend.off-keyboard', 'bend.left-out']);
  });
});

describe('a pattern under the melody', () => {
  const pattern = laid(['A2'], ['E3'], ['A3'], ['C#4']);

  it('stays where every note has room, also close to a note that sounds at another time', () => {
    expect(under(pattern, ['E3', 'A3', 'D4', 'G4'])).toEqual({
      pitches: [['A2'], ['E3'], ['A3'], ['C#4']],
      lengths: [10, 10, 10, 10],
      bends: [],
    });
  });

  it('goes an octave lower as a whole', () => {
    const { pitches, bends } = under(pattern, ['C6', 'C6', 'C6', 'D4']);
    expect(pitches).toEqual([['A1'], ['E2'], ['A2'], ['C#3']]);
    expect(bends).toEqual([{ code: 'bend.lower', symbol: 'C' }]);
  });

  it('is held after its first half where it is a shape that was learned, or would growl', () => {
    const { pitches, lengths, bends } = under(pattern, ['C6', 'C6', 'G3', 'G3'], true);
    expect([pitches, lengths]).toEqual([[['A2'], ['E3']], [10, 30]]); // prettier-ignore
    expect(bends).toEqual([{ code: 'bend.first-half', symbol: 'C' }]);
  });

  it('else leaves out what is in the way, in all of the chord', () => {
    const { pitches, bends } = under(laid(['D3'], ['A3'], ['D3'], ['A3']), ['C6', 'B3', 'C6', 'C6'], true);
    expect(pitches).toEqual([['D3'], [], ['D3'], []]);
    expect(bends).toEqual([{ code: 'bend.left-out', pitch: 'A3', cause: 'melody' }]);
  });
});
