import { grouped } from '../lists/grouped.js';
import { daysBetween, type Day } from '../log/days.js';
import { ladderOf, type LadderPlace } from './ladder.js';
import type { Pass } from '../log/log.js';
import { isDue, reviewOf, type Review } from './review.js';
import type { PracticeStep } from '../log/step.js';

/** How far a step has come. */
export interface StepState {
  readonly step: PracticeStep;
  readonly ladder: LadderPlace;
  readonly review: Review | null;
  readonly state: 'new' | 'begun' | 'learned';
  readonly due: boolean;
  /** Passes so far. */
  readonly passes: number;
}

/** Where every step stands on a day. The passes are those of one song, in order of time. */
export function stepStates(steps: readonly PracticeStep[], passes: readonly Pass[], today: Day): StepState[] {
  const byStep = grouped(passes, (p) => p.step);
  return steps.map((step) => {
    const own = byStep.get(step.id) ?? [];
    const ladder = ladderOf(step, own);
    const review = reviewOf(own);
    const state = own.length === 0 ? 'new' : ladder.learned ? 'learned' : 'begun';
    return { step, ladder, review, state, due: isDue(review, today), passes: own.length };
  });
}

/** Why something stands in today's plan. Tempos are quarter notes a minute. */
export type TodayFact =
  | { readonly code: 'today.warm-up' }
  | { readonly code: 'today.rest' }
  | { readonly code: 'today.nothing-due' }
  /** Days since it was played last; null where that is not known. */
  | { readonly code: 'today.due'; readonly days: number | null }
  | { readonly code: 'today.new-hand' }
  | { readonly code: 'today.next-step' }
  | { readonly code: 'today.begun'; readonly tempo: number; readonly goal: number };

/** A stretch of today's practice. */
export interface TodayItem {
  readonly kind: 'warm-up' | 'review' | 'work' | 'rest';
  readonly step: PracticeStep | null;
  readonly minutes: number;
  /** Why it is there. */
  readonly why: TodayFact;
}

/** Minutes: the warm-up by share, least and most; a review; the least that is worth beginning; work until a rest, and the rest. */
const TODAY = { warmUp: 0.1, warmUpLeast: 2, warmUpMost: 5, review: 2, least: 3, until: 22, rest: 3 } as const;
/** Share of the time after the warm-up that what is due may take, so that something new fits in. */
const DUE_SHARE = 0.5;

/**
 * What to practise in the minutes there are: a warm-up, what is due, then the work in hand and new steps in order, with a rest every
 * twenty-odd minutes. The minutes add up to those asked for, from 5 to 180.
 */
export function todayFor(states: readonly StepState[], minutes: number, today: Day): TodayItem[] {
  const whole = Math.round(Math.min(180, Math.max(5, minutes)));
  const warm = whole < 10 ? 0 : clamp(Math.round(whole * TODAY.warmUp), TODAY.warmUpLeast, TODAY.warmUpMost);
  const rests = Math.floor((whole - 1) / (TODAY.until + TODAY.rest));
  const work = whole - warm - rests * TODAY.rest;
  const items: TodayItem[] = [];
  let left = work;
  const take = (item: Omit<TodayItem, 'minutes'>, wanted: number) => {
    const given = Math.min(wanted, left);
    if (given <= 0) return;
    items.push({ ...item, minutes: given });
    left -= given;
  };
  const due = states
    .filter((s) => s.state === 'learned' && s.due)
    .sort((a, b) => (a.review?.due ?? '').localeCompare(b.review?.due ?? ''));
  const forDue = Math.floor(work * DUE_SHARE);
  for (const s of due)
    if (work - left + TODAY.review <= Math.max(forDue, TODAY.review))
      take({ kind: 'review', step: s.step, why: dueFact(s.review, today) }, TODAY.review);
  for (const s of openSteps(states)) {
    if (left < TODAY.least && items.length > 0) break;
    take({ kind: 'work', step: s.step, why: workFact(s) }, clamp(s.step.minutes, TODAY.least, 10));
  }
  const closing = states.findLast((s) => s.step.kind === 'whole') ?? states.at(-1);
  if (items.length === 0 && closing) take({ kind: 'review', step: closing.step, why: { code: 'today.nothing-due' } }, left);
  // What is left over goes to the last thing, or to what is due, so that nothing is added that there is no time for.
  const last = items.pop();
  if (last) items.push({ ...last, minutes: last.minutes + left });
  const warmUp: TodayItem = {
    kind: 'warm-up',
    step: null,
    minutes: warm,
    why: { code: 'today.warm-up' },
  };
  return withRests(warm > 0 ? [warmUp, ...items] : items, rests);
}

/** The work in hand first, then what is new, as long as they are in the order of the plan. */
function openSteps(states: readonly StepState[]): StepState[] {
  const open = states.filter((s) => s.state !== 'learned');
  return [...open.filter((s) => s.state === 'begun'), ...open.filter((s) => s.state === 'new')];
}

/** A rest falls between two items where one ends within so many minutes of its time; else it parts an item. */
const NEAR = 5;

/** Puts rests where the work has come to its share. */
function withRests(items: readonly TodayItem[], rests: number): TodayItem[] {
  const whole = items.reduce((sum, i) => sum + i.minutes, 0);
  const ends: number[] = [];
  for (const i of items) ends.push((ends.at(-1) ?? 0) + i.minutes);
  const times = Array.from({ length: rests }, (_, k) => {
    const time = Math.round((whole * (k + 1)) / (rests + 1));
    const near = ends.slice(0, -1).reduce((best, end) => (Math.abs(end - time) < Math.abs(best - time) ? end : best), Infinity);
    return Math.abs(near - time) <= NEAR ? near : time;
  });
  const rest: TodayItem = {
    kind: 'rest',
    step: null,
    minutes: TODAY.rest,
    why: { code: 'today.rest' },
  };
  const rows: TodayItem[] = [];
  let worked = 0;
  items.forEach((item, i) => {
    const cuts = times.filter((t) => t > worked && t <= ends[i]);
    for (const cut of cuts) {
      rows.push({ ...item, minutes: cut - worked }, rest);
      worked = cut;
    }
    if (ends[i] > worked) rows.push({ ...item, minutes: ends[i] - worked });
    worked = ends[i];
  });
  return rows;
}

const clamp = (n: number, low: number, high: number): number => Math.min(high, Math.max(low, n));

function dueFact(review: Review | null, today: Day): TodayFact {
  return { code: 'today.due', days: review ? daysBetween(review.last, today) : null };
}

function workFact({ state, ladder, step }: StepState): TodayFact {
  if (state === 'new') return { code: step.kind === 'right' || step.kind === 'left' ? 'today.new-hand' : 'today.next-step' };
  return { code: 'today.begun', tempo: ladder.rungs[ladder.rung], goal: step.goal };
}
