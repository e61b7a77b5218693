import type { Hand } from '../song/decisions.js';

/** A note that is to be played. */
export interface ExpectedNote {
  readonly midi: number;
  /** Quarter notes from the start of what is played. */
  readonly at: number;
  readonly hand: Hand;
  /** The chord it belongs to, for the words of the result; null for the tune. */
  readonly chord: string | null;
}

/** A key that was heard, at a time in seconds. */
export interface HeardNote {
  readonly midi: number;
  readonly time: number;
}

/** What became of a note that was to be played. */
export interface GradedNote {
  readonly note: ExpectedNote;
  readonly verdict: 'right' | 'wrong' | 'missed';
  /** The key that was heard for it, or null. */
  readonly heard: HeardNote | null;
  /** Seconds after its place, below 0 before it, measured against the tempo as it was played; null where it was missed. */
  readonly off: number | null;
  readonly timing: 'on' | 'early' | 'late' | null;
}

/** A pass as it was heard. */
export interface Grade {
  readonly notes: readonly GradedNote[];
  /** Keys that nothing asked for. */
  readonly extra: readonly HeardNote[];
}

/** How the pass is listened to. */
export interface GradeOptions {
  /** Quarter notes a minute that were asked for. */
  readonly tempo: number;
  /** The right note in another octave is right. */
  readonly octavesForgiven: boolean;
}

/**
 * What speaks against pairing a heard key with a note: the note in another octave, another note, a note without a key and a key
 * without a note; and how far apart in time the two lie, for each beat, at most so much, or as a hint while the tempo is not known.
 */
export const GRADE_COSTS = { octave: 0.1, wrong: 1.5, missed: 1, extra: 1, apart: 1.4, most: 2.05, hint: 0.15 } as const;

/** From which distance to its place a note is early or late: seconds, and share of a quarter note. */
const LATE = { seconds: 0.07, share: 0.14 } as const;

/** Keys struck within so many seconds are struck together; their order says nothing. */
const TOGETHER = 0.045;

/** Places on either side from which the tempo around a note is heard. */
const AROUND = 3;

/** Quarter notes that are added to the distance of a place before its weight is taken. */
const NEAR = 0.3;

/**
 * Grades a pass: an exact alignment of what was heard with what was to be played, first by pitch, then by pitch and by time
 * against the tempo that the first one shows, so that neither drift nor a stop makes right notes wrong.
 */
export function grade(expected: readonly ExpectedNote[], heard: readonly HeardNote[], options: GradeOptions): Grade {
  const notes = [...expected].sort((a, b) => a.at - b.at || a.midi - b.midi);
  const keys = inChords(heard);
  let pairs = align(notes, keys, options, steadily(notes, keys, options.tempo), GRADE_COSTS.hint);
  for (let k = 0; k < 2; k++) {
    const clock = clockOf(notes, keys, pairs, options);
    pairs = align(notes, keys, options, (note) => clock(notes[note].at), GRADE_COSTS.most);
  }
  return judge(notes, keys, pairs, options);
}

/** Keys in order, those of one chord from the lowest. */
function inChords(heard: readonly HeardNote[]): HeardNote[] {
  const sorted = [...heard].sort((a, b) => a.time - b.time);
  const groups: HeardNote[][] = [];
  for (const key of sorted) {
    const group = groups.at(-1);
    if (group && key.time - group[0].time <= TOGETHER) group.push(key);
    else groups.push([key]);
  }
  return groups.flatMap((g) => g.sort((a, b) => a.midi - b.midi));
}

/** For each note the index of its key, or -1. */
type Pairs = readonly number[];

function matches(note: ExpectedNote, key: HeardNote, forgiven: boolean): number {
  if (note.midi === key.midi) return 0;
  return forgiven && (note.midi - key.midi) % 12 === 0 ? GRADE_COSTS.octave : GRADE_COSTS.wrong;
}

