import { arrange } from '../arrange/arrange.js';
import type { Arrangement, PartChord } from '../arrange/arrangement.js';
import { keyName, scaleOf, type Key } from '../harmony/key.js';
import { inversionOf, positionOf, type Position } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { isHardJump } from '../join/jumps.js';
import { chordFingers } from '../left-hand/fingers.js';
import { midiOf, nameOf, octaveUp, pitchAt, pitchClass, transposeName, type NoteName, type Pitch } from '../pitch/pitch.js';
import { rightFingers } from '../fills/sing-along.js';
import { fingerLine } from '../right-hand/line.js';
import { KEYBOARDS, newDocument, type Hand, type Hands } from '../song/decisions.js';
import { emptySong } from '../song/song.js';
import { TICKS_PER_QUARTER } from '../time/ticks.js';
import { chances } from './stand-in-player.js';
import { CLEAN, type PassFigures } from './verdict.js';

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

export const CADENCES = ['ii–V–I', 'IV–V–I', 'I–vi–ii–V', 'I–IV–iv–I'] as const;
export type Cadence = (typeof CADENCES)[number];

/** The chords of a cadence as degrees of the scale, from 1, with their kinds in a major and in a minor key. */
const CADENCE_CHORDS: Readonly<Record<Cadence, readonly (readonly [degree: number, major: string, minor: string])[]>> = {
  'ii–V–I': [
    [2, 'm7', 'm7b5'],
    [5, '7', '7'],
    [1, 'maj7', 'm7'],
  ],
  'IV–V–I': [
    [4, '', 'm'],
    [5, '', ''],
    [1, '', 'm'],
  ],
  'I–vi–ii–V': [
    [1, 'maj7', 'm7'],
    [6, 'm7', 'maj7'],
    [2, 'm7', 'm7b5'],
    [5, '7', '7'],
  ],
  'I–IV–iv–I': [
    [1, '', 'm'],
    [4, '', ''],
    [4, 'm6', 'm6'],
    [1, '', 'm'],
  ],
};

const gripOf = (c: Pick<PartChord, 'pitches' | 'fingers' | 'symbol' | 'position'>): DrillGrip => ({
  pitches: c.pitches,
  fingers: c.fingers,
  label: { symbol: c.symbol, position: c.position },
});

/** A row of chords as the left hand plays it with the nearest voicing. */
function nearest(symbols: readonly string[], key: Key, hands: Hands): DrillGrip[] {
  const bar = 4 * TICKS_PER_QUARTER;
  const song = { ...emptySong(key), tempo: 60, length: symbols.length * bar };
  const chords = symbols.map((symbol, i) => ({ at: i * bar, symbol }));
  const { parts } = arrange({ ...newDocument({ ...song, chords }), hands });
  return parts.flatMap((p) => p.chords).map(gripOf);
}

/** The symbols of a cadence in a key: "Dm7 G7 Cmaj7". */
function cadenceSymbols(cadence: Cadence, key: Key): string[] {
  const scale = scaleOf(key);
  return CADENCE_CHORDS[cadence].map(([degree, major, minor]) => scale[degree - 1] + (key.mode === 'major' ? major : minor));
}

/** A cadence with the nearest voicings, in the left hand, in each of some keys. */
export function cadenceDrill(cadence: Cadence, keys: readonly Key[], hands: Hands): Drill {
  const tasks = keys.map((key): DrillTask => {
    const symbols = cadenceSymbols(cadence, key);
    return {
      ...{ ask: { code: 'task.cadence', cadence, key, symbols }, grips: nearest(symbols, key, hands) },
      ...{ hand: 'left', anyOctave: true, shown: true, names: null },
    };
  });
  return { id: `cadence:${cadence}:${keys[0]?.mode ?? 'major'}`, title: { code: 'drill.cadence', cadence }, tasks };
}

/** The next key above one that a name stands for. */
const nextUp = (name: NoteName, above: number): number => above + 1 + ((pitchClass(name) - above - 1 + 240) % 12);

/** Close positions of a chord, rising from the root near C3 or C4, each with its fingers. */
/** Keys of a chord as it lies. */
type ChordGrip = DrillGrip & { readonly label: { readonly symbol: string; readonly position: Position } };

