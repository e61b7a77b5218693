import { intervalOf, toneFor } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { CLEAR_OF_TUNE, muddiness } from '../left-hand/costs.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, nameOf, pitchAt, transposePitch, type Pitch } from '../pitch/pitch.js';
import type { SoundingNote } from '../join/collisions.js';
import { KEYBOARDS, spanOf, type Hands, type Walk } from '../song/decisions.js';
import type { Texture } from '../song/texture-data.js';
import { barAt, firstAtOrAfter, type Bar } from '../time/bars.js';
import { barTicks, countTicks } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import type { Key } from '../harmony/key.js';
import { patternFor } from './texture.js';
import { leadIn, stepBeside } from './walk.js';

/** A left-hand note of a texture. */
export interface DressedNote {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
  /** A bass note, a note of the chord, or a step that only leads to the next chord. */
  readonly role: 'bass' | 'chord' | 'fill';
}

/** Where a texture gives way to the hand, the keyboard or the tune. */
export type BendFact =
  | { readonly code: 'bend.pedal-note'; readonly pitch: Pitch; readonly symbol: string }
  | { readonly code: 'bend.off-keyboard'; readonly pitch: Pitch }
  | { readonly code: 'bend.under-melody'; readonly pitch: Pitch }
  | { readonly code: 'bend.left-out'; readonly pitch: Pitch; readonly cause: 'reach' | 'muddy' }
  | { readonly code: 'bend.no-octave'; readonly pitch: Pitch };

/** A chord in its texture: what is struck, and how the texture had to bend. */
export interface RealisedTexture {
  readonly texture: string;
  /** True where it takes the chord as it was learned, whole or without its lowest key. */
  readonly shaped: boolean;
  readonly notes: readonly DressedNote[];
  /** Each place where the pattern had to give way, and to what. */
  readonly bends: readonly BendFact[];
}

/** What textures are realised for. */
export interface TextureTask {
  readonly bars: readonly Bar[];
  /** All that the right hand plays, in order. */
  readonly right: readonly SoundingNote[];
  readonly hands: Hands;
  readonly key: Key;
  /** The texture at a place, or null for the plain chords. */
  readonly textureAt: (at: Ticks) => Texture | null;
  /** Whether and how the last notes are to lead to the next chord. */
  readonly walkAt?: (at: Ticks) => Walk;
}

/** Where a texture's root lies: from C#2 to C3. */
const ROOT_HIGHEST = 48;

/**
 * Realises a texture for every chord that is to have one; null for plain chords. A chord that begins inside a bar begins the
 * pattern anew, so that each has its bass first; what does not fit before the next chord is left away. Each attack is bent to the
 * hand's limit, to the keyboard and to the tune above it.
 */
export function realiseTextures(chords: readonly VoicedChord[], task: TextureTask): (RealisedTexture | null)[] {
  const lowestOver = lowestAbove(task.right);
  return chords.map((chord, i) => {
    const texture = task.textureAt(chord.at);
    const bar = barAt(task.bars, chord.at);
    const pattern = texture && patternFor(texture, bar.meter);
    const parsed = parseChord(chord.symbol);
    if (!texture || !pattern || parsed.kind !== 'chord') return null;
    return dress(chord, parsed, chords[i + 1] ?? null, texture.id, pattern, bar, task, lowestOver);
  });
}

/** Bends as they are met, each once: the same note bent twice for the same reason is one. */
class Bends {
  private readonly met = new Map<string, BendFact>();

  add(bend: BendFact): void {
    this.met.set(`${bend.code} ${nameOf(bend.pitch)} ${'cause' in bend ? bend.cause : ''}`, bend);
  }

  all(): BendFact[] {
    return [...this.met.values()];
  }
}

interface Attack {
  readonly at: Ticks;
  length: Ticks;
  readonly token: string;
  /** The key of a step that leads to the next chord. */
  readonly step?: Pitch;
}

