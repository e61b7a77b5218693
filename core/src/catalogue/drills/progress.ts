import { midiOf } from '../../pitch/pitch.js';
import { CLEAN, type PassFigures } from '../../practice/verdict.js';
import type { Drill, DrillTask } from './drill.js';

/** Where a task that is played stands: which grip, which of its keys were struck, and how many keys were wrong. */
export interface DrillProgress {
  readonly index: number;
  readonly struck: readonly number[];
  readonly slips: number;
}

export const DRILL_START: DrillProgress = { index: 0, struck: [], slips: 0 };

/** What a key does in a task: the grips are played one after another, the keys of each in any order. */
export function pressInDrill(task: DrillTask, { index, struck, slips }: DrillProgress, midi: number): DrillProgress {
  const grip = task.grips[index];
  if (!grip) return { index, struck, slips };
  const midis = grip.pitches.map(midiOf);
  const asked = midis.find((m) => (m === midi || (task.anyOctave && (m - midi) % 12 === 0)) && !struck.includes(m));
  if (asked === undefined) {
    const again = midis.some((m) => m === midi || (task.anyOctave && (m - midi) % 12 === 0));
    return { index, struck, slips: again ? slips : slips + 1 };
  }
  const now = [...struck, asked];
  return now.length < midis.length ? { index, struck: now, slips } : { index: index + 1, struck: [], slips };
}

/** How a task went: wrong keys or names, and whether help was asked for. */
export interface TaskOutcome {
  readonly slips: number;
  readonly helped: boolean;
}

/** What a drill came to: keys found by oneself against those shown and those wrong; a name asked for counts as one key. */
export function drillFigures({ tasks }: Drill, outcomes: readonly TaskOutcome[]): PassFigures {
  const weight = (t: DrillTask) => (t.names ? 1 : t.grips.reduce((sum, g) => sum + g.pitches.length, 0));
  const notes = tasks.reduce((sum, t) => sum + weight(t), 0);
  const missed = tasks.reduce((sum, t, i) => sum + (outcomes[i]?.helped && !t.shown ? weight(t) : 0), 0);
  const extra = outcomes.reduce((sum, o) => sum + o.slips, 0);
  const right = notes - missed;
  const accuracy = Math.round((100 * right) / Math.max(1, notes + extra));
  return { notes, right, wrong: 0, missed, extra, early: 0, late: 0, accuracy };
}

/** True where hardly a key was wrong and nothing had to be shown. */
export const isDrillClean = (f: PassFigures): boolean => f.missed === 0 && f.accuracy >= CLEAN.accuracy;
