import { midiOf } from '../pitch/pitch.js';
import { fingeringProblem, solveFingering, type Fingered, type FingeringTask, type Grip } from './fingering.js';
import { keyFor, type PianoKey } from './finger-costs.js';

/** Notes of a figure that is known again, at least and at most. */
const FIGURE = { least: 4, most: 8 } as const;

/** What may be paid, for each time a figure comes, to give it the same fingers every time: more than a shift of the hand. */
const SAME_FINGERS_WORTH = 10;

/**
 * Fingers a line of notes and chords: each phrase by the exact search, then figures that come again on keys of the same
 * distances and colours take the same fingers wherever that is playable. Pins are always kept.
 */
export function fingerLine(grips: readonly Grip[], task: FingeringTask): Fingered[] {
  const starts = grips.flatMap((g, i) => (i === 0 || g.fresh ? [i] : []));
  const solver = phraseSolver(task);
  let row = starts.flatMap((from, k) => solver(grips.slice(from, starts[k + 1])).row);
  const phraseOf = phrasesByIndex(starts, grips.length);
  const bound = new Set<number>();
  for (const figure of figuresIn(grips, phraseOf)) {
    const ways = new Map(figure.at.map((at) => [fingersAt(row, at, figure.length).join(), at]));
    if (ways.size === 1) {
      for (const at of figure.at) for (let k = 0; k < figure.length; k++) bound.add(at + k);
      continue;
    }
    let best: { row: Fingered[]; more: number } | null = null;
    for (const model of [...ways.values()].slice(0, MOST_WAYS)) {
      const fingers = row.slice(model, model + figure.length).map((f) => f.fingers);
      const tried = imitate(grips, row, figure, fingers, { phraseOf, bound, solver });
      if (best === null || tried.more < best.more - 1e-9) best = tried;
    }
    if (best === null || best.more > SAME_FINGERS_WORTH * figure.at.length) continue;
    row = best.row;
    for (const at of figure.at) for (let k = 0; k < figure.length; k++) bound.add(at + k);
  }
  return row;
}

/** Ways to finger a figure that are tried on all its places, and notes around each that may still change. */
const MOST_WAYS = 3;
const AROUND = 4;

interface Surroundings {
  readonly phraseOf: readonly number[];
  /** Notes whose fingers are settled by a figure. */
  readonly bound: ReadonlySet<number>;
  readonly solver: (grips: readonly Grip[]) => { row: readonly Fingered[]; cost: number };
}

/** Gives every place of a figure the same fingers, the notes around each by the exact search, and says what that costs more. */
function imitate(
  grips: readonly Grip[],
  before: readonly Fingered[],
  { at, length }: Figure,
  fingers: readonly (readonly number[])[],
  { phraseOf, bound, solver }: Surroundings,
): { row: Fingered[]; more: number } {
  const row = [...before];
  const settled = new Set(bound);
  let more = 0;
  for (const place of at) {
    const phrase = phraseOf[place];
    let from = place;
    while (from > place - AROUND && phraseOf[from - 1] === phrase) from--;
    let to = place + length;
    while (to < place + length + AROUND && phraseOf[to] === phrase) to++;
    const edge = (i: number) => (i === from && phraseOf[i - 1] === phrase) || (i === to - 1 && phraseOf[to] === phrase);
    const held = (i: number) => settled.has(i) || edge(i);
    const window = (pinned: (i: number) => readonly number[] | null) =>
      grips.slice(from, to).map((g, k) => ({ ...g, pin: pinned(from + k) ?? g.pin }));
    const now = solver(window((i) => row[i].fingers)).cost;
    const after = solver(
      window((i) => (i >= place && i < place + length ? fingers[i - place] : held(i) ? row[i].fingers : null)),
    );
    more += after.cost - now;
    for (let k = 0; k < length; k++) settled.add(place + k);
    after.row.forEach((f, k) => {
      const first = from + k;
      row[first] = k === 0 ? { ...f, move: row[first].move } : f;
    });
  }
  return { row, more };
}

/** Solves phrases; one that comes again note for note is solved once. */
function phraseSolver(task: FingeringTask): (grips: readonly Grip[]) => { row: readonly Fingered[]; cost: number } {
  const known = new Map<string, { row: readonly Fingered[]; cost: number }>();
  return (grips) => {
    const start = grips[0]?.at ?? 0;
    const print = grips.map((g) => `${g.at - start}:${g.length}:${g.pitches.join()}:${g.pin?.join('') ?? ''}${g.held ?? ''}`);
    const key = print.join(' ');
    let solved = known.get(key);
    if (!solved) known.set(key, (solved = solveFingering(fingeringProblem(grips, task))));
    return solved;
  };
}

function phrasesByIndex(starts: readonly number[], length: number): number[] {
  const phrases: number[] = [];
  starts.forEach((from, p) => {
    for (let i = from; i < (starts[p + 1] ?? length); i++) phrases.push(p);
  });
  return phrases;
}

const fingersAt = (row: readonly Fingered[], at: number, length: number): string[] =>
  row.slice(at, at + length).map((f) => f.fingers.join(''));

/** A figure that comes more than once: where it begins, and its length in notes. */
interface Figure {
  readonly at: readonly number[];
  readonly length: number;
}

/** A run in one direction is fingered as scales are, by where its thumbs fall, and is no figure. */
function isRun(keys: readonly (PianoKey | null)[], from: number, length: number): boolean {
  const ways = new Set<number>();
  for (let k = from + 1; k < from + length; k++) ways.add(Math.sign((keys[k]?.place ?? 0) - (keys[k - 1]?.place ?? 0)));
  return ways.size === 1 && !ways.has(0);
}

/** Figures of single notes that come again inside phrases, the longest first; none overlap. */
function figuresIn(grips: readonly Grip[], phraseOf: readonly number[]): Figure[] {
  const keys = grips.map((g) => (g.pitches.length === 1 && !g.pin ? keyFor(midiOf(g.pitches[0]), 'right') : null));
  const taken = new Set<number>();
  const figures: Figure[] = [];
  for (let length = FIGURE.most; length >= FIGURE.least; length--) {
    const places = new Map<string, number[]>();
    for (let i = 0; i + length <= grips.length; i++) {
      if (phraseOf[i] !== phraseOf[i + length - 1]) continue;
      let print = '';
      for (let k = i; k < i + length && print !== null; k++) {
        const key = taken.has(k) ? null : keys[k];
        if (!key) {
          print = '';
          break;
        }
        print += `${key.place - (keys[i]?.place ?? 0)}${key.black ? 'b' : 'w'}${k < i + length - 1 ? grips[k + 1].at - grips[k].at : ''} `;
      }
      if (print && !isRun(keys, i, length)) places.set(print, [...(places.get(print) ?? []), i]);
    }
    for (const all of places.values()) {
      const at: number[] = [];
      for (const i of all) {
        const clear =
          (at.length === 0 || i >= at[at.length - 1] + length) &&
          Array.from({ length }, (_, k) => i + k).every((k) => !taken.has(k));
        if (clear) at.push(i);
      }
      if (at.length < 2) continue;
      for (const i of at) for (let k = 0; k < length; k++) taken.add(i + k);
      figures.push({ at, length });
    }
  }
  return figures;
}
