import { positionOf, type Position } from '../harmony/naming.js';
import type { Chord } from '../harmony/symbol.js';
import { midiOf, nameOf, pitchClass, type Pitch } from '../pitch/pitch.js';
import { spanOf, type Hands, type School } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';
import { fifthOf } from '../catalogue/schools/tones.js';
import { isDominantSeventh, type Form } from '../catalogue/schools/thinned.js';
import type { Voicing, VoicingWish } from './candidates.js';
import { commonKeys, motionBetween } from './costs.js';
import { chordFingers, pairFingers } from '../fingers/chords.js';
import {
  termsAt,
  transition,
  travelOf,
  voicingProblem,
  type Layered,
  type Homes,
  type TermCost,
  type VoicingProblem,
  type VoicingWishes,
} from './problem.js';
import {
  voiceMoves,
  type TermDifference,
  type ThinCause,
  type VoiceMove,
  type VoicingFact,
  type VoicingShape,
} from './reasons.js';
import { homesIn } from './homes.js';
import { pathCost, settled, solve, solveWithin, type Solved } from './settle.js';
import { spreadOf, struckNotes, type Spread, type StruckNote } from './spread.js';
import type { Strike } from './strikes.js';

/** Another way to play a chord, its neighbours staying as they are. */
export interface Alternative {
  readonly symbol: string;
  readonly shape: VoicingShape;
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  /** Semitones from the chord before. */
  readonly motion: number;
  /** What the whole path would cost more, in semitones of motion and their equals. */
  readonly cost: number;
  readonly why: VoicingFact;
}

/** A chord in its place: the notes, the fingers, the change from the chord before and the reason. */
export interface VoicedChord {
  readonly at: Ticks;
  /** Where it is written, which may be after a chord that is struck early. */
  readonly writtenAt: Ticks;
  readonly length: Ticks;
  readonly symbol: string;
  readonly restruck: boolean;
  readonly pinned: boolean;
  readonly school: School;
  readonly form: Form;
  readonly inversion: number | null;
  readonly position: Position;
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  readonly spread: Spread;
  /** Each key as it is struck and let go. */
  readonly struck: readonly StruckNote[];
  /** Semitones that the voices move from the chord before; 0 for the first. */
  readonly motion: number;
  readonly common: number;
  readonly moves: readonly VoiceMove[];
  /** Why it lies this way: the change from the chord before, then what decided against the nearest alternative. */
  readonly why: readonly VoicingFact[];
  /** What was left out of the chord and why, or null. */
  readonly thinned: (VoicingFact & { readonly code: 'voicing.thinned' }) | null;
  readonly alternatives: readonly Alternative[];
}

/** True for a chord that is struck with the very keys that it was voiced with: no texture takes it apart or goes another way. */
export function isPlayedAsVoiced({ pitches, struck }: Pick<VoicedChord, 'pitches' | 'struck'>): boolean {
  const keys = new Set(struck.map((n) => n.pitch));
  return struck.length > 0 && keys.size === pitches.length && pitches.every((p) => keys.has(p));
}

/** The left hand of a song. */
export interface LeftHand {
  readonly chords: readonly VoicedChord[];
  readonly cost: number;
  readonly travel: number;
  /** The travel of the same chords in root position under the same limits. */
  readonly travelRoot: number;
  /** The keys that each symbol has through the song, by what tells symbols apart. */
  readonly homes: Homes;
  /** What motion was weighed with: 1, or more where the table's minimum would travel more than root positions do. */
  readonly motionWeight: number;
}

const ALTERNATIVES = 5;

/** What is worked out once for a chord on a way through a problem: all times of a repeated part are told alike. */
function oncePerChord<T>(): (problem: VoicingProblem, choices: readonly number[], i: number, make: () => T) => T {
  const ways = new WeakMap<readonly number[], Map<number, T>>();
  return ({ layers }, choices, i, make) => {
    const { as } = layers[i];
    let known = ways.get(choices);
    if (!known) ways.set(choices, (known = new Map<number, T>()));
    const have = known.get(as);
    if (have !== undefined) return have;
    const made = make();
    known.set(as, made);
    return made;
  };
}

