import type { Voicing } from './candidates.js';
import { cheapestPath } from './path.js';
import { LOWER, settleHomes } from './homes.js';
import { travelOf, weighed, type Homes, type Layered, type VoicingProblem } from './problem.js';

/** Most rounds in which the times of parts that come again are fitted to each other; each is no dearer than the one before. */
const ROUNDS = 12;

/** Costs of a problem as it stands, the way from chord to chord included. */
type Posed = Pick<VoicingProblem, 'layers' | 'step'>;

/** What a way costs, as the problem stands. */
export function pathCost({ layers, step }: Posed, choices: readonly number[]): number {
  return choices.reduce((sum, c, i) => sum + layers[i].costs[c] + (i > 0 ? step(i, choices[i - 1], c) : 0), 0);
}

/**
 * The cheapest way through a problem. Where no part comes again it is the exact minimum. A part that comes again lies as it did the
 * first time: its chords are one choice, each with the cost of all its times, and no other way through a part, or through a single
 * chord, would cost less.
 */
export function solve(problem: Posed): { choices: number[]; cost: number } {
  const { layers, step } = problem;
  if (layers.every((l, i) => l.as === i))
    return cheapestPath(
      layers.map((l) => ({ size: l.voicings.length, cost: (c) => l.costs[c] })),
      step,
    );
  return solveTied(problem);
}

/** Runs of chords that are voiced for themselves and follow one another in the song. */
function runsOf(layers: readonly Layered[]): number[][] {
  const runs: number[][] = [];
  let run: number[] | null = null;
  layers.forEach((layer, i) => {
    if (layer.as !== i) run = null;
    else if (run) run.push(i);
    else runs.push((run = [i]));
  });
  return runs;
}

function solveTied(problem: Posed): { choices: number[]; cost: number } {
  const { layers } = problem;
  const runs = runsOf(layers);
  const firsts = runs.flat();
  // What is first heard is laid first, as if nothing came again; then every run is laid anew beside the others, and every chord.
  const choices = new Array<number>(layers.length).fill(0);
  take(layers, choices, firsts, layRun(problem, firsts, null));
  for (let round = 0; round < ROUNDS; round++) {
    let moved = false;
    for (const run of runs) moved = better(problem, choices, run, layRun(problem, run, choices)) || moved;
    for (const i of firsts) moved = better(problem, choices, [i], [bestAlone(problem, i, choices)]) || moved;
    if (!moved) break;
  }
  return { choices, cost: pathCost(problem, choices) };
}

/** Takes choices for first layers, and for all that have the same keys. */
function take(layers: readonly Layered[], choices: number[], firsts: readonly number[], chosen: readonly number[]): void {
  firsts.forEach((i, k) => {
    for (const time of layers[i].times) choices[time] = chosen[k];
  });
}

/** Takes choices where they lower the cost of the whole way. */
function better(problem: Posed, choices: number[], firsts: readonly number[], chosen: readonly number[]): boolean {
  const { layers } = problem;
  if (firsts.every((i, k) => choices[i] === chosen[k])) return false;
  const touched = firsts.flatMap((i) => layers[i].times);
  const had = firsts.map((i) => choices[i]);
  const before = costAround(problem, touched, choices);
  take(layers, choices, firsts, chosen);
  if (costAround(problem, touched, choices) < before - LOWER) return true;
  take(layers, choices, firsts, had);
  return false;
}

/** The cheapest way through a run, counting each of its times, beside the choices around them where these are known. */
function layRun({ layers, step }: Posed, run: readonly number[], around: readonly number[] | null): number[] {
  const inRun = new Map(run.map((i, k) => [i, k]));
  const placeOf = (i: number): number | undefined => (i in layers ? inRun.get(layers[i].as) : undefined);
  const steps = run.map((): number[] => []);
  const own = run.map((i, k) => {
    const costs = new Float64Array(layers[i].voicings.length);
    for (const time of layers[i].times) {
      const follows = k > 0 && placeOf(time - 1) === k - 1;
      const leads = k + 1 < run.length && placeOf(time + 1) === k + 1;
      if (follows) steps[k].push(time);
      for (let c = 0; c < costs.length; c++) {
        costs[c] += layers[time].costs[c];
        if (around && !follows && time > 0) costs[c] += step(time, around[time - 1], c);
        if (around && !leads && time + 1 < layers.length) costs[c] += step(time + 1, c, around[time + 1]);
      }
    }
    return costs;
  });
  return cheapestPath(
    own.map((costs) => ({ size: costs.length, cost: (c) => costs[c] })),
    (k, from, to) => steps[k].reduce((sum, time) => sum + step(time, from, to), 0),
  ).choices;
}

/** The best choice of one chord in all its times, everything else staying as it is. */
function bestAlone(problem: Posed, i: number, choices: readonly number[]): number {
  const { layers } = problem;
  const { times, voicings } = layers[i];
  let best = choices[i];
  let least = Infinity;
  const tried = [...choices];
  for (let c = 0; c < voicings.length; c++) {
    for (const time of times) tried[time] = c;
    const cost = costAround(problem, times, tried);
    if (cost < least - LOWER || (c === choices[i] && cost <= least + LOWER)) [best, least] = [c, cost];
  }
  return best;
}

/** What some layers cost, with the steps into and out of each. */
function costAround({ layers, step }: Posed, touched: readonly number[], choices: readonly number[]): number {
  const all = touched.length > 1 ? new Set(touched) : null;
  let sum = 0;
  for (const i of touched) {
    sum += layers[i].costs[choices[i]];
    if (i > 0) sum += step(i, choices[i - 1], choices[i]);
    if (i + 1 < layers.length && !all?.has(i + 1)) sum += step(i + 1, choices[i], choices[i + 1]);
  }
  return sum;
}

/** What motion is weighed with, one after another, until the hand travels no more than it may. */
const HEAVIER_MOTION = [2, 4, 16, 1e6] as const;

/** A way through a problem, and the problem it is the cheapest of. */
export interface Solved {
  readonly problem: VoicingProblem;
  readonly choices: readonly number[];
}

/**
 * The cheapest way that travels no more than the same chords do in root position: first by the table as it is, then with motion weighed
 * heavier; and root position itself, which the nearest inversions have among them, where none of these is found.
 */
export function solveWithin(problem: VoicingProblem, rooted: readonly Voicing[], known?: Homes): Solved {
  const most = travelOf(rooted);
  const within = (choices: readonly number[]) => travelOf(choices.map((c, i) => problem.layers[i].voicings[c])) <= most;
  let solved = settled(problem, known);
  for (const weight of HEAVIER_MOTION) {
    if (within(solved.choices)) return solved;
    const heavier = weighed(problem.layers, weight);
    solved = { problem: heavier, choices: solve(heavier).choices };
  }
  if (within(solved.choices)) return solved;
  const same = rooted.map((r, i) => problem.layers[i].voicings.findIndex((v) => v.midis.join() === r.midis.join()));
  return same.includes(-1) ? solved : { ...solved, choices: same };
}

/** The cheapest way once every symbol has its keys, those that are known already among them. */
export function settled(problem: VoicingProblem, known?: Homes): Solved {
  settleHomes(problem, known);
  return { problem, choices: solve(problem).choices };
}
