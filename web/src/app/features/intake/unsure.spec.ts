import { arrange } from '@joined-hands/core/arrange';
import { midiOf } from '@joined-hands/core/pitch';
import { TICKS_PER_QUARTER as Q } from '@joined-hands/core/time';
import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../../../../core/testing/songs';
import { unsureMarks } from './unsure';

const arrangement = arrange(
  documentOf(
    songOf(
      [
        ['C5', 1],
        ['D5', 1],
        ['E5', 1],
        ['D5', 1],
      ],
      [
        [0, 'C'],
        [2, 'G'],
      ],
    ),
  ),
);
const heard = arrangement.song.melody.map((n) => ({ at: n.at / Q + 0.1, midi: midiOf(n.pitch), unsure: false }));

describe('what was not heard clearly', () => {
  it('is marked at its note, wherever the grid moved it', () => {
    const unsure = heard.map((h, i) => ({ ...h, at: h.at + (i === 1 ? 0.2 : 0), unsure: i === 1 }));
    expect(unsureMarks(unsure, arrangement)).toEqual([{ hand: 'right', place: Q, verdict: 'unsure' }]);
  });

  it('is marked at the note that was written octaves higher than it was sung', () => {
    const low = heard.map((h, i) => ({ ...h, midi: h.midi - 12, unsure: i === 2 }));
    expect(unsureMarks(low, arrangement)).toEqual([{ hand: 'right', place: 2 * Q, verdict: 'unsure' }]);
  });

  it('is marked at the chord in which it sounds where it is none of the melody', () => {
    const under = [...heard, { at: 2.6, midi: 47, unsure: true }, { at: 2.7, midi: 43, unsure: true }];
    expect(unsureMarks(under, arrangement)).toEqual([{ hand: 'left', place: 2 * Q, verdict: 'unsure' }]);
  });

  it('is nothing where all is clear or nothing was heard', () => {
    expect(unsureMarks(heard, arrangement)).toEqual([]);
    expect(unsureMarks([], arrangement)).toEqual([]);
  });
});
