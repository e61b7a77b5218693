import { grouped } from '../lists/grouped.js';
import type { Hand } from '../song/decisions.js';
import { firstAtOrAfter } from '../time/bars.js';

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
const GRADE_COSTS = { octave: 0.1, wrong: 1.5, missed: 1, extra: 1, apart: 1.4, most: 2.05, hint: 0.15 } as const;

/** From which distance to its place a note is early or late: seconds, and share of a quarter note. */
const LATE = { seconds: 0.07, share: 0.14 } as const;

/** What is added to it for each quarter note by which the nearest other right note is farther off than one: there the tempo is a guess. */
const GUESS = 0.06;

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
    const clock = clockOf(anchorsOf(notes, keys, pairs, options), options.tempo);
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

/** What speaks against a key for a note, both as MIDI numbers. */
function matches(note: number, key: number, forgiven: boolean): number {
  if (note === key) return 0;
  return forgiven && (note - key) % 12 === 0 ? GRADE_COSTS.octave : GRADE_COSTS.wrong;
}

const fits = (note: ExpectedNote, key: HeardNote, { octavesForgiven }: GradeOptions): boolean =>
  matches(note.midi, key.midi, octavesForgiven) < GRADE_COSTS.wrong;

/** Where notes would fall if the pass went evenly from its first key to its last. */
function steadily(notes: readonly ExpectedNote[], keys: readonly HeardNote[], tempo: number): (note: number) => number {
  const [first, last] = [notes[0]?.at ?? 0, notes.at(-1)?.at ?? 0];
  const [from, to] = [keys[0]?.time ?? 0, keys.at(-1)?.time ?? 0];
  const beat = 60 / tempo;
  const pace = last > first ? Math.min(1.5 * beat, Math.max(beat / 1.5, (to - from) / (last - first))) : beat;
  return (note) => from + (notes[note].at - first) * pace;
}

/** The notes of one place in the orders in which they may be heard: from the lowest, or one hand behind the other. */
function ordersOf(notes: readonly ExpectedNote[], from: number, to: number): number[][] {
  const all = Array.from({ length: to - from }, (_, k) => from + k);
  const left = all.filter((i) => notes[i].hand === 'left');
  if (left.length === 0 || left.length === all.length) return [all];
  const right = all.filter((i) => notes[i].hand === 'right');
  const behind = [
    [...left, ...right],
    [...right, ...left],
  ];
  // Mostly the left hand lies lower, and its keys come first in either order.
  return [all, ...behind.filter((order) => order.some((note, k) => note !== all[k]))];
}

/** The cheapest way to pair notes with keys, place after place, the notes of a place in the order that costs least. */
function align(
  notes: readonly ExpectedNote[],
  keys: readonly HeardNote[],
  { tempo, octavesForgiven }: GradeOptions,
  placeOf: (note: number) => number,
  most: number,
): Pairs {
  const m = keys.length;
  const perSecond = (GRADE_COSTS.apart * tempo) / 60;
  const { missed: MISSED, extra: EXTRA } = GRADE_COSTS;
  // The innermost loop of a pass reads plain numbers.
  const [times, midis] = [Float64Array.from(keys, (k) => k.time), Float64Array.from(keys, (k) => k.midi)];
  const placed = Float64Array.from(notes, (_, i) => placeOf(i));
  /** What leads to each key of a row: 0 a pair, 1 a missed note, 2 an extra key. */
  const step = (before: Float64Array, note: number): { row: Float64Array; from: Uint8Array } => {
    const row = new Float64Array(m + 1);
    const from = new Uint8Array(m + 1);
    const [place, { midi }] = [placed[note], notes[note]];
    row[0] = before[0] + MISSED;
    from[0] = 1;
    for (let j = 1; j <= m; j++) {
      const apart = Math.min(most, perSecond * Math.abs(times[j - 1] - place));
      const pair = before[j - 1] + matches(midi, midis[j - 1], octavesForgiven) + apart;
      const missed = before[j] + MISSED;
      const extra = row[j - 1] + EXTRA;
      const least = (row[j] = Math.min(pair, missed, extra));
      from[j] = least === pair ? 0 : least === missed ? 1 : 2;
    }
    return { row, from };
  };
  let row: Float64Array = Float64Array.from({ length: m + 1 }, (_, j) => j * GRADE_COSTS.extra);
  const places: { orders: number[][]; tables: Uint8Array[][]; chosen: Uint8Array }[] = [];
  for (let i = 0; i < notes.length;) {
    const end = firstAtOrAfter(notes, notes[i].at + 1e-6);
    const orders = ordersOf(notes, i, end);
    const before = row;
    const ways = orders.map((order) => {
      let last = before;
      const table = order.map((note) => {
        const next = step(last, note);
        last = next.row;
        return next.from;
      });
      return { last, table };
    });
    const chosen = new Uint8Array(m + 1);
    row = Float64Array.from({ length: m + 1 }, (_, j) => {
      for (let k = 1; k < ways.length; k++) if (ways[k].last[j] < ways[chosen[j]].last[j]) chosen[j] = k;
      return ways[chosen[j]].last[j];
    });
    places.push({ orders, tables: ways.map((w) => w.table), chosen });
    i = end;
  }
  const pairs = new Array<number>(notes.length).fill(-1);
  let j = m;
  for (const { orders, tables, chosen } of places.reverse()) {
    const order = orders[chosen[j]];
    const table = tables[chosen[j]];
    for (let k = order.length - 1; k >= 0;) {
      const came = table[k][j];
      if (came === 0) pairs[order[k--]] = --j;
      else if (came === 1) k--;
      else j--;
    }
  }
  return pairs;
}