export function inversionsOf(chord: Chord, hand: Hand): ChordGrip[] {
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
    const fingers = hand === 'left' ? chordFingers(midis, inversionOf(chord, bottom)) : rightFingers(midis);
    return { pitches, fingers, label: { symbol: chord.text, position: positionOf(chord, bottom) } };
  });
}

/** Octaves by which the lowest of some keys goes to lie above them all. */
function octavesOver(pitches: readonly Pitch[]): number {
  const [low, high] = [midiOf(pitches[0]), midiOf(pitches[pitches.length - 1])];
  return Math.max(1, Math.ceil((high - low + 1) / 12));
}

/** Every inversion of a chord, up and down again. */
export function inversionsDrill(symbol: string, hand: Hand): Drill | null {
  const chord = parseChord(symbol);
  if (chord.kind !== 'chord') return null;
  const up = inversionsOf(chord, hand);
  const grips = [...up, ...up.slice(0, -1).reverse()];
  const task: DrillTask = {
    ask: { code: 'task.inversions', symbol: chord.text },
    ...{ grips, hand, anyOctave: true, shown: true, names: null },
  };
  return { id: `inversions:${symbol}:${hand}`, title: { code: 'drill.inversions', symbol }, tasks: [task] };
}

/** The seventh chords on each degree of a major key, or of a minor one with its raised dominant. */
export function diatonicDrill(key: Key, hand: Hand): Drill {
  const scale = scaleOf(key);
  const kinds =
    key.mode === 'major' ? ['maj7', 'm7', 'm7', 'maj7', '7', 'm7', 'm7b5'] : ['m7', 'm7b5', 'maj7', 'm7', '7', 'maj7', '7'];
  const tasks = scale.flatMap((root, i): DrillTask[] => {
    const chord = parseChord(root + kinds[i]);
    if (chord.kind !== 'chord') return [];
    return [
      {
        ask: { code: 'task.seventh', symbol: chord.text },
        grips: [inversionsOf(chord, hand)[0]],
        hand,
        anyOctave: true,
        shown: false,
        names: null,
      },
    ];
  });
  return { id: `sevenths:${keyName(key)}:${hand}`, title: { code: 'drill.sevenths', key }, tasks };
}

const SHUFFLED = 8;

/** Some of the items in an order that depends on a seed alone; items are repeated only where there are too few. */
function drawn<T>(items: readonly T[], seed: number, most = SHUFFLED): T[] {
  const chance = chances(seed);
  const order = items.map((item) => ({ item, key: chance() })).sort((a, b) => a.key - b.key);
  return order.slice(0, most).map((o) => o.item);
}

const chordsOf = (symbols: readonly string[]): Chord[] =>
  [...new Set(symbols)].map(parseChord).filter((c): c is Chord => c.kind === 'chord' && c.tones.length >= 3);

/** Chords to be played from their names, in any inversion asked for. */
export function fromNameDrill(symbols: readonly string[], hand: Hand, seed: number): Drill {
  const chance = chances(seed + 1);
  const tasks = drawn(chordsOf(symbols), seed).map((chord): DrillTask => {
    const all = inversionsOf(chord, hand);
    const grip = all[Math.floor(chance() * all.length)];
    return { ask: { code: 'task.play', ...grip.label }, grips: [grip], hand, anyOctave: true, shown: false, names: null };
  });
  return { id: `from-name:${hand}`, title: { code: 'drill.from-names' }, tasks };
}

/** Keys that lie under a hand, to be called by name or by inversion. */
export function namingDrill(symbols: readonly string[], what: 'name' | 'inversion', seed: number): Drill {
  const chance = chances(seed + 2);
  const chords = chordsOf(symbols);
  const tasks = drawn(chords, seed).map((chord): DrillTask => {
    const all = inversionsOf(chord, 'left');
    const grip = all[Math.floor(chance() * all.length)];
    const names = what === 'name' ? nameChoices(chord, chords, chance) : positions(chord, grip);
    const ask: TaskFact = what === 'name' ? { code: 'task.which-chord' } : { code: 'task.which-position', symbol: chord.text };
    return { ask, grips: [grip], hand: 'left', anyOctave: false, shown: true, names };
  });
  return { id: `from-keys:${what}`, title: { code: what === 'name' ? 'drill.to-names' : 'drill.positions' }, tasks };
}

