import { parseChord } from '../harmony/symbol.js';
import type { NoteNames } from '../pitch/note-names.js';
import type { NoteName } from '../pitch/pitch.js';

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

/** Roots as German chord symbols write them: H for B and B for B flat, the others as everywhere. */
const germanRoot = (root: NoteName): string => (root === 'B' ? 'H' : root === 'Bb' ? 'B' : root);

/** A chord symbol as it is written where notes are named so: the international way, unless they are named the German way. */
export function symbolIn(names: NoteNames, symbol: string): string {
  const chord = names === 'german' ? parseChord(symbol) : null;
  if (chord?.kind !== 'chord') return symbol;
  const slash = /\/\s*([A-G][b#]?)$/.exec(chord.text);
  const suffix = chord.text.slice(chord.root.length, slash?.index);
  return germanRoot(chord.root) + suffix + (slash ? `/${germanRoot(slash[1])}` : '');
}
