import { chordName, positionName } from '../harmony/naming.js';
import { nameOf, pitchClass, type Pitch } from '../pitch/pitch.js';
import { spanOf, type Hands, type School } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import { capital } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Form, Voicing } from './candidates.js';
import { commonKeys, motionBetween } from './costs.js';
import { chordFingers } from './fingers.js';
import {
  costOf,
  solve,
  solveWithin,
  transition,
  travelOf,
  voicingProblem,
  type Layered,
  type Solved,
  type VoicingProblem,
  type VoicingWishes,
} from './problem.js';
import { changeInShort, changeSentence, spreadWords, thinningWords, voiceMoves, type VoiceMove } from './reasons.js';
import { spreadOf, struckNotes, type Spread, type StruckNote } from './spread.js';
import type { Strike } from './strikes.js';

/** Another way to play a chord, its neighbours staying as they are. */
export interface Alternative {
  readonly symbol: string;
  readonly position: string;
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  /** Semitones from the chord before. */
  readonly motion: number;
  /** What the whole path would cost more, in semitones of motion and their equals. */
  readonly cost: number;
  readonly why: string;
}

/** A chord in its place: the notes, the fingers, the change from the chord before and the reason. */
export interface VoicedChord {
  readonly at: Ticks;
  /** Where it is written, which may be after a chord that is struck early. */
  readonly writtenAt: Ticks;
  readonly length: Ticks;
  readonly symbol: string;
  readonly name: string;
  readonly again: boolean;
  readonly pinned: boolean;
  readonly school: School;
  readonly form: Form;
  readonly inversion: number | null;
  readonly position: string;
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  readonly spread: Spread;
  /** Each key as it is struck and let go. */
  readonly struck: readonly StruckNote[];
  /** Semitones that the voices move from the chord before; 0 for the first. */
  readonly motion: number;
  readonly common: number;
  readonly moves: readonly VoiceMove[];
  readonly inShort: string;
  readonly why: string;
  /** What was left out of the chord and why, or null. */
  readonly thinned: string | null;
  readonly alternatives: readonly Alternative[];
}

/** The left hand of a song. */
export interface LeftHand {
  readonly chords: readonly VoicedChord[];
  readonly cost: number;
  readonly travel: number;
  /** The travel of the same chords in root position under the same limits. */
  readonly travelRoot: number;
  /** What motion was weighed with: 1, or more where the table's minimum would travel more than root positions do. */
  readonly motionWeight: number;
}

const ALTERNATIVES = 5;

/**
 * Voices every strike for the left hand in the schools that are wished for: the exact minimum of the cost table over
 * the whole song, pinned chords being fixed points. Nearest inversions never travel more than root positions would:
 * where the table's minimum does, motion is weighed heavier. Strikes whose symbol is no chord are passed over.
 */
export function voiceLeftHand(strikes: readonly Strike[], melody: readonly MelodyNote[], wishes: VoicingWishes): LeftHand {
  const { posed, problem, choices, travelRoot } = solveLeftHand(strikes, melody, wishes);
  return {
    chords: problem.layers.map((_, i) => describe(problem, choices, i, wishes)),
    cost: costOf(posed, choices),
    travel: travelOf(problem.layers, choices),
    travelRoot,
    motionWeight: problem.motionWeight,
  };
}

/** The search alone: the problem as it is posed and as it was solved, the way through it, and the travel of the same chords in root position. */
export function solveLeftHand(
  strikes: readonly Strike[],
  melody: readonly MelodyNote[],
  wishes: VoicingWishes,
): Solved & { readonly posed: VoicingProblem; readonly travelRoot: number } {
  const posed = voicingProblem(strikes, melody, wishes);
  const rooted = voicingProblem(strikes, melody, { ...wishes, schoolAt: () => 'root', bassAt: () => 'free' });
  const travelRoot = travelOf(rooted.layers, solve(rooted).choices);
  const nearest = posed.layers.every((l) => l.school === 'close' && l.bass === 'free');
  const solved = nearest ? solveWithin(posed, travelRoot) : { problem: posed, choices: solve(posed).choices };
  return { ...solved, posed, travelRoot };
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
  const position = positionName(chord, nameOf(voicing.pitches[0]));
  const spread = spreadOf(voicing, strike);
  const thinned = pinned ? null : thinning(layer, voicing);
  const chosen = fingers?.get(strike.writtenAt);
  return {
    at: strike.at,
    writtenAt: strike.writtenAt,
    length: strike.length,
    symbol: chord.text,
    name: chordName(chord),
    again: strike.again,
    pinned,
    school: layer.school,
    form: voicing.form,
    inversion: voicing.inversion,
    position,
    pitches: voicing.pitches,
    fingers: chosen?.length === voicing.pitches.length ? chosen : chordFingers(voicing.midis, voicing.inversion),
    spread,
    struck: struckNotes(voicing.pitches, spread, strike),
    motion: before ? motionBetween(before.midis, voicing.midis) : 0,
    common: before ? commonKeys(before.midis, voicing.midis) : 0,
    moves,
    inShort: changeInShort(moves),
    why: [...reason(layers, choices, i, moves, position), ...(thinned ? [thinned] : []), ...width(voicing, spread, hands)].join(
      ' ',
    ),
    thinned,
    alternatives: alternatives(problem, choices, i),
  };
}

function width(voicing: Voicing, spread: Spread, hands: Hands): string[] {
  if (spread === 'together') return [];
  const span = voicing.midis[voicing.midis.length - 1] - voicing.midis[0];
  return [spreadWords(spread, span, spanOf(hands, 'left').limit)];
}

