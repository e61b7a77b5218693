import { keyName } from '../harmony/key.js';
import { remembered } from '../lists/remembered.js';
import { midiOf } from '../pitch/pitch.js';
import { spanOf } from '../song/decisions.js';
import { keysFor, type PianoKey } from './keys.js';
import { fingeringProblem, solveFingering, type Fingered, type FingeringTask, type Grip } from './search.js';

/** Notes of a figure that is known again, at least and at most. */
const FIGURE = { least: 4, most: 8 } as const;

/** What may be paid, for each time a figure comes, to give it the same fingers every time: far less than a move of the hand. */
const SAME_FINGERS_WORTH = 1;

/** Notes of a phrase in which figures are looked for, at most: a longer one has no end that could be heard. */
const LONGEST_PHRASE = 60;

/** Ways to finger a figure that are tried on all its places, and how often every grip may be searched anew for figures, on average. */
const MOST_WAYS = 3;
const MOST_SEARCHES = 6;

/** A phrase with its fingers. */
interface Solved {
  readonly row: readonly Fingered[];
  readonly cost: number;
}

/** Phrases whose fingers are kept: those of some songs with the ways that were tried, so that an edit elsewhere finds them again. */
const MOST_PHRASES = 1000;

/** The cheapest fingers of one phrase. */
const solve = remembered(
  MOST_PHRASES,
  (grips: readonly Grip[], { hands, hand, tempo, key }: FingeringTask) => {
    const { comfortable, limit } = spanOf(hands, hand);
    return `${hand} ${comfortable} ${limit} ${tempo} ${keyName(key)} ${printOf(grips)}`;
  },
  (grips, task): Solved => {
    const { row, cost } = solveFingering(fingeringProblem(grips, task));
    return { row, cost };
  },
);

/**
 * Fingers a line of notes and chords: each phrase by the exact search, a phrase that comes again note for note as the first time. Figures
 * that come again on keys of the same distances and colours take the same fingers where that costs little, and never where it takes
 * the hand to one place more. Pins are always kept.
 */
export function fingerLine(grips: readonly Grip[], task: FingeringTask): Fingered[] {
  const starts = grips.flatMap((g, i) => (i === 0 || g.fresh ? [i] : []));
  const phrases = starts.map((from, k) => grips.slice(from, starts[k + 1]));
  const prints = phrases.map(printOf);
  const distinct = new Map(phrases.map((phrase, k) => [prints[k], phrase] as const));
  const rows = withFigures([...distinct.values()], task);
  const rowOf = new Map([...distinct.keys()].map((print, k) => [print, rows[k]]));
  return prints.flatMap((print) => rowOf.get(print) ?? []);
}

/** A phrase as text: two with the same one are the same to play. */
function printOf(grips: readonly Grip[]): string {
  const start = grips[0].at;
  return grips
    .map(
      (g) =>
        `${g.at - start}:${g.length}:${g.pitches.join()}:${g.pin?.join('') ?? ''}${g.held?.join('.') ?? ''}${g.learned ?? ''}`,
    )
    .join(' ');
}

const movesIn = (row: readonly Fingered[]): number => row.filter((f) => f.move !== 'stay').length;

