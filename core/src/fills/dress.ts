import { intervalOf, toneFor } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { Bends, inHand, underTune, type BendFact, type Laid } from './bend.js';
import type { VoicedChord } from '../left-hand/voice.js';
import {
  midiOf,
  nameOf,
  pitchAt,
  pitchClass,
  simpleName,
  transposeName,
  transposePitch,
  type NoteName,
  type Pitch,
} from '../pitch/pitch.js';
import type { SoundingNote } from '../join/collisions.js';
import { KEYBOARDS, type Hands, type Walk } from '../song/decisions.js';
import type { Texture } from '../song/texture-data.js';
import { barAt, firstAtOrAfter, type Bar } from '../time/bars.js';
import { barTicks, countTicks } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import { scaleOf, type Key } from '../harmony/key.js';
import { patternFor } from './texture.js';
import { GRACED, isShaped, tells, ungraced } from './tokens.js';
import { leadIn, stepBeside } from './walk.js';

/** A left-hand note of a texture. */
export interface DressedNote {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
  /** A bass note, a note of the chord, or a step that only leads to the next chord. */
  readonly role: 'bass' | 'chord' | 'fill';
  /** Small notes that lead to it. */
  readonly graces?: readonly Pitch[];
}

/** A chord in its texture: what is struck, and how the texture had to bend. */
export interface RealisedTexture {
  readonly texture: string;
  /** What the texture is called. */
  readonly title: string;
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
  /** Where parts begin: a pattern of several bars begins anew with each, so that what repeats is played alike. */
  readonly phrases?: readonly Ticks[];
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
    const bar = barAt(task.bars, onBeat(chord).at);
    const pattern = texture && patternFor(texture, bar.meter);
    const parsed = parseChord(chord.symbol);
    if (!texture || !pattern || parsed.kind !== 'chord') return null;
    return dress(chord, parsed, chords[i + 1] ?? null, texture, pattern, bar, task, lowestOver);
  });
}

/** A chord without the time by which it comes before its beat: a pattern keeps its counts, and only its first note is early. */
function onBeat(chord: VoicedChord): VoicedChord {
  const ahead = chord.writtenAt - chord.at;
  return ahead > 0 && ahead < chord.length ? { ...chord, at: chord.writtenAt, length: chord.length - ahead } : chord;
}

interface Attack {
  readonly at: Ticks;
  length: Ticks;
  readonly token: string;
  /** The key of a step that leads to the next chord. */
  readonly step?: Pitch;
  /** True where a small note leads to it. */
  readonly graced?: boolean;
}

function dress(
  struck: VoicedChord,
  parsed: Chord,
  next: VoicedChord | null,
  { id: texture, title }: Texture,
  pattern: readonly (readonly string[])[],
  bar: Bar,
  { hands, key, walkAt, bars, phrases = [] }: TextureTask,
  lowestOver: (from: Ticks, to: Ticks) => number,
): RealisedTexture | null {
  const chord = onBeat(struck);
  const first = chord.at === bar.start && bar.lead === 0 ? (bar.number - firstBar(phrases, bars, chord.at)) % pattern.length : 0;
  const walk = walkAt?.(chord.at) ?? 'none';
  // A walk leads only where the chord changes.
  const target = next?.symbol === chord.symbol ? null : bassOf(next);
  const written = attacksOf(chord, pattern, first, barTicks(bar.meter));
  const attacks = withWalk(fitted(written, pattern, chord, countTicks(bar.meter)), chord, target, walk, bar, key).map((a) =>
    a.at === chord.at ? { ...a, at: struck.at, length: a.length + chord.at - struck.at } : a,
  );
  const bends = new Bends();
  const shaped = attacks.some(({ token }) => isShaped(token));
  const room = { ceiling: lowestOver, shaped, tells: ({ token }: Pick<Attack, 'token'>) => tells(token) };
  const wanted = keysOf(attacks, degreesFrom(parsed, chord, hands, key), target, walk, key);
  const fits = wanted.map((a) => ({ ...a, pitches: inHand(a.pitches, hands, bends) }));
  const notes: DressedNote[] = [];
  for (const { at, length, token, pitches, graced } of fits.length > 0
    ? underTune(fits, chord.symbol, room, hands, bends)
    : fits) {
    if (pitches.length === 0) {
      // Nothing is left to strike: what sounds is held on.
      const held = notes.filter((n) => n.at + n.length === at);
      for (const note of held) notes[notes.indexOf(note)] = { ...note, length: note.length + length };
      continue;
    }
    const low = /^(1|5,|8|p)$/.test(token) && pitches.length === 1;
    const stays = token === 'p' && !isChordNote(parsed, pitches[0]);
    if (stays) bends.add({ code: 'bend.pedal-note', pitch: pitches[0], symbol: chord.symbol });
    for (const pitch of pitches) {
      const foreign = token === 'w' || (token !== 'p' && !isChordNote(parsed, pitch)) || stays;
      const small = graced && pitch === pitches[pitches.length - 1] ? graceBefore(pitch, hands) : [];
      notes.push({
        at,
        length,
        pitch,
        role: foreign ? 'fill' : low ? 'bass' : 'chord',
        ...(small.length > 0 ? { graces: small } : {}),
      });
    }
  }
  // Where the very first attack has no room the plain chord is struck instead; a pattern that begins with a rest begins with it.
  if (notes.length === 0 || notes[0].at !== attacks[0].at) return null;
  return { texture, title, shaped, notes, bends: bends.all() };
}

