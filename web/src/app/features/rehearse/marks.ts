import type { GradedNote, PlacedNote } from '@joined-hands/core/practice';
import type { StripMark, Verdict } from '../../ui/join-strip/join-strip';

/** The worse comes first: of a chord with several faults the first of these is shown. */
const ORDER: readonly Verdict[] = ['missed', 'wrong', 'late', 'early'];

function verdictOf({ verdict, timing }: GradedNote): Verdict | null {
  if (verdict !== 'right') return verdict;
  return timing === 'late' || timing === 'early' ? timing : null;
}

/** What the strip shows of a pass: one mark for each hand at each place that was not right. */
export function marksOf(graded: readonly GradedNote[], notes: readonly PlacedNote[]): StripMark[] {
  const placeOf = new Map(notes.map((n) => [n as unknown, n.place]));
  const marks = new Map<string, StripMark>();
  for (const g of graded) {
    const verdict = verdictOf(g);
    const place = placeOf.get(g.note);
    if (!verdict || place === undefined) continue;
    const key = `${g.note.hand} ${place}`;
    const before = marks.get(key);
    if (!before || ORDER.indexOf(verdict) < ORDER.indexOf(before.verdict)) marks.set(key, { hand: g.note.hand, place, verdict });
  }
  return [...marks.values()];
}