/** Where notes would fall if the pass went evenly from its first key to its last. */
function steadily(notes: readonly ExpectedNote[], keys: readonly HeardNote[], tempo: number): (note: number) => number {
  const [first, last] = [notes[0]?.at ?? 0, notes.at(-1)?.at ?? 0];
  const [from, to] = [keys[0]?.time ?? 0, keys.at(-1)?.time ?? 0];
  const beat = 60 / tempo;
  const pace = last > first ? Math.min(1.5 * beat, Math.max(beat / 1.5, (to - from) / (last - first))) : beat;
  return (note) => from + (notes[note].at - first) * pace;
}

/** The cheapest way to pair notes with keys in order. */
function align(
  notes: readonly ExpectedNote[],
  keys: readonly HeardNote[],
  { tempo, octavesForgiven }: GradeOptions,
  placeOf: (note: number) => number,
  most: number,
): Pairs {
  const [n, m] = [notes.length, keys.length];
  const width = m + 1;
  const cost = new Float64Array((n + 1) * width);
  const from = new Uint8Array((n + 1) * width);
  const beat = 60 / tempo;
  for (let j = 1; j <= m; j++) [cost[j], from[j]] = [j * GRADE_COSTS.extra, 2];
  for (let i = 1; i <= n; i++) {
    cost[i * width] = i * GRADE_COSTS.missed;
    from[i * width] = 1;
    const place = placeOf(i - 1);
    for (let j = 1; j <= m; j++) {
      const key = keys[j - 1];
      const apart = Math.min(most, (GRADE_COSTS.apart * Math.abs(key.time - place)) / beat);
      const pair = cost[(i - 1) * width + j - 1] + matches(notes[i - 1], key, octavesForgiven) + apart;
      const missed = cost[(i - 1) * width + j] + GRADE_COSTS.missed;
      const extra = cost[i * width + j - 1] + GRADE_COSTS.extra;
      const best = Math.min(pair, missed, extra);
      cost[i * width + j] = best;
      from[i * width + j] = best === pair ? 0 : best === missed ? 1 : 2;
    }
  }
  const pairs = new Array<number>(n).fill(-1);
  for (let i = n, j = m; i > 0 || j > 0;) {
    const step = from[i * width + j];
    if (step === 0) pairs[--i] = --j;
    else if (step === 1) i--;
    else j--;
  }
  return pairs;
}

/** A place that was reached with a right note, and when. */
interface Anchor {
  readonly at: number;
  time: number;
}

/** The places of right notes, each once, by its first key. */
function anchorsOf(
  notes: readonly ExpectedNote[],
  keys: readonly HeardNote[],
  pairs: Pairs,
  { octavesForgiven }: GradeOptions,
): Anchor[] {
  const anchors: Anchor[] = [];
  notes.forEach((note, i) => {
    const key = keys[pairs[i]];
    if (!key || matches(note, key, octavesForgiven) >= GRADE_COSTS.wrong) return;
    const last = anchors.at(-1);
    if (last && last.at === note.at) last.time = Math.min(last.time, key.time);
    else anchors.push({ at: note.at, time: key.time });
  });
  return anchors;
}

/** When a place is reached, heard from the right notes at it and around it. */
function clockOf(
  notes: readonly ExpectedNote[],
  keys: readonly HeardNote[],
  pairs: Pairs,
  options: GradeOptions,
): (at: number) => number {
  const anchors = anchorsOf(notes, keys, pairs, options);
  const beat = 60 / options.tempo;
  return (at) => {
    let middle = anchors.findIndex((a) => a.at >= at);
    if (middle < 0) middle = anchors.length;
    const around = anchors.slice(Math.max(0, middle - AROUND), middle + AROUND + 1);
    if (around.length === 0) return at * beat;
    // Near places say most: the tempo breathes.
    const weights = around.map((a) => 1 / (NEAR + Math.abs(a.at - at)) ** 2);
    const whole = weights.reduce((x, y) => x + y, 0);
    const meanAt = around.reduce((s, a, k) => s + weights[k] * a.at, 0) / whole;
    const meanTime = around.reduce((s, a, k) => s + weights[k] * a.time, 0) / whole;
    const spread = around.reduce((s, a, k) => s + weights[k] * (a.at - meanAt) ** 2, 0);
    const rise = around.reduce((s, a, k) => s + weights[k] * (a.at - meanAt) * (a.time - meanTime), 0);
    const slope = spread === 0 ? beat : rise / spread;
    return meanTime + (slope > 0 ? slope : beat) * (at - meanAt);
  };
}