/**
 * Voices every strike for the left hand in the schools that are wished for: the exact minimum of the cost table over
 * the whole song, pinned chords being fixed points. Nearest inversions never travel more than root positions would:
 * where the table's minimum does, motion is weighed heavier. Strikes whose symbol is no chord are passed over.
 */
export function voiceLeftHand(strikes: readonly Strike[], melody: readonly MelodyNote[], wishes: VoicingWishes): LeftHand {
  const { posed, problem, choices, travelRoot } = solveLeftHand(strikes, melody, wishes);
  return {
    chords: withPairs(
      problem.layers.map((_, i) => describe(problem, choices, i, wishes)),
      wishes,
    ),
    cost: pathCost(posed, choices),
    travel: travelOf(choices.map((c, i) => problem.layers[i].voicings[c])),
    travelRoot,
    homes: homesIn(problem.layers),
    motionWeight: problem.motionWeight,
  };
}

/** The chords with those of two notes fingered from the place where the hand lies; chosen fingers stay. */
function withPairs(chords: readonly VoicedChord[], { fingers, hands }: VoicingWishes): VoicedChord[] {
  const isPair = (c: VoicedChord) => c.school === 'two-note' && c.pitches.length === 2 && fingers?.get(c.writtenAt)?.length !== 2;
  const rows = pairFingers(
    chords.filter(isPair).map((c) => c.pitches.map(midiOf)),
    hands,
  );
  let next = 0;
  return chords.map((c) => (isPair(c) ? { ...c, fingers: rows[next++] } : c));
}

/** The search alone: the problem as it is posed and as it was solved, the way through it, and the travel of the same chords in root position. */
export function solveLeftHand(
  strikes: readonly Strike[],
  melody: readonly MelodyNote[],
  wishes: VoicingWishes,
): Solved & { readonly posed: VoicingProblem; readonly travelRoot: number } {
  const posed = voicingProblem(strikes, melody, wishes);
  const rooted = voicingProblem(strikes, melody, { ...wishes, schoolAt: () => 'root', bassAt: () => 'free' }, 'school-alone');
  const { choices } = solve(rooted);
  const inRoot = choices.map((c, i) => rooted.layers[i].voicings[c]);
  const nearest = posed.layers.every((l) => l.school === 'close' && l.bass === 'free');
  const solved = nearest ? solveWithin(posed, inRoot, wishes.homes) : settled(posed, wishes.homes);
  return { ...solved, posed, travelRoot: travelOf(inRoot) };
}

function describe(
  problem: VoicingProblem,
  choices: readonly number[],
  i: number,
  { hands, fingers }: VoicingWishes,
): VoicedChord {
  const { layers } = problem;
  const layer = layers[i];
  const { strike, chord, pinned } = layer;
  const voicing = layer.voicings[choices[i]];
  const before = i > 0 ? layers[i - 1].voicings[choices[i - 1]] : null;
  const moves = before ? voiceMoves(before.pitches, voicing.pitches) : [];
  const position = positionOf(chord, nameOf(voicing.pitches[0]));
  const spread = spreadOf(voicing, strike);
  const thinned = pinned ? null : thinning(layer, voicing);
  const chosen = fingers?.get(strike.writtenAt);
  const others = alternatives(problem, choices, i, hands);
  return {
    at: strike.at,
    writtenAt: strike.writtenAt,
    length: strike.length,
    symbol: chord.text,
    restruck: strike.restruck,
    pinned,
    school: layer.school,
    form: voicing.form,
    inversion: voicing.inversion,
    position,
    pitches: voicing.pitches,
    fingers: chosen?.length === voicing.pitches.length ? chosen : chordFingers(voicing.midis, hands, spread !== 'together'),
    spread,
    struck: struckNotes(voicing.pitches, spread, strike),
    motion: before ? motionBetween(before.midis, voicing.midis) : 0,
    common: before ? commonKeys(before.midis, voicing.midis) : 0,
    moves,
    why: [
      ...reason(layers, choices, i, moves, position),
      ...(thinned ? [thinned] : []),
      ...threeNotes(layer, voicing),
      ...width(voicing, spread, hands),
      ...decision(problem, choices, i, others, hands),
    ],
    thinned,
    alternatives: others.map(({ alternative }) => alternative),
  };
}