function dress(
  chord: VoicedChord,
  parsed: Chord,
  next: VoicedChord | null,
  texture: string,
  pattern: readonly (readonly string[])[],
  bar: Bar,
  { hands, key, walkAt }: TextureTask,
  lowestOver: (from: Ticks, to: Ticks) => number,
): RealisedTexture | null {
  const first = chord.at === bar.start && bar.lead === 0 ? (bar.number - 1) % pattern.length : 0;
  const walk = walkAt?.(chord.at) ?? 'none';
  const target = bassOf(next);
  const attacks = withWalk(attacksOf(chord, pattern, first, barTicks(bar.meter)), chord, target, walk, bar, key);
  const bends = new Bends();
  const withChord = pattern.some((row) => row.includes('u'));
  const grounds = degreesFrom(parsed, chord, hands, withChord, key);
  const notes: DressedNote[] = [];
  let before: readonly Pitch[] = [];
  for (const { at, length, token, step } of attacks) {
    const walks = token === 'w';
    const wanted = step ? [step] : walks ? stepTo(before, target, walk, key) : grounds(token);
    const ceiling = lowestOver(at, at + length) - CLEAR_OF_TUNE;
    const pitches = bend(wanted, ceiling, hands, bends);
    if (pitches.length === 0) {
      // Nothing is left to strike: what sounds is held on.
      const held = notes.filter((n) => n.at + n.length === at);
      for (const note of held) notes[notes.indexOf(note)] = { ...note, length: note.length + length };
      continue;
    }
    const low = /^(1|5,|8|p)$/.test(token) && pitches.length === 1;
    const stays = token === 'p' && !isChordNote(parsed, pitches[0]);
    if (stays) bends.add({ code: 'bend.pedal-note', pitch: pitches[0], symbol: chord.symbol });
    for (const pitch of pitches) notes.push({ at, length, pitch, role: walks || stays ? 'fill' : low ? 'bass' : 'chord' });
    before = pitches;
  }
  // Where the very first attack has no room the plain chord is struck instead.
  if (notes.length === 0 || notes[0].at !== chord.at) return null;
  const shaped = pattern.some((row) => row.some((token) => token === 'c' || token === 'u'));
  return { texture, shaped, notes, bends: bends.all() };
}

/** The lowest note of a chord that comes next, where a texture's basses lie; null where none does. */
function bassOf(next: VoicedChord | null): Pitch | null {
  const parsed = next ? parseChord(next.symbol) : null;
  return parsed?.kind === 'chord' ? placed(parsed.bass ?? parsed.root, ROOT_HIGHEST - 11) : null;
}

/** The attacks with the last of them giving way to steps that lead to the next chord, where that is asked for and there is room. */
function withWalk(
  attacks: readonly Attack[],
  chord: VoicedChord,
  target: Pitch | null,
  walk: Walk,
  bar: Bar,
  key: Key,
): readonly Attack[] {
  const count = countTicks(bar.meter);
  const steps = target === null ? [] : leadIn(target, walk, Math.floor(chord.length / count), key);
  if (steps.length === 0 || attacks.some((a) => a.token === 'w')) return attacks;
  const end = chord.at + chord.length;
  const from = end - steps.length * count;
  const kept = attacks.filter((a) => a.at < from).map((a) => ({ ...a, length: Math.min(a.length, from - a.at) }));
  return [...kept, ...steps.map((step, k) => ({ at: from + k * count, length: count, token: 'w', step }))];
}

/** The attacks of a chord: each token at its place, lasting to the next attack, to a rest or to the end of the chord. */
function attacksOf(chord: VoicedChord, pattern: readonly (readonly string[])[], first: number, bar: Ticks): Attack[] {
  const end = chord.at + chord.length;
  const step = bar / pattern[0].length;
  const attacks: Attack[] = [];
  for (let k = 0; chord.at + k * step < end; k++) {
    const at = Math.round(chord.at + k * step);
    const row = pattern[(first + Math.floor(k / pattern[0].length)) % pattern.length];
    const token = row[k % row.length];
    const last = attacks.at(-1);
    const until = Math.min(end, Math.round(chord.at + (k + 1) * step));
    // A step that leads on belongs at the end of its chord only.
    const leads = token !== 'w' || until >= end;
    if (token === '-' || !leads) {
      if (last && last.at + last.length === at) last.length = until - last.at;
    } else if (token !== '.') attacks.push({ at, length: until - at, token });
  }
  return attacks;
}