/** Places on either side by which a note's own time is measured. */
const BESIDE = 3;

/**
 * When a place would be reached if it lay evenly between the right notes before and after it: the middle of what each pair of them
 * says, so that one note out of time does not make its neighbours seem so.
 */
function evenly(
  notes: readonly ExpectedNote[],
  keys: readonly HeardNote[],
  pairs: Pairs,
  options: GradeOptions,
): (at: number) => number | null {
  const anchors = anchorsOf(notes, keys, pairs, options);
  return (at) => {
    const [earlier, later] = [anchors.filter((a) => a.at < at), anchors.filter((a) => a.at > at)];
    // At the ends there is one side only, and more of it is heard.
    const alone = earlier.length === 0 || later.length === 0;
    const before = earlier.slice(alone ? -2 * BESIDE : -BESIDE);
    const after = later.slice(0, alone ? 2 * BESIDE : BESIDE);
    const said: number[] = [];
    const sides =
      before.length > 0 && after.length > 0
        ? before.flatMap((a) => after.map((b) => [a, b] as const))
        : pairsOf([...before, ...after]);
    for (const [a, b] of sides) said.push(a.time + ((b.time - a.time) * (at - a.at)) / (b.at - a.at));
    said.sort((x, y) => x - y);
    return said.length === 0 ? null : (said[(said.length - 1) >> 1] + said[said.length >> 1]) / 2;
  };
}

const pairsOf = <T>(items: readonly T[]): (readonly [T, T])[] =>
  items.flatMap((a, i) => items.slice(i + 1).map((b) => [a, b] as const));

function judge(notes: readonly ExpectedNote[], keys: readonly HeardNote[], pairs: Pairs, options: GradeOptions): Grade {
  const { tempo, octavesForgiven } = options;
  const clock = clockOf(notes, keys, pairs, options);
  const even = evenly(notes, keys, pairs, options);
  const beat = 60 / tempo;
  const used = new Set(pairs.filter((p) => p >= 0));
  const extra = new Set(keys.flatMap((_, j) => (used.has(j) ? [] : [j])));
  const graded = notes.map((note, i): GradedNote => {
    let key = keys[pairs[i]] ?? null;
    let verdict: GradedNote['verdict'] = 'missed';
    if (key) verdict = matches(note, key, octavesForgiven) < GRADE_COSTS.wrong ? 'right' : 'wrong';
    else {
      // A key that nothing asked for, struck where a note is missing, was meant for it.
      const place = clock(note.at);
      const near = [...extra].filter((j) => Math.abs(keys[j].time - place) < 0.3 * beat);
      const meant = near.sort((a, b) => Math.abs(keys[a].midi - note.midi) - Math.abs(keys[b].midi - note.midi))[0];
      if (meant !== undefined) {
        extra.delete(meant);
        key = keys[meant];
        verdict = 'wrong';
      }
    }
    if (!key) return { note, verdict, heard: null, off: null, timing: null };
    const off = key.time - (even(note.at) ?? clock(note.at));
    const bound = Math.max(LATE.seconds, LATE.share * beat);
    return { note, verdict, heard: key, off, timing: off > bound ? 'late' : off < -bound ? 'early' : 'on' };
  });
  return { notes: graded, extra: [...extra].map((j) => keys[j]) };
}
