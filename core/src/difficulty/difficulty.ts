import type { VoicedChord } from '../left-hand/voice.js';
import { scaleOf, type Key } from '../harmony/key.js';
import { gripsOf } from '../left-hand/shapes.js';
import { isBlackKey, midiOf, nameOf, pitchClass, type Pitch } from '../pitch/pitch.js';
import { isHardJump, JUMP, type Jump } from '../join/jumps.js';
import { isSyncopated } from '../song/rhythm.js';
import type { Hand, Span } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, countTicks } from '../time/meter.js';
import { toSeconds, type Ticks } from '../time/ticks.js';
import { DIFFICULTY_TERMS, HANDS_TOGETHER, TOLD_LAST, type TermName } from './terms.js';

/** What makes a part hard, in figures. Speeds are for each second. */
export type DifficultyFact =
  | { readonly code: 'difficulty.speed'; readonly perSecond: number }
  | { readonly code: 'difficulty.jumps'; readonly hand: Hand; readonly jumps: number; readonly fast: number }
  | { readonly code: 'difficulty.moves'; readonly moves: number }
  | { readonly code: 'difficulty.right-stretches'; readonly stretches: number }
  | { readonly code: 'difficulty.right-struck'; readonly notes: number }
  | { readonly code: 'difficulty.right-black'; readonly black: number; readonly notes: number }
  | { readonly code: 'difficulty.syncopation'; readonly notes: number }
  | { readonly code: 'difficulty.no-rest'; readonly counts: number }
  | { readonly code: 'difficulty.left-speed'; readonly perSecond: number }
  | { readonly code: 'difficulty.changes'; readonly changes: number; readonly seconds: number }
  | { readonly code: 'difficulty.motion'; readonly semitones: number }
  | { readonly code: 'difficulty.left-stretches'; readonly chords: number }
  | { readonly code: 'difficulty.left-black' }
  | { readonly code: 'difficulty.big-chords'; readonly notes: number }
  | { readonly code: 'difficulty.leaps'; readonly leaps: number }
  | { readonly code: 'difficulty.accidentals'; readonly notes: number }
  | { readonly code: 'difficulty.black-turns'; readonly turns: number }
  | { readonly code: 'difficulty.shapes'; readonly shapes: number; readonly seconds: number }
  | { readonly code: 'difficulty.apart'; readonly times: number }
  | { readonly code: 'difficulty.between' };

/** How hard something is, 0 to 100, and the strongest reasons. */
export interface Load {
  readonly score: number;
  readonly reasons: readonly DifficultyFact[];
}

/** How hard a part is, by hand and together. */
export interface Difficulty extends Load {
  readonly right: Load;
  readonly left: Load;
  /** What the two hands ask of each other, 0 to 100. */
  readonly together: Load;
  /** Points of every term, for telling what sets one part apart from others. */
  readonly terms: readonly Term[];
}

/** What a part asks of the player. */
export interface PartLoad {
  readonly start: Ticks;
  readonly end: Ticks;
  readonly key: Key;
  readonly melody: readonly MelodyNote[];
  readonly chords: readonly VoicedChord[];
  /** The notes to which the right hand shifts or crosses, in the part. */
  readonly moves: readonly Pitch[];
  /** Grips or pairs of notes of the right hand past its comfortable span. */
  readonly stretches: number;
  /** Notes that the right hand strikes beside its tune for lengths of their own. */
  readonly inner: number;
  /** Jumps of both hands, in the part and into it. */
  readonly jumps: readonly Jump[];
  readonly leftSpan: Span;
  /** Quarter notes a minute. */
  readonly tempo: number;
}

/** One measure of a part: its name, the points that it costs, and the figures behind them. */
export interface Term {
  readonly name: TermName;
  readonly points: number;
  readonly reason: DifficultyFact;
}

const REASONS = 3;
/** Points under which a term is no reason worth a word. */
const WORTH_SAYING = 3;

