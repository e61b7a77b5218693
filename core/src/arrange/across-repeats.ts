import { grouped } from '../lists/grouped.js';
import { LOUDNESSES, type Document } from '../song/decisions.js';
import type { Edit } from '../song/edit.js';
import { rangeOf, settingAt, type TickRange } from '../song/edits.js';
import type { Part } from './arrangement.js';
import { origin } from '../song/linked.js';

type Repeating = TickRange & Pick<Part, 'number' | 'repeats'>;

/** Parts that are the same music, each group in order; a part that is played once is a group of its own. */
function repeatGroups(parts: readonly Repeating[]): Repeating[][] {
  return [...grouped(parts, (part) => origin(part, parts).part.number).values()];
}

/** True where a part comes again, so that its endings and its loudness can differ from time to time. */
export function comesAgain(parts: readonly Repeating[]): boolean {
  return repeatGroups(parts).some((group) => group.length > 1);
}

/** The groups that end what comes again: parts that are not followed by the same other part each time. */
function endsOfRepeats(parts: readonly Repeating[]): Repeating[][] {
  const groups = repeatGroups(parts);
  const groupOf = (number: number) => groups.findIndex((g) => g.some((p) => p.number === number));
  return groups.filter(
    (g) => g.length > 1 && (new Set(g.map((p) => groupOf(p.number + 1))).size > 1 || groupOf(g[0].number + 1) < 0),
  );
}

/**
 * First and second endings: where a stretch of parts comes again, its last part turns back by a dominant every time but the last,
 * when it comes to rest with its chord suspended. Null where no part comes again.
 */
export function firstAndSecondEndings(parts: readonly Repeating[]): Edit | null {
  const ending = endsOfRepeats(parts);
  if (ending.length === 0) return null;
  const edits = ending.flatMap((group) =>
    group.map((part, k): Edit => {
      const value = k === group.length - 1 ? 'suspended' : 'dominant';
      return { code: 'edit.setting', range: rangeOf(part), setting: 'ending', value };
    }),
  );
  return { code: 'edit.several', as: { kind: 'endings' }, edits };
}

/** A swell across repeats: every time a part comes again it is one step louder, or softer, than the time before. Null where none comes again. */
export function louderEachTime(doc: Document, parts: readonly Repeating[], way: 'louder' | 'softer' = 'louder'): Edit | null {
  if (!comesAgain(parts)) return null;
  const by = way === 'louder' ? 1 : -1;
  const edits = repeatGroups(parts).flatMap((group) => {
    const from = LOUDNESSES.indexOf(settingAt(doc, group[0].start, 'loudness'));
    return group.slice(1).map((part, k): Edit => {
      const value = LOUDNESSES[Math.max(0, Math.min(LOUDNESSES.length - 1, from + by * (k + 1)))];
      return { code: 'edit.setting', range: rangeOf(part), setting: 'loudness', value };
    });
  });
  return { code: 'edit.several', as: { kind: way }, edits };
}

/** Which time of how many a part is: "1st of 2"; null for a part that comes once. */
export function timeOf(number: number, parts: readonly Repeating[]): { readonly time: number; readonly of: number } | null {
  const group = repeatGroups(parts).find((g) => g.some((p) => p.number === number));
  if (!group || group.length < 2) return null;
  return { time: group.findIndex((p) => p.number === number) + 1, of: group.length };
}