function nameChoices(chord: Chord, others: readonly Chord[], chance: () => number): NonNullable<DrillTask['names']> {
  // Chords that hold the same keys have another name for them, and would be right as well.
  const keys = (c: Chord) => [...new Set(c.tones.slice(0, 4).map((t) => pitchClass(t.name)))].sort((a, b) => a - b).join();
  const near = [chord.root, transposeName(chord.root, '5P'), transposeName(chord.root, '2M')].flatMap((root) =>
    ['', 'm', '7', 'm7', 'maj7'].map((kind) => parseChord(root + kind)),
  );
  const pool = [...others, ...near.filter((c): c is Chord => c.kind === 'chord')];
  const wrong = new Map(pool.filter((c) => keys(c) !== keys(chord)).map((c) => [keys(c), c.text]));
  const picked = drawn([...wrong.values()], Math.floor(chance() * 1e6), 3);
  const all = drawn([chord.text, ...picked], Math.floor(chance() * 1e6));
  return { right: all.indexOf(chord.text), all: all.map((symbol) => ({ symbol })) };
}

function positions(chord: Chord, grip: DrillGrip): NonNullable<DrillTask['names']> {
  const positions = new Map(
    chord.tones.slice(0, 4).map(({ name }) => {
      const position = positionOf(chord, name);
      return [JSON.stringify(position), position];
    }),
  );
  const right = [...positions.keys()].indexOf(JSON.stringify(positionOf(chord, nameOf(grip.pitches[0]))));
  return { right, all: [...positions.values()].map((position) => ({ position })) };
}

/** Chord changes and jumps of the song that ask most of the hands, each as a move to repeat. */
export function hardMovesDrill({ parts, song }: Arrangement, most = 6): Drill {
  const chords = parts.flatMap((p) => p.chords);
  const moves = chords
    .flatMap((chord, i) => (i > 0 && chord.motion > 0 ? [{ from: chords[i - 1], to: chord }] : []))
    .sort((a, b) => b.to.motion - a.to.motion);
  const seen = new Set<string>();
  const tasks: DrillTask[] = [];
  for (const { from, to } of moves) {
    const print = `${from.pitches.join()} ${to.pitches.join()}`;
    if (seen.has(print) || tasks.length >= most) continue;
    seen.add(print);
    const ask: TaskFact = { code: 'task.change', from: from.symbol, to: to.symbol, semitones: to.motion };
    tasks.push({ ask, grips: [gripOf(from), gripOf(to)], hand: 'left', anyOctave: false, shown: true, names: null });
  }
  const jumps = parts.flatMap((p) => p.jumps.filter((j) => j.hand === 'right' && j.distance >= 5));
  for (const jump of jumps.sort((a, b) => Number(isHardJump(b)) - Number(isHardJump(a)) || b.distance - a.distance).slice(0, 2)) {
    const grips = [jump.from, jump.to].map((pitch) => ({ pitches: [pitch], fingers: [], label: { pitch } }));
    const ask: TaskFact = { code: 'task.jump', from: jump.from, to: jump.to, semitones: jump.distance };
    tasks.push({ ask, grips, hand: 'right', anyOctave: false, shown: true, names: null });
  }
  return { id: 'hard-moves', title: { code: 'drill.hard-moves', song: song.title }, tasks };
}

/** A scale or an arpeggio over two octaves, up and down, with the usual fingers; lower where the keyboard ends. */
export function runDrill(kind: 'scale' | 'arpeggio', key: Key, hand: Hand, hands: Hands): Drill {
  const scale = scaleOf(key).map((n, i) => (key.mode === 'minor' && i === 6 ? transposeName(n, '1A') : n));
  const names = kind === 'scale' ? scale : [scale[0], scale[2], scale[4]];
  const usual = (hand === 'right' ? 60 : 36) + pitchClass(key.tonic);
  const start = usual + 24 > KEYBOARDS[hands.keys].high ? usual - 12 : usual;
  let last = start - 1;
  const up = [...names, ...names, names[0]].map((name) => {
    last = nextUp(name, last);
    return pitchAt(name, last);
  });
  const half = TICKS_PER_QUARTER / 2;
  const row = fingerLine(
    up.map((pitch, i) => ({ at: i * half, length: half, pitches: [pitch] })),
    { hands, hand, tempo: 80 },
  );
  const rising = up.map((pitch, i): DrillGrip => ({ pitches: [pitch], fingers: row[i].fingers, label: { pitch } }));
  // Down with the fingers of the way up, as it is taught.
  const grips = [...rising, ...rising.slice(0, -1).reverse()];
  const ask: TaskFact = { code: 'task.run', run: kind, key, hand };
  const task: DrillTask = { ask, grips, hand, anyOctave: true, shown: true, names: null };
  return { id: `${kind}:${keyName(key)}:${hand}`, title: { code: 'drill.run', run: kind, key, hand }, tasks: [task] };
}

