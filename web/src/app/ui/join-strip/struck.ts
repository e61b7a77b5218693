import type { Part, PartChord } from '@joined-hands/core/arrange';
import { beatTicks, countAt, countTicks, offsetInBar, type Bar } from '@joined-hands/core/time';

/** The bars of a part, cut where the part begins and ends inside one. */
export interface Segment {
  readonly bar: Bar;
  readonly start: number;
  readonly end: number;
}

export const startOf = (line: readonly Segment[]): number => line[0].start;
export const endOf = (line: readonly Segment[]): number => line[line.length - 1].end;

/** The notes that the right hand plays beside the tune, each with its finger. */
export function besideTune({
  fills,
  sung,
  interludes,
  under,
  melody,
}: Part): { at: number; pitch: string; finger: number | null; over: number; until: number | null }[] {
  const tune = new Set(melody.map((n) => n.at));
  return [
    ...fills.map(({ at, pitch, finger }) => ({ at, pitch, finger, over: 0, until: null })),
    // What is struck with a note of the tune hangs from its stone.
    ...under.flatMap(({ at, length, pitches, fingers, inner }) =>
      inner && !tune.has(at)
        ? pitches.map((pitch, k) => ({ at, pitch, finger: fingers[k] ?? null, over: 0, until: at + length }))
        : [],
    ),
    ...interludes.flatMap(({ at, pitches, fingers }) =>
      pitches.map((pitch, k) => ({ at, pitch, finger: fingers[k] ?? null, over: 0, until: null })),
    ),
    ...sung.flatMap(({ at, pitches, fingers }) =>
      pitches.map((pitch, over) => ({ at, pitch, finger: fingers[over] ?? null, over, until: null })),
    ),
  ];
}

interface StripAttack {
  readonly at: number;
  readonly pitches: readonly string[];
  readonly fingers: readonly number[];
  /** Small notes that lead to it. */
  readonly graces: readonly string[];
}

/** What is struck of a chord, moment by moment: its texture's attacks, or the chord itself. */
export function attacksOf({ at, pitches, fingers, dressed }: PartChord): StripAttack[] {
  if (!dressed) return [{ at, pitches, fingers, graces: [] }];
  const places = [...new Set(dressed.notes.map((n) => n.at))];
  return places.map((place) => {
    const here = dressed.notes.flatMap((n, k) => (n.at === place ? [{ pitch: n.pitch, finger: dressed.fingers[k] }] : []));
    const graces = dressed.notes.flatMap((n) => (n.at === place ? (n.graces ?? []) : []));
    return { at: place, pitches: here.map((n) => n.pitch), fingers: here.map((n) => n.finger), graces };
  });
}

/** Every moment at which a hand strikes. */
export const struckIn = (part: Part): number[] => [
  ...part.melody.map((n) => n.at),
  ...besideTune(part).map((n) => n.at),
  ...part.chords.flatMap((c) => attacksOf(c).map((a) => a.at)),
];

/** A count of a bar, or what is said between two. */
export interface Count {
  readonly at: number;
  readonly text: string;
  readonly kind: 'beat' | 'count' | 'between';
}

/** The counts of one bar: every count, and what is said between where something is struck. */
export function countsOf({ bar, start, end }: Segment, struck: readonly number[]): Count[] {
  const unit = countTicks(bar.meter);
  const counts = new Map<number, Count>();
  const count = (at: number) => {
    const offset = offsetInBar(bar, at);
    const { between, beat } = countAt(offset, bar.meter);
    const kind = between ? 'between' : offset % beatTicks(bar.meter) === 0 ? 'beat' : 'count';
    counts.set(at, { at, text: between || `${beat}`, kind });
  };
  for (let at = bar.start - (bar.lead % unit); at < end; at += unit) if (at >= start) count(at);
  for (const at of struck) if (at >= start && at < end && !counts.has(at)) count(at);
  return [...counts.values()].sort((a, b) => a.at - b.at);
}
