import { evidenceOf, otherReading, type KeyReadingFact } from '../harmony/find-key.js';
import { practisedScale, scaleOf, type Key } from '../harmony/key.js';
import { degreeOf } from '../harmony/naming.js';
import { parseChord } from '../harmony/symbol.js';
import { songDifficulty } from '../arrange/song-difficulty.js';
import type { Arrangement, Part } from '../arrange/arrangement.js';
import { shapeOf, shapesOf, type Shape } from '../left-hand/shapes.js';
import { bottomUp, nameOf, pitchAt, pitchClass, type NoteName, type Pitch } from '../pitch/pitch.js';
import { fingerLine } from '../fingers/line.js';
import { startOf, type StartFact } from '../right-hand/positions.js';
import type { Hardest } from '../difficulty/difficulty.js';
import type { Hands } from '../song/decisions.js';
import { countIn, offsetInBar, type Bar } from '../time/bars.js';
import { meterName } from '../time/meter.js';
import { TICKS_PER_QUARTER, type Ticks } from '../time/ticks.js';

/** A scale to warm up with, from the tonic up an octave. */
export interface WarmUp {
  readonly hand: 'left' | 'right';
  readonly notes: readonly { readonly pitch: Pitch; readonly finger: number }[];
}

/** A rhythm that fills a bar and comes again. */
export interface RhythmFigure {
  /** "1 2 & 3". */
  readonly counts: string;
  readonly bars: readonly number[];
}

/** A page about a song before the work begins. */
export interface FirstLook {
  readonly key: Key;
  /** Another key that the tune may be heard in, where it is nearly as likely. */
  readonly reading: KeyReadingFact | null;
  readonly warmUps: readonly WarmUp[];
  readonly meter: string;
  /** What is sung before the first full bar, in counts, or null. */
  readonly pickup: string | null;
  readonly form: readonly {
    readonly label: string;
    readonly part: number;
    readonly section: string | null;
    readonly name: string | null;
    readonly bars: Part['bars'];
    readonly difficulty: number;
    /** The earlier part that it takes up wholly, or null. */
    readonly as: number | null;
  }[];
  readonly chords: readonly {
    readonly symbol: string;
    readonly degree: string | null;
    readonly times: number;
  }[];
  readonly shapes: readonly (Shape & { readonly symbol: string; readonly pitches: readonly Pitch[] })[];
  readonly rhythms: readonly RhythmFigure[];
  /** Notes of the tune outside the scale, with the bars where they come. */
  readonly accidentals: readonly { readonly name: NoteName; readonly bars: readonly number[] }[];
  readonly range: { readonly low: Pitch; readonly high: Pitch } | null;
  readonly start: StartFact | null;
  readonly hardest: Hardest | null;
  readonly difficulty: number;
  /** Minutes to learn it, hands apart and slowly together, repeats once. */
  readonly minutes: number;
}

/**
 * Minutes of first work: for each part, each note of the tune, each chord change; more where it is harder. Set so that a part of four
 * bars takes about what teachers plan for one, five to ten minutes.
 */
const MINUTES = { part: 3, note: 0.12, chord: 0.45, atRest: 0.5, perPoint: 1 / 40 } as const;

/** Rhythms that come again, at most this many. */
const MOST_RHYTHMS = 4;

/** The brief on a song: all that is worth knowing before the first note. */
export function firstLook(arrangement: Arrangement, hands: Hands): FirstLook {
  const { song, bars, parts, sections, hardest } = arrangement;
  const chords = parts.flatMap((p) => p.chords);
  const melody = parts.flatMap((p) => p.melody);
  const first = parts.find((p) => p.places.length > 0);
  return {
    key: song.key,
    reading: readingOf(melody, song.key),
    warmUps: (['right', 'left'] as const).map((hand) => warmUp(song.key, hand, hands)),
    meter: meterName(song.meters[0]),
    pickup:
      song.pickup > 0
        ? melody
            .filter((n) => n.at < song.pickup)
            .map((n) => countIn(bars, n.at))
            .join(' ')
        : null,
    form: parts.map((p) => ({
      label: p.label,
      part: p.number,
      section: sections.find((s) => s.from === p.number)?.name ?? null,
      name: p.name,
      bars: p.bars,
      difficulty: p.difficulty.score,
      as: p.repeats?.kind === 'exact' ? p.repeats.part : null,
    })),
    chords: differentChords(arrangement),
    shapes: shapesOf(chords).map((shape) => {
      const example = chords.find((c) => shapeOf(c.pitches) === shape.form);
      return { ...shape, symbol: example?.symbol ?? '', pitches: example?.pitches ?? [] };
    }),
    rhythms: rhythmFigures(arrangement),
    accidentals: accidentals(arrangement),
    range: rangeOf(melody.map((n) => n.pitch)),
    start: first ? startOf(first.places[0], first.melody[0].pitch, first.melody[0].finger) : null,
    hardest,
    difficulty: songDifficulty(parts),
    minutes: Math.round(parts.reduce((sum, p) => sum + minutesFor(p), 0)),
  };
}

