import type { Choices } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';
import type { Stretch } from './divide.js';

/** A section of the form: one or more parts under a name. */
export interface Section {
  /** As the pianist or the written music names it; null for parts before the first name. */
  readonly name: string | null;
  readonly start: Ticks;
  readonly end: Ticks;
  /** Numbers of its first and last part. */
  readonly from: number;
  readonly to: number;
}

/**
 * The sections of a song. A section begins with the part that a name stands at: the pianist's own name, else what the music
 * prints there. Empty where nothing is named.
 */
export function findSections(
  song: Pick<Song, 'marks'>,
  stretches: readonly Stretch[],
  choices: Pick<Choices, 'sections'>,
): Section[] {
  const names = new Map<number, string>();
  const partAt = (at: Ticks) => stretches.findLastIndex((s) => s.start <= at && at < s.end);
  for (const { at, kind, text } of song.marks) {
    if (kind !== 'section' || !text) continue;
    const i = partAt(at);
    // A name printed at a bar line belongs to the part that leads into it.
    if (i >= 0 && !names.has(i)) names.set(i, text);
  }
  for (const { at, name } of choices.sections) {
    const i = partAt(at);
    if (i >= 0) names.set(i, name);
  }
  if (names.size === 0) return [];
  const sections: { name: string | null; start: Ticks; end: Ticks; from: number; to: number }[] = [];
  stretches.forEach(({ start, end }, i) => {
    const name = names.get(i);
    const last = sections.at(-1);
    if (name === undefined && last) Object.assign(last, { end, to: i + 1 });
    else sections.push({ name: name ?? null, start, end, from: i + 1, to: i + 1 });
  });
  return sections;
}