/** What was left out of a chord that its school plays in full. */
function thinning({ school, free, chord }: Layered, { form }: Voicing): string | null {
  if (school !== 'close' && school !== 'root') return null;
  const whole = free.voicings.some((v) => v.form === 'full');
  return thinningWords(form, whole ? 'tune' : chord.tones.length > 4 ? 'notes' : 'hand');
}

function reason(
  layers: readonly Layered[],
  choices: readonly number[],
  i: number,
  moves: readonly VoiceMove[],
  position: string,
): string[] {
  const { voicings, pinned, strike, school, bass } = layers[i];
  const voicing = voicings[choices[i]];
  const before = i > 0 ? layers[i - 1].voicings[choices[i - 1]] : null;
  const said: string[] = [];
  if (pinned) said.push('You chose this place.');
  if (before === null) said.push(`The hand starts here, in ${position}.`);
  else if (strike.again && layers[i - 1].strike.symbol === strike.symbol && moves.every((m) => m.semitones === 0))
    said.push('The same chord again: every key stays.');
  else said.push(changeSentence(moves));
  if (before && !pinned && school === 'close' && bass === 'free') said.push(...comparison(layers[i], voicing, before));
  if (before && !pinned && bass !== 'free' && voicing.midis[0] !== before.midis[0]) {
    const falls = voicing.midis[0] < before.midis[0];
    said.push(
      bass === 'held' || falls !== (bass === 'falling')
        ? `The bass ${falls ? 'falls' : 'rises'} here: no ${bass} bass was within reach.`
        : `The bass ${falls ? 'falls' : 'rises'}, as you asked.`,
    );
  }
  return said;
}

/** What speaks for a voicing against the others: less motion than root position, or a nearer way for what follows. */
function comparison(layer: Layered, voicing: Voicing, before: Voicing): string[] {
  const now = motionBetween(before.midis, voicing.midis);
  const others = layer.voicings
    .filter((v) => v.form === voicing.form && v.inversion !== voicing.inversion)
    .map((v) => ({ v, motion: motionBetween(before.midis, v.midis) }));
  const nearer = others.filter((o) => o.motion < now).sort((a, b) => a.motion - b.motion)[0];
  const bottom = (v: Voicing) => positionName(layer.chord, nameOf(v.pitches[0]));
  if (nearer)
    return [
      `${capital(bottom(nearer.v))} would move ${nearer.motion} here instead of ${now}, but cost more on the way to the next chords or under the tune.`,
    ];
  if (voicing.inversion === 0) return [];
  const root = Math.min(...others.filter((o) => o.v.inversion === 0).map((o) => o.motion));
  return Number.isFinite(root) && root > now ? [`Root position would move ${root} half steps, this moves ${now}.`] : [];
}

/** What a voicing is called in a list of others. */
function shapeName(layer: Layered, voicing: Voicing): string {
  const { pitches } = voicing;
  const position = positionName(layer.chord, nameOf(pitches[0]));
  if (pitches.length === 1) return 'one note';
  const width = voicing.midis[voicing.midis.length - 1] - voicing.midis[0];
  if (pitches.length === 2) {
    if (pitchClass(nameOf(pitches[0])) === pitchClass(nameOf(pitches[1]))) return 'octave';
    return `two notes, ${nameOf(pitches[0])} below`;
  }
  if (width > 13 && pitches.length === 3) return 'open';
  return voicing.form === 'no-fifth' ? `${position}, no fifth` : voicing.form === 'rootless' ? 'without the root' : position;
}

function alternatives({ layers, step, motionWeight }: VoicingProblem, choices: readonly number[], i: number): Alternative[] {
  const { chord, strike, school } = layers[i];
  const current = layers[i].voicings[choices[i]];
  // A pinned chord is compared with what could be there instead.
  const { voicings, costs } = layers[i].free;
  const own = layers[i].voicings === voicings;
  const around = (v: Voicing, alone: number, index: number | null) => {
    const cost = (j: number, a: number | null, b: number | null, x: Voicing, y: Voicing) =>
      a !== null && b !== null
        ? step(j, a, b)
        : transition(x, y, layers[j - 1].strike.symbol === layers[j].strike.symbol, layers[j].bass, motionWeight);
    let sum = alone;
    if (i > 0) sum += cost(i, choices[i - 1], index, layers[i - 1].voicings[choices[i - 1]], v);
    if (i + 1 < layers.length) sum += cost(i + 1, index, choices[i + 1], v, layers[i + 1].voicings[choices[i + 1]]);
    return sum;
  };
  const here = around(current, layers[i].costs[choices[i]], choices[i]);
  const before = i > 0 ? layers[i - 1].voicings[choices[i - 1]] : null;
  const ranked = voicings
    .map((v, c) => ({ v, cost: around(v, costs[c], own ? c : null) - here }))
    .filter(({ v }) => v.midis.join() !== current.midis.join())
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
  return kept.slice(0, ALTERNATIVES).map(({ v, cost }): Alternative => {
    const bottom = nameOf(v.pitches[0]);
    const moves = before ? voiceMoves(before.pitches, v.pitches) : [];
    const position = shapeName(layers[i], v);
    return {
      symbol: v.inversion === 0 || chord.bass !== null ? chord.text : `${chord.text}/${bottom}`,
      position,
      pitches: v.pitches,
      fingers: chordFingers(v.midis, v.inversion),
      motion: before ? motionBetween(before.midis, v.midis) : 0,
      cost: Math.round(cost * 100) / 100,
      why: before && strike.at > 0 ? changeSentence(moves) : `${capital(position)}, ${v.pitches.length} notes.`,
    };
  });
}
