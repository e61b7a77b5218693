import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsOf } from '../../testing/playable.js';
import { demo, DEMOS, documentOf, songOf, SYMBOLS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { midiOf } from '../pitch/pitch.js';
import { HAND_PROFILES, handsOf, type Document } from '../song/decisions.js';
import { setPlayMode } from '../song/dressing.js';
import { chordsForVoice, sungVoicings } from './sing-along.js';
import { motionBetween } from '../left-hand/costs.js';

const singing = (doc: Document) => arrange(setPlayMode(doc, 'sing-along'));
const three = documentOf(
  songOf(
    [['C5', 12]],
    [
      [0, 'Dm7'],
      [4, 'G7'],
      [8, 'C'],
    ],
  ),
);

describe('an accompaniment to a voice', () => {
  it('has the bass in octaves in the left hand and chords that hardly move in the right', () => {
    const { score, parts } = singing(three);
    expect(score.filter((n) => n.role === 'melody')).toEqual([]);
    expect(score.filter((n) => n.hand === 'left' && n.at === 0).map((n) => n.pitch)).toEqual(['D2', 'D3']);
    const sung = parts.flatMap((p) => p.sung);
    expect(sung.map((c) => c.symbol)).toEqual(['Dm7', 'G7', 'C']);
    expect(sung.slice(1).every((c) => c.motion <= 4)).toBe(true);
    expect(sung.every((c) => c.fingers.length === c.pitches.length)).toBe(true);
  });

  it('has one bass note where the hand holds no octave', () => {
    const child = singing({ ...three, hands: handsOf('child') });
    expect(child.score.filter((n) => n.hand === 'left' && n.at === 0).length).toBe(1);
  });

  it.each(DEMOS)('can be played by every hand in %s', (name) => {
    for (const profile of HAND_PROFILES)
      expect(faultsOf(setPlayMode({ ...demo(name), hands: handsOf(profile) }, 'sing-along'))).toEqual([]);
  });

  it('moves as little as any way through its chords', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...SYMBOLS.filter((s) => s !== 'N.C.')), { minLength: 1, maxLength: 4 }),
        (symbols) => {
          const chords = symbols.map((symbol) => ({ symbol, pitches: ['C3'], at: 0, length: 1 })) as never as Parameters<
            typeof chordsForVoice
          >[0];
          const ways = chords.map((c) => sungVoicings(c, handsOf()));
          let best = Infinity;
          const search = (i: number, before: readonly number[] | null, cost: number) => {
            if (i === ways.length) best = Math.min(best, cost);
            else for (const w of ways[i]) search(i + 1, w.midis, cost + w.cost + (before ? motionBetween(before, w.midis) : 0));
          };
          search(0, null, 0);
          const found = chordsForVoice(chords, handsOf());
          const price = found.reduce((sum, c, i) => {
            const midis = c.pitches.map(midiOf);
            const own = ways[i].find((w) => w.midis.join() === midis.join())?.cost ?? Infinity;
            return sum + own + c.motion;
          }, 0);
          expect(price).toBeCloseTo(best, 6);
        },
      ),
      { numRuns: 40 },
    );
  });
});
