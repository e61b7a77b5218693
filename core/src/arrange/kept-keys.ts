import { chordFromNotes, spelledIn } from '../harmony/from-notes.js';
import type { Key } from '../harmony/key.js';
import { parseChord } from '../harmony/symbol.js';
import { midiOf, pitchAt, pitchClass, type Pitch } from '../pitch/pitch.js';
import type { Edit } from '../song/edit.js';
import type { Part } from './arrangement.js';

/** Keys as a chord spells them, bottom-up: its own notes by their names in it, others as the key of the song has them. */
export function spellKeys(midis: readonly number[], symbol: string, key: Key): Pitch[] {
  const chord = parseChord(symbol);
  const names = chord.kind === 'chord' ? [...chord.tones.map((t) => t.name), ...(chord.bass ? [chord.bass] : [])] : [];
  return [...new Set(midis)]
    .sort((a, b) => a - b)
    .map((midi) => pitchAt(names.find((n) => pitchClass(n) === midi % 12) ?? spelledIn(key, midi % 12), midi));
}

/** What keys are called that are struck together, whatever chord they stand for; null where that has no name. */
export function nameOfKeys(pitches: readonly Pitch[], key: Key): string | null {
  const midis = pitches.map(midiOf);
  if (new Set(midis.map((m) => m % 12)).size < 3) return null;
  const weights = Array.from({ length: 12 }, (_, pc) => midis.filter((m) => m % 12 === pc).length);
  return chordFromNotes(weights, midis[0] % 12, key);
}

/** The same keys wherever a chord is struck: one change for all its places. */
export function shapeWherever(parts: readonly Pick<Part, 'chords'>[], symbol: string, pitches: readonly Pitch[]): Edit {
  const places = parts.flatMap((p) => p.chords.filter((c) => c.symbol === symbol).map((c) => c.writtenAt));
  const edits = [...new Set(places)].map((at): Edit => ({ code: 'edit.voicing', at, pitches: [...pitches] }));
  return { code: 'edit.several', as: { kind: 'shape-wherever', symbol, pitches: [...pitches] }, edits };
}