/** How hard a part is: named terms, each from nothing to its weight between the two figures of {@link DIFFICULTY_TERMS}. */
export function partDifficulty(part: PartLoad, bars: readonly Bar[]): Difficulty {
  const right = rightTerms(part, bars);
  const left = part.chords.length > 0 ? leftTerms(part) : [];
  const together = part.chords.length > 0 ? togetherTerms(part, bars) : [];
  const [r, l, t] = [right, left, together].map(sum);
  const both = Math.max(r, l) + HANDS_TOGETHER.weaker * Math.min(r, l) + HANDS_TOGETHER.together * t;
  return {
    score: Math.min(100, Math.round(both)),
    reasons: reasonsOf([...right, ...left, ...together]),
    right: load(right),
    left: load(left),
    together: load(together),
    terms: [...right, ...left, ...together],
  };
}

const sum = (terms: readonly Term[]): number => terms.reduce((s, t) => s + t.points, 0);

function load(terms: readonly Term[]): Load {
  return { score: Math.min(100, Math.round(sum(terms))), reasons: reasonsOf(terms) };
}

function reasonsOf(terms: readonly Term[]): DifficultyFact[] {
  return terms
    .filter((t) => t.points >= WORTH_SAYING)
    .sort(toldFirst)
    .map((t) => t.reason)
    .slice(0, REASONS);
}

/** The dearest first; after them what the song's key and level ask for anyway. */
const toldFirst = (a: Term, b: Term): number =>
  Number(TOLD_LAST.has(a.name)) - Number(TOLD_LAST.has(b.name)) || b.points - a.points;

/** The points of a measure between the figure that is easy and the one that is hard. */
function term(name: TermName, value: number, reason: DifficultyFact): Term {
  const { easy, hard, points } = DIFFICULTY_TERMS[name];
  return { name, points: points * Math.max(0, Math.min(1, (value - easy) / (hard - easy))), reason };
}

function rightTerms(part: PartLoad, bars: readonly Bar[]): Term[] {
  const { melody, tempo } = part;
  if (melody.length === 0) return [];
  const seconds = toSeconds(part.end - part.start, tempo);
  const fastest = busiest(melody, tempo);
  const black = melody.filter((n) => isBlackKey(midiOf(n.pitch))).length;
  const ahead = melody.filter((n) => isSyncopated(n, bars)).length;
  const breath = longestRun(melody, bars);
  const leaps = leapsInRows(melody, bars);
  const foreign = melody.filter((n) => !inScale(n.pitch, part.key)).length;
  const doubled = melody.filter((n) => n.with).length + part.inner;
  const beside = melody.reduce((sum, n) => sum + (n.with?.length ?? 0), part.inner);
  const turns = part.moves.filter((p) => isBlackKey(midiOf(p))).length;
  return [
    term('leaps', leaps / seconds, { code: 'difficulty.leaps', leaps }),
    term('accidentals', foreign / melody.length, { code: 'difficulty.accidentals', notes: foreign }),
    term('blackTurns', turns / melody.length, { code: 'difficulty.black-turns', turns }),
    term('speed', fastest, { code: 'difficulty.speed', perSecond: fastest }),
    ...jumpTerms('rightJumps', part, 'right', seconds),
    term('moves', part.moves.length / seconds, { code: 'difficulty.moves', moves: part.moves.length }),
    term('rightStretches', part.stretches / melody.length, { code: 'difficulty.right-stretches', stretches: part.stretches }),
    term('rightStruck', beside / melody.length, { code: 'difficulty.right-struck', notes: doubled }),
    term('rightBlack', black / melody.length, { code: 'difficulty.right-black', black, notes: melody.length }),
    term('syncopation', ahead / melody.length, { code: 'difficulty.syncopation', notes: ahead }),
    term('breath', toSeconds(breath.ticks, tempo), { code: 'difficulty.no-rest', counts: breath.counts }),
  ];
}

