import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { edits } from '../../testing/edits.js';
import { demo } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { ENGLISH } from '../words/index.js';
import { DocumentSchema, type Document } from './decisions.js';
import { applyEdit, type Edit } from './edit.js';
import { settingAt } from './edits.js';

const glass = demo('harbour-glass.abc');
const { parts } = arrange(glass);
const ranges = parts.map(({ start, end }) => ({ start, end }));

describe('edits as data', () => {
  it('make a document that can be saved and opened again, whatever they are and in whatever order', () => {
    fc.assert(
      fc.property(fc.array(edits(glass, { parts }), { minLength: 1, maxLength: 12 }), (row) => {
        const after = row.reduce(applyEdit, glass);
        expect(DocumentSchema.parse(JSON.parse(JSON.stringify(after)))).toEqual(after);
      }),
      { numRuns: 200 },
    );
  });

  it('make the same change after they were sent or saved as text', () => {
    fc.assert(
      fc.property(edits(glass, { parts }), (edit) => {
        expect(applyEdit(glass, JSON.parse(JSON.stringify(edit)) as Edit)).toEqual(applyEdit(glass, edit));
        expect(ENGLISH.fact(edit)).toMatch(/^\S.*\S$/);
      }),
      { numRuns: 200 },
    );
  });

  it('answer the same document where they are not possible', () => {
    const impossible: Edit[] = [
      { code: 'edit.move-cut', parts: [ranges[0], ranges[1]], to: ranges[1].end },
      { code: 'edit.split', part: ranges[0], at: ranges[0].end },
      { code: 'edit.take-version', name: 'none' },
    ];
    for (const edit of impossible) expect(applyEdit(glass, edit)).toBe(glass);
  });

  it('for the whole song take the place of what its parts were given', () => {
    const row: Edit[] = [
      { code: 'edit.bass', range: ranges[0], bass: 'falling' },
      { code: 'edit.school', range: ranges[1], school: 'root' },
      { code: 'edit.suggest', range: ranges[2], suggest: { vocabulary: 'three', rhythm: 'bar' } },
      { code: 'edit.setting', range: ranges[3], setting: 'loudness', value: 'ff' },
      { code: 'edit.bass', range: null, bass: 'rising' },
      { code: 'edit.school', range: null, school: 'shell' },
      { code: 'edit.suggest', range: null, suggest: null },
      { code: 'edit.setting', range: null, setting: 'loudness', value: 'p' },
    ];
    const { choices } = row.reduce(applyEdit, glass);
    expect(choices.passages).toEqual([]);
    expect(choices).toMatchObject({ bass: 'rising', school: 'shell', suggest: null, loudness: 'p' });
  });

  it('give several changes as one, in their order', () => {
    const [first, second] = ranges;
    const several: Edit = {
      code: 'edit.several',
      as: { kind: 'use-texture', title: 'Ferry', part: 2 },
      edits: [
        { code: 'edit.setting', range: first, setting: 'texture', value: 'bass-chord' },
        { code: 'edit.setting', range: second, setting: 'texture', value: 'long-bass' },
        { code: 'edit.setting', range: second, setting: 'texture', value: 'block' },
      ],
    };
    const after: Document = applyEdit(glass, several);
    expect([first, second].map((r) => settingAt(after, r.start, 'texture'))).toEqual(['bass-chord', 'block']);
    expect(ENGLISH.fact(several)).toBe('Ferry in part 2');
  });

  it('keep a version, go back to it, and take up an earlier state beside the kept ones', () => {
    const kept = applyEdit(glass, { code: 'edit.keep-version', name: 'Evening', kept: '2026-01-02T03:04:05.000Z' });
    const louder = applyEdit(kept, { code: 'edit.setting', range: null, setting: 'loudness', value: 'ff' });
    expect(applyEdit(louder, { code: 'edit.take-version', name: 'Evening' })).toEqual(kept);
    const earlier = applyEdit(louder, { code: 'edit.go-back', at: 0, document: glass });
    expect(earlier).toEqual({ ...glass, versions: kept.versions });
    expect(applyEdit(earlier, { code: 'edit.drop-version', name: 'Evening' })).toEqual(glass);
  });
});
