import type { Arrangement } from '../arrange/arrangement.js';
import { TICKS_PER_QUARTER } from '../time/ticks.js';
import { dayOf } from '../log/days.js';
import { grade } from './grade.js';
import { drillStep, ofStep, type Pass, type PassDraft } from '../log/log.js';
import { notesOf, type PlacedNote } from './score.js';
import { playStandIn } from './stand-in-player.js';
import { stepsOf } from './steps.js';
import type { PracticeStep } from '../log/step.js';
import { stepStates, todayFor, type StepState } from './today.js';
import { figuresOf, isClean } from './verdict.js';

/** When a learner is to have practised. */
export interface PractisedDays {
  readonly today: Date;
  /** Days before today, the longest ago first. */
  readonly ago: readonly number[];
  /** Minutes on each of them. */
  readonly minutes: number;
  /** What its warm-ups are called in the log. */
  readonly warmUp: string;
  /** The same seed practises the same. */
  readonly seed: number;
}

/** Share of wrong notes in the first pass of a step, and what is left of it after each further one. */
const SLIPS = { first: 0.2, left: 0.72 } as const;
/** Seconds between two passes, the hour at which practice begins, and most passes of one step in a sitting. */
const BETWEEN = 12;
const HOUR = 18;
const MOST = 8;
const WARM_UP: Omit<PassDraft, 'song' | 'title' | 'seconds'> = {
  step: drillStep('warm-up'),
  kind: 'warm-up',
  parts: '',
  hands: 'both',
  tempo: 0,
  goal: 0,
  figures: null,
  clean: true,
};

/**
 * Days of practice as a learner might have had them: each day follows its plan, the stand-in player plays, and every pass is listened
 * to as any other. For demonstration; the names of the passes begin with "demo-".
 */
export function simulateLog(
  arrangement: Arrangement,
  song: string,
  { today, ago, minutes, warmUp, seed }: PractisedDays,
): Pass[] {
  const steps = stepsOf(arrangement, { order: 'song', joins: 'chain' });
  const notes = new Map<string, PlacedNote[]>();
  const passes: Pass[] = [];
  for (const back of ago) {
    const date = new Date(today.getFullYear(), today.getMonth(), today.getDate() - back, HOUR);
    const day = dayOf(date);
    let at = date.getTime();
    const add = (played: Omit<PassDraft, 'song' | 'title'>, title = arrangement.song.title) => {
      at += played.seconds * 1000;
      passes.push({ ...played, id: `demo-${song}-${passes.length}`, song, title, at, day, note: '' });
      at += BETWEEN * 1000;
    };
    for (const { kind, step, minutes: given } of todayFor(stepStates(steps, passes, day), minutes, day)) {
      if (kind === 'warm-up') add({ ...WARM_UP, seconds: given * 60 }, warmUp);
      if (kind === 'rest') at += given * 60_000;
      if (!step) continue;
      const own = notes.get(step.id) ?? notesOf(arrangement, step);
      notes.set(step.id, own);
      const until = at + given * 60_000;
      for (let k = 0; k < MOST && at < until; k++) {
        const [state] = stepStates([step], passes, day);
        if (k > 0 && state.state === 'learned') break;
        add(passOf(step, own, state, seed + passes.length));
      }
    }
  }
  return passes;
}

/** A pass of the stand-in, which makes fewer slips each time and tries the next rung as soon as a pass was clean. */
function passOf(step: PracticeStep, notes: readonly PlacedNote[], { ladder, passes }: StepState, seed: number) {
  const tempo = ladder.rungs[Math.min(ladder.rung + (ladder.clean > 0 ? 1 : 0), ladder.rungs.length - 1)];
  const slips = SLIPS.first * SLIPS.left ** passes;
  const manner = { tempo, wrong: slips, missed: slips / 2, extra: slips / 3, drift: 0.03, uneven: 0.012 };
  const heard = grade(notes, playStandIn(notes, manner, seed).heard, { tempo, octavesForgiven: false });
  const seconds = Math.round(((step.to - step.from) / TICKS_PER_QUARTER / tempo) * 60);
  return { ...ofStep(step), tempo, figures: figuresOf(heard), clean: isClean(heard), seconds };
}
