import type { Part } from '@joined-hands/core/arrange';
import { joinsOf } from '@joined-hands/core/sheet';
import type { Bar } from '@joined-hands/core/time';
import { capital, partTitle, togetherWords, type Speech } from '@joined-hands/core/words';

/** What is read aloud where a chord is stepped to: where it falls, with which note, how it lies and on which keys. */
export function spokenJoin(part: Part, bars: readonly Bar[], at: number, say: Speech): string {
  const i = part.chords.findIndex((c) => c.at === at);
  if (i < 0) return '';
  const { bar, point } = joinsOf(part, bars)[i];
  const { position, pitches } = part.chords[i];
  const place = bar === 0 ? $localize`Pick-up` : $localize`Bar ${bar}`;
  return `${place}: ${togetherWords(point, say)} ${capital(say.position(position))}, ${pitches.map(say.pitch).join(', ')}.`;
}

/** What is read aloud where a part is stepped to. */
export function spokenPart(part: Part, say: Speech): string {
  const inIt = say.fact({ code: 'screen.notes-and-chords', notes: part.melody.length, chords: part.chords.length });
  return $localize`Part ${part.number}, ${partTitle(part)}\: ${inIt}.`;
}
