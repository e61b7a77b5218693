import { alsoIn, ENGLISH } from '../words/index.js';
import { describe, expect, it } from 'vitest';
import { demo } from '../../testing/songs.js';
import { applyEdit, type Edit } from './edit.js';
import { setPassage, settingAt } from './edits.js';
import { arrange } from '../arrange/arrange.js';
import { linkedEdit } from './linked.js';
import { repeatsOf } from './linked.js';

const glass = demo('harbour-glass.abc');
const { parts } = arrange(glass);

describe('an edit in a part and its repeats', () => {
  it('knows the repeats and how far they are the same', () => {
    // The form is A B A B′ C D A B′.
    expect(repeatsOf(1, parts).map((r) => r.part.number)).toEqual([3, 7]);
    const [fourth, eighth] = repeatsOf(2, parts);
    expect([fourth.part.number, eighth.part.number]).toEqual([4, 8]);
    expect(fourth.until).toBeLessThan(parts[1].end - parts[1].start);
    expect(repeatsOf(8, parts).find((r) => r.part.number === 4)?.until).toBe(parts[7].end - parts[7].start);
    expect(repeatsOf(5, parts)).toEqual([]);
  });

  it('offers a chord, keys and a finger to all that are alike, which take it as it was made', () => {
    const { at } = parts[0].chords[1];
    const edits: Edit[] = [
      { code: 'edit.chord', at, symbol: 'Dm9' },
      { code: 'edit.voicing', at, pitches: ['D3', 'F3', 'A3'] },
      { code: 'edit.fingers', hand: 'right', at: parts[0].melody[2].at, fingers: [4] },
    ];
    for (const edit of edits) {
      const link = linkedEdit(edit, parts, 1);
      expect(link?.parts).toEqual([3, 7]);
      if (!link) continue;
      const there = arrange(applyEdit(applyEdit(glass, edit), link.edit)).parts;
      const shown = (n: number) => [there[n].chords.map((c) => [c.symbol, c.pinned]), there[n].melody.map((m) => m.finger)];
      expect(shown(2)).toEqual(shown(0));
      expect(shown(6)).toEqual(shown(0));
      expect(ENGLISH.fact(link.edit)).toBe(`${ENGLISH.fact(edit)}, in repeats too`);
    }
  });

  it('leaves a copy alone from where it has another ending', () => {
    const last = parts[1].chords[parts[1].chords.length - 1];
    const write = (at: number, symbol: string): Edit => ({ code: 'edit.chord', at, symbol });
    expect(linkedEdit(write(last.at, 'C9'), parts, 2)).toBeNull();
    const early = write(parts[1].chords[0].at, 'Am9');
    const both: Edit = { code: 'edit.several', as: { kind: 'skip-passing' }, edits: [write(last.at, 'C9'), early] };
    const link = linkedEdit(both, parts, 2);
    expect([link?.parts, link?.differing]).toEqual([
      [4, 8],
      [4, 8],
    ]);
    const first = linkedEdit(early, parts, 2);
    expect([first?.parts, first?.differing]).toEqual([[4, 8], []]);
  });

  it('carries a choice for the whole part over, and leaves what else was chosen there', () => {
    const [one, , three] = parts;
    const range = { start: one.start, end: one.end };
    const own = setPassage(glass, three, { loudness: 'ff' });
    const edit: Edit = { code: 'edit.school', range, school: 'octave' };
    const link = linkedEdit(edit, parts, 1);
    if (!link) throw new Error('nothing to carry over');
    const after = applyEdit(applyEdit(own, edit), link.edit);
    const schools = arrange(after).parts.map((p) => p.chords[0].school);
    expect(schools.map((s) => s === 'octave')).toEqual([true, false, true, false, false, false, true, false]);
    expect(settingAt(after, three.start, 'loudness')).toBe('ff');
  });

  it('has nothing to offer for a change of the whole song, of a name, or of a part that stands alone', () => {
    expect(linkedEdit({ code: 'edit.school', range: null, school: 'root' }, parts, 1)).toBeNull();
    expect(linkedEdit({ code: 'edit.name-part', at: 0, name: 'Verse' }, parts, 1)).toBeNull();
    expect(linkedEdit({ code: 'edit.chord', at: parts[4].chords[0].at, symbol: 'Bb' }, parts, 5)).toBeNull();
    expect(linkedEdit({ code: 'edit.chord', at: parts[2].start, symbol: 'Bb' }, parts, 1)).toBeNull();
  });

  it('says where', () => {
    expect(alsoIn([3, 7], [], ENGLISH)).toBe('Also in parts 3 and 7.');
    expect(alsoIn([3, 7], [7], ENGLISH)).toBe('Also in parts 3 and 7; not where part 7 differs.');
    expect(alsoIn([4], [4, 8], ENGLISH)).toBe('Also in part 4; not where parts 4 and 8 differ.');
  });
});