/** True where a line rests for half a beat or more between two of its notes. */
const restsBetween = (before: MelodyNote, next: MelodyNote, bars: readonly Bar[]): boolean =>
  (next.at - before.at - before.length) * 2 >= beatTicks(barAt(bars, before.at).meter);

/** Half steps from which a step of the tune is a leap: a fourth. */
const LEAP = 5;

/** Leaps of a line that follow one another, two or more, with no rest of half a beat between them. */
function leapsInRows(melody: readonly MelodyNote[], bars: readonly Bar[]): number {
  let row = 0;
  let all = 0;
  const close = () => {
    if (row > 1) all += row;
    row = 0;
  };
  melody.slice(1).forEach((note, i) => {
    const before = melody[i];
    if (!restsBetween(before, note, bars) && Math.abs(midiOf(note.pitch) - midiOf(before.pitch)) >= LEAP) row++;
    else close();
  });
  close();
  return all;
}

/** True for a note of the key's scale; in minor keys the raised sixth and seventh belong to it. */
function inScale(pitch: Pitch, key: Key): boolean {
  const names = scaleOf(key);
  const pc = pitchClass(nameOf(pitch));
  const raised = key.mode === 'minor' ? [5, 6].map((d) => (pitchClass(names[d]) + 1) % 12) : [];
  return raised.includes(pc) || names.some((n) => pitchClass(n) === pc);
}

/** Notes a second over the liveliest second or so of a line. */
function busiest(melody: readonly MelodyNote[], tempo: number): number {
  const window = 4;
  if (melody.length <= window)
    return (
      melody.length /
      Math.max(1, toSeconds(melody[melody.length - 1].at + melody[melody.length - 1].length - melody[0].at, tempo))
    );
  let most = 0;
  for (let i = 0; i + window < melody.length; i++)
    most = Math.max(most, window / toSeconds(melody[i + window].at - melody[i].at, tempo));
  return most;
}

/** The longest stretch without a rest of half a beat or a note of two beats. */
function longestRun(melody: readonly MelodyNote[], bars: readonly Bar[]): { ticks: Ticks; counts: number } {
  let from = melody[0].at;
  let best = { ticks: 0, counts: 0 };
  melody.forEach((note, i) => {
    const { meter } = barAt(bars, note.at);
    const end = note.at + note.length;
    const next = melody[i + 1];
    const held = note.length >= 2 * beatTicks(meter);
    if (next && !held && !restsBetween(note, next, bars)) return;
    const ticks = (held ? note.at : end) - from;
    if (ticks > best.ticks) best = { ticks, counts: Math.round(ticks / countTicks(meter)) };
    if (next) from = next.at;
  });
  return best;
}

/** Hard jumps weigh by their number, and by how fast the fastest is. */
function jumpTerms(name: TermName, part: PartLoad, hand: 'left' | 'right', seconds: number): Term[] {
  const jumps = part.jumps.filter((j) => j.hand === hand && j.distance >= JUMP.distance);
  if (jumps.length === 0) return [];
  const hard = jumps.filter(isHardJump).length;
  const distance = jumps.reduce((s, j) => s + j.distance, 0);
  return [term(name, distance / seconds, { code: 'difficulty.jumps', hand, jumps: jumps.length, fast: hard })];
}

