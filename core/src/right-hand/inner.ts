import { reachableBy } from '../fingers/chords.js';
import { midiOf, octaveUp, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, type Hands } from '../song/decisions.js';
import { keysOf, MOST_BESIDE, type KeyNote, type MelodyNote } from '../song/song.js';
import { firstAtOrAfter } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { UnderNote } from './under-melody.js';

/** The second voice of the right hand as it is played, and the keys of it that this hand or keyboard does not have. */
export interface PlayedInner {
  readonly notes: readonly KeyNote[];
  readonly without: readonly KeyNote[];
}

/**
 * What the right hand plays beside its tune for lengths of its own. It goes with the tune into another octave; a key that the tune takes
 * over is let go there, and what the hand does not span together with the tune and all else that it holds is left out, the key that is
 * farthest from the tune first.
 */
export function playedInner(
  inner: readonly KeyNote[],
  written: readonly MelodyNote[],
  played: readonly MelodyNote[],
  hands: Hands,
): PlayedInner {
  const { low, high } = KEYBOARDS[hands.keys];
  const moved = inner.map((n) => ({ ...n, pitch: octaveUp(n.pitch, octavesAt(n.at, written, played)) }));
  const without = new Set(moved.filter((n) => midiOf(n.pitch) < low || midiOf(n.pitch) > high));
  const fitting = besideTune(
    moved.filter((n) => !without.has(n)),
    played,
  );
  const reachable = reachableBy(hands, 'right');
  const soundsAt = walkOver(fitting);
  for (const at of momentsOf(fitting, played)) {
    const tune = soundingAt(played, at);
    const keys = tune ? keysOf(tune).map(midiOf) : [];
    const held = soundsAt(at).filter((n) => !without.has(n));
    const fits = () => {
      const all = [...keys, ...held.map((n) => midiOf(n.pitch))].sort((a, b) => a - b);
      return all.length <= MOST_BESIDE + 1 && reachable(all);
    };
    while (held.length > 0 && !fits()) {
      const [farthest] = held.toSorted((a, b) => apart(b, tune) - apart(a, tune));
      without.add(farthest);
      held.splice(held.indexOf(farthest), 1);
    }
  }
  return { notes: fitting.filter((n) => !without.has(n)), without: [...without].sort((a, b) => a.at - b.at) };
}

/** What of a row of notes sounds at a place, asked for from place to place onwards. */
export function walkOver<T extends { readonly at: Ticks; readonly length: Ticks }>(
  notes: readonly T[],
): (at: Ticks) => readonly T[] {
  let next = 0;
  let sounding: T[] = [];
  return (at) => {
    while (next < notes.length && notes[next].at <= at) sounding.push(notes[next++]);
    if (sounding.some((n) => n.at + n.length <= at)) sounding = sounding.filter((n) => n.at + n.length > at);
    return sounding;
  };
}

const apart = ({ pitch }: KeyNote, tune: MelodyNote | null): number =>
  tune ? Math.abs(midiOf(pitch) - midiOf(tune.pitch)) : -midiOf(pitch);

/** The note of a tune that sounds at a place; null where it rests. */
function soundingAt(tune: readonly MelodyNote[], at: Ticks): MelodyNote | null {
  const next = firstAtOrAfter(tune, at + 1);
  const note = tune[next - 1] as MelodyNote | undefined;
  return note && at < note.at + note.length ? note : null;
}

/** Whole octaves by which the tune is played higher than it is written, by its note at a place or before it. */
function octavesAt(at: Ticks, written: readonly MelodyNote[], played: readonly MelodyNote[]): number {
  const [from, to] = [written, played].map((tune) => tune[firstAtOrAfter(tune, at + 1) - 1] as MelodyNote | undefined);
  const steps = from && to ? midiOf(to.pitch) - midiOf(from.pitch) : 0;
  return steps % 12 === 0 ? steps / 12 : 0;
}

/** Notes without the keys that the tune itself holds when they come; one on whose key the tune comes later ends there. */
function besideTune(inner: readonly KeyNote[], tune: readonly MelodyNote[]): KeyNote[] {
  return inner.flatMap((note): KeyNote[] => {
    const midi = midiOf(note.pitch);
    const has = (n: MelodyNote) => keysOf(n).some((p) => midiOf(p) === midi);
    const sounding = soundingAt(tune, note.at);
    if (sounding && has(sounding)) return [];
    let end = note.at + note.length;
    for (let i = firstAtOrAfter(tune, note.at); i < tune.length && tune[i].at < end; i++) if (has(tune[i])) end = tune[i].at;
    return [{ ...note, length: end - note.at }];
  });
}

/** All places where a key of the right hand goes down while others of it may be held. */
function momentsOf(inner: readonly KeyNote[], tune: readonly MelodyNote[]): Ticks[] {
  return [...new Set([...inner.map((n) => n.at), ...tune.map((n) => n.at)])].sort((a, b) => a - b);
}

/** The second voice as what the right hand holds beside the tune: keys that are struck and let go together in one. */
export function innerUnder(inner: readonly KeyNote[], tune: readonly MelodyNote[]): UnderNote[] {
  const found = new Map<string, Omit<UnderNote, 'pitches'> & { readonly pitches: Pitch[] }>();
  for (const { at, length, pitch } of inner) {
    const together = found.get(`${at} ${length}`);
    if (together) together.pitches.push(pitch);
    else
      found.set(`${at} ${length}`, {
        at,
        length,
        pitches: [pitch],
        tune: soundingAt(tune, at)?.pitch ?? pitch,
        written: true,
        inner: true,
      });
  }
  for (const u of found.values()) u.pitches.sort((a, b) => midiOf(a) - midiOf(b));
  return [...found.values()];
}
