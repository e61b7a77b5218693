import { capital, joinsOf, partTitle, plural, type Bar, type Part } from '@joined-hands/core';

/** What is read aloud where a chord is stepped to: where it falls, with which note, how it lies and on which keys. */
export function spokenJoin(part: Part, bars: readonly Bar[], at: number): string {
  const i = part.chords.findIndex((c) => c.at === at);
  if (i < 0) return '';
  const { place, sentence } = joinsOf(part, bars)[i];
  const { position, pitches } = part.chords[i];
  return `${capital(place)}: ${sentence} ${capital(position)}, ${pitches.join(', ')}.`;
}

/** What is read aloud where a part is stepped to. */
export function spokenPart(part: Part): string {
  const [notes, chords] = [part.melody.length, part.chords.length];
  return `Part ${part.number}, ${partTitle(part)}: ${notes} ${plural(notes, 'note')}, ${chords} ${plural(chords, 'chord')}.`;
}