function readingOf(melody: readonly { readonly pitch: Pitch; readonly length: Ticks }[], key: Key): KeyReadingFact | null {
  const heard = evidenceOf(melody);
  return otherReading(heard, heard.at(-1)?.pitchClass ?? null, key);
}

/** The scale of the key over an octave as it is practised. */
export function warmUp(key: Key, hand: 'left' | 'right', hands: Hands): WarmUp {
  const names = practisedScale(key);
  const low = hand === 'right' ? 60 : 48;
  let last = low - 1;
  const pitches = [...names, names[0]].map((name) => {
    const midi = last + 1 + ((pitchClass(name) - last - 1 + 120) % 12);
    last = midi;
    return pitchAt(name, midi);
  });
  const grips = pitches.map((pitch, i) => ({ at: (i * TICKS_PER_QUARTER) / 2, length: TICKS_PER_QUARTER / 2, pitches: [pitch] }));
  const row = fingerLine(grips, { hands, hand, tempo: 80, key });
  return { hand, notes: pitches.map((pitch, i) => ({ pitch, finger: row[i].fingers[0] })) };
}

function differentChords({ parts, song }: Arrangement): FirstLook['chords'] {
  const times = new Map<string, number>();
  for (const c of parts.flatMap((p) => p.chords)) if (!c.restruck) times.set(c.symbol, (times.get(c.symbol) ?? 0) + 1);
  return [...times].map(([symbol, n]) => {
    const chord = parseChord(symbol);
    return { symbol, degree: chord.kind === 'chord' ? degreeOf(chord, song.key) : null, times: n };
  });
}

/** The rhythms of full bars that come more than once, the commonest first. */
function rhythmFigures({ bars, parts }: Arrangement): RhythmFigure[] {
  const figures = new Map<string, { counts: string; bars: number[] }>();
  const notes = parts.flatMap((p) => p.melody);
  let n = 0;
  for (const bar of bars) {
    const here: Ticks[] = [];
    for (; n < notes.length && notes[n].at < bar.end; n++) here.push(notes[n].at);
    if (bar.number === 0 || here.length < 2) continue;
    const print = `${meterName(bar.meter)} ${here.map((at) => offsetInBar(bar, at)).join()}`;
    const figure = figures.get(print) ?? { counts: countsOf(here, bars), bars: [] };
    figure.bars.push(bar.number);
    figures.set(print, figure);
  }
  return [...figures.values()]
    .filter((f) => f.bars.length > 1)
    .sort((a, b) => b.bars.length - a.bars.length)
    .slice(0, MOST_RHYTHMS);
}

const countsOf = (places: readonly Ticks[], bars: readonly Bar[]): string => places.map((at) => countIn(bars, at)).join(', ');

function accidentals({ song, bars, parts }: Arrangement): FirstLook['accidentals'] {
  const scale = new Set<string>(scaleOf(song.key));
  const found = new Map<NoteName, Set<number>>();
  let b = 0;
  for (const note of parts.flatMap((p) => p.melody)) {
    while (b < bars.length - 1 && bars[b].end <= note.at) b++;
    const name = nameOf(note.pitch);
    if (!scale.has(name)) found.set(name, (found.get(name) ?? new Set<number>()).add(bars[b].number));
  }
  return [...found].map(([name, places]) => ({ name, bars: [...places] }));
}

function rangeOf(pitches: readonly Pitch[]): FirstLook['range'] {
  if (pitches.length === 0) return null;
  const sorted = bottomUp(pitches);
  return { low: sorted[0], high: sorted[sorted.length - 1] };
}

/** Minutes for one part; a part that comes again costs nothing new, one with another ending what is new in it. */
function minutesFor(part: Part): number {
  const { repeats } = part;
  if (repeats?.kind === 'exact') return 0;
  const from = repeats?.kind === 'new-ending' ? (repeats.differsFrom ?? part.start) : part.start;
  const notes = part.melody.filter((n) => n.at >= from).length;
  const chords = part.chords.filter((c) => c.at >= from && !c.restruck).length;
  const hard = MINUTES.atRest + part.difficulty.score * MINUTES.perPoint;
  return (from === part.start ? MINUTES.part : 1) + (MINUTES.note * notes + MINUTES.chord * chords) * hard;
}
