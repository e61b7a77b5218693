import { PitchDetector } from 'pitchy';
import { HEARING, keyAt, tuningOf } from './figures.js';

/** A note of one line that was sung, whistled or played: seconds from the start, the nearest key, and whether it was clear. */
export interface HeardNote {
  readonly at: number;
  readonly until: number;
  readonly midi: number;
  readonly sure: boolean;
}

/** A line as it was heard, and by how many hundredths of a half step it lay above the keys that it was taken for. */
export interface HeardLine {
  readonly notes: readonly HeardNote[];
  readonly cents: number;
}

/** A moment of a line: its pitch as a key that may lie between two, null where it has none, and its loudness in decibels. */
interface Frame {
  readonly key: number | null;
  readonly loud: number;
}

/** Hears one line, given as one channel at so many samples a second: a voice, a whistle, any instrument that plays one note at a time. */
export function hearLine(samples: Float32Array, rate: number): HeardLine {
  const frames = framesOf(samples, rate);
  const keys = frames.flatMap((f) => (f.key === null ? [] : [f.key]));
  const off = tuningOf(keys);
  const tuned = frames.map((f) => (f.key === null ? f : { ...f, key: f.key - off }));
  const path = notesAlong(tuned.map((f) => f.key));
  const { hop } = HEARING.line;
  const half = windowFor(rate) / rate / 2;
  const notes = runsOf(path).flatMap(({ from, to, midi }) =>
    partedAt(tuned, from, to).flatMap(([a, b]): HeardNote[] => {
      const inside = tuned.slice(a, b).map((f) => f.key);
      const near = inside.filter((k) => k !== null && Math.abs(k - midi) < 0.6).length;
      const [at, until] = [a * hop + half, b * hop + half];
      return until - at < HEARING.line.shortest ? [] : [{ at, until, midi, sure: near >= HEARING.line.sure * inside.length }];
    }),
  );
  return { notes, cents: Math.round(100 * off) };
}

/** Samples of a window: the power of two that is nearest to its length. */
const windowFor = (rate: number): number => 2 ** Math.round(Math.log2(HEARING.line.window * rate));

/** Pitch and loudness of every moment. */
function framesOf(samples: Float32Array, rate: number): Frame[] {
  const { middle, hop, lowest, highest, clear, softest } = HEARING.line;
  const window = windowFor(rate);
  const inside = Math.round(middle * rate);
  const detector = PitchDetector.forFloat32Array(window);
  const heard: { hertz: number; clarity: number; loud: number }[] = [];
  for (let t = 0; ; t++) {
    const from = Math.round(t * hop * rate);
    if (from + window > samples.length) break;
    const frame = samples.subarray(from, from + window);
    const centre = frame.subarray((window - inside) / 2, (window + inside) / 2);
    const power = centre.reduce((sum, x) => sum + x * x, 0) / centre.length;
    const [hertz, clarity] = power < 1e-9 ? [0, 0] : detector.findPitch(frame, rate);
    heard.push({ hertz, clarity, loud: 10 * Math.log10(power + 1e-12) });
  }
  const loudest = heard.reduce((max, h) => Math.max(max, h.loud), -120);
  return heard.map(({ hertz, clarity, loud }): Frame => {
    const key = hertz > 0 ? keyAt(hertz) : 0;
    const sounds = clarity >= clear && loud > loudest + softest && key >= lowest && key <= highest;
    return { key: sounds ? key : null, loud };
  });
}

/**
 * The notes that a line stays on, moment by moment, null for a rest: the cheapest way among all keys, where a moment costs by how far it is
 * from its key and every change of key costs the same. A trembling voice stays on its note, and a slide between two is cut where it is
 * nearer to the next. Exact, in the time of its length.
 */
export function notesAlong(keys: readonly (number | null)[]): (number | null)[] {
  const { lowest, highest, width, most, change, unheard, ignored } = HEARING.line;
  const states = highest - lowest + 2;
  const costOf = (key: number | null, state: number): number => {
    if (state === 0) return key === null ? 0 : ignored;
    if (key === null) return unheard;
    return Math.min(most, 0.5 * ((key - (lowest + state - 1)) / width) ** 2);
  };
  let costs = Float64Array.from({ length: states }, () => 0);
  const came: Int16Array[] = [];
  for (const key of keys) {
    const cheapest = costs.reduce((best, c, s) => (c < costs[best] ? s : best), 0);
    const from = new Int16Array(states);
    const next = new Float64Array(states);
    for (let s = 0; s < states; s++) {
      const turns = costs[cheapest] + change < costs[s];
      from[s] = turns ? cheapest : s;
      next[s] = (turns ? costs[cheapest] + change : costs[s]) + costOf(key, s);
    }
    came.push(from);
    costs = next;
  }
  let state = costs.reduce((best, c, s) => (c < costs[best] ? s : best), 0);
  const path: (number | null)[] = [];
  for (let i = keys.length - 1; i >= 0; i--) {
    path.push(state === 0 ? null : lowest + state - 1);
    state = came[i][state];
  }
  return path.reverse();
}

/** Stretches on one key, the rests left out. */
function runsOf(path: readonly (number | null)[]): { from: number; to: number; midi: number }[] {
  const runs: { from: number; to: number; midi: number }[] = [];
  path.forEach((midi, i) => {
    const last = runs.at(-1);
    if (midi === null) return;
    if (last && last.to === i && last.midi === midi) last.to = i + 1;
    else runs.push({ from: i, to: i + 1, midi });
  });
  return runs;
}

/** A stretch on one key cut where its loudness dips: there it was sung or struck again. */
function partedAt(frames: readonly Frame[], from: number, to: number): [number, number][] {
  const { dip, shortest, hop } = HEARING.line;
  const least = Math.round(shortest / hop);
  const cuts: number[] = [];
  let start = from;
  let top = -Infinity;
  let low = { at: from, loud: Infinity };
  for (let i = from; i < to; i++) {
    const { loud } = frames[i];
    if (loud < low.loud) low = { at: i, loud };
    if (loud > top && low.at <= start) top = loud;
    const rises = top - low.loud >= dip && loud - low.loud >= dip;
    if (rises && low.at - start >= least && to - low.at >= least) {
      cuts.push(low.at);
      start = low.at;
      top = loud;
      low = { at: i, loud };
    } else if (loud >= top) {
      top = loud;
      low = { at: i, loud };
    }
  }
  const edges = [from, ...cuts, to];
  return edges.slice(1).map((end, i) => [edges[i], end]);
}

/** The beat that a line was sung to: the second of its first beat, quarters a second, and the grid that singers keep to, in quarters. */
export interface SungTo {
  readonly origin: number;
  readonly quarters: number;
  readonly grid: number;
  /** How many quarters before the first beat the music may begin; what was heard before is the count-in. */
  readonly pickup: number;
}

/**
 * A line in quarters from the first beat. What a singer and a microphone are late by as a whole is taken off, at most half of the grid
 * either way.
 */
export function onBeat({ notes }: HeardLine, { origin, quarters, grid, pickup }: SungTo): HeardNote[] {
  const counted = notes
    .map((n) => ({ ...n, at: (n.at - origin) * quarters, until: (n.until - origin) * quarters }))
    .filter((n) => n.until > 0 && n.at > -pickup);
  const late = grid * tuningOf(counted.map((n) => n.at / grid));
  return counted.map((n) => ({ ...n, at: n.at - late, until: n.until - late }));
}