/** Why a dominant seventh has three notes, said where it is not the pianist's own choice of keys. */
function threeNotes({ chord, wish, pinned, strike, school }: Layered, { form }: Voicing): VoicingFact[] {
  if (pinned || strike.restruck || (school !== 'close' && school !== 'root') || !inThreeNotes(chord, wish, form)) return [];
  return fifthOf(chord).map(({ name }) => ({ code: 'voicing.three-notes', fifth: name }));
}

function width(voicing: Voicing, spread: Spread, hands: Hands): VoicingFact[] {
  if (spread === 'together') return [];
  const span = voicing.midis[voicing.midis.length - 1] - voicing.midis[0];
  return [{ code: 'voicing.spread', spread, width: span, limit: spanOf(hands, 'left').limit }];
}

/** True for a dominant seventh that is played with three notes because it is wished so. */
const inThreeNotes = (chord: Chord, { dominants }: VoicingWish, form: Form): boolean =>
  form === 'no-fifth' && (dominants === 'all-three' || (dominants === 'three' && isDominantSeventh(chord)));

/** What was left out of a chord that its school plays in full. */
function thinning({ school, free, chord, wish }: Layered, { form }: Voicing): VoicedChord['thinned'] {
  if (inThreeNotes(chord, wish, form)) return null;
  if ((school !== 'close' && school !== 'root') || form === 'full') return null;
  const whole = free.voicings.some((v) => v.form === 'full');
  const cause: ThinCause = whole ? 'tune' : chord.tones.length > 4 ? 'notes' : 'hand';
  return { code: 'voicing.thinned', form, cause };
}

function reason(
  layers: readonly Layered[],
  choices: readonly number[],
  i: number,
  moves: readonly VoiceMove[],
  position: Position,
): VoicingFact[] {
  const { voicings, pinned, strike, bass } = layers[i];
  const voicing = voicings[choices[i]];
  const before = i > 0 ? layers[i - 1].voicings[choices[i - 1]] : null;
  const facts: VoicingFact[] = [];
  if (pinned) facts.push({ code: 'voicing.yours' });
  if (before === null) facts.push({ code: 'voicing.starts', position });
  else if (strike.restruck && layers[i - 1].strike.symbol === strike.symbol && moves.every((m) => m.semitones === 0))
    facts.push({ code: 'voicing.same-again' });
  else facts.push({ code: 'voicing.change', moves });
  if (before && !pinned && bass !== 'free' && voicing.midis[0] !== before.midis[0]) {
    const rises = voicing.midis[0] > before.midis[0];
    facts.push({ code: 'voicing.bass-line', rises, asked: bass, followed: bass !== 'held' && rises === (bass === 'rising') });
  }
  return facts;
}

/** Semitones, or their equals, by which a term has to differ to have had a say. */
const DECISIVE = 0.25;

/** What decided against the nearest alternative: the terms of the search in which the two differ, the weightiest first. */
function decision(
  problem: VoicingProblem,
  choices: readonly number[],
  i: number,
  others: readonly Rival[],
  hands: Hands,
): VoicingFact[] {
  const { layers } = problem;
  // A chord with notes left out says little against a whole one: the nearest alternative of the same fullness does.
  const rival = others.find((o) => o.voicing.form === layersAt(problem, choices, i).form) ?? others[0];
  if (layers[i].pinned || layers[i].strike.restruck || !rival) return [];
  const decided = decidedOn(problem, choices, i, () => against(problem, choices, i, rival, hands));
  return decided ? [decided] : [];
}

/** What was decided on a way already. */
const decidedOn = oncePerChord<VoicingFact | null>();

/** What decides against a rival; null where the two differ in nothing that counts. */
function against(
  problem: VoicingProblem,
  choices: readonly number[],
  i: number,
  { voicing, alternative }: Rival,
  hands: Hands,
): VoicingFact | null {
  const terms = termDifferences(problem, choices, i, voicing, hands).filter((t) => Math.abs(t.saved) >= DECISIVE);
  return terms.length === 0 ? null : { code: 'voicing.decided', against: alternative.shape, more: alternative.cost, terms };
}

