import type { Arrangement, PartChord } from '../../arrange/arrangement.js';
import type { Key } from '../../harmony/key.js';
import { positionOf, type Position } from '../../harmony/naming.js';
import { parseChord, type Chord } from '../../harmony/symbol.js';
import { chordFingers, rightFingers } from '../../fingers/chords.js';
import { midiOf, nameOf, octaveUp, pitchAt, pitchClass, type NoteName, type Pitch } from '../../pitch/pitch.js';
import { chances } from '../../practice/stand-in-player.js';
import type { Hand, Hands } from '../../song/decisions.js';
import type { Cadence } from './cadences.js';

/** Keys to be struck together. */
export interface DrillGrip {
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  readonly label: GripLabel;
}

/** What keys are called: a chord as it lies, or a single key. */
export type GripLabel = { readonly symbol: string; readonly position: Position } | { readonly pitch: Pitch };

/** What a task asks for. */
export type TaskFact =
  | { readonly code: 'task.cadence'; readonly cadence: Cadence; readonly key: Key; readonly symbols: readonly string[] }
  | { readonly code: 'task.inversions'; readonly symbol: string }
  | { readonly code: 'task.seventh'; readonly symbol: string }
  | { readonly code: 'task.play'; readonly symbol: string; readonly position: Position }
  | { readonly code: 'task.which-chord' }
  | { readonly code: 'task.which-position'; readonly symbol: string }
  | { readonly code: 'task.change'; readonly from: string; readonly to: string; readonly semitones: number }
  | { readonly code: 'task.jump'; readonly from: Pitch; readonly to: Pitch; readonly semitones: number }
  | { readonly code: 'task.run'; readonly run: 'scale' | 'arpeggio'; readonly key: Key; readonly hand: Hand }
  | { readonly code: 'task.song-chords' };

/** What a drill is called. */
export type DrillFact =
  | { readonly code: 'drill.cadence'; readonly cadence: Cadence }
  | { readonly code: 'drill.inversions'; readonly symbol: string }
  | { readonly code: 'drill.sevenths'; readonly key: Key }
  | { readonly code: 'drill.from-names' }
  | { readonly code: 'drill.to-names' }
  | { readonly code: 'drill.positions' }
  | { readonly code: 'drill.hard-moves'; readonly song: string }
  | { readonly code: 'drill.run'; readonly run: 'scale' | 'arpeggio'; readonly key: Key; readonly hand: Hand }
  | { readonly code: 'drill.song-chords' }
  | { readonly code: 'drill.warm-up'; readonly song: string };

/** A name that is chosen from. */
export type DrillAnswer = { readonly symbol: string } | { readonly position: Position };

/** One question of a drill: keys to play one after another, or keys to put a name to. */
export interface DrillTask {
  readonly ask: TaskFact;
  /** What is to be played; what is shown where a name is asked for. */
  readonly grips: readonly DrillGrip[];
  readonly hand: Hand;
  /** The keys may be played in any octave. */
  readonly anyOctave: boolean;
  /** The keys and fingers stand in sight from the start; otherwise only when help is asked for. */
  readonly shown: boolean;
  /** Names to choose from, and the place of the right one among them; null where keys are to be played. */
  readonly names: { readonly all: readonly DrillAnswer[]; readonly right: number } | null;
}

/** A row of questions. */
export interface Drill {
  readonly id: string;
  readonly title: DrillFact;
  readonly tasks: readonly DrillTask[];
}

export const gripOf = (c: Pick<PartChord, 'pitches' | 'fingers' | 'symbol' | 'position'>): DrillGrip => ({
  pitches: c.pitches,
  fingers: c.fingers,
  label: { symbol: c.symbol, position: c.position },
});

/** The next key above one that a name stands for. */
export const nextUp = (name: NoteName, above: number): number => above + 1 + ((pitchClass(name) - above - 1 + 240) % 12);

/** Keys of a chord as it lies. */
export type ChordGrip = DrillGrip & { readonly label: { readonly symbol: string; readonly position: Position } };

export function inversionsOf(chord: Chord, hand: Hand, hands: Hands): ChordGrip[] {
  const tones = chord.tones.slice(0, 4);
  let last = (hand === 'left' ? 48 : 60) - 6;
  let pitches = tones.map(({ name }) => {
    last = nextUp(name, last);
    return pitchAt(name, last);
  });
  return tones.map((_, turn) => {
    if (turn > 0) pitches = [...pitches.slice(1), octaveUp(pitches[0], octavesOver(pitches))];
    const midis = pitches.map(midiOf);
    const bottom = nameOf(pitches[0]);
    const fingers = hand === 'left' ? chordFingers(midis, hands) : rightFingers(midis, hands);
    return { pitches, fingers, label: { symbol: chord.text, position: positionOf(chord, bottom) } };
  });
}

/** Octaves by which the lowest of some keys goes to lie above them all. */
function octavesOver(pitches: readonly Pitch[]): number {
  const [low, high] = [midiOf(pitches[0]), midiOf(pitches[pitches.length - 1])];
  return Math.max(1, Math.ceil((high - low + 1) / 12));
}

const SHUFFLED = 8;

/** Some of the items in an order that depends on a seed alone; items are repeated only where there are too few. */
export function drawn<T>(items: readonly T[], seed: number, most = SHUFFLED): T[] {
  const chance = chances(seed);
  const order = items.map((item) => ({ item, key: chance() })).sort((a, b) => a.key - b.key);
  return order.slice(0, most).map((o) => o.item);
}

export const chordsOf = (symbols: readonly string[]): Chord[] =>
  [...new Set(symbols)].map(parseChord).filter((c): c is Chord => c.kind === 'chord' && c.tones.length >= 3);

/** What may be wished for in a drill. */
export type DrillWish = 'key' | 'mode' | 'hand' | 'cadence' | 'chord';

export interface DrillWishes {
  readonly key: Key;
  readonly hand: Hand;
  readonly cadence: Cadence;
  /** A chord symbol, "Dm7". */
  readonly chord: string;
  /** Draws the questions where they are drawn. */
  readonly seed: number;
}

/** What a drill is made for: the open song, if any, the chords to ask for, and the hands. */
export interface DrillSetting {
  readonly arrangement: Arrangement | null;
  readonly symbols: readonly string[];
  readonly hands: Hands;
}

/** A kind of drill: what may be wished for, whether it is made of a song, and how it is made; null where the wishes make none. */
export interface DrillMaker<Kind extends string> {
  readonly kind: Kind;
  /** Its place in the order in which drills are offered. */
  readonly order: number;
  readonly wishes: readonly DrillWish[];
  readonly ofSong: boolean;
  readonly make: (wishes: DrillWishes, setting: DrillSetting) => Drill | null;
}

/** A kind of drill, with its own name as its type. */
export const drillKind = <const Kind extends string>(maker: DrillMaker<Kind>): DrillMaker<Kind> => maker;
