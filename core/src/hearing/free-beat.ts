import { HEARING } from './figures.js';
import type { HeardNote } from './line.js';

/** A line that was sung to no beat, with the beat that was found in it: quarters a minute, and its notes in quarters from the first bar line. */
export interface FreeLine {
  readonly tempo: number;
  readonly notes: readonly HeardNote[];
}

const { slowest, fastest, step, usual, octaves, width, turn, common, rare, longest } = HEARING.free;

/** The beats that a singer may keep, as the logarithm of the length of an eighth in seconds. */
const BEATS = Array.from(
  { length: Math.floor(Math.log2(fastest / slowest) / step) + 1 },
  (_, i) => Math.log2(30 / slowest) - i * step,
);

/** What a beat costs by itself: those that are tapped most readily cost least. */
const BEAT_COSTS = BEATS.map((log) => 0.5 * ((log - Math.log2(30 / usual)) / octaves) ** 2);

/** What a note of so many eighths costs by itself. */
export const eighthsCost = (eighths: number): number => common[eighths] ?? rare;

/**
 * How many eighths lie between the beginnings of the notes of a line, and how long an eighth is at each, in seconds: of all ways the one that costs
 * least. A note costs by how far its length is from so many eighths, and by how rare such notes are; the beat may give way from note
 * to note, and costs by how far it does. Exact, in the time of its length.
 */
export function eighthsAlong(between: readonly number[]): { eighths: number[]; beats: number[]; cost: number } {
  let costs = BEAT_COSTS.map((c) => c);
  const came: { from: Int16Array; eighths: Int16Array }[] = [];
  between.forEach((seconds, i) => {
    const log = Math.log2(Math.max(0.02, seconds));
    const from = new Int16Array(BEATS.length);
    const eighths = new Int16Array(BEATS.length);
    costs = BEATS.map((beat, b) => {
      let best = Infinity;
      for (let a = 0; a < BEATS.length; a++) {
        const stay = costs[a] + (i === 0 ? (a === b ? 0 : Infinity) : turn * (Math.abs(a - b) * step) ** 2);
        if (stay < best) [best, from[b]] = [stay, a];
      }
      let least = Infinity;
      for (let n = 1; n <= longest; n++) {
        const cost = 0.5 * ((log - beat - Math.log2(n)) / width) ** 2 + eighthsCost(n);
        if (cost < least) [least, eighths[b]] = [cost, n];
      }
      return best + least;
    });
    came.push({ from, eighths });
  });
  const cost = Math.min(...costs);
  let at = costs.indexOf(cost);
  const way = { eighths: [] as number[], beats: [] as number[], cost };
  for (let i = between.length - 1; i >= 0; i--) {
    way.eighths.unshift(came[i].eighths[at]);
    way.beats.unshift(2 ** BEATS[at]);
    at = came[i].from[at];
  }
  return way;
}

/** The beat of a line that was sung to none, in bars of so many quarters; null where there is too little of it. */
export function freeBeat(notes: readonly HeardNote[], quartersOfBar: number): FreeLine | null {
  if (notes.length < HEARING.free.fewest) return null;
  const between = notes.slice(1).map((n, i) => n.at - notes[i].at);
  const { eighths, beats } = eighthsAlong(between);
  const middle = [...beats].sort((a, b) => a - b)[beats.length >> 1];
  const last = beats[beats.length - 1];
  const places = eighths.reduce<number[]>((all, n) => [...all, all[all.length - 1] + n], [0]);
  const lengths = notes.map((n, i) => {
    const long = (n.until - n.at) / (beats[i] ?? last);
    // The last note is counted out to the half bar; the others go up to the next unless a breath of their own stands there.
    return i < eighths.length ? Math.min(eighths[i], Math.max(1, Math.round(long))) : Math.max(1, Math.round(long));
  });
  const shift = firstBar(places, eighths, 2 * quartersOfBar);
  return {
    tempo: Math.round(30 / middle),
    notes: notes.map((n, i) => {
      const at = (places[i] - shift) / 2;
      const closes = i < eighths.length && eighths[i] - lengths[i] <= HEARING.free.breath ? eighths[i] : lengths[i];
      return { ...n, at, until: at + closes / 2 };
    }),
  };
}

/** Eighths from the first note to the first bar line: long notes begin bars, and a song begins with one unless they speak against it. */
function firstBar(places: readonly number[], eighths: readonly number[], bar: number): number {
  const { pickup } = HEARING.free;
  let best = { shift: 0, score: -Infinity };
  for (let shift = 0; shift < bar; shift++) {
    let score = shift === 0 ? 0 : -pickup;
    eighths.forEach((n, i) => {
      const inBar = (((places[i] - shift) % bar) + bar) % bar;
      if (inBar === 0) score += Math.min(n, bar) / eighths.length;
      // A long note that goes over a bar line speaks against it.
      else if (inBar + n > bar && n > 1) score -= n / 2 / eighths.length;
      else if (inBar % 2 === 1 && n > 1) score -= 0.5 / eighths.length;
    });
    if (score > best.score) best = { shift, score };
  }
  return best.shift;
}