/**
 * What the search has against (and for) one of the alternatives of a chord, asked for by its keys; null where there is no such
 * alternative, or where it would be as good.
 */
export function whyNotVoicing(
  problem: VoicingProblem,
  choices: readonly number[],
  i: number,
  pitches: readonly Pitch[],
  hands: Hands,
): VoicingFact | null {
  const asked = alternatives(problem, choices, i, hands).find(({ alternative }) => alternative.pitches.join() === pitches.join());
  return asked ? against(problem, choices, i, asked, hands) : null;
}

/** A voicing at its place with what it costs there, term by term. */
export interface ExplainedVoicing {
  readonly shape: VoicingShape;
  readonly pitches: readonly Pitch[];
  readonly terms: readonly TermCost[];
}

/** The chosen voicing of a chord and its nearest alternative, or another that is asked about, its neighbours staying as they are. */
export function explainVoicing(
  problem: VoicingProblem,
  choices: readonly number[],
  i: number,
  hands: Hands,
  against?: readonly Pitch[],
): { readonly chosen: ExplainedVoicing; readonly rival: ExplainedVoicing | null } {
  const { layers } = problem;
  const explained = (here: Voicing): ExplainedVoicing => ({
    shape: shapeIn(layers[i].chord, here),
    pitches: here.pitches,
    terms: termsIn(problem, choices, i, here, hands),
  });
  const asked = against && layers[i].free.voicings.find((v) => v.pitches.join() === against.join());
  const rival = against ? asked : alternatives(problem, choices, i, hands)[0]?.voicing;
  return { chosen: explained(layersAt(problem, choices, i)), rival: rival ? explained(rival) : null };
}

/** What a voicing costs in the place of the chosen one, in all its times, its neighbours staying as they are. */
function termsIn(problem: VoicingProblem, choices: readonly number[], i: number, here: Voicing, hands: Hands): TermCost[] {
  const { layers } = problem;
  const { times } = layers[i];
  const again = new Set(times);
  const at = (k: number) => (k < 0 || k >= layers.length ? null : again.has(k) ? here : layers[k].voicings[choices[k]]);
  if (times.length === 1) return termsAt(problem, i, { before: at(i - 1), here, after: at(i + 1) }, hands);
  const sums = new Map<string, TermCost>();
  for (const k of times)
    for (const t of termsAt(problem, k, { before: at(k - 1), here, after: again.has(k + 1) ? null : at(k + 1) }, hands)) {
      const key = `${t.where} ${t.term}`;
      sums.set(key, { ...t, cost: t.cost + (sums.get(key)?.cost ?? 0) });
    }
  return [...sums.values()].filter((t) => t.cost !== 0);
}

/** What the chosen voicing of a chord saves against another at the same place, term by term, the largest differences first. */
function termDifferences(
  problem: VoicingProblem,
  choices: readonly number[],
  i: number,
  other: Voicing,
  hands: Hands,
): TermDifference[] {
  const key = (t: { term: string; where: string }) => `${t.where} ${t.term}`;
  const chosen = termsIn(problem, choices, i, layersAt(problem, choices, i), hands);
  const rival = termsIn(problem, choices, i, other, hands);
  const costs = new Map(chosen.map((t) => [key(t), t]));
  const all = [...chosen, ...rival.filter((t) => !costs.has(key(t))).map((t) => ({ ...t, cost: 0 }))];
  const against = new Map(rival.map((t) => [key(t), t.cost]));
  return all
    .map((t) => ({ ...t, saved: Math.round(((against.get(key(t)) ?? 0) - t.cost) * 100) / 100 }))
    .sort((a, b) => Math.abs(b.saved) - Math.abs(a.saved));
}

const layersAt = ({ layers }: VoicingProblem, choices: readonly number[], i: number): Voicing => layers[i].voicings[choices[i]];

/** What a voicing is called in a list of others. */
function shapeIn(chord: Chord, { pitches, midis, form }: Voicing): VoicingShape {
  if (pitches.length === 1) return { kind: 'one-note' };
  if (pitches.length === 2)
    return pitchClass(nameOf(pitches[0])) === pitchClass(nameOf(pitches[1]))
      ? { kind: 'octave' }
      : { kind: 'two-notes', bottom: nameOf(pitches[0]) };
  if (midis[midis.length - 1] - midis[0] > 13 && pitches.length === 3) return { kind: 'open' };
  const position = positionOf(chord, nameOf(pitches[0]));
  return { kind: 'close', position, form: form === 'no-fifth' || form === 'rootless' ? form : 'full' };
}