function leftTerms(part: PartLoad): Term[] {
  const { chords, tempo, leftSpan } = part;
  const seconds = toSeconds(part.end - part.start, tempo);
  const changes = chords.filter((c) => !c.restruck);
  const moved = changes.filter((c) => c.motion > 0);
  const motion = moved.length === 0 ? 0 : moved.reduce((s, c) => s + c.motion, 0) / moved.length;
  const keys = chords.flatMap((c) => c.pitches.map(midiOf));
  const black = keys.filter(isBlackKey).length / keys.length;
  const widest = (c: VoicedChord) => midiOf(c.pitches[c.pitches.length - 1]) - midiOf(c.pitches[0]);
  const stretches = chords.filter((c) => c.spread !== 'together' || widest(c) > leftSpan.comfortable).length;
  const notes = chords.reduce((s, c) => s + c.pitches.length, 0) / chords.length;
  const shapes = gripsOf(chords).length;
  const attacks = new Set(chords.flatMap((c) => c.struck.map((s) => s.at))).size / seconds;
  return [
    term('leftSpeed', attacks, { code: 'difficulty.left-speed', perSecond: attacks }),
    term('changes', changes.length / seconds, { code: 'difficulty.changes', changes: changes.length, seconds }),
    term('motion', motion, { code: 'difficulty.motion', semitones: motion }),
    ...jumpTerms('leftJumps', part, 'left', seconds),
    term('leftStretches', stretches / chords.length, { code: 'difficulty.left-stretches', chords: stretches }),
    term('leftBlack', black, { code: 'difficulty.left-black' }),
    term('notes', notes, { code: 'difficulty.big-chords', notes: Math.max(...chords.map((c) => c.pitches.length)) }),
    term('newShapes', (shapes - 1) / seconds, { code: 'difficulty.shapes', shapes, seconds }),
  ];
}

/** How often the hands strike apart: in faster values, and on the counts. */
function togetherTerms(part: PartLoad, bars: readonly Bar[]): Term[] {
  const { apart, between } = coordination(part, bars);
  const seconds = toSeconds(part.end - part.start, part.tempo);
  return [
    term('between', between / seconds, { code: 'difficulty.between' }),
    term('apart', apart / seconds, { code: 'difficulty.apart', times: apart }),
  ];
}

/**
 * Attacks of one hand alone between the counts, and of the left hand alone on them. A chord that is struck again under a held note asks
 * for nothing, nor does a tune that moves in eighths over a chord that lies still: of the tune only what answers the left hand counts.
 */
function coordination(part: Pick<PartLoad, 'melody' | 'chords'>, bars: readonly Bar[]): { apart: number; between: number } {
  const right = new Set(part.melody.map((n) => n.at));
  const again = new Set(part.chords.flatMap((c) => (c.restruck && c.struck.every((s) => s.at === c.at) ? [c.at] : [])));
  const left = new Set(part.chords.flatMap((c) => c.struck.map((s) => s.at)));
  const late = (at: Ticks) => {
    const bar = barAt(bars, at);
    return offsetInBar(bar, at) % countTicks(bar.meter);
  };
  const leftAlone = [...left].filter((at) => !right.has(at) && !again.has(at));
  const onCount = new Set(leftAlone.filter((at) => late(at) === 0));
  const answers = [...right].filter((at) => !left.has(at) && late(at) > 0 && onCount.has(at - late(at)));
  return { apart: onCount.size, between: leftAlone.length - onCount.size + answers.length };
}

/** The part that is hardest, and what sets it apart from the others. */
export interface Hardest {
  readonly part: number;
  readonly reasons: readonly DifficultyFact[];
}

/** The part with the highest score; null where there is one part only or all are equally hard. */
export function hardestOf(parts: readonly { readonly number: number; readonly difficulty: Difficulty }[]): Hardest | null {
  if (parts.length < 2) return null;
  const most = parts.reduce((a, b) => (b.difficulty.score > a.difficulty.score ? b : a));
  if (parts.every((p) => p.difficulty.score === most.difficulty.score)) return null;
  const pointsOf = (difficulty: Difficulty, name: TermName) =>
    difficulty.terms.filter((t) => t.name === name).reduce((s, t) => s + t.points, 0);
  const above = most.difficulty.terms
    .map((t) => ({ ...t, points: t.points - parts.reduce((s, p) => s + pointsOf(p.difficulty, t.name), 0) / parts.length }))
    .filter((t) => t.points > 0.5)
    .sort(toldFirst)
    .map((t) => t.reason);
  return { part: most.number, reasons: (above.length > 0 ? above : most.difficulty.reasons).slice(0, REASONS) };
}
