import type { NoteName } from './pitch.js';

/** How notes are named: C D E, do re mi, or the German way with H for B and B for B flat. */
export const NOTE_NAMES = ['letters', 'solfege', 'german'] as const;
export type NoteNames = (typeof NOTE_NAMES)[number];

/** The names by which keys are usually called, from C up. */
export const KEY_NAMES: readonly NoteName[] = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

const SOLFEGE: Readonly<Record<string, string>> = { C: 'do', D: 're', E: 'mi', F: 'fa', G: 'sol', A: 'la', B: 'si' };

/** The German names that are not made of the letter and its ending. */
const GERMAN: Readonly<Record<string, string>> = { B: 'H', Bb: 'B', Bbb: 'Heses', Eb: 'Es', Ebb: 'Eses', Ab: 'As', Abb: 'Asas' };

/** A note as it is named: "Bb" is "Bb", "si♭" or "B"; "F#" is "F#", "fa♯" or "Fis". */
export function noteIn(names: NoteNames, note: NoteName): string {
  const [letter, signs] = [note[0], note.slice(1)];
  if (names === 'letters') return note;
  if (names === 'solfege') return SOLFEGE[letter] + signs.replaceAll('b', '♭').replaceAll('#', '♯');
  const ending = signs.replaceAll('#', 'is').replaceAll('b', 'es');
  return GERMAN[note] ?? (letter === 'B' ? 'H' : letter) + ending;
}

/** Signs as they are said after letters and after syllables. */
const SAID = { letters: { b: ' flat', '#': ' sharp' }, solfege: { b: ' bémol', '#': ' dièse' } } as const;

/** A note as it is said aloud: "B flat", "si bémol", "Fis". */
export function noteAloud(names: NoteNames, note: NoteName): string {
  if (names === 'german') return noteIn(names, note);
  const { b, '#': sharp } = SAID[names];
  return noteIn(names, note[0]) + note.slice(1).replaceAll('b', b).replaceAll('#', sharp);
}

/** The notes of the syllables, those of other countries too. */
const SYLLABLES: Readonly<Record<string, string>> = {
  ...Object.fromEntries(Object.entries(SOLFEGE).map(([letter, syllable]) => [syllable, letter])),
  ré: 'D',
  so: 'G',
  ti: 'B',
};

/**
 * The note that a pianist means by a name without its octave: "Bb", "si♭", "Fis", "Es". Letters are capitals or small.
 * Only "B" by itself means two things; it is B flat where notes are named the German way. Null for anything else.
 *
 * @example readNoteName('fa#', 'letters') // 'F#'
 */
export function readNoteName(text: string, names: NoteNames): NoteName | null {
  const plain = text.replaceAll('♯', '#').replaceAll('♭', 'b');
  const syllable = /^(do|re|ré|mi|fa|sol|so|la|si|ti)(#{0,2}|b{1,2})$/i.exec(plain);
  if (syllable) return SYLLABLES[syllable[1].toLowerCase()] + syllable[2];
  const letter = /^([A-Ha-h])(#{1,2}|bb?|(?:is){1,2}|(?:es){1,2}|s|ses|sas)?$/.exec(plain);
  if (!letter) return null;
  const [, name, ending = ''] = letter;
  const capital = name.toUpperCase();
  // "As" and "Es" drop a vowel; no other letter does.
  if (/^s/.test(ending) && !/^(A|E)$/.test(capital)) return null;
  if (capital === 'B' && ending === '' && names === 'german') return 'Bb';
  const signs = /^[#b]/.test(ending) ? ending : ending.replace(/^s/, 'es').replaceAll('as', 'es').replaceAll('is', '#');
  return (capital === 'H' ? 'B' : capital) + signs.replaceAll('es', 'b');
}
