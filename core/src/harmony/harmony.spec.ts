import { ENGLISH } from '../words/index.js';
import { positionOf } from './naming.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, SYMBOLS } from '../../testing/songs.js';
import { midiOf, nameOf, octaveUp, pitchAt, pitchClass } from '../pitch/pitch.js';
import { transposeSong } from '../song/edits.js';
import { findKey } from './find-key.js';
import { keyFromSignature, keyName, parseKey, signatureOf } from './key.js';
import { degreeOf, intervalToKey, inversionOf, nameWithMelody } from './naming.js';
import { parseChord, type Chord } from './symbol.js';

const chord = (text: string): Chord => {
  const parsed = parseChord(text);
  if (parsed.kind !== 'chord') throw new Error(`${text} was not read`);
  return parsed;
};
const notes = (text: string) =>
  chord(text)
    .tones.map((t) => t.name)
    .join(' ');

describe('chord symbols', () => {
  it.each([
    ['C', 'C E G'],
    ['Cm', 'C Eb G'],
    ['Cdim', 'C Eb Gb'],
    ['Caug', 'C E G#'],
    ['Csus2', 'C D G'],
    ['Csus4', 'C F G'],
    ['C5', 'C G'],
    ['C6', 'C E G A'],
    ['Cm6', 'C Eb G A'],
    ['C7', 'C E G Bb'],
    ['Cmaj7', 'C E G B'],
    ['Cm7', 'C Eb G Bb'],
    ['Cm7b5', 'C Eb Gb Bb'],
    ['Cdim7', 'C Eb Gb Bbb'],
    ['CmMaj7', 'C Eb G B'],
    ['C7sus4', 'C F G Bb'],
    ['Caug7', 'C E G# Bb'],
    ['C7#5', 'C E G# Bb'],
    ['C7b5', 'C E Gb Bb'],
    ['C9', 'C E G Bb D'],
    ['Cmaj9', 'C E G B D'],
    ['Cm9', 'C Eb G Bb D'],
    ['Cadd9', 'C E G D'],
    ['C7b9', 'C E G Bb Db'],
    ['C7#9', 'C E G Bb D#'],
    ['C11', 'C G Bb D F'],
    ['C7#11', 'C E G Bb F#'],
    ['C13', 'C E G Bb D A'],
  ])('%s is %s', (text, expected) => expect(notes(text)).toBe(expected));

  it.each([
    [['Cmaj7', 'CM7', 'CΔ', 'CΔ7', 'Cma7', 'CMaj7', 'Cj7']],
    [['Cm7', 'C-7', 'Cmin7', 'Cmi7']],
    [['Cm', 'C-', 'Cmin', 'Cmi']],
    [['Cm7b5', 'Cø', 'Cø7', 'C-7b5', 'Cm7(b5)', 'Cmin7b5']],
    [['Cdim7', 'C°7', 'Co7']],
    [['Cdim', 'C°', 'Co', 'Cm(b5)', 'Cm-5']],
    [['Caug', 'C+', 'C(#5)']],
    [['C', 'Cmaj', 'CM']],
    [['C7b9', 'C7(b9)', 'C7-9', 'C7 b9']],
    [['C6/9', 'C69', 'C6add9']],
    [['CmMaj7', 'Cm(maj7)', 'C-Δ7', 'CmM7']],
    [['Csus4', 'Csus', 'C4']],
  ])('reads the spellings %s alike', (spellings) => {
    expect(new Set(spellings.map(notes)).size).toBe(1);
  });

  it('spells from the root: the seventh of G flat is F flat', () => {
    expect(notes('Gb7')).toBe('Gb Bb Db Fb');
    expect(notes('F♯m7')).toBe('F# A C# E');
  });

  it('keeps a slash bass, in or outside the chord, apart from six-nine', () => {
    expect(chord('D/F#').bass).toBe('F#');
    expect(chord('C/D').bass).toBe('D');
    expect(chord('C6/9').bass).toBeNull();
    expect(chord('Am7/G').bass).toBe('G');
  });

  it('knows a place without a chord, and text that is none', () => {
    for (const text of ['N.C.', 'NC', 'n.c.', 'no chord']) expect(parseChord(text).kind).toBe('none');
    for (const text of ['H7', 'Gm7x', 'slowly', '', 'C//E', 'Cblah']) expect(parseChord(text).kind).toBe('unread');
  });

  it('names the quality in words', () => {
    const words = ['F', 'Dm7', 'G7', 'Bø', 'Bdim7', 'G7b9', 'Cmaj9', 'G7sus4', 'C6/9'].map((t) => ENGLISH.chord(t));
    expect(words).toEqual([
      'F major',
      'D minor seventh',
      'G dominant seventh',
      'B half-diminished',
      'B diminished seventh',
      'G dominant seventh flat ninth',
      'C major ninth',
      'G suspended seventh',
      'C major six-nine',
    ]);
  });
});

