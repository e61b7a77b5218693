import fc from 'fast-check';
import { arrange } from '@joined-hands/core/arrange';
import { applyEdit, type Edit, type Song } from '@joined-hands/core/song';
import { describe, expect, it } from 'vitest';
import { demo, documentOf, songs } from '../../../../../core/testing/songs';
import { difference, patched } from './arrangement-patch';

const all = { code: 'edit.setting', range: null } as const;
const EDITS: readonly (Edit | null)[] = [
  null,
  { code: 'edit.school', range: null, school: 'root' },
  { code: 'edit.bass', range: null, bass: 'falling' },
  { code: 'edit.part-size', size: 'smaller' },
  { code: 'edit.part-size', size: 'larger' },
  { code: 'edit.chord', at: 0, symbol: 'Em7' },
  { ...all, setting: 'texture', value: 'broken-triad' },
  { ...all, setting: 'level', value: 'tune' },
];
const edited = (song: Song, edit: Edit | null) => arrange(edit ? applyEdit(documentOf(song), edit) : documentOf(song));

describe('what is sent to the page of an edit', () => {
  it('makes the very same arrangement of the one before, whatever the edit', () => {
    fc.assert(
      fc.property(songs({ maxBars: 6 }), fc.constantFrom(...EDITS), fc.constantFrom(...EDITS), (song, one, other) => {
        const [before, after] = [edited(song, one), edited(song, other)];
        expect(patched(before, structuredClone(difference(before, after)))).toEqual(after);
      }),
      { numRuns: 120 },
    );
  });

  it('is nothing for the same song, and less than the whole for one chord of it; parts that stay the same stay one thing', () => {
    const document = demo('harbour-glass.abc');
    const before = arrange(document);
    expect(difference(before, arrange(document))).toEqual({ rows: {}, values: {} });
    const after = arrange(applyEdit(document, { code: 'edit.chord', at: document.song.chords[0].at, symbol: 'Dm9' }));
    const patch = difference(before, after);
    expect(JSON.stringify(patch).length).toBeLessThan(0.7 * JSON.stringify(after).length);
    expect(patched(before, patch).parts.at(-1)).toBe(before.parts.at(-1));
  });
});
