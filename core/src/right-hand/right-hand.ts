import type { Key } from '../harmony/key.js';
import { bottomUp, type Pitch } from '../pitch/pitch.js';
import type { Hands } from '../song/decisions.js';
import { keysOf, type MelodyNote } from '../song/song.js';
import { firstAtOrAfter } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Fingered, Grip } from '../fingers/search.js';
import { fingerLine } from '../fingers/line.js';
import { walkOver } from './inner.js';
import { handPlaces, type HandPlace } from './positions.js';
import type { UnderNote } from './under-melody.js';

/** The right hand of a song: what it strikes, with which fingers, and where it lies. */
export interface RightHand {
  readonly grips: readonly Grip[];
  readonly row: readonly Fingered[];
  readonly places: readonly HandPlace[];
  /** The finger of a note that is struck at a place. */
  readonly fingerOf: (at: Ticks, pitch: Pitch) => number | null;
}

/** A note that the right hand strikes beside the tune, and the tune's key that it holds meanwhile. */
export interface StruckBeside {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
  readonly held: Pitch | null;
}

/** What the right hand is fingered for. */
export interface RightHandTask {
  readonly tune: readonly MelodyNote[];
  readonly under: readonly UnderNote[];
  /** Notes struck while the tune is held or rests, in order. */
  readonly fills: readonly StruckBeside[];
  /** Where phrases begin, in order: the hand is free to go anywhere there. */
  readonly phrases: readonly Ticks[];
  /** Chosen fingers by place. */
  readonly fingers: ReadonlyMap<Ticks, readonly number[]>;
  readonly hands: Hands;
  /** Quarter notes a minute. */
  readonly tempo: number;
  readonly key: Key;
}

/** Fingers the tune and the chord notes that hang from it, phrase by phrase. */
export function fingerRightHand(task: RightHandTask): RightHand {
  const { hands, tempo, key } = task;
  const grips = withLearned(gripsOf(task), task);
  const row = fingerLine(grips, { hands, hand: 'right', tempo, key });
  const fingers = new Map(grips.map((g, i) => [g.at, { pitches: g.pitches, fingers: row[i].fingers }]));
  return {
    grips,
    row,
    places: handPlaces(grips, row, 'right', key),
    fingerOf: (at, pitch) => {
      const grip = fingers.get(at);
      return grip ? (grip.fingers[grip.pitches.indexOf(pitch)] ?? null) : null;
    },
  };
}

/** The grips with the fingers that the melody has as it is written, where chord notes or fills are added to it. */
function withLearned(grips: readonly Grip[], task: RightHandTask): readonly Grip[] {
  const { hands, tempo, key } = task;
  const written = task.under.filter((u) => u.written);
  if (written.length === task.under.length && task.fills.length === 0) return grips;
  const alone = gripsOf({ ...task, under: written, fills: [] });
  const row = fingerLine(alone, { hands, hand: 'right', tempo, key });
  const fingers = new Map(alone.map((g, i) => [g.at, row[i].fingers.at(-1) ?? null]));
  return grips.map((g) => ({ ...g, learned: fingers.get(g.at) ?? null }));
}

/** What the hand does at a moment: all keys that are down then, and those of them that are held from before. */
interface Moment {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitches: readonly Pitch[];
  readonly held: readonly Pitch[];
}

/** What is struck at each moment, bottom-up; a note of the tune that is still held tops the chord struck under it. */
function gripsOf({ tune, under, fills, phrases, fingers }: RightHandTask): Grip[] {
  const inner = under.filter((u) => u.inner);
  const others = inner.length > 0 ? under.filter((u) => !u.inner) : under;
  const hanging = new Map(others.map((u) => [u.at, u]));
  const moments: Moment[] = tune.map((n) => ({
    at: n.at,
    length: n.length,
    pitches: n.with ? keysOf(n) : [...(hanging.get(n.at)?.pitches ?? []), n.pitch],
    held: [],
  }));
  const struck = new Set(tune.map((n) => n.at));
  for (const u of others)
    if (!struck.has(u.at)) moments.push({ at: u.at, length: u.length, pitches: [...u.pitches, u.tune], held: [u.tune] });
  for (const { at, length, pitch, held } of fills) {
    const keys = held === null ? [] : [held];
    moments.push({ at, length, pitches: bottomUp([pitch, ...keys]), held: keys });
  }
  if (moments.length > tune.length) moments.sort((a, b) => a.at - b.at);
  let phrase = 0;
  let last = -1;
  return (inner.length > 0 ? withInner(moments, inner, tune) : moments).map((m): Grip => {
    while (phrase + 1 < phrases.length && phrases[phrase + 1] <= m.at) phrase++;
    const fresh = phrase !== last;
    last = phrase;
    return { ...m, fresh, pin: fingers.get(m.at) ?? null };
  });
}

/** The moments of the hand with a second voice: its keys where they are struck, with what the tune holds then, and held while others move. */
function withInner(moments: readonly Moment[], inner: readonly UnderNote[], tune: readonly MelodyNote[]): Moment[] {
  const there = new Set(moments.map((m) => m.at));
  const more = [...new Set(inner.map((u) => u.at))].filter((at) => !there.has(at));
  const all = [...moments, ...more.map((at): Moment => ({ at, length: 0, pitches: [], held: [] }))].sort((a, b) => a.at - b.at);
  const soundsAt = walkOver(inner);
  return all.map((m) => {
    const sounding = soundsAt(m.at);
    if (sounding.length === 0) return m;
    const last = tune[firstAtOrAfter(tune, m.at) - 1] as MelodyNote | undefined;
    const topped = m.length === 0 && last && m.at < last.at + last.length ? keysOf(last) : [];
    const held = [...m.held, ...topped, ...sounding.flatMap((u) => (u.at < m.at ? u.pitches : []))];
    const length = m.length || Math.min(...sounding.map((u) => u.at + u.length - m.at));
    const pitches = new Set([...m.pitches, ...topped, ...sounding.flatMap((u) => u.pitches)]);
    return { at: m.at, length, pitches: bottomUp([...pitches]), held };
  });
}
