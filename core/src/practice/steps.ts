import type { Arrangement, Part } from '../arrange/arrangement.js';
import { midiOf } from '../pitch/pitch.js';
import { LADDER, rungsOf } from './ladder.js';
import type { Hand } from '../song/decisions.js';
import { barAt, firstAtOrAfter } from '../time/bars.js';
import { toQuarters } from '../time/ticks.js';
import { plainScore, type PracticeNote } from './score.js';
import type { JoinOrder, PracticeStep, StepKind, StepOrder } from '../log/step.js';

export interface StepWishes {
  readonly order: StepOrder;
  /** chain: each part to those before it. pairs: two and two, then fours. */
  readonly joins: JoinOrder;
}

/** From which share of the song's tempo a step begins, and to which it goes. */
const STEP_TEMPI: Readonly<Record<StepKind, readonly [slow: number, goal: number]>> = {
  right: [0.5, 1],
  left: [0.5, 1],
  slow: [0.4, 0.6],
  tempo: [0.6, 1],
  join: [0.6, 1],
  whole: [0.6, 1],
  fills: [0.5, 1],
};

/** Most parts that a chain holds: pieces stay small. */
const CHAIN = 4;

/**
 * All steps of a song in the order in which they are practised: each part by the right hand, the left hand, both slowly and both at
 * tempo; then the joins, the whole, and what dresses it. What repeats an earlier part key for key is learned once.
 */
export function stepsOf(arrangement: Arrangement, wishes: StepWishes): PracticeStep[] {
  const { parts } = arrangement;
  const played = parts.filter((p) => p.melody.length > 0 || p.chords.length > 0);
  const plain = plainScore(arrangement);
  const prints = {
    right: printsOf(plain.filter((n) => n.hand === 'right')),
    left: printsOf(plain.filter((n) => n.hand === 'left')),
  };
  const own = played.map((part) => partSteps(arrangement, part, prints));
  const order = played.map((p, i) => ({ hard: p.difficulty.score, i }));
  if (wishes.order === 'hardest-first') order.sort((a, b) => b.hard - a.hard || a.i - b.i);
  if (wishes.order === 'hardest-last') order.sort((a, b) => a.hard - b.hard || a.i - b.i);
  const make = maker(arrangement);
  const joins = joinsOf(played, wishes.joins).map(([from, to]) => make('join', from, to));
  const whole = played.length > 1 ? [make('whole', played[0], played[played.length - 1])] : [];
  const [plainly, asPlayed] = [printsOf(plain), printsOf(arrangement.score)];
  const dressed = played.filter((p) => plainly(p) !== asPlayed(p));
  const fills = dressed.map((p) => make('fills', p, p));
  const allDressed = dressed.length > 0 && played.length > 1 ? [make('fills', played[0], played[played.length - 1])] : [];
  return [...order.flatMap(({ i }) => own[i]), ...joins, ...whole, ...fills, ...allDressed];
}

/** Seconds to settle before a pass, and how much more time the hardest step takes than one without any difficulty. */
const SETTLE = 4;
const HARDEST = 2;

/** Minutes for all clean passes of all rungs, more where it is harder: rough passes come with difficulty. */
function minutesOf(step: Pick<PracticeStep, 'slow' | 'goal' | 'hard'>, quarters: number): number {
  const passes = rungsOf(step).reduce((sum, tempo) => sum + SETTLE + (60 * quarters) / tempo, 0);
  return Math.max(1, Math.round((LADDER.clean * passes * (1 + ((HARDEST - 1) * step.hard) / 100)) / 60));
}

const clampTempo = (tempo: number): number => Math.max(20, Math.round(tempo));