/** An alternative with the voicing that it is. */
interface Rival {
  readonly voicing: Voicing;
  readonly alternative: Alternative;
}

/** Another voicing of a chord, and what the whole way would cost more with it. */
interface Ranked {
  readonly v: Voicing;
  readonly cost: number;
}

/** What was ranked on a way already. */
const rankedOn = oncePerChord<readonly Ranked[]>();

/** The best other voicings of a chord, everything else staying as it is. In a part that comes again it changes in all its times. */
function rankOthers({ layers, step, motionWeight }: VoicingProblem, choices: readonly number[], i: number): readonly Ranked[] {
  const { school, times } = layers[i];
  const current = layers[i].voicings[choices[i]];
  // A pinned chord is compared with what could be there instead.
  const { voicings } = layers[i].free;
  const own = layers[i].voicings === voicings;
  const again = new Set(times);
  const at = (k: number, v: Voicing) => (again.has(k) ? v : layers[k].voicings[choices[k]]);
  const between = (k: number, v: Voicing) =>
    transition(at(k - 1, v), at(k, v), layers[k - 1].strike.symbol === layers[k].strike.symbol, layers[k].bass, motionWeight);
  /** What a voicing costs in all times of the chord, by its number where the search has it. */
  const around = (v: Voicing, alone: (k: number) => number, index: number | null) => {
    let sum = 0;
    for (const k of times) {
      sum += alone(k);
      if (k > 0) sum += index === null ? between(k, v) : step(k, again.has(k - 1) ? index : choices[k - 1], index);
      if (k + 1 < layers.length && !again.has(k + 1))
        sum += index === null ? between(k + 1, v) : step(k + 1, index, choices[k + 1]);
    }
    return sum;
  };
  const here = around(current, (k) => layers[k].costs[choices[k]], choices[i]);
  const ranked = voicings
    .map((v, c) => ({ v, cost: around(v, (k) => layers[k].free.costs[c], own ? c : null) - here }))
    .filter(({ v }) => !haveSameKeys(v, current))
    .sort((a, b) => a.cost - b.cost);
  const seen = new Set<string>();
  const kept = ranked.filter(({ v }) => {
    if (v.form === 'one-note' && school !== 'single-bass' && school !== 'under-melody') return false;
    // A full chord may come in two octaves, anything thinner once for each bottom note.
    const shape = `${v.pitches.length} ${v.inversion}`;
    if (v.form !== 'full' && seen.has(shape)) return false;
    seen.add(shape);
    return true;
  });
  return kept.slice(0, ALTERNATIVES);
}

const haveSameKeys = (a: Voicing, b: Voicing): boolean =>
  a === b || (a.midis.length === b.midis.length && a.midis.every((key, i) => key === b.midis[i]));

function alternatives(problem: VoicingProblem, choices: readonly number[], i: number, hands: Hands): Rival[] {
  const { layers } = problem;
  const { chord, strike } = layers[i];
  const before = i > 0 ? layers[i - 1].voicings[choices[i - 1]] : null;
  return rankedOn(problem, choices, i, () => rankOthers(problem, choices, i)).map(({ v, cost }): Rival => {
    const bottom = nameOf(v.pitches[0]);
    const shape = shapeIn(chord, v);
    const alternative: Alternative = {
      symbol: v.inversion === 0 || chord.bass !== null ? chord.text : `${chord.text}/${bottom}`,
      shape,
      pitches: v.pitches,
      fingers: chordFingers(v.midis, hands, v.spread),
      motion: before ? motionBetween(before.midis, v.midis) : 0,
      cost: Math.round(cost * 100) / 100,
      why:
        before && strike.at > 0
          ? { code: 'voicing.change', moves: voiceMoves(before.pitches, v.pitches) }
          : { code: 'voicing.shape', shape, notes: v.pitches.length },
    };
    return { voicing: v, alternative };
  });
}