/** The small note that leads to a key from a half step below it, where the keyboard has it. */
function graceBefore(pitch: Pitch, hands: Hands): Pitch[] {
  const half = transposePitch(pitch, '-2m');
  return midiOf(half) < KEYBOARDS[hands.keys].low ? [] : [pitchAt(simpleName(nameOf(half)), midiOf(half))];
}

/** The number of the first whole bar of the part that a place lies in; 1 where no parts are known. */
function firstBar(phrases: readonly Ticks[], bars: readonly Bar[], at: Ticks): number {
  const start = phrases.findLast((p) => p <= at);
  if (start === undefined) return 1;
  const bar = barAt(bars, start);
  return bar.start < start || bar.lead > 0 ? bar.number + 1 : bar.number;
}

/** The keys that attacks ask for, steps that lead on counted from what is struck before them. */
function keysOf(
  attacks: readonly Attack[],
  grounds: (token: string) => Pitch[],
  target: Pitch | null,
  walk: Walk,
  key: Key,
): Laid[] {
  let before: readonly Pitch[] = [];
  return attacks.map(({ at, length, token, step, graced }) => {
    const pitches = step ? [step] : token === 'w' ? stepTo(before, target, walk, key) : grounds(token);
    if (pitches.length > 0) before = pitches;
    return { at, length, token, pitches, ...(graced ? { graced } : {}) };
  });
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
  const counts = Math.floor(chord.length / count);
  const steps = target === null ? [] : leadIn(target, walk, counts, key);
  if (attacks.some((a) => a.token === 'w')) return attacks;
  const end = chord.at + chord.length;
  // The chord keeps its own counts: steps that would leave it without what tells it are fewer, or none.
  for (let walked = steps; walked.length > 0; walked = walked.slice(1)) {
    const from = end - walked.length * count;
    const kept = attacks.filter((a) => a.at < from).map((a) => ({ ...a, length: Math.min(a.length, from - a.at) }));
    if (kept.some((a) => tells(a.token)) || !attacks.some((a) => tells(a.token)))
      return [...kept, ...walked.map((step, k) => ({ at: from + k * count, length: count, token: 'w', step }))];
  }
  return attacks;
}

/**
 * The attacks fitted to a chord that is shorter than its pattern. Where what is left never tells which chord it is although the pattern
 * does, a bass is struck on the first count and the chord on the second, on half counts where it has but one, and a broken pattern ends on
 * the note that tells.
 */
function fitted(attacks: Attack[], pattern: readonly (readonly string[])[], chord: VoicedChord, count: Ticks): Attack[] {
  const telling = pattern.flat().find(tells);
  if (telling === undefined || attacks.length === 0 || attacks.some((a) => tells(a.token))) return attacks;
  const [first] = attacks;
  if (isShaped(telling) || attacks.length === 1) {
    const bass = chord.length > count ? count : Math.floor(chord.length / 2);
    return [
      { ...first, at: chord.at, length: bass },
      { at: chord.at + bass, length: chord.length - bass, token: telling },
    ];
  }
  return attacks.map((a, i) => (i === attacks.length - 1 ? { ...a, token: telling } : a));
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
    } else if (token !== '.')
      attacks.push({ at, length: until - at, token: ungraced(token), ...(token.startsWith(GRACED) ? { graced: true } : {}) });
  }
  return attacks;
}

/** Half steps from a bass to the lowest note that is struck over it in a pattern: a second would blur. */
const CLEAR_OF_BASS = 3;

/** The lowest pitch of a name that lies clear above another. */
const above = (name: NoteName, bass: Pitch): Pitch => placed(name, midiOf(bass) + CLEAR_OF_BASS);

/** The highest pitch of a name that lies clear below another. */
const below = (name: NoteName, bass: Pitch): Pitch => placed(name, midiOf(bass) - CLEAR_OF_BASS - 11);

/** The notes by which patterns go up from a bass: the third or what tells the chord in its place, the fifth, the seventh or sixth, the ninth. */
interface Degrees {
  readonly third: Pitch;
  readonly fifth: Pitch;
  readonly seventh: Pitch;
  readonly ninth: Pitch;
  /** The other bass of a pattern with two. */
  readonly otherBass: Pitch;
}

