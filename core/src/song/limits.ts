/**
 * How large a song may be, whatever file it comes from. Everything is checked before anything is laid out or arranged, so that no
 * file can keep the program busy: the longest piano pieces have a tenth of this.
 */
export const MOST = {
  /** Bars, played out. */
  bars: 4_000,
  /** Ticks from first to last: 40,000 quarter notes, some seven hours. */
  ticks: 40_000 * 10_080,
  notes: 20_000,
  chords: 20_000,
  marks: 20_000,
  /** Changes of meter or tempo. */
  changes: 4_000,
  /** Counts in a bar. */
  counts: 99,
  /** Choices of one kind that a pianist makes for places of a song, such as fingers or pinned chords. */
  choices: 20_000,
  /** Stretches of a song that have a name or wishes of their own. */
  stretches: 4_000,
} as const;
