import fc from 'fast-check';
import { arrange } from '@joined-hands/core/arrange';
import { setBass, setChord, setPartSize, setSchool, setWish, type Document } from '@joined-hands/core/song';
import { describe, expect, it } from 'vitest';
import { demo, documentOf, songs } from '../../../../core/testing/songs';
import { difference, patched } from './arrangement-patch';

const EDITS: readonly ((d: Document) => Document)[] = [
  (d) => d,
  (d) => setSchool(d, 'root'),
  (d) => setBass(d, 'falling'),
  (d) => setPartSize(d, 'smaller'),
  (d) => setPartSize(d, 'larger'),
  (d) => setChord(d, d.song.chords[0]?.at ?? 0, 'Em7'),
  (d) => setWish(d, null, 'texture', 'broken'),
  (d) => setWish(d, null, 'level', 'tune'),
];

describe('what is sent to the page of an edit', () => {
  it('makes the very same arrangement of the one before, whatever the edit', () => {
    fc.assert(
      fc.property(songs({ maxBars: 6 }), fc.constantFrom(...EDITS), fc.constantFrom(...EDITS), (song, one, other) => {
        const [before, after] = [arrange(one(documentOf(song))), arrange(other(documentOf(song)))];
        expect(patched(before, structuredClone(difference(before, after)))).toEqual(after);
      }),
      { numRuns: 120 },
    );
  });

  it('is nothing for the same song, and less than the whole for one chord of it; parts that stay the same stay one thing', () => {
    const document = demo('harbour-glass.abc');
    const before = arrange(document);
    expect(difference(before, arrange(document))).toEqual({ rows: {}, values: {} });
    const after = arrange(setChord(document, document.song.chords[0].at, 'Dm9'));
    const patch = difference(before, after);
    expect(JSON.stringify(patch).length).toBeLessThan(0.7 * JSON.stringify(after).length);
    expect(patched(before, patch).parts.at(-1)).toBe(before.parts.at(-1));
  });
});
