import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { setSetting } from '../song/edits.js';
import { ENGLISH, hardestAdvice, patternWords, repeatWords, togetherWords } from '../words/index.js';
import { chartText, lessonText } from '../words/texts/index.js';
import { chordShapes, lessonOf, worksheet } from './lesson.js';

const glass = arrange(demo('harbour-glass.abc'));

describe('a lesson', () => {
  it('teaches a part as start, right hand, chords, and where they meet', () => {
    const [part] = lessonOf(arrange(demo('lamps-across-the-sound.letters'))).parts;
    expect(part.start && ENGLISH.fact(part.start)).toMatch(
      /^Thumb on .+; start with finger \d on D4\.$|^Thumb on the D above middle C\.$/,
    );
    expect(part.notes.map((n) => n.letter)[0]).toBe('D');
    expect(part.chords[0].notes.length).toBe(part.chords[0].fingers.length);
    expect(part.together.length).toBeGreaterThan(0);
    expect(togetherWords(part.together[0].point, ENGLISH)).toMatch(/\.$/);
  });

  it('names the repeats, so that nothing is learned twice, and the hardest part', () => {
    const lesson = lessonOf(glass);
    const { repeats } = lesson.parts[2];
    expect(repeats && repeatWords(repeats)).toBe('same as part 1');
    expect(hardestAdvice(lesson, ENGLISH)).toContain(`Part ${glass.hardest?.part} is the hardest`);
  });

  it('is plain text with every chord and every note of the tune', () => {
    const text = lessonText(glass, ENGLISH);
    for (const part of glass.parts) expect(text).toContain(`Part ${part.number} ·`);
    const letters = glass.parts[0].melody.map((n) => n.pitch.replace(/\d/, ''));
    expect(text.replace(/\(\d\)/g, '')).toContain(`Right hand: ${letters.join(' ')}`);
    expect(text).not.toMatch(/undefined|null/);
  });

  it('joins the chords to the tune as they are learned first, whatever texture comes later', () => {
    const plain = demo('lamps-across-the-sound.letters');
    const dressed = setSetting(plain, null, 'texture', 'bass-chord-chord');
    const sentences = (document: typeof plain) =>
      lessonOf(arrange(document)).parts.map((p) => p.together.map((t) => togetherWords(t.point, ENGLISH)));
    expect(arrange(dressed).parts[0].together.length).toBeGreaterThan(arrange(plain).parts[0].together.length);
    expect(sentences(dressed).map((s) => s.length)).toEqual(arrange(dressed).parts.map((p) => p.chords.length));
    expect(sentences(plain)[1][0]).toBe('Eb5 with C minor on 1, on the first syllable of “leaning”.');
  });

  it('says where a hand rests', () => {
    const alone = setSetting(documentOf(songOf([['C5', 4]])), null, 'level', 'tune');
    const [part] = lessonOf(arrange(alone)).parts;
    expect([part.chords, part.together]).toEqual([[], []]);
  });
});

describe('the chord sheet', () => {
  it('has every way in which a chord is taken, once', () => {
    const shapes = chordShapes(glass);
    const keys = glass.parts.flatMap((p) => p.chords.map((c) => c.pitches.join(' ')));
    expect(shapes.map((s) => s.pitches.join(' ')).sort()).toEqual([...new Set(keys)].sort());
    expect(shapes.every((s) => s.symbols.length > 0 && s.parts.length > 0)).toBe(true);
  });
});

describe('a worksheet', () => {
  it('leaves every other name and all chord notes blank, and parts that return out', () => {
    const sheet = worksheet(glass);
    expect(sheet.map((p) => p.part.number)).not.toContain(3);
    expect(sheet[0].notes.map((n) => n.blank).slice(0, 4)).toEqual([false, true, false, true]);
    expect(sheet[0].chords[0]).toMatchObject({ symbol: 'Fmaj7', blanks: 4 });
  });
});

describe('the pattern', () => {
  const doc = demo('lamps-across-the-sound.letters');
  const waltz = arrange(setSetting(doc, null, 'texture', 'bass-chord-chord'));

  it('is taught after the block chords: its counts, its fingers once, over which chords, and where it is cut', () => {
    const [first] = lessonOf(waltz).parts;
    expect(lessonOf(arrange(doc)).parts.every((p) => p.pattern === null)).toBe(true);
    const pattern = first.pattern ?? fail();
    expect(pattern.title).toBe('bass, chord, chord');
    expect(pattern.strikes.map((s) => s.count)).toEqual(['1', '2', '3']);
    expect(pattern.strikes[0].notes).toEqual(['G']);
    expect(pattern.strikes[1]).toEqual({ ...pattern.strikes[2], count: '2' });
    for (const { notes, fingers } of pattern.strikes) expect(fingers).toHaveLength(notes.length);
    expect(pattern.over).not.toContain(pattern.symbol);
    const text = lessonText(waltz, ENGLISH);
    expect(text).toMatch(/Then the pattern: Bass, chord, chord, shown over Gm; the same over .+\.\n {4}1 G \(5\) · 2 .+ · 3 /);
    expect(chartText(waltz, ENGLISH)).toContain('Then the pattern: Bass, chord, chord');
  });

  it('says where a chord is shorter than it, and where it gives way to the melody', () => {
    const song = songOf([['C5', 4], ['C5', 2], ['D5', 2], ['F3', 4]], [[0, 'C'], [4, 'F'], [6, 'G'], [8, 'A']]); // prettier-ignore
    const whole = documentOf(song);
    const one = { ...whole, choices: { ...whole.choices, parts: [{ start: 0, end: song.length }] } };
    const [part] = lessonOf(arrange(setSetting(one, null, 'texture', 'one-five-eight'))).parts;
    const cut = part.pattern?.cut.map((c) => [c.place.bar, c.facts.map((f) => f.code)]);
    expect(cut).toEqual([[2, ['bend.short']], [2, ['bend.short']], [3, ['bend.lower']]]); // prettier-ignore
    expect(part.pattern && patternWords(part.pattern, ENGLISH).cut[0]).toBe(
      'Bar 2, count 1: F is shorter than the pattern, which stops with the chord.',
    );
  });
});

const fail = (): never => {
  throw new Error('no pattern');
};