/** What a song is warmed up with: its scale and arpeggio in both hands, and the shapes of its own chords. */
export function warmUpDrills(arrangement: Arrangement, hands: Hands): Drill[] {
  const { key } = arrangement.song;
  const seen = new Set<string>();
  const grips = arrangement.parts
    .flatMap((p) => p.chords)
    .filter((c) => !seen.has(c.pitches.join()) && seen.add(c.pitches.join()))
    .map(gripOf);
  const shapes: DrillTask = {
    ask: { code: 'task.song-chords' },
    ...{ grips: grips.slice(0, 12), hand: 'left', anyOctave: false, shown: true, names: null },
  };
  const runs = (['right', 'left'] as const).flatMap((hand): Drill[] =>
    (['scale', 'arpeggio'] as const).map((kind) => runDrill(kind, key, hand, hands)),
  );
  return grips.length > 0 ? [...runs, { id: 'shapes', title: { code: 'drill.song-chords' }, tasks: [shapes] }] : runs;
}

/** All of a song's warm-up, one after another. */
export function warmUpDrill(arrangement: Arrangement, hands: Hands): Drill {
  const tasks = warmUpDrills(arrangement, hands).flatMap((d) => d.tasks);
  return { id: 'warm-up', title: { code: 'drill.warm-up', song: arrangement.song.title }, tasks };
}

/** Where a task that is played stands: which grip, which of its keys were struck, and how many keys were wrong. */
export interface DrillProgress {
  readonly index: number;
  readonly struck: readonly number[];
  readonly slips: number;
}

export const DRILL_START: DrillProgress = { index: 0, struck: [], slips: 0 };

/** What a key does in a task: the grips are played one after another, the keys of each in any order. */
export function pressInDrill(task: DrillTask, { index, struck, slips }: DrillProgress, midi: number): DrillProgress {
  const grip = task.grips[index];
  if (!grip) return { index, struck, slips };
  const midis = grip.pitches.map(midiOf);
  const asked = midis.find((m) => (m === midi || (task.anyOctave && (m - midi) % 12 === 0)) && !struck.includes(m));
  if (asked === undefined) {
    const again = midis.some((m) => m === midi || (task.anyOctave && (m - midi) % 12 === 0));
    return { index, struck, slips: again ? slips : slips + 1 };
  }
  const now = [...struck, asked];
  return now.length < midis.length ? { index, struck: now, slips } : { index: index + 1, struck: [], slips };
}

/** How a task went: wrong keys or names, and whether help was asked for. */
export interface TaskOutcome {
  readonly slips: number;
  readonly helped: boolean;
}

/** What a drill came to: keys found by oneself against those shown and those wrong; a name asked for counts as one key. */
export function drillFigures({ tasks }: Drill, outcomes: readonly TaskOutcome[]): PassFigures {
  const weight = (t: DrillTask) => (t.names ? 1 : t.grips.reduce((sum, g) => sum + g.pitches.length, 0));
  const notes = tasks.reduce((sum, t) => sum + weight(t), 0);
  const missed = tasks.reduce((sum, t, i) => sum + (outcomes[i]?.helped && !t.shown ? weight(t) : 0), 0);
  const extra = outcomes.reduce((sum, o) => sum + o.slips, 0);
  const right = notes - missed;
  const accuracy = Math.round((100 * right) / Math.max(1, notes + extra));
  return { notes, right, wrong: 0, missed, extra, early: 0, late: 0, accuracy };
}

/** True where hardly a key was wrong and nothing had to be shown. */
export const isDrillClean = (f: PassFigures): boolean => f.missed === 0 && f.accuracy >= CLEAN.accuracy;
