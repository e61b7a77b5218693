import { stepTitle, stepWork } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { midiOf } from '../pitch/pitch.js';
import { setSetting } from '../song/edits.js';
import { dayAfter, dayOf, daysBetween } from '../log/days.js';
import { LADDER, ladderOf, rungsOf } from './ladder.js';
import type { Pass } from '../log/log.js';
import { isDue, REVIEW_GAPS, reviewOf } from './review.js';
import { notesOf } from './score.js';
import { JOIN_ORDERS, STEP_ORDERS } from '../log/step.js';
import { stepsOf } from './steps.js';
import type { PracticeStep } from '../log/step.js';
import { stepStates, todayFor } from './today.js';

const USUAL = { order: 'song', joins: 'chain' } as const;
const glass = arrange(demo(DEMOS[1]));
const TODAY = '2031-05-20';

let count = 0;
const pass = (step: PracticeStep, day: string, tempo: number, clean: boolean): Pass => ({
  id: `${count++}`,
  song: 's',
  title: 'Test',
  at: count,
  day,
  step: step.id,
  kind: step.kind,
  parts: '1',
  hands: step.hands,
  tempo,
  goal: step.goal,
  figures: null,
  clean,
  seconds: 60,
  note: '',
});

describe('the steps of a song', () => {
  it('are each hand, both slowly, both at tempo, then joins, then the whole', () => {
    const steps = stepsOf(glass, USUAL);
    expect(steps.slice(0, 4).map((s) => `${stepTitle(s)}: ${stepWork(s)}`)).toEqual([
      'Part 1: right hand alone',
      'Part 1: left hand alone',
      'Part 1: hands together, slowly',
      'Part 1: hands together, up to tempo',
    ]);
    const kinds = steps.map((s) => s.kind);
    expect(kinds.lastIndexOf('tempo')).toBeLessThan(kinds.indexOf('join'));
    expect(kinds.lastIndexOf('join')).toBeLessThan(kinds.indexOf('whole'));
    expect(steps.filter((s) => s.kind === 'join').map((s) => s.parts)[0]).toEqual({ from: 1, to: 2 });
  });

  it('leave out what repeats an earlier part key for key, and keep its joins', () => {
    expect(glass.parts[2].repeats?.kind).toBe('exact');
    const keysOfHand = (part: number, hand: string) =>
      glass.score
        .filter((n) => n.part === part && n.hand === hand)
        .map((n) => `${n.at - glass.parts[part - 1].start} ${n.pitch}`);
    const own = stepsOf(glass, USUAL).filter((s) => s.parts.from === 3 && s.parts.to === 3);
    expect(keysOfHand(3, 'right')).toEqual(keysOfHand(1, 'right'));
    expect(keysOfHand(3, 'left')).toEqual(keysOfHand(1, 'left'));
    expect(own).toEqual([]);
    expect(stepsOf(glass, USUAL).some((s) => s.kind === 'join' && s.parts.to === 3)).toBe(true);
    const lone = documentOf({ ...demo(DEMOS[1]).song, chords: [] });
    const tuneOnly = arrange({ ...lone, choices: { ...lone.choices, suggest: null } });
    expect(stepsOf(tuneOnly, USUAL).some((s) => s.parts.from === 3 && s.parts.to === 3)).toBe(false);
  });

  it('take more minutes where they are longer or harder', () => {
    const steps = stepsOf(glass, USUAL);
    const [right, left] = steps;
    expect(left.hard).toBeGreaterThan(right.hard);
    expect(left.minutes).toBeGreaterThanOrEqual(right.minutes);
    const pair = steps.find((s) => s.kind === 'join');
    expect(pair?.minutes).toBeGreaterThan(steps.find((s) => s.kind === 'tempo')?.minutes ?? Infinity);
  });

  it('cover every key that is played, in every order, and have a name of their own', () => {
    fc.assert(
      fc.property(songs(), fc.constantFrom(...STEP_ORDERS), fc.constantFrom(...JOIN_ORDERS), (song, order, joins) => {
        const arrangement = arrange(documentOf(song));
        const steps = stepsOf(arrangement, { order, joins });
        expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
        const kept = new Set(steps.flatMap((s) => notesOf(arrangement, s).map((n) => `${n.place} ${n.midi}`)));
        for (const n of arrangement.score) expect(kept.has(`${n.at} ${midiOf(n.pitch)}`)).toBe(true);
        for (const s of steps) expect([s.minutes > 0, s.slow <= s.goal, s.from < s.to]).toEqual([true, true, true]);
      }),
      { numRuns: 60 },
    );
  });

  it('begin with the hardest part, or end with it, as it is liked', () => {
    const first = (order: (typeof STEP_ORDERS)[number]) => stepsOf(glass, { order, joins: 'chain' })[0].parts.from;
    const hard = (n: number) => glass.parts[n - 1].difficulty.score;
    const own = new Set(
      stepsOf(glass, USUAL)
        .filter((s) => s.kind === 'tempo')
        .map((s) => s.parts.from),
    );
    expect(hard(first('hardest-first'))).toBe(Math.max(...[...own].map(hard)));
    expect(hard(first('hardest-last'))).toBe(Math.min(...[...own].map(hard)));
    expect(first('song')).toBe(1);
  });

  it('end with what dresses the song, and only where something does', () => {
    expect(stepsOf(glass, USUAL).some((s) => s.kind === 'fills')).toBe(false);
    const dressed = arrange(setSetting(demo(DEMOS[1]), null, 'texture', 'rise-and-fall'));
    const steps = stepsOf(dressed, USUAL);
    expect(steps.at(-1)).toMatchObject({ kind: 'fills', plain: false, whole: true });
    const plain = steps.find((s) => s.kind === 'whole');
    expect(notesOf(dressed, steps[steps.length - 1]).length).toBeGreaterThan(plain ? notesOf(dressed, plain).length : Infinity);
  });
});