/** Counted up from the root. */
function overRoot(parsed: Chord, root: Pitch, key: Key): Degrees {
  const octave = transposePitch(root, '8P');
  const up = (degree: number) => {
    const interval = intervalOf(parsed, degree);
    return interval === null ? null : transposePitch(root, interval);
  };
  const fifth = up(5);
  return {
    third: up(3) ?? up(4) ?? up(2) ?? octave,
    fifth: fifth ?? octave,
    seventh: up(7) ?? up(6) ?? octave,
    ninth: up(9) ?? ninthOver(parsed, root, key),
    otherBass: fifth ? transposePitch(fifth, '-8P') : root,
  };
}

/** Counted up from a bass that is not the root: the root always among them, and what else tells the chord. */
function overSlash(parsed: Chord, bass: Pitch, key: Key): Degrees {
  const name = pitchClass(nameOf(bass));
  const others = parsed.tones.filter((t) => pitchClass(t.name) !== name && t.degree !== 1);
  const telling = [3, 4, 2, 7, 6, 5].flatMap((d) => others.filter((t) => t.degree === d));
  const root = above(parsed.root, bass);
  const third = telling.length > 0 ? above(telling[0].name, bass) : root;
  const seventh = others.find((t) => t.degree === 7 || t.degree === 6);
  return {
    third,
    fifth: root,
    seventh: seventh ? above(seventh.name, bass) : third,
    ninth: ninthOver(parsed, bass, key),
    otherBass: below(parsed.root, bass),
  };
}

/** The scale's ninth of a chord, above the octave of its bass: a step over its root, a whole one where the scale does not have the root. */
function ninthOver({ root }: Chord, bass: Pitch, key: Key): Pitch {
  const scale = scaleOf(key);
  const at = scale.findIndex((n) => pitchClass(n) === pitchClass(root));
  const name = at < 0 ? transposeName(root, '2M') : scale[(at + 1) % scale.length];
  return placed(name, midiOf(bass) + 12);
}

/** What the tokens of a texture mean over a chord: pitches counted up from its bass, which is its root or the bass that its symbol asks for. */
export function degreesFrom(
  parsed: Chord,
  chord: Pick<VoicedChord, 'pitches'>,
  hands: Hands,
  key: Key,
): (token: string) => Pitch[] {
  const lowest = Math.max(KEYBOARDS[hands.keys].low, ROOT_HIGHEST - 11);
  const bass = placed(parsed.bass ?? parsed.root, lowest);
  const slash = parsed.bass !== null && pitchClass(parsed.bass) !== pitchClass(parsed.root);
  const { third, fifth, seventh, ninth, otherBass } = slash ? overSlash(parsed, bass, key) : overRoot(parsed, bass, key);
  const higher = (pitch: Pitch) => transposePitch(pitch, '8P');
  // In the octave above; over a bass that is not the root a note may lie there already.
  const second = (pitch: Pitch) => (midiOf(pitch) - midiOf(bass) > 12 ? pitch : higher(pitch));
  const table: Readonly<Record<string, () => readonly Pitch[]>> = {
    c: () => chord.pitches,
    u: () => overBass(chord.pitches, bass),
    b: () => chord.pitches.slice(0, 1),
    r: () => (chord.pitches.length > 1 ? chord.pitches.slice(1) : chord.pitches),
    p: () => [placed(key.tonic, lowest)],
    '1': () => [bass],
    '3': () => [third],
    '5': () => [fifth],
    '5,': () => [otherBass],
    '7': () => [seventh],
    '8': () => [higher(bass)],
    '9': () => [ninth],
    '10': () => [second(third)],
    '12': () => [second(fifth)],
    '14': () => [second(seventh)],
  };
  return (token) => {
    const pitches = ungraced(token)
      .split('+')
      .flatMap((t) => table[t]?.() ?? []);
    const seen = new Set<number>();
    return pitches.filter((p) => (seen.has(midiOf(p)) ? false : seen.add(midiOf(p)))).sort((a, b) => midiOf(a) - midiOf(b));
  };
}

/** Keys of a chord from which more than the bass may be spared over it. */
const FULL_CHORD = 4;

/** The chord as it was learned, over a bass that has been struck: without that note where it lies at the bottom, or where four keys are many. */
function overBass(pitches: readonly Pitch[], bass: Pitch): readonly Pitch[] {
  const same = (p: Pitch) => pitchClass(nameOf(p)) === pitchClass(nameOf(bass));
  if (pitches.length < 2) return pitches;
  if (same(pitches[0])) return pitches.slice(1);
  return pitches.length >= FULL_CHORD ? pitches.filter((p) => !same(p)) : pitches;
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
  const step = stepBeside(target, way, 1, key);
  // Where the hand is a step away already, there is nothing to walk.
  return midiOf(step) === midiOf(from) ? [] : [step];
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