/** A place that was reached with a right note, and when. */
interface Anchor {
  readonly at: number;
  readonly time: number;
}

/** Quarter notes by which the first key of a place may lie before the middle one; one that lies further off belongs elsewhere. */
const OF_ONE_PLACE = 0.5;

/** The places of right notes, each once, by its first key. */
function anchorsOf(notes: readonly ExpectedNote[], keys: readonly HeardNote[], pairs: Pairs, options: GradeOptions): Anchor[] {
  const right = notes.flatMap((note, i) => {
    const key = keys[pairs[i]];
    return key && fits(note, key, options) ? [{ at: note.at, time: key.time }] : [];
  });
  return [...grouped(right, (r) => r.at)].map(([at, own]) => {
    const times = own.map((r) => r.time).sort((a, b) => a - b);
    const earliest = times[times.length >> 1] - (OF_ONE_PLACE * 60) / options.tempo;
    return { at, time: times.find((t) => t >= earliest) ?? times[0] };
  });
}

/** When a place is reached, heard from the right notes at it and around it. */
function clockOf(anchors: readonly Anchor[], tempo: number): (at: number) => number {
  const beat = 60 / tempo;
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

/** Quarter notes within which a key is a note that the order of keys passed over, and within which it was meant for a missing one. */
const SWAPPED = 0.75;
const MEANT = 0.3;

/** Places on either side by which a note's own time is measured. */
const BESIDE = 3;

/**
 * When a place would be reached if it lay evenly between the right notes before and after it: the middle of what each pair of them
 * says, so that one note out of time does not make its neighbours seem so.
 */
function evenly(anchors: readonly Anchor[]): (at: number) => number | null {
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

/** Quarter notes by which a key must lie nearer to a like note that is missing than to its own to be that one's. */
const NEARER = 0.4;

/**
 * Pairs in which a key belongs to the nearest of like notes: where one of them is missing, the clock was set by whichever was taken, and
 * the others around it tell which it was.
 */
function nearestOfLike(notes: readonly ExpectedNote[], keys: readonly HeardNote[], pairs: Pairs, options: GradeOptions): Pairs {
  const even = evenly(anchorsOf(notes, keys, pairs, options));
  const near = (NEARER * 60) / options.tempo;
  const own = [...pairs];
  notes.forEach((note, i) => {
    const key = keys[own[i]];
    if (!key || !fits(note, key, options)) return;
    const off = ({ at }: ExpectedNote) => Math.abs(key.time - (even(at) ?? key.time));
    const missing = notes.findIndex(
      (other, k) => own[k] < 0 && other.midi === note.midi && other.at !== note.at && off(other) + near < off(note),
    );
    if (missing < 0) return;
    own[missing] = own[i];
    own[i] = -1;
  });
  return own;
}

function judge(notes: readonly ExpectedNote[], keys: readonly HeardNote[], aligned: Pairs, options: GradeOptions): Grade {
  const pairs = nearestOfLike(notes, keys, aligned, options);
  const anchors = anchorsOf(notes, keys, pairs, options);
  const clock = clockOf(anchors, options.tempo);
  const even = evenly(anchors);
  /** Quarter notes from a place to the nearest other one that was reached. */
  const alone = (at: number) => Math.min(...anchors.map((a) => (a.at === at ? Infinity : Math.abs(a.at - at))), Infinity);
  const beat = 60 / options.tempo;
  const fitted = notes.map((note, i) => pairs[i] >= 0 && fits(note, keys[pairs[i]], options));
  /** Keys that are no note's yet. */
  const loose = new Set(keys.keys());
  notes.forEach((_, i) => fitted[i] && loose.delete(pairs[i]));
  const take = (key: number | undefined): HeardNote | null => {
    if (key === undefined || !loose.delete(key)) return null;
    return keys[key];
  };
  /** Loose keys near the place of a note, the nearest in time first. */
  const near = (note: ExpectedNote, within: number): number[] => {
    const place = clock(note.at);
    const off = (j: number) => Math.abs(keys[j].time - place);
    return [...loose].filter((j) => off(j) < within * beat).sort((x, y) => off(x) - off(y));
  };
  // One hand behind the other changes the order of the keys, and none of them is wrong for that.
  const found = notes.map((note, i) =>
    fitted[i] ? keys[pairs[i]] : take(near(note, SWAPPED).find((j) => fits(note, keys[j], options))),
  );
  // What was paired with another note stays with it, unless that was its own.
  notes.forEach((_, i) => (found[i] ??= pairs[i] >= 0 ? take(pairs[i]) : null));
  // A key that nothing asked for, struck where a note is missing, was meant for it.
  notes.forEach((note, i) => {
    const pitch = (j: number) => Math.abs(keys[j].midi - note.midi);
    found[i] ??= take(near(note, MEANT).sort((x, y) => pitch(x) - pitch(y))[0]);
  });
  const graded = notes.map((note, i): GradedNote => {
    const key = found[i];
    if (!key) return { note, verdict: 'missed', heard: null, off: null, timing: null };
    const verdict = fits(note, key, options) ? 'right' : 'wrong';
    const off = key.time - (even(note.at) ?? clock(note.at));
    const bound = Math.max(LATE.seconds, LATE.share * beat) + GUESS * beat * Math.max(0, alone(note.at) - 1);
    return { note, verdict, heard: key, off, timing: off > bound ? 'late' : off < -bound ? 'early' : 'on' };
  });
  return { notes: graded, extra: [...loose].map((j) => keys[j]) };
}
