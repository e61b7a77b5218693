import { distanceWords, midiOf, nameOf, type Pitch } from '../pitch/pitch.js';
import type { Form } from './candidates.js';

/** What one voice does at a chord change. `from` or `to` is null where a voice begins or ends. */
export interface VoiceMove {
  readonly from: Pitch | null;
  readonly to: Pitch | null;
  /** Semitones, up above 0. */
  readonly semitones: number;
  /** "stays", "up a whole step". */
  readonly words: string;
}

/** The voices of a change, top-down, as a pianist reads a chord. */
export function voiceMoves(from: readonly Pitch[], to: readonly Pitch[]): VoiceMove[] {
  const pairs: [Pitch | null, Pitch | null][] = [];
  if (from.length === to.length) from.forEach((p, i) => pairs.push([p, to[i]]));
  else {
    const [many, few] = from.length > to.length ? [from, to] : [to, from];
    const partner = nearestPartners(many.map(midiOf), few.map(midiOf));
    many.forEach((p, i) => {
      const other = partner[i] === null ? null : few[partner[i]];
      pairs.push(from.length > to.length ? [p, other] : [other, p]);
    });
  }
  return pairs
    .map(([a, b]): VoiceMove => {
      const semitones = a !== null && b !== null ? midiOf(b) - midiOf(a) : 0;
      return { from: a, to: b, semitones, words: moveWords(a, b, semitones) };
    })
    .reverse();
}

/** For every voice of the larger chord its voice in the smaller one, or null for those left over. */
function nearestPartners(many: readonly number[], few: readonly number[]): (number | null)[] {
  // Monotone matching of all of `few`, least motion: a small table over (i, j).
  const cost: number[][] = [];
  for (let i = 0; i <= many.length; i++) {
    cost.push([]);
    for (let j = 0; j <= few.length; j++) {
      if (j === 0) cost[i].push(0);
      else if (i < j) cost[i].push(Infinity);
      else cost[i].push(Math.min(cost[i - 1][j], cost[i - 1][j - 1] + Math.abs(many[i - 1] - few[j - 1])));
    }
  }
  const partner: (number | null)[] = many.map(() => null);
  let j = few.length;
  for (let i = many.length; i > 0 && j > 0; i--) {
    if (cost[i][j] === cost[i - 1][j]) continue;
    partner[i - 1] = --j;
  }
  return partner;
}

function moveWords(from: Pitch | null, to: Pitch | null, semitones: number): string {
  if (from === null) return 'joins';
  if (to === null) return 'rests';
  if (semitones === 0) return 'stays';
  return `${semitones > 0 ? 'up' : 'down'} ${distanceWords(semitones)}`;
}

/** Why a chord is not played in full: the hand does not reach it, the tune leaves no room, or it has too many notes. */
export type ThinCause = 'hand' | 'tune' | 'notes';

const BECAUSE: Readonly<Record<ThinCause, string>> = {
  hand: 'the whole chord is wider than this hand',
  tune: 'the whole chord would lie in the way of the tune or far from the hand',
  notes: 'the chord has more notes than the hand needs',
};

/** What was left out to make the chord fit, and why; null for a full chord. */
export function thinningWords(form: Form, cause: ThinCause): string | null {
  switch (form) {
    case 'no-fifth':
      return `The fifth is left out: ${BECAUSE[cause]}.`;
    case 'two-note':
      return `Two notes stand for it: ${BECAUSE[cause]}.`;
    case 'one-note':
      return `One note alone stands for it: ${BECAUSE[cause]}.`;
    case 'rootless':
      return 'The root is left out: the third and the seventh say which chord it is.';
    case 'full':
      return null;
  }
}

/** How a chord wider than the hand is played. */
export function spreadWords(spread: 'broken' | 'rolled', width: number, limit: number): string {
  const wide = `It spans ${width} half steps and this hand reaches ${limit}`;
  return spread === 'broken'
    ? `${wide}, so it is broken: the low note first, the rest a beat later, the pedal holding them together.`
    : `${wide}, so it is rolled from the bottom, the low note let go in the pedal.`;
}

/** Names in a row: "A", "A and C", "A, C and E". */
const listWords = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** A chord change in a sentence: "D and F stay; A falls to G; C falls to B." */
export function changeSentence(moves: readonly VoiceMove[]): string {
  const up = [...moves].reverse();
  const stays = up.filter((m) => m.from !== null && m.to !== null && m.semitones === 0).map((m) => nameOf(m.to as Pitch));
  const clauses: string[] = [];
  if (stays.length === moves.length) return 'Every key stays.';
  if (stays.length > 0) clauses.push(`${listWords(stays)} ${stays.length === 1 ? 'stays' : 'stay'}`);
  for (const m of up) {
    if (m.from === null) clauses.push(`${nameOf(m.to as Pitch)} joins`);
    else if (m.to === null) clauses.push(`${nameOf(m.from)} rests`);
    else if (m.semitones !== 0) clauses.push(`${nameOf(m.from)} ${m.semitones > 0 ? 'rises' : 'falls'} to ${nameOf(m.to)}`);
  }
  return `${clauses.join('; ')}.`;
}

const NUMBER_WORDS = ['none', 'one', 'two', 'three', 'four', 'five'];

/** The same in short: "two stay, two fall". */
export function changeInShort(moves: readonly VoiceMove[]): string {
  const whole = moves.filter((m) => m.from !== null && m.to !== null);
  const count = (test: (m: VoiceMove) => boolean) => whole.filter(test).length;
  const parts: string[] = [];
  const say = (n: number, one: string, many: string) => n > 0 && parts.push(`${NUMBER_WORDS[n]} ${n === 1 ? one : many}`);
  say(
    count((m) => m.semitones === 0),
    'stays',
    'stay',
  );
  say(
    count((m) => m.semitones > 0),
    'rises',
    'rise',
  );
  say(
    count((m) => m.semitones < 0),
    'falls',
    'fall',
  );
  return parts.join(', ');
}