describe('the tempo ladder', () => {
  const step = { slow: 40, goal: 80 };
  const play = (...passes: [tempo: number, clean: boolean][]) =>
    ladderOf(
      step,
      passes.map(([tempo, clean]) => ({ tempo, clean })),
    );

  it('rises in even steps to the goal', () => {
    expect(rungsOf(step)).toEqual([40, 48, 56, 64, 72, 80]);
    expect(rungsOf({ slow: 60, goal: 60 })).toEqual([60, 60]);
  });

  it('goes up on three clean passes in a row, and down when it stays rough', () => {
    expect(play([40, true], [40, true])).toMatchObject({ rung: 0, clean: 2 });
    expect(play([40, true], [40, true], [40, true])).toMatchObject({ rung: 1, clean: 0 });
    expect(play([40, true], [40, false], [40, true], [40, true])).toMatchObject({ rung: 0, clean: 2 });
    expect(play([56, true], [56, false], [56, false], [56, false])).toMatchObject({ rung: 1 });
    expect(play([40, false], [40, false], [40, false])).toMatchObject({ rung: 0 });
  });

  it('counts a clean pass above the rung for the rung it reaches, one below for nothing', () => {
    expect(play([66, true])).toMatchObject({ rung: 3, clean: 1 });
    expect(play([66, true], [40, true])).toMatchObject({ rung: 3, clean: 1 });
  });

  it('is learned only when the goal itself was clean often enough', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 30, max: 79 }), fc.boolean())), (passes) => {
        const { rung, learned } = play(...passes);
        expect([learned, rung >= 0 && rung < 6]).toEqual([false, true]);
      }),
    );
    expect(play([80, true], [80, true], [80, true]).learned).toBe(true);
  });
});