/** What the tokens of a texture mean over a chord: pitches counted up from its bass. */
export function degreesFrom(
  parsed: Chord,
  chord: Pick<VoicedChord, 'pitches'>,
  hands: Hands,
  withChord: boolean,
  key: Key,
): (token: string) => Pitch[] {
  const bass = parsed.bass ?? parsed.root;
  const lowest = Math.max(KEYBOARDS[hands.keys].low, ROOT_HIGHEST - 11);
  const root = placed(bass, lowest);
  // Before its other notes a chord of four gives its lowest one to the bass.
  const ground = withChord && chord.pitches.length >= 4 ? chord.pitches[0] : root;
  const third = intervalOf(parsed, 3) ?? intervalOf(parsed, 4) ?? intervalOf(parsed, 2);
  const fifth = intervalOf(parsed, 5);
  const seventh = intervalOf(parsed, 7) ?? intervalOf(parsed, 6);
  const home = placed(parsed.root, lowest);
  const up = (interval: string | null, octaves: number, instead: Pitch): Pitch => {
    if (interval === null) return instead;
    const pitch = transposePitch(home, interval);
    return octaves === 0 ? pitch : transposePitch(pitch, octaves > 0 ? '8P' : '-8P');
  };
  const octave = transposePitch(home, '8P');
  const table: Readonly<Record<string, () => Pitch[]>> = {
    c: () => [...chord.pitches],
    u: () => (chord.pitches.length > 1 ? chord.pitches.slice(1) : [...chord.pitches]),
    p: () => [placed(key.tonic, lowest)],
    '1': () => [root],
    '3': () => [up(third, 0, octave)],
    '5': () => [up(fifth, 0, octave)],
    '5,': () => [up(fifth, -1, root)],
    '7': () => [up(seventh, 0, octave)],
    '8': () => [transposePitch(root, '8P')],
    '9': () => [intervalOf(parsed, 9) ? up(intervalOf(parsed, 9), 0, octave) : octave],
    '10': () => [up(third, 1, octave)],
    '12': () => [up(fifth, 1, octave)],
    '14': () => [up(seventh, 1, up(third, 1, octave))],
  };
  return (token) => {
    const pitches = token === '1' ? [ground] : token.split('+').flatMap((t) => table[t]?.() ?? []);
    const seen = new Set<number>();
    return pitches.filter((p) => (seen.has(midiOf(p)) ? false : seen.add(midiOf(p)))).sort((a, b) => midiOf(a) - midiOf(b));
  };
}

/** The lowest pitch of a name that is not under a key. */
function placed(name: string, lowest: number): Pitch {
  let pitch = pitchAt(name, lowest);
  while (midiOf(pitch) < lowest) pitch = transposePitch(pitch, '8P');
  while (midiOf(pitch) >= lowest + 12) pitch = transposePitch(pitch, '-8P');
  return pitch;
}

/** A step beside the next chord's lowest note: from the side that is asked for, else from the one on which the hand is. */
function stepTo(before: readonly Pitch[], target: Pitch | null, walk: Walk, key: Key): Pitch[] {
  const from = before[0];
  if (!from || !target || midiOf(target) === midiOf(from)) return [];
  const way = walk === 'none' ? (midiOf(target) > midiOf(from) ? 'scale-below' : 'scale-above') : walk;
  return [stepBeside(target, way, 1, key)];
}

/** Bends an attack: under the tune, onto the keyboard, into the hand, clear where it is low. */
function bend(pitches: readonly Pitch[], ceiling: number, hands: Hands, bends: Bends): Pitch[] {
  const { low, high } = KEYBOARDS[hands.keys];
  const { limit } = spanOf(hands, 'left');
  let kept = pitches.map((pitch) => {
    let bent = pitch;
    while (midiOf(bent) < low) bent = transposePitch(bent, '8P');
    while (midiOf(bent) > Math.min(ceiling, high) && midiOf(bent) - 12 >= low) bent = transposePitch(bent, '-8P');
    if (bent !== pitch) bends.add({ code: midiOf(bent) > midiOf(pitch) ? 'bend.off-keyboard' : 'bend.under-melody', pitch });
    return bent;
  });
  kept = [...new Map(kept.filter((p) => midiOf(p) <= ceiling).map((p) => [midiOf(p), p])).values()].sort(
    (a, b) => midiOf(a) - midiOf(b),
  );
  const drop = (index: number, cause: 'reach' | 'muddy') => {
    bends.add({ code: 'bend.left-out', pitch: kept[index], cause });
    kept = kept.filter((_, i) => i !== index);
  };
  while (kept.length > 1 && midiOf(kept[kept.length - 1]) - midiOf(kept[0]) > limit) drop(kept.length - 1, 'reach');
  while (kept.length > 1 && muddiness(kept.map(midiOf)) > 0) drop(1, 'muddy');
  return kept;
}

/** The lowest note of the right hand that sounds in a stretch; Infinity where it rests. Stretches may be asked in any order. */
function lowestAbove(right: readonly SoundingNote[]): (from: Ticks, to: Ticks) => number {
  const longest = right.reduce((most, n) => Math.max(most, n.length), 0);
  return (from, to) => {
    let lowest = Infinity;
    for (let i = firstAtOrAfter(right, from - longest); i < right.length && right[i].at < to; i++)
      if (right[i].at + right[i].length > from) lowest = Math.min(lowest, midiOf(right[i].pitch));
    return lowest;
  };
}

/** True for a note that belongs to a chord or is its bass. */
export function isChordNote(chord: Chord, pitch: Pitch): boolean {
  return toneFor(chord, nameOf(pitch)) !== null || chord.bass === nameOf(pitch);
}
