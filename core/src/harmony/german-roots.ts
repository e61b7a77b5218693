import type { NoteNames } from '../pitch/note-names.js';
import type { NoteName } from '../pitch/pitch.js';
import { parseChord } from './symbol.js';

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

/** A chord symbol as it is written where notes are named so, in international letters: "H7/B" the German way is "B7/Bb". */
export function readSymbolIn(names: NoteNames, symbol: string): string {
  if (names !== 'german') return symbol;
  const international = (letter: string) => (letter === 'H' ? 'B' : 'Bb');
  return symbol.replace(/^(H|B(?![b♭]))/, international).replace(/(?<=\/\s*)(H|B(?![b♭]))$/, international);
}
