import { describe, expect, it } from 'vitest';
import { demo, documentOf } from '../../testing/songs.js';
import type { Document } from '../song/decisions.js';
import { setBass, setChord, setPartSize, setPassage, setSchool, setSetting } from '../song/edits.js';
import { arrange } from './arrange.js';
import { arrangeNearby } from './nearby.js';

/** The ballad again and again, each time in other chords so that no part is like another, with a part at work in its middle. */
const long = ((): Document => {
  const { song } = demo('harbour-glass.abc');
  const turns = [
    ['C7', 'C9'],
    ['Dm7', 'D7'],
    ['Gm7', 'Gm9'],
    ['Fmaj7', 'F6'],
    ['Am7', 'Am'],
    ['Bbmaj7', 'Gm7'],
  ];
  const times = <T extends { readonly at: number }>(rows: readonly T[], change: (row: T, k: number) => T): T[] =>
    Array.from({ length: 6 }, (_, k) => rows.map((r) => change({ ...r, at: r.at + k * song.length }, k))).flat();
  return documentOf({
    ...song,
    length: 6 * song.length,
    melody: times(song.melody, (n) => n),
    chords: times(song.chords, (c, k) => (c.symbol === turns[k][0] ? { ...c, symbol: turns[k][1] } : c)),
    marks: times(song.marks, (m) => m),
  });
})();
const before = arrange(long);
const AT = 20;
const here = before.parts[AT - 1];
const at = (k: number) => here.chords[k].symbolAt;

/** What a pianist sees of a part. */
const seen = (doc: Document, arrangement: ReturnType<typeof arrange> | null) => {
  const part = arrangement?.parts[AT - 1];
  return (
    part && {
      melody: part.melody,
      chords: part.chords.map((c) => [c.at, c.symbol, c.pitches, c.fingers, c.dressed?.notes ?? null]),
      together: part.together,
      score: arrangement.score.filter((n) => n.part === AT),
      places: part.places,
      doc: doc.song.title,
    }
  );
};

describe('the parts near the one at work', () => {
  it.each<[string, (d: Document) => Document]>([
    ['a chord', (d) => setChord(d, at(1), 'Dm9')],
    ['a chord at its end', (d) => setChord(d, here.chords[here.chords.length - 1].symbolAt, 'E7')],
    ['the school of the part', (d) => setPassage(d, here, { school: 'root' })],
    ['a texture', (d) => setSetting(d, here, 'texture', 'broken')],
    ['a texture of the song', (d) => setSetting(d, null, 'texture', 'alternating-bass')],
    ['harmony', (d) => setSetting(d, here, 'harmony', { density: 50, size: 'one' })],
    ['the tune an octave higher', (d) => setSetting(d, here, 'octave', 1)],
    ['nothing', (d) => d],
  ])('are as the whole song will have them after %s', (_, edit) => {
    const after = edit(long);
    expect(seen(after, arrangeNearby(after, long, before, AT))).toEqual(seen(after, arrange(after)));
  });

  it('leave every other part as it stood, and count every note of the score once', () => {
    const after = setChord(long, at(1), 'Dm9');
    const near = arrangeNearby(after, long, before, AT);
    expect(near?.parts.map((p) => p.number)).toEqual(before.parts.map((p) => p.number));
    expect(near?.parts[0]).toBe(before.parts[0]);
    expect(near?.score.map((n) => n.at).every((place, i, all) => i === 0 || all[i - 1] <= place)).toBe(true);
    expect(near?.score.filter((n) => n.hand === 'right').length).toBe(before.score.filter((n) => n.hand === 'right').length);
  });

  it('are not told apart where the song is short, divided anew, or given its chords', () => {
    const short = demo('harbour-glass.abc');
    expect(arrangeNearby(short, short, arrange(short), 1)).toBeNull();
    expect(arrangeNearby(setSchool(long, 'shell'), long, before, AT)).toBeNull();
    expect(arrangeNearby({ ...long, hands: { ...long.hands, profile: 'small' } }, long, before, AT)).toBeNull();
    expect(arrangeNearby(setPartSize(long, 'smaller'), long, before, AT)).toBeNull();
    expect(arrangeNearby({ ...long, song: { ...long.song, chords: [] } }, long, before, AT)).toBeNull();
    expect(arrangeNearby(setBass(long, 'falling'), long, before, 999)).toBeNull();
  });
});
