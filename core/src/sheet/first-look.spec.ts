import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { parseKey, type Key } from '../harmony/key.js';
import { shapesOf } from '../left-hand/shapes.js';
import { handsOf, type Document } from '../song/decisions.js';
import { nameSection } from '../song/edits.js';
import { firstLook, warmUp } from './first-look.js';

const look = (doc: Document) => firstLook(arrange(doc), doc.hands);

describe('the first look', () => {
  const glass = demo('harbour-glass.abc');

  it('names key, meter, form, chords and shapes of the song as it is arranged', () => {
    const brief = look(glass);
    const arrangement = arrange(glass);
    expect([brief.key, brief.meter, brief.pickup]).toEqual([{ tonic: 'F', mode: 'major' }, '4/4', null]);
    expect(brief.form.map((f) => f.label).join(' ')).toBe('A B A B′ C D A B′');
    const chords = new Set(arrangement.song.chords.map((c) => c.symbol));
    expect(new Set(brief.chords.map((c) => c.symbol))).toEqual(chords);
    expect(brief.chords[0]).toMatchObject({ symbol: 'Fmaj7', degree: 'I' });
    expect(brief.shapes.map((s) => s.form)).toEqual(shapesOf(arrangement.parts.flatMap((p) => p.chords)).map((s) => s.form));
    expect(brief.hardest).toEqual(arrangement.hardest);
    expect(brief.range).toEqual({ low: 'F4', high: 'F5' });
    expect(brief.accidentals).toEqual([{ name: 'Db', bars: [18] }]);
  });

  it('finds the rhythms that come again, commonest first, with their bars', () => {
    const { rhythms } = look(glass);
    expect(rhythms[0].counts).toBe('1, 3, 4');
    rhythms.slice(1).forEach((r, i) => expect(r.bars.length).toBeLessThanOrEqual(rhythms[i].bars.length));
    expect(rhythms.every((r) => r.bars.length > 1)).toBe(true);
  });

  it('counts a part that returns only once in the time it takes to learn', () => {
    const line: [string, number][] = ['C5', 'E5', 'D5', 'G5', 'F5', 'D5', 'E5', 'C5'].map((p) => [p, 1]);
    const other: [string, number][] = line.map(([p], i) => [i % 2 ? p : 'A5', 1]);
    const chords = [
      [0, 'C'],
      [4, 'G'],
      [8, 'C'],
      [12, 'G'],
    ] as const;
    const minutes = (second: [string, number][]) => {
      const doc = documentOf(songOf([...line, ...second], chords));
      const parts = [
        { start: 0, end: 80640 },
        { start: 80640, end: 161280 },
      ];
      return look({ ...doc, choices: { ...doc.choices, parts } }).minutes;
    };
    expect(minutes(line)).toBeLessThan(minutes(other));
    expect(minutes(line) * 2.5).toBeGreaterThan(minutes(other));
  });

  it('shows the sections by name', () => {
    const { parts } = arrange(glass);
    const named = nameSection(nameSection(glass, parts[0].start, 'Verse'), parts[4].start, 'Middle');
    const { sections } = arrange(named);
    expect(sections.map((s) => [s.name, s.from, s.to])).toContainEqual(['Middle', 5, 6]);
    expect(look(named).form.find((f) => f.part === 5)?.section).toBe('Middle');
    expect(arrange(documentOf(songOf([['C5', 4]], [[0, 'C']]))).sections).toEqual([]);
  });

  it.each([
    ['C major', 'C4 1,D4 2,E4 3,F4 1,G4 2,A4 3,B4 4,C5 5', 'C3 5,D3 4,E3 3,F3 2,G3 1,A3 3,B3 2,C4 1'],
    ['G minor', 'G4 1,A4 2,Bb4 3,C5 1,D5 2,Eb5 3,F#5 4,G5 5', 'G3 5,A3 4,Bb3 3,C4 2,D4 1,Eb4 3,F#4 2,G4 1'],
  ])('warms up in %s with the usual fingers', (key, right, left) => {
    const run = (hand: 'left' | 'right') =>
      warmUp(parseKey(key) as Key, hand, handsOf())
        .notes.map((n) => `${n.pitch} ${n.finger}`)
        .join();
    expect(run('right')).toBe(right);
    expect(run('left')).toBe(left);
  });
});
