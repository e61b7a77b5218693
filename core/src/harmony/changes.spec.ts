import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pitchClass } from '../pitch/pitch.js';
import { approachChords, chordChanges, forLeadingTriad, turnBacks } from './changes.js';
import { chordsHolding } from './holding.js';
import { otherNames } from './same-notes.js';
import { parseChord, type Chord } from './symbol.js';

const chord = (text: string): Chord => {
  const parsed = parseChord(text);
  if (parsed.kind !== 'chord') throw new Error(text);
  return parsed;
};
const C = { tonic: 'C', mode: 'major' } as const;
const notes = (text: string) =>
  new Set([...chord(text).tones.map((t) => pitchClass(t.name)), pitchClass(chord(text).bass ?? chord(text).root)]);

describe('which chords hold a note', () => {
  it('are all triads and sevenths with it, the key’s own first', () => {
    const found = chordsHolding('C', C);
    expect(
      found
        .filter((c) => c.inKey && parseChord(c.symbol).kind === 'chord')
        .map((c) => c.symbol)
        .slice(0, 3),
    ).toEqual(['C', 'Am', 'F']);
    for (const symbol of ['C', 'Am', 'F', 'Cmaj7', 'Dm7', 'Fmaj7', 'Am7'])
      expect(found.find((c) => c.symbol === symbol)?.inKey).toBe(true);
    for (const symbol of ['Ab', 'Fm', 'D7', 'Adim', 'F#m7b5']) expect(found.find((c) => c.symbol === symbol)?.inKey).toBe(false);
    expect(found).toHaveLength(4 * 3 + 6 * 4);
  });

  it('hold it in every key, spelled or respelled', () => {
    const names = fc.constantFrom('C', 'C#', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B');
    fc.assert(
      fc.property(names, names, fc.constantFrom('major', 'minor'), (note, tonic, mode) => {
        for (const found of chordsHolding(note, { tonic, mode })) {
          const tone = chord(found.symbol).tones.find((t) => t.degree === found.as);
          expect(tone && pitchClass(tone.name)).toBe(pitchClass(note));
        }
      }),
    );
  });
});

describe('the same notes under another name', () => {
  it.each([
    ['Gm/C', 'C9'],
    ['C6', 'Am7/C'],
    ['Am7', 'C6/A'],
    ['Dm7b5', 'Fm6/D'],
    ['Csus2', 'Gsus4/C'],
  ])('%s is also %s', (symbol, other) => {
    expect(otherNames(chord(symbol))).toContain(other);
  });

  it('have no other name for a plain triad, and never the chord itself', () => {
    expect(otherNames(chord('C'))).toEqual([]);
    for (const symbol of ['C6', 'Gm/C', 'Bdim7', 'Am7', 'Caug']) expect(otherNames(chord(symbol))).not.toContain(symbol);
  });

  it('sound the same keys but for a note that ninth chords leave out', () => {
    for (const symbol of ['C6', 'Am7', 'Bdim7', 'Caug', 'Gm/C', 'Csus2'])
      for (const other of otherNames(chord(symbol))) for (const pc of notes(symbol)) expect(notes(other)).toContain(pc);
  });
});

describe('changing a chord', () => {
  const made = (symbol: string) => Object.fromEntries(chordChanges(chord(symbol)).map((c) => [c.kind, c.symbol]));

  it('alters its quality on the same root, and moves it by half steps', () => {
    expect(made('Dm')).toMatchObject({
      'dominant-seventh': 'D7',
      major: 'D',
      'half-diminished': 'Dm7b5',
      'major-seventh': 'Dmaj7',
      sixth: 'Dm6',
      ninth: 'Dm(add9)',
      sus4: 'Dsus4',
      'half-step-up': 'Ebm',
      'half-step-down': 'C#m',
    });
    expect(made('Dm')).not.toHaveProperty('minor');
    expect(made('G7')).toMatchObject({ minor: 'Gm7', ninth: 'G9', sus4: 'G7sus4' });
    expect(made('F/A')['dominant-seventh']).toBe('F7/A');
    expect(made('C')).toMatchObject({ diminished: 'Cdim', 'diminished-seventh': 'Cdim7', augmented: 'Caug' });
    expect(made('Bbm')['half-step-up']).toBe('Bm');
    expect([made('E')['half-step-up'], made('F')['half-step-down'], made('C/E')['half-step-down']]).toEqual(['F', 'E', 'B/D#']);
  });

  it('only ever makes chords that can be read', () => {
    for (const symbol of ['C', 'Ebm7', 'F#m7b5', 'Bbmaj7', 'D/F#', 'Gsus4', 'Adim7'])
      for (const c of chordChanges(chord(symbol))) expect(parseChord(c.symbol).kind).toBe('chord');
  });

  it('offers the dominant in first inversion for the diminished triad under the tonic', () => {
    expect(forLeadingTriad(chord('Bdim'), C)).toBe('G/B');
    expect(forLeadingTriad(chord('C#dim'), { tonic: 'D', mode: 'major' })).toBe('A/C#');
    expect(forLeadingTriad(chord('Bm7b5'), C)).toBeNull();
    expect(forLeadingTriad(chord('Ddim'), C)).toBeNull();
  });

  it('approaches a root by its dominant, from a half step above, and by a diminished chord between', () => {
    const between = (a: string, b: string) => approachChords(chord(a), chord(b), C).map((c) => c.symbol);
    expect(between('C', 'Dm')).toEqual(['A7', 'Eb7', 'C#dim7']);
    expect(between('F', 'C')).toEqual(['G7', 'Db7', 'F#m7b5', 'Fm6']);
    expect(between('Em', 'Dm')).toContain('Eb7');
    expect(between('C', 'C')).toEqual([]);
  });

  it('turns back to the start by the dominant or from a half step above', () => {
    expect(turnBacks({ tonic: 'F', mode: 'major' }).map((c) => c.symbol)).toEqual(['C7', 'Gb7', 'Db7']);
  });
});
