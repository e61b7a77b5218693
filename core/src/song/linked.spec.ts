import { alsoIn, ENGLISH } from '../words/index.js';
import { describe, expect, it } from 'vitest';
import { demo } from '../../testing/songs.js';
import { pinVoicing, renamePart, setChord, setFingers, setPassage, setSchool } from './edits.js';
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

  it('offers a chord, keys and a finger to all that are alike, and carries them over', () => {
    const chord = parts[0].chords[1];
    for (const after of [
      setChord(glass, chord.at, 'Dm9'),
      pinVoicing(glass, chord.at, ['D3', 'F3', 'A3']),
      setFingers(glass, 'right', parts[0].melody[2].at, [4]),
    ]) {
      const link = linkedEdit(glass, after, parts, 1);
      expect(link?.parts).toEqual([3, 7]);
      if (!link) continue;
      const there = arrange(link.document).parts;
      const shown = (n: number) => [there[n].chords.map((c) => [c.symbol, c.pinned]), there[n].melody.map((m) => m.finger)];
      expect(shown(2)).toEqual(shown(0));
      expect(shown(6)).toEqual(shown(0));
    }
  });

  it('leaves a copy alone from where it has another ending', () => {
    const last = parts[1].chords[parts[1].chords.length - 1];
    expect(linkedEdit(glass, setChord(glass, last.at, 'C9'), parts, 2)).toBeNull();
    const both = setChord(setChord(glass, last.at, 'C9'), parts[1].chords[0].at, 'Am9');
    const link = linkedEdit(glass, both, parts, 2);
    expect([link?.parts, link?.differing]).toEqual([
      [4, 8],
      [4, 8],
    ]);
    const first = linkedEdit(glass, setChord(glass, parts[1].chords[0].at, 'Am9'), parts, 2);
    expect([first?.parts, first?.differing]).toEqual([[4, 8], []]);
  });

  it('carries a wish for the whole part over', () => {
    const link = linkedEdit(glass, setPassage(glass, parts[0], { school: 'octave' }), parts, 1);
    if (!link) throw new Error('nothing to carry over');
    const schools = arrange(link.document).parts.map((p) => p.chords[0].school);
    expect(schools.map((s) => s === 'octave')).toEqual([true, false, true, false, false, false, true, false]);
  });

  it('has nothing to offer for a change of the whole song, of a name, or of a part that stands alone', () => {
    expect(linkedEdit(glass, setSchool(glass, 'root'), parts, 1)).toBeNull();
    expect(linkedEdit(glass, renamePart(glass, 0, 'Verse'), parts, 1)).toBeNull();
    expect(linkedEdit(glass, setChord(glass, parts[4].chords[0].at, 'Bb'), parts, 5)).toBeNull();
    expect(linkedEdit(glass, glass, parts, 1)).toBeNull();
  });

  it('says where', () => {
    expect(alsoIn([3, 7], [], ENGLISH)).toBe('Also in parts 3 and 7.');
    expect(alsoIn([3, 7], [7], ENGLISH)).toBe('Also in parts 3 and 7; not where part 7 differs.');
    expect(alsoIn([4], [4, 8], ENGLISH)).toBe('Also in part 4; not where parts 4 and 8 differ.');
  });
});
