import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SYMBOLS } from '../../testing/songs.js';
import { parseChord } from '../harmony/symbol.js';
import { midiOf, pitchAt } from '../pitch/pitch.js';
import { NOTE_NAMES, noteIn, readNoteName } from '../pitch/note-names.js';
import { readLetters } from '../formats/letters/read.js';
import { readSymbolIn, symbolIn } from '../harmony/german-roots.js';
import { ENGLISH, wordsWith } from './words.js';

const NAMES = ['C', 'D', 'E', 'F', 'G', 'A', 'B'].flatMap((letter) => ['bb', 'b', '', '#', '##'].map((sign) => letter + sign));

describe('note names', () => {
  it.each([
    ['Bb', 'si♭', 'B'],
    ['B', 'si', 'H'],
    ['F#', 'fa♯', 'Fis'],
    ['Eb', 'mi♭', 'Es'],
    ['Ab', 'la♭', 'As'],
    ['B#', 'si♯', 'His'],
    ['Cb', 'do♭', 'Ces'],
    ['G', 'sol', 'G'],
    ['Bbb', 'si♭♭', 'Heses'],
  ])('%s is %s in do-re-mi and %s in German', (name, solfege, german) => {
    expect([noteIn('letters', name), noteIn('solfege', name), noteIn('german', name)]).toEqual([name, solfege, german]);
  });

  it('tell every note from every other, whichever are used', () => {
    for (const names of NOTE_NAMES) expect(new Set(NAMES.map((n) => noteIn(names, n))).size).toBe(NAMES.length);
  });

  it('are read as they are written, whichever are used', () => {
    for (const names of NOTE_NAMES)
      for (const note of NAMES) {
        expect(readNoteName(noteIn(names, note), names)).toBe(note);
        expect(readNoteName(noteIn(names, note).toLowerCase(), names)).toBe(note);
      }
    for (const nothing of ['', 'I', 'Gs', 'doh', 'C###', 'bes es', 'Fish']) expect(readNoteName(nothing, 'letters')).toBeNull();
  });

  it('are read in letter lines, in which an H tells that B is B flat', () => {
    const song = (key: string, tune: string, chords: string) => {
      const read = readLetters(`key: ${key}\ntime: 4/4\ntune: ${tune}\nchord: ${chords}\n`);
      if (!('song' in read)) throw new Error(JSON.stringify(read));
      return { key: read.song.key, melody: read.song.melody.map((n) => n.pitch), chords: read.song.chords.map((c) => c.symbol) };
    };
    const letters = song('B minor', 'B4 C# F#_Eb Bb | B - . B', 'Bm - F#7/Bb - | Bb - B7/F# -');
    expect(song('h-Moll', 'H4 Cis Fis_Es B | h - . h', 'Hm - F#7/B - | B - H7/F# -')).toEqual(letters);
    expect(song('si minor', 'si4 do# fa#_mib sib | ti - . si', 'Bm - F#7/Bb - | Bb - B7/F# -')).toEqual(letters);
    expect(song('C', 'B4 C D E', 'C - - -').melody[0]).toBe('B4');
    expect(song('C', 'B4 C D E % h', 'C - - -').melody[0]).toBe('B4');
    expect(song('C\nnames: german', 'B4 C D E', 'B - - -')).toMatchObject({ melody: ['Bb4', 'C5', 'D5', 'E5'], chords: ['Bb'] });
  });

  it('bring every chord symbol back', () => {
    for (const names of NOTE_NAMES)
      for (const symbol of SYMBOLS) expect(readSymbolIn(names, symbolIn(names, symbol))).toBe(parseChord(symbol).text);
  });

  it('leave chord symbols as they are written everywhere, but in German have H for B', () => {
    for (const symbol of SYMBOLS) expect([symbolIn('letters', symbol), symbolIn('solfege', symbol)]).toEqual([symbol, symbol]);
    expect(['Bm7b5', 'Bb7', 'Gm/Bb', 'D/F#', 'N.C.', 'C/B'].map((s) => symbolIn('german', s))).toEqual([
      'Hm7b5',
      'B7',
      'Gm/B',
      'D/F#',
      'N.C.',
      'C/H',
    ]);
  });
});

describe('words', () => {
  it('name chords, keys and places in the names that are chosen', () => {
    const [german, solfege] = [wordsWith('german'), wordsWith('solfege')];
    expect(german.chord('Bbmaj7/D')).toBe('B major seventh over D');
    expect(solfege.chord('F#m')).toBe('fa♯ minor');
    expect(german.key({ tonic: 'B', mode: 'minor' })).toBe('H minor');
    expect(solfege.pitches(['C3', 'Eb3'])).toBe('do3 mi♭3');
    expect(solfege.pianoKey('F4')).toBe('the fa above middle C');
  });

  it('call a note with two signs by the plain name of its key, unless the exact one is wished for', () => {
    expect(ENGLISH.pitches(['Ebb4', 'Bbb3', 'Cbb4', 'F##3', 'B##3', 'Gb4'])).toBe('D4 A3 Bb3 G3 C#4 Gb4');
    expect(wordsWith('letters', true).pitches(['Ebb4', 'Bbb3'])).toBe('Ebb4 Bbb3');
    expect([wordsWith('german').note('Bbb'), wordsWith('german', true).note('Bbb')]).toEqual(['A', 'Heses']);
    for (const p of ['Abb2', 'Dbb5', 'E##4', 'Cbb3', 'B##5']) expect(midiOf(ENGLISH.pitch(p))).toBe(midiOf(p));
  });

  it('name every kind of chord that can be read', () => {
    for (const symbol of SYMBOLS)
      if (parseChord(symbol).kind === 'chord') expect(ENGLISH.chord(symbol)).toMatch(/^[A-G][b#]? [a-z]/);
  });

  it('count, list and measure as one says it', () => {
    expect([ENGLISH.count(1, 'chord'), ENGLISH.count(1200, 'note'), ENGLISH.countInWords(2, 'jump')]).toEqual([
      '1 chord',
      '1,200 notes',
      'two jumps',
    ]);
    expect([ENGLISH.countInWords(14, 'jump'), ENGLISH.countInWords(0, 'jump')]).toEqual(['14 jumps', '0 jumps']);
    expect([[], ['A'], ['A', 'B'], ['A', 'B', 'C']].map((l) => ENGLISH.list(l))).toEqual(['', 'A', 'A and B', 'A, B and C']);
    expect([0, 3, -8, 16, 30].map((n) => ENGLISH.interval(n))).toEqual([
      'nothing',
      'a minor third',
      'a minor sixth',
      'a major tenth',
      'more than a tenth',
    ]);
  });

  it('find a key from middle C as a teacher does, octave by octave', () => {
    fc.assert(
      fc.property(fc.integer({ min: 21, max: 108 }), (midi) => {
        const words = ENGLISH.pianoKey(pitchAt('C', midi - (midi % 12)));
        const octaves = (midiOf(pitchAt('C', midi - (midi % 12))) - 60) / 12;
        expect(words.includes('above')).toBe(octaves > 0);
        expect(words.includes('below')).toBe(octaves < 0);
      }),
    );
  });
});