/** Makes the steps that span whole parts. */
function maker({ song, parts }: Arrangement): (kind: 'join' | 'whole' | 'fills', from: Part, to: Part) => PracticeStep {
  return (kind, from, to) => {
    const [low, high] = STEP_TEMPI[kind];
    const within = parts.slice(from.number - 1, to.number);
    const [slow, goal] = [clampTempo(song.tempo * low), clampTempo(song.tempo * high)];
    const hard = Math.max(...within.map((p) => p.difficulty.score));
    const whole = from.number === 1 && to.number === parts.length && parts.length > 1;
    return {
      id: `${kind}:${from.start}-${to.end}`,
      kind,
      parts: { from: from.number, to: to.number },
      whole,
      newEnding: false,
      from: from.start,
      to: to.end,
      hands: 'both',
      plain: kind !== 'fills',
      slow,
      goal,
      hard,
      minutes: minutesOf({ slow, goal, hard }, toQuarters(to.end - from.start)),
    };
  };
}

function partSteps(arrangement: Arrangement, part: Part, prints: Readonly<Record<Hand, Prints>>): PracticeStep[] {
  const { song, bars, parts } = arrangement;
  const repeats = part.repeats;
  const model = repeats ? parts[repeats.part - 1] : undefined;
  const known = (hand: Hand) => model !== undefined && prints[hand](part) === prints[hand](model);
  const [knowsRight, knowsLeft] = [known('right'), known('left')];
  if (knowsRight && knowsLeft) return [];
  // With a new ending, only the bars from the first difference are new.
  const differs = repeats?.kind === 'new-ending' ? repeats.differsFrom : null;
  const from = differs === null ? part.start : Math.max(part.start, barAt(bars, differs).start);
  const kinds: StepKind[] = [];
  if (part.melody.some((n) => n.at >= from) && !knowsRight) kinds.push('right');
  if (part.chords.some((c) => c.at >= from) && !knowsLeft) kinds.push('left');
  if (part.melody.length > 0 && part.chords.length > 0) kinds.push('slow', 'tempo');
  return kinds.map((kind) => {
    const [low, high] = STEP_TEMPI[kind];
    const { difficulty } = part;
    const hard = kind === 'right' ? difficulty.right.score : kind === 'left' ? difficulty.left.score : difficulty.score;
    const [slow, goal] = [clampTempo(song.tempo * low), clampTempo(song.tempo * high)];
    return {
      id: `${kind}:${from}-${part.end}`,
      kind,
      parts: { from: part.number, to: part.number },
      whole: false,
      newEnding: from !== part.start,
      from,
      to: part.end,
      hands: kind === 'right' || kind === 'left' ? kind : 'both',
      plain: true,
      slow,
      goal,
      hard,
      minutes: minutesOf({ slow, goal, hard }, toQuarters(part.end - from)),
    };
  });
}

/** Reads off what is played in a stretch, told from its start, so that stretches can be compared. */
export type Prints = (stretch: Pick<Part, 'start' | 'end'>) => string;

export function printsOf(score: readonly PracticeNote[]): Prints {
  const notes = [...score].sort((a, b) => a.at - b.at);
  return ({ start, end }) =>
    notes
      .slice(firstAtOrAfter(notes, start), firstAtOrAfter(notes, end))
      .map((n) => `${n.at - start} ${midiOf(n.pitch)}`)
      .sort()
      .join();
}

/** First and last part of every join; the whole song is a step of its own. */
function joinsOf(parts: readonly Part[], order: JoinOrder): (readonly [Part, Part])[] {
  const joins: (readonly [Part, Part])[] = [];
  if (order === 'chain') {
    for (let i = 1; i < parts.length; i++) if (parts.length > 2) joins.push([parts[Math.max(0, i - CHAIN + 1)], parts[i]]);
  } else {
    for (let size = 2; size < parts.length && size <= CHAIN; size *= 2)
      for (let i = 0; i + size / 2 < parts.length; i += size) joins.push([parts[i], parts[Math.min(i + size, parts.length) - 1]]);
  }
  return joins.filter(([a, b]) => !(a === parts[0] && b === parts[parts.length - 1]));
}
