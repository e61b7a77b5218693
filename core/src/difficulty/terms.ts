/** A measure of difficulty: the figure at which it costs nothing, the one at which it costs all its points. */
interface TermRule {
  readonly easy: number;
  readonly hard: number;
  readonly points: number;
}

/**
 * What makes a part hard. The terms are those that teachers name when they grade pieces; the figures were set so that plain
 * five-finger tunes with slow block chords come out under 20 and busy, leaping parts over 60.
 */
export const DIFFICULTY_TERMS = {
  /** Notes of the tune a second, where it is liveliest. */
  speed: { easy: 1, hard: 7, points: 26 },
  /** Half steps jumped a second. */
  rightJumps: { easy: 0, hard: 6, points: 22 },
  /** Shifts and crossings a second. */
  moves: { easy: 0, hard: 1, points: 16 },
  /** Share of the notes. */
  rightStretches: { easy: 0, hard: 0.3, points: 12 },
  rightBlack: { easy: 0.15, hard: 0.8, points: 10 },
  syncopation: { easy: 0, hard: 0.35, points: 14 },
  /** Seconds without a rest or a long note. */
  breath: { easy: 5, hard: 20, points: 10 },
  /** Different chords a second. */
  changes: { easy: 0.15, hard: 1.5, points: 22 },
  /** Attacks of the left hand a second. */
  leftSpeed: { easy: 1, hard: 7, points: 22 },
  /** Half steps that all voices move at a change. */
  motion: { easy: 3, hard: 20, points: 16 },
  leftJumps: { easy: 0, hard: 8, points: 22 },
  /** Share of the chords past the comfortable span. */
  leftStretches: { easy: 0, hard: 0.5, points: 14 },
  leftBlack: { easy: 0.25, hard: 0.9, points: 8 },
  /** Notes in a chord, on average. */
  notes: { easy: 1, hard: 4, points: 9 },
  /** Different shapes in a part. */
  shapes: { easy: 1, hard: 6, points: 8 },
  /** Share of left-hand attacks with no note of the tune on them. */
  apart: { easy: 0, hard: 0.7, points: 60 },
  /** Share of all attacks that one hand makes alone between the counts. */
  between: { easy: 0.1, hard: 0.6, points: 40 },
} as const satisfies Readonly<Record<string, TermRule>>;

export type TermName = keyof typeof DIFFICULTY_TERMS;

/** How the two hands add up: the harder one whole, a share of the easier one, a share of what they ask of each other. */
export const HANDS_TOGETHER = { weaker: 0.4, together: 0.3 } as const;