describe('what comes back', () => {
  const on = (...days: [day: string, clean: boolean][]) => reviewOf(days.map(([day, clean]) => ({ day, clean })));

  it('comes after growing gaps while it is clean, and tomorrow when it was not', () => {
    expect(on(['2031-05-01', true])?.due).toBe('2031-05-02');
    expect(on(['2031-05-01', true], ['2031-05-02', true])?.due).toBe('2031-05-04');
    expect(on(['2031-05-01', true], ['2031-05-02', true], ['2031-05-04', true])?.due).toBe('2031-05-08');
    expect(on(['2031-05-01', true], ['2031-05-02', true], ['2031-05-04', false])).toMatchObject({ due: '2031-05-05', stage: 0 });
    expect(on()).toBeNull();
  });

  it('follows the last pass of a day, and playing before it is due earns no longer gap', () => {
    expect(on(['2031-05-01', true], ['2031-05-01', false])?.due).toBe('2031-05-02');
    expect(on(['2031-05-01', true], ['2031-05-02', true], ['2031-05-03', true])).toMatchObject({ due: '2031-05-04', stage: 2 });
  });

  it('never lies in the past of its last pass or further away than the longest gap', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.boolean()), { minLength: 1 }), (list) => {
        const days = list.sort((a, b) => a[0] - b[0]).map(([d, clean]): [string, boolean] => [dayAfter('2031-01-01', d), clean]);
        const review = on(...days);
        const gap = daysBetween(days[days.length - 1][0], review?.due ?? '');
        expect(gap >= 1 && gap <= REVIEW_GAPS[REVIEW_GAPS.length - 1]).toBe(true);
        expect(isDue(review, review?.due ?? '')).toBe(true);
      }),
    );
  });

  it('goes by the calendar where the pianist is', () => {
    expect(dayOf(new Date(2031, 1, 28, 23, 59))).toBe('2031-02-28');
    expect([dayAfter('2031-02-28', 1), daysBetween('2031-12-31', '2032-01-01')]).toEqual(['2031-03-01', 1]);
  });
});

describe('today', () => {
  const steps = stepsOf(glass, USUAL);

  it('adds up to the minutes there are, whatever was played before', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 5, max: 180 }),
        fc.array(
          fc.record({
            step: fc.nat(steps.length - 1),
            ago: fc.nat(40),
            clean: fc.boolean(),
            share: fc.double({ min: 0.3, max: 1, noNaN: true }),
          }),
        ),
        (minutes, list) => {
          const passes = [...list]
            .sort((a, b) => b.ago - a.ago)
            .map((p) => pass(steps[p.step], dayAfter(TODAY, -p.ago), steps[p.step].goal * p.share, p.clean));
          const items = todayFor(stepStates(steps, passes, TODAY), minutes, TODAY);
          expect(items.reduce((sum, i) => sum + i.minutes, 0)).toBe(minutes);
          for (const i of items) expect(i.minutes).toBeGreaterThan(0);
          expect(items.filter((i) => i.kind === 'rest').length).toBe(Math.floor((minutes - 1) / 25));
        },
      ),
    );
  });

  it('begins with the first hand of the first part, after a warm-up', () => {
    const items = todayFor(stepStates(steps, [], TODAY), 20, TODAY);
    expect(items.map((i) => i.kind).slice(0, 2)).toEqual(['warm-up', 'work']);
    expect(items[1].step).toBe(steps[0]);
  });

  it('mixes what is due with work, and leaves out what is not due yet', () => {
    const learn = (step: PracticeStep, day: string) =>
      Array.from({ length: LADDER.clean }, () => pass(step, day, step.goal, true));
    const passes = [
      ...learn(steps[0], '2031-05-10'),
      ...learn(steps[1], TODAY),
      pass(steps[2], '2031-05-19', steps[2].slow, true),
    ];
    const states = stepStates(steps, passes, TODAY);
    expect(states.slice(0, 4).map((s) => s.state)).toEqual(['learned', 'learned', 'begun', 'new']);
    const items = todayFor(states, 20, TODAY);
    expect(items.filter((i) => i.kind === 'review').map((i) => [i.step?.id, i.why])).toEqual([
      [steps[0].id, { code: 'today.due', days: 10 }],
    ]);
    expect(items.find((i) => i.kind === 'work')?.step).toBe(steps[2]);
  });

  it('offers the whole song when everything is learned and nothing is due', () => {
    const passes = steps.flatMap((s) => Array.from({ length: LADDER.clean }, () => pass(s, TODAY, s.goal, true)));
    const [, item] = todayFor(stepStates(steps, passes, TODAY), 15, TODAY);
    expect([item.step?.kind, item.why]).toEqual(['whole', { code: 'today.nothing-due' }]);
  });
});
