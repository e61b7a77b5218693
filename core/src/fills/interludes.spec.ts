import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsOf } from '../../testing/playable.js';
import { documentOf, songOf, songs, SYMBOLS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { toneFor } from '../harmony/naming.js';
import { parseChord } from '../harmony/symbol.js';
import { notesOf } from '../practice/score.js';
import { writtenScore } from '../sheet/written.js';
import { midiOf, nameOf, pitchClass } from '../pitch/pitch.js';
import { HAND_PROFILES, handsOf, type Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';

const shared = (doc: Document): Document => applyEdit(doc, { code: 'edit.school', range: null, school: 'under-melody' });
const rightAt = (doc: Document, quarters: number) =>
  arrange(doc)
    .score.filter((n) => n.hand === 'right' && n.at === quarters * Q)
    .map((n) => n.pitch);

/** An introduction of two bars, a tune, and two bars before the end. */
const LOUNGE = songOf(
  [
    [null, 8],
    ['E5', 4],
    ['D5', 4],
    [null, 4],
    ['C5', 4],
  ],
  [
    [0, 'Dm7'],
    [4, 'G13'],
    [8, 'Cmaj9'],
    [12, 'Am7'],
    [16, 'F'],
    [20, 'C6'],
  ],
);

describe('chords that the hands share', () => {
  it('are whole where the tune rests: the bass in the left hand, what tells them in the right, larger ones without their root', () => {
    const doc = shared(documentOf(LOUNGE));
    const { score } = arrange(doc);
    expect(score.filter((n) => n.hand === 'left').map((n) => nameOf(n.pitch))).toEqual(['D', 'G', 'C', 'A', 'F', 'C']);
    expect(rightAt(doc, 0).map(nameOf).sort()).toEqual(['A', 'C', 'F']);
    expect(rightAt(doc, 4).map(nameOf).sort()).toEqual(['B', 'E', 'F']);
    expect(new Set(rightAt(doc, 16).map(nameOf))).toEqual(new Set(['A', 'C', 'F']));
  });

  it('are practised, counted as struck together, and written on the upper staff', () => {
    const doc = shared(documentOf(LOUNGE));
    const arrangement = arrange(doc);
    const played = notesOf(arrangement, { from: 0, to: 8 * Q, hands: 'right', plain: true });
    expect(played).toHaveLength(6);
    expect(arrangement.parts[0].together.find((t) => t.at === 0)?.melody).not.toBeNull();
    expect(writtenScore(arrangement).under.filter((u) => u.at < 8 * Q)).toHaveLength(2);
  });

  it('have the third and the seventh in the right hand, whatever the chord and whoever plays; nothing grates that need not', () => {
    for (const profile of HAND_PROFILES)
      for (const symbol of SYMBOLS) {
        const parsed = parseChord(symbol);
        if (parsed.kind !== 'chord') continue;
        const song = songOf(
          [
            [null, 4],
            ['C6', 4],
          ],
          [
            [0, symbol],
            [4, 'C'],
          ],
        );
        const doc = { ...shared(documentOf(song)), hands: handsOf(profile, 61) };
        expect(faultsOf(doc)).toEqual([]);
        const right = rightAt(doc, 0);
        expect(right.length).toBeGreaterThanOrEqual(2);
        for (const pitch of right) expect(toneFor(parsed, nameOf(pitch))).not.toBeNull();
        const sounding = new Set(arrange(doc).score.flatMap((n) => (n.at === 0 ? [pitchClass(nameOf(n.pitch))] : [])));
        for (const { degree, name } of parsed.tones)
          if (degree === 3 || (degree === 7 && right.length > 2)) expect(sounding.has(pitchClass(name))).toBe(true);
        expect(Math.min(...right.map(midiOf))).toBeGreaterThanOrEqual(50);
      }
  });

  it('can be played by every hand in random songs', () => {
    fc.assert(
      fc.property(songs({ maxBars: 8 }), fc.constantFrom(...HAND_PROFILES), (song, profile) => {
        const rests = { ...song, melody: song.melody.filter((_, i) => i % 5 > 2) };
        const doc = { ...shared(documentOf(rests)), hands: handsOf(profile, 61) };
        expect(faultsOf(doc)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});
