import { toSeconds } from '../time/ticks.js';
import type { LessonLine, Passage, Scene } from './scene.js';

/** Seconds that a lesson takes for what it says and does. */
export const PACE = {
  /** A note that is named while it is struck, a chord with its notes, a join, anything else that is said. */
  note: 0.9,
  chord: 5,
  meet: 4,
  other: 3,
  /** Between a passage and the pianist's turn, a bar of which is counted in. */
  turn: 4,
  /** The longest that a part may take. */
  part: 300,
  /** The longest that parts are played one after another, and the share of the tempo then. */
  soFar: 140,
  joined: 0.75,
  /** The longest that a dressed part is played and played again. */
  dressed: 220,
  /** Shares of the tempo at which a part is learned: the slowest at which it takes no longer than it may. */
  slow: [0.5, 0.6, 0.7],
  /** The hardest spot: bars, times, and the share of the tempo. */
  spot: { bars: 2, times: 3, share: 0.5 },
} as const;

/** Seconds for which a line is said, where nobody speaks it. */
export function secondsToSay({ says }: Pick<LessonLine, 'says'>): number {
  if (says.code === 'lesson.note' || says.code === 'lesson.strike') return PACE.note;
  if (says.code === 'lesson.chord') return says.again ? PACE.other : PACE.chord;
  return says.code === 'lesson.meet' ? PACE.meet : PACE.other;
}

/** Seconds of a passage at a song's tempo, in quarter notes a minute. */
export const secondsOfPassage = ({ from, to, share }: Passage, tempo: number): number => toSeconds(to - from, tempo * share);

/** Seconds of a scene, with the pianist's turn. */
export function secondsOfScene({ lines, plays, asks }: Scene, tempo: number): number {
  const said = lines.reduce((sum, line) => sum + secondsToSay(line), 0);
  const played = plays ? secondsOfPassage(plays, tempo) : 0;
  return said + played + (asks && plays ? PACE.turn + played : 0);
}
