/** A measure of difficulty: the figure at which it costs nothing, the one at which it costs all its points. */
interface TermRule {
  readonly easy: number;
  readonly hard: number;
  readonly points: number;
}

/**
 * What makes a part hard, in the order in which teachers name it: leaps in a row, crossings and changes of place, accidentals and turns on
 * black keys, new shapes in quick succession, hands that strike apart in faster values, stretches, length without a rest. The figures
 * were set so that plain five-finger tunes with slow block chords come out under 20 and busy, leaping parts over 60.
 */
export const DIFFICULTY_TERMS = {
  /** Leaps of a fourth and more that follow one another with no rest between them, a second. */
  leaps: { easy: 0.25, hard: 2, points: 36 },
  /** Half steps jumped a second. */
  rightJumps: { easy: 0, hard: 6, points: 22 },
  leftJumps: { easy: 0, hard: 10, points: 24 },
  /** Shifts and crossings a second. */
  moves: { easy: 0, hard: 1, points: 26 },
  /** Share of the notes that are off the key's scale, and of those where the hand turns or crosses on a black key. */
  accidentals: { easy: 0, hard: 0.3, points: 20 },
  blackTurns: { easy: 0, hard: 0.3, points: 10 },
  /** Notes of the tune a second, where it is liveliest. */
  speed: { easy: 1, hard: 7, points: 26 },
  /** Grips of the left hand a second that are new in the part, and different chords a second. */
  newShapes: { easy: 0.15, hard: 0.8, points: 18 },
  changes: { easy: 0.2, hard: 1.5, points: 10 },
  /** Half steps that all voices move at a change. */
  motion: { easy: 3, hard: 20, points: 12 },
  syncopation: { easy: 0, hard: 0.35, points: 12 },
  /** Attacks of one hand alone between the counts, a second, and attacks of the left hand alone on them. */
  between: { easy: 0.2, hard: 2.5, points: 44 },
  apart: { easy: 0.1, hard: 2, points: 20 },
  /** Share of the notes, and of the chords, past the comfortable span. */
  rightStretches: { easy: 0, hard: 0.3, points: 10 },
  /** Keys struck with notes of the tune, for each note. */
  rightStruck: { easy: 0, hard: 1, points: 14 },
  leftStretches: { easy: 0, hard: 0.5, points: 12 },
  /** Seconds without a rest or a long note. */
  breath: { easy: 5, hard: 20, points: 8 },
  /** Attacks of the left hand a second. */
  leftSpeed: { easy: 1, hard: 7, points: 22 },
  /** Share of the notes on black keys: what tells one key of a song from another. See {@link TOLD_LAST}. */
  rightBlack: { easy: 0.1, hard: 0.8, points: 10 },
  leftBlack: { easy: 0.15, hard: 0.9, points: 8 },
  /** Notes in a chord, on average. */
  notes: { easy: 1, hard: 5, points: 8 },
} as const satisfies Readonly<Record<string, TermRule>>;

export type TermName = keyof typeof DIFFICULTY_TERMS;

/**
 * What counts but is not what a teacher calls hard in a part: black keys, which are the song's key (and tell an easier one), and how many
 * notes its chords have, which is the level it is written for. It is told last, after everything that the part itself asks for.
 */
export const TOLD_LAST: ReadonlySet<TermName> = new Set<TermName>(['rightBlack', 'leftBlack', 'notes']);

/** How the two hands add up: the harder one whole, a share of the easier one, a share of what they ask of each other. */
export const HANDS_TOGETHER = { weaker: 0.4, together: 0.3 } as const;