describe('naming', () => {
  it('names inversions by the chord note at the bottom', () => {
    expect(['C', 'E', 'G', 'Bb'].map((n) => inversionOf(chord('C7'), n))).toEqual([0, 1, 2, 3]);
    expect(ENGLISH.position(positionOf(chord('F'), 'A'))).toBe('first inversion');
    expect(ENGLISH.position(positionOf(chord('C/D'), 'D'))).toBe('over D');
  });

  it('gives degrees in the key', () => {
    const inC = ['C', 'Dm7', 'Em', 'F', 'G7', 'Am', 'Bdim', 'Bb', 'F#m7b5', 'Db7', 'Caug'].map((t) =>
      degreeOf(chord(t), { tonic: 'C', mode: 'major' }),
    );
    expect(inC).toEqual(['I', 'ii', 'iii', 'IV', 'V', 'vi', 'vii°', 'bVII', '#ivø', 'bII', 'I+']);
    expect(['Gm', 'D7', 'Eb', 'F#dim'].map((t) => degreeOf(chord(t), { tonic: 'G', mode: 'minor' }))).toEqual([
      'i',
      'V',
      'VI',
      'vii°',
    ]);
  });

  it('counts the tune into the chord', () => {
    expect(nameWithMelody(chord('Fmaj7'), 'G')).toBe('Fmaj9');
    expect(nameWithMelody(chord('F/A'), 'Eb')).toBe('F7/A');
    expect(nameWithMelody(chord('F'), 'A')).toBe('F');
    expect(nameWithMelody(chord('F'), 'Gb')).toBeNull();
  });
});

describe('keys', () => {
  it('finds the key of each demo song, in every key it is moved to', () => {
    for (const name of ['lamps-across-the-sound.letters', 'harbour-glass.abc', 'all-aboard-for-nettle-point.musicxml']) {
      const { song } = demo(name);
      for (const tonic of ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B']) {
        const to = { tonic, mode: song.key.mode };
        const moved = transposeSong(song, to);
        const heard = moved.melody.map((n) => ({ pitchClass: pitchClass(nameOf(n.pitch)), weight: n.length }));
        const last = moved.melody[moved.melody.length - 1].pitch;
        const found = findKey(heard, pitchClass(nameOf(last)), signatureOf(to));
        expect(`${pitchClass(found.tonic)} ${found.mode}`).toBe(`${pitchClass(tonic)} ${to.mode}`);
      }
    }
  });

  it('reads and writes key names and signatures', () => {
    expect(parseKey('Gm')).toEqual({ tonic: 'G', mode: 'minor' });
    expect(parseKey('eb major')).toEqual({ tonic: 'Eb', mode: 'major' });
    expect(parseKey('H major')).toBeNull();
    for (let fifths = -7; fifths <= 7; fifths++)
      for (const mode of ['major', 'minor'] as const) expect(signatureOf(keyFromSignature(fifths, mode))).toBe(fifths);
    expect(keyName({ tonic: 'Bb', mode: 'minor' })).toBe('Bb minor');
  });

  it('moves by the shorter way', () => {
    const to = (a: string, b: string) => intervalToKey({ tonic: a, mode: 'major' }, { tonic: b, mode: 'major' });
    expect([to('C', 'Eb'), to('C', 'A'), to('G', 'G')]).toEqual(['3m', '-3m', '1P']);
  });
});

describe('transposing', () => {
  it('keeps every sounding interval and every chord quality', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Db', 'D', 'E', 'F#', 'Ab', 'B'),
        fc.constantFrom(...SYMBOLS.filter((s) => s !== 'N.C.')),
        (tonic, symbol) => {
          const { song } = demo('harbour-glass.abc');
          const moved = transposeSong({ ...song, chords: [{ at: 0, symbol }] }, { tonic, mode: 'major' });
          const shift = midiOf(moved.melody[0].pitch) - midiOf(song.melody[0].pitch);
          moved.melody.forEach((n, i) => expect(midiOf(n.pitch) - midiOf(song.melody[i].pitch)).toBe(shift));
          expect(chord(moved.chords[0].symbol).tones.map((t) => t.interval)).toEqual(chord(symbol).tones.map((t) => t.interval));
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('pitches', () => {
  it('sound where they are spelled', () => {
    expect(['C4', 'Cb4', 'B#3', 'Bbb3', 'F##5', 'A0', 'C8'].map(midiOf)).toEqual([60, 59, 60, 57, 79, 21, 108]);
    expect(octaveUp('Bb3', -1)).toBe('Bb2');
    expect(() => midiOf('H4')).toThrow(RangeError);
  });

  it('keep their name when placed at a key', () => {
    expect(pitchAt('Cb', 59)).toBe('Cb4');
    expect(pitchAt('B#', 60)).toBe('B#3');
  });
});
