import { keysOf, MODES, practisedScale, scaleOf, type Key, type Mode } from '../src/harmony/key.js';
import { parseChord, type Chord } from '../src/harmony/symbol.js';
import { midiOf, pitchAt, pitchClass, transposeName, type NoteName } from '../src/pitch/pitch.js';
import { emptySong, type Song } from '../src/song/song.js';
import { barTicks, beatTicks, type Meter } from '../src/time/meter.js';
import type { Ticks } from '../src/time/ticks.js';

/** A tune made by rule, with what its maker knows of it. */
export interface MadeTune {
  readonly song: Song;
  readonly key: Key;
  /** Where its phrases begin, pick-ups included, the first one left out. */
  readonly phrases: readonly Ticks[];
  /** The chords it was made over. */
  readonly chords: readonly { readonly at: Ticks; readonly symbol: string }[];
  /** Chords in a bar, or one over two bars (0.5). */
  readonly pace: Pace;
}

type Pace = 0.5 | 1 | 2 | 'beats';
type Dice = () => number;

/** Numbers from 0 to 1 that are the same for the same beginning (mulberry32). */
function diceFrom(start: number): Dice {
  let state = start >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

const oneOf = <T>(dice: Dice, all: readonly T[]): T => all[Math.floor(dice() * all.length)];

/** Chords of a mode as intervals of their roots with a kind: what may follow home, and how phrases close and stay open. */
interface Grammar {
  readonly home: string;
  readonly inner: readonly string[];
  readonly close: readonly string[];
  readonly open: readonly string[];
}

const GRAMMARS: Readonly<Record<Mode, Grammar>> = {
  major: { home: '1P', inner: ['1P', '4P', '5P', '1P', '4P', '5P', '6M m', '2M m'], close: ['5P'], open: ['5P'] },
  minor: { home: '1P m', inner: ['1P m', '4P m', '5P', '1P m', '7m', '3m', '6m'], close: ['5P'], open: ['5P', '7m'] },
  dorian: { home: '1P m', inner: ['1P m', '7m', '4P', '3m', '7m'], close: ['7m', '5P m'], open: ['7m', '4P'] },
  mixolydian: { home: '1P', inner: ['1P', '7m', '4P', '5P m', '1P'], close: ['7m'], open: ['7m', '4P'] },
  phrygian: { home: '1P m', inner: ['1P m', '2m', '6m', '7m m', '2m'], close: ['2m', '7m m'], open: ['2m'] },
  lydian: { home: '1P', inner: ['1P', '2M', '6M m', '5P', '2M'], close: ['2M', '5P'], open: ['2M', '5P'] },
};

const METERS: readonly Meter[] = ['4/4', '4/4', '3/4', '2/4', '6/8'].map((m) => {
  const [beats, unit] = m.split('/').map(Number);
  return { beats, unit };
});

/** Rhythms of a bar in parts of its felt beats: each row is one beat, as shares of it. */
const BEATS: readonly (readonly number[])[] = [[1], [1], [0.5, 0.5], [1], [0.5, 0.5]];
const COMPOUND_BEATS: readonly (readonly number[])[] = [[2 / 3, 1 / 3], [1 / 3, 1 / 3, 1 / 3], [1], [2 / 3, 1 / 3]];

/** How many bars the phrases of a song have: mostly four, at times all five or six, or two of them short. */
const PLANS: readonly (readonly number[])[] = [
  [4, 4, 4, 4],
  [4, 4, 4, 4],
  [4, 4, 4, 4],
  [4, 4],
  [5, 5, 5, 5],
  [6, 6],
  [3, 3, 3, 3],
  [4, 4, 6, 4],
  [5, 4, 5, 4],
];
const FORMS = ['AABA', 'ABAC', 'ABCB', 'AABB', 'ABCD'];
/** Modes that songs are in more often than in the others. */
const OFTEN: readonly Mode[] = ['major', 'minor', 'dorian', 'mixolydian'];

interface Phrase {
  readonly length: Ticks;
  readonly notes: readonly { readonly at: Ticks; readonly length: Ticks; readonly midi: number }[];
  readonly chords: readonly { readonly at: Ticks; readonly symbol: string }[];
}

/**
 * A tune with known phrases, chords and mode, made by a small grammar: a plan of phrases, a row of chords in the mode for each, and over
 * them a line whose strong notes are chord notes, with passing and neighbour notes between. The same number gives the same tune.
 */
export function makeTune(number: number, mode?: Mode): MadeTune {
  const dice = diceFrom(number * 7919 + 13);
  const its = mode ?? oneOf(dice, [...MODES, ...OFTEN, ...OFTEN, ...OFTEN, ...OFTEN]);
  const key = oneOf(dice, keysOf(its));
  const meter = oneOf(dice, METERS);
  const pace = oneOf<Pace>(dice, meter.beats === 4 ? [1, 1, 2, 2, 'beats', 0.5] : [1, 1, 1, 0.5]);
  const plan = oneOf(dice, PLANS);
  const form = oneOf(dice, FORMS);
  const beat = beatTicks(meter);
  const pickup = dice() < 0.4 ? (meter.unit === 8 ? beat / 3 : beat) : 0;
  const motif = motifOf(dice, meter, pace);
  const made = new Map<string, Phrase>();
  const phrases: Phrase[] = plan.map((bars, i) => {
    const last = i === plan.length - 1;
    const name = `${form[i]} ${bars} ${last}`;
    const known = made.get(name) ?? makePhrase(dice, { key, meter, bars, pace, pickup, motif, closes: last || dice() < 0.35 });
    made.set(name, known);
    return known;
  });
  let at = pickup;
  const notes: { at: Ticks; length: Ticks; midi: number }[] = [];
  const chords: { at: Ticks; symbol: string }[] = [];
  const starts: Ticks[] = [];
  for (const phrase of phrases) {
    starts.push(at - pickup);
    notes.push(...phrase.notes.map((n) => ({ ...n, at: at + n.at })));
    for (const c of phrase.chords) if (chords.at(-1)?.symbol !== c.symbol) chords.push({ at: at + c.at, symbol: c.symbol });
    at += phrase.length;
  }
  // The last phrase stops short by the pick-up, so that the bars come out.
  const length = at - pickup;
  const names = new Map([...scaleOf(key), ...practisedScale(key)].map((n) => [pitchClass(n), n]));
  const spelled = (midi: number) => pitchAt(names.get(midi % 12) ?? spare(key, midi), midi);
  const melody = notes.map((n) => ({ at: n.at, length: n.length, pitch: spelled(n.midi), lyric: null }));
  // Chords that change quickly go with slow tunes: hymns and ballads.
  const [slowest, fastest] = pace === 'beats' ? [60, 80] : pace === 2 ? [60, 92] : [72, 126];
  const song: Song = {
    ...emptySong(key),
    title: `Made ${number}`,
    tempo: slowest + Math.floor(dice() * (fastest - slowest)),
    meters: [{ at: 0, beats: meter.beats, unit: meter.unit as 4 }],
    pickup,
    length,
    melody,
  };
  return { song, key, phrases: starts.slice(1), chords, pace };
}

/** A name for a note outside the scale. */
const spare = (key: Key, midi: number): NoteName =>
  transposeName(
    key.tonic,
    ['1P', '2m', '2M', '3m', '3M', '4P', '4A', '5P', '6m', '6M', '7m', '7M'][(midi - pitchClass(key.tonic) + 132) % 12],
  );

/** The rhythms of two bars, a beat at a time: a song keeps to them, so that its phrases begin alike. */
function motifOf(dice: Dice, meter: Meter, pace: Pace): readonly (readonly number[])[][] {
  const beats = barTicks(meter) / beatTicks(meter);
  const rows = meter.unit === 8 ? COMPOUND_BEATS : pace === 'beats' ? [[1], [1], [1], [0.5, 0.5]] : BEATS;
  return [0, 1].map(() => Array.from({ length: beats }, () => oneOf(dice, rows)));
}

interface Wish {
  readonly key: Key;
  readonly meter: Meter;
  readonly bars: number;
  readonly pace: Pace;
  readonly pickup: Ticks;
  readonly motif: readonly (readonly (readonly number[])[])[];
  readonly closes: boolean;
}

function makePhrase(dice: Dice, wish: Wish): Phrase {
  const { key, meter, bars, pickup, motif, closes } = wish;
  const [bar, beat] = [barTicks(meter), beatTicks(meter)];
  const chords = chordRow(dice, wish);
  const chordAt = (at: Ticks) => chords.findLast((c) => c.at <= Math.max(0, at)) ?? chords[0];
  const centre = midiOf(pitchAt(key.tonic, 67));
  const places: { at: Ticks; length: Ticks; strong: boolean }[] = [];
  if (pickup > 0) places.push({ at: -pickup, length: pickup, strong: false });
  const end = bars * bar;
  for (let b = 0; b < bars - 1; b++)
    motif[b % 2].forEach((shares, i) => {
      let at = b * bar + i * beat;
      shares.forEach((share, k) => {
        places.push({ at, length: Math.round(share * beat), strong: k === 0 });
        at += Math.round(share * beat);
      });
    });
  places.push({ at: end - bar, length: bar - pickup, strong: true });
  let line = centre + oneOf(dice, [0, 4, 7]);
  const scale = new Set(scaleOf(key).map(pitchClass));
  // Notes of the chord that have sounded since it came: those that have not are asked for first, so that the tune tells its chords.
  let told = new Set<number>();
  let under: Chord | null = null;
  const notes = places.map(({ at, length, strong }, i) => {
    const { chord } = chordAt(at);
    if (chord !== under) told = new Set();
    under = chord;
    const tones = chord.tones.map((t) => pitchClass(t.name));
    // Root and third come before the fifth, which two other chords have as their root and third.
    const untold = tones.filter((pc) => !told.has(pc));
    const fresh = untold.length === tones.length && dice() < 0.6 ? untold.slice(0, 2) : untold;
    const last = i === places.length - 1;
    const wanted =
      last && closes ? [pitchClass(key.tonic)] : strong || last || length > beat ? (fresh.length > 0 ? fresh : tones) : null;
    line = wanted ? nearest(dice, line, centre, new Set(wanted)) : step(dice, line, centre, scale, new Set(tones));
    told.add(line % 12);
    return { at, length, midi: line };
  });
  return { length: end, notes, chords: chords.map(({ at, chord }) => ({ at, symbol: chord.text })) };
}

/** A row of chords from home, over the bars of a phrase, that closes at home or stays open. */
function chordRow(dice: Dice, { key, meter, bars, pace, closes }: Wish): { at: Ticks; chord: Chord }[] {
  const grammar = GRAMMARS[key.mode];
  const [bar, beat] = [barTicks(meter), beatTicks(meter)];
  const each = pace === 'beats' ? beat : pace === 2 ? bar / 2 : pace === 1 ? bar : 2 * bar;
  const symbol = (entry: string) => {
    const [up, kind = ''] = entry.split(' ');
    return parseChord(transposeName(key.tonic, up) + kind) as Chord;
  };
  const row: { at: Ticks; chord: Chord }[] = [];
  const ending = (bars - 1) * bar;
  let before = grammar.home;
  for (let at = 0; at < ending; at += each) {
    const lastOne = at + each >= ending;
    const next =
      at === 0
        ? grammar.home
        : lastOne && closes
          ? oneOf(dice, grammar.close)
          : dice() < 0.35
            ? before
            : other(dice, grammar.inner, before);
    row.push({ at, chord: symbol(next) });
    before = next;
  }
  row.push({ at: ending, chord: symbol(closes ? grammar.home : oneOf(dice, grammar.open)) });
  return row;
}

const other = (dice: Dice, all: readonly string[], before: string): string =>
  oneOf(
    dice,
    all.filter((e) => e !== before),
  );

/** The nearest key of some pitch classes, within an octave around the middle of the tune. */
function nearest(dice: Dice, from: number, centre: number, wanted: ReadonlySet<number>): number {
  const near = Array.from({ length: 25 }, (_, i) => from + (i % 2 === 0 ? i / 2 : -(i + 1) / 2));
  const fits = near.filter((m) => wanted.has(((m % 12) + 12) % 12) && Math.abs(m - centre) <= 10);
  return fits[dice() < 0.3 && fits.length > 1 ? 1 : 0] ?? from;
}

/** A step along the scale, or the note of the chord beside it. */
function step(dice: Dice, from: number, centre: number, scale: ReadonlySet<number>, tones: ReadonlySet<number>): number {
  if (dice() < 0.25) return nearest(dice, from + (dice() < 0.5 ? 3 : -3), centre, tones);
  const up = from < centre - 3 || (from < centre + 8 && dice() < 0.5) ? 1 : -1;
  for (let d = 1; d <= 3; d++) if (scale.has((from + up * d + 120) % 12)) return from + up * d;
  return from;
}