/** Fingers phrases that all differ, and gives the figures in them the same fingers every time where that is nearly free. */
function withFigures(phrases: readonly (readonly Grip[])[], task: FingeringTask): (readonly Fingered[])[] {
  const solved: Solved[] = phrases.map((grips) => solve(grips, task));
  const settled = phrases.map((grips): (readonly number[] | null)[] => grips.map((g) => g.pin ?? null));
  let left = MOST_SEARCHES * phrases.reduce((sum, grips) => sum + grips.length, 0);
  for (const figure of figuresIn(phrases, task)) {
    const fingersAt = ({ phrase, at }: FigurePlace) => solved[phrase].row.slice(at, at + figure.length).map((f) => f.fingers);
    const ways = new Map(figure.places.map((place) => [fingersAt(place).join(' '), fingersAt(place)]));
    const touched = [...new Set(figure.places.map((p) => p.phrase))];
    let best: { readonly more: number; readonly pins: typeof settled; readonly solved: readonly Solved[] } | null = null;
    for (const fingers of ways.size > 1 ? [...ways.values()].slice(0, MOST_WAYS) : []) {
      left -= touched.reduce((sum, p) => sum + phrases[p].length, 0);
      if (left < 0) break;
      const pins = touched.map((p) => [...settled[p]]);
      for (const { phrase, at } of figure.places) fingers.forEach((f, k) => (pins[touched.indexOf(phrase)][at + k] = f));
      const tried = touched.map((p, k) =>
        solve(
          phrases[p].map((g, i) => ({ ...g, pin: pins[k][i] })),
          task,
        ),
      );
      const more = tried.reduce((sum, s, k) => sum + s.cost - solved[touched[k]].cost, 0);
      const moves = tried.reduce((sum, s, k) => sum + movesIn(s.row) - movesIn(solved[touched[k]].row), 0);
      if (moves > 0 || more > SAME_FINGERS_WORTH * figure.places.length) continue;
      if (best === null || more < best.more - 1e-9) best = { more, pins, solved: tried };
    }
    touched.forEach((p, k) => {
      if (best === null) return;
      solved[p] = best.solved[k];
      settled[p] = best.pins[k];
    });
    if (ways.size === 1)
      for (const { phrase, at } of figure.places) fingersAt({ phrase, at }).forEach((f, k) => (settled[phrase][at + k] = f));
  }
  return solved.map((s) => s.row);
}

/** Where a figure begins: the phrase, and the note in it. */
interface FigurePlace {
  readonly phrase: number;
  readonly at: number;
}

/** A figure that comes more than once, and its length in notes. */
interface Figure {
  readonly places: readonly FigurePlace[];
  readonly length: number;
}

/** A run in one direction is fingered as scales are, by where its thumbs fall, and is no figure. */
function isRun(keys: readonly (PianoKey | null)[], from: number, length: number): boolean {
  const ways = new Set<number>();
  for (let k = from + 1; k < from + length; k++) ways.add(Math.sign((keys[k]?.place ?? 0) - (keys[k - 1]?.place ?? 0)));
  return ways.size === 1 && !ways.has(0);
}

/** The figure of some single notes as text, by distances, colours and onsets; null where a chord or a note of another figure is among them. */
function figureAt(grips: readonly Grip[], keys: readonly (PianoKey | null)[], from: number, length: number): string | null {
  let print = '';
  for (let k = from; k < from + length; k++) {
    const key = keys[k];
    if (key === null) return null;
    const next = k < from + length - 1 ? grips[k + 1].at - grips[k].at : '';
    print += `${key.place - (keys[from]?.place ?? 0)}${key.black ? 'b' : 'w'}${next} `;
  }
  return isRun(keys, from, length) ? null : print;
}

/** Figures of single notes that come again inside phrases, the longest first; none overlap. */
function figuresIn(phrases: readonly (readonly Grip[])[], { hand, key }: FingeringTask): Figure[] {
  const keys = phrases.map((grips) => {
    const meet = keysFor(hand, key, []);
    return grips.map((g) => (g.pitches.length === 1 && !g.pin ? meet(midiOf(g.pitches[0])) : null));
  });
  const figures: Figure[] = [];
  for (let length = FIGURE.most; length >= FIGURE.least; length--) {
    const found = new Map<string, FigurePlace[]>();
    phrases.forEach((grips, phrase) => {
      if (grips.length > LONGEST_PHRASE) return;
      for (let at = 0; at + length <= grips.length; at++) {
        const print = figureAt(grips, keys[phrase], at, length);
        if (print !== null) found.set(print, [...(found.get(print) ?? []), { phrase, at }]);
      }
    });
    for (const all of found.values()) {
      const free = ({ phrase, at }: FigurePlace) => keys[phrase].slice(at, at + length).every((k) => k !== null);
      const places: FigurePlace[] = [];
      for (const place of all) {
        const last = places.at(-1);
        if (free(place) && (last?.phrase !== place.phrase || place.at >= last.at + length)) places.push(place);
      }
      if (places.length < 2) continue;
      for (const { phrase, at } of places) keys[phrase].fill(null, at, at + length);
      figures.push({ places, length });
    }
  }
  return figures;
}
