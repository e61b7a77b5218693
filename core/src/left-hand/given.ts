import { intervalOf, toneFor } from '../harmony/naming.js';
import { scaleOf, type Key } from '../harmony/key.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import {
  HIGHEST_KEY,
  intervalBetween,
  LOWEST_KEY,
  midiOf,
  nameOf,
  octaveUp,
  pitchAt,
  pitchClass,
  simpleName,
  staffStep,
  transposeName,
  type NoteName,
  type Pitch,
} from '../pitch/pitch.js';
import type { KeyNote } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';

/** A chord with its stretch. */
export interface ChordStretch {
  readonly symbol: string;
  readonly at: Ticks;
  readonly length: Ticks;
}

/** A figure on another chord, and the notes that have no place of the same name there. */
export interface GivenFigure {
  readonly notes: readonly KeyNote[];
  /** Where another note of the chord stands in for one that it does not have. */
  readonly bent: readonly { readonly at: Ticks; readonly pitch: Pitch; readonly degree: number }[];
}

/** Degrees that stand in for one that a chord does not have, the nearest first. */
const STAND_INS: Readonly<Record<number, readonly number[]>> = {
  3: [4, 2, 5],
  4: [3, 5],
  2: [3, 5],
  5: [6, 3],
  6: [5, 7],
  7: [6, 1],
  9: [2, 1],
};

/**
 * Gives a figure of the left hand to another chord: notes of the chord go to the same degree of the other, its bass to the other's bass,
 * notes between them by as many steps of the scale. The rhythm is kept; a longer chord hears it again, a shorter one as much as fits.
 * Null where one of the two is no chord, or nothing is struck.
 */
export function givenTo(notes: readonly KeyNote[], from: ChordStretch, to: ChordStretch, key: Key): GivenFigure | null {
  const [source, target] = [parseChord(from.symbol), parseChord(to.symbol)];
  if (source.kind !== 'chord' || target.kind !== 'chord' || notes.length === 0) return null;
  const lowest = Math.min(...notes.map((n) => midiOf(n.pitch)));
  const bass = source.bass ?? source.root;
  const ground = below(bass, lowest);
  const laid = nearest(target.bass ?? target.root, midiOf(ground));
  const bent: { at: Ticks; pitch: Pitch; degree: number }[] = [];
  const moved: KeyNote[] = [];
  for (let start = 0; start < to.length; start += from.length)
    for (const note of notes) {
      const at = to.at + start + note.at - from.at;
      const length = Math.min(note.length, to.at + to.length - at);
      if (note.at < from.at || note.at >= from.at + from.length || length <= 0) continue;
      const { name, degree } = counterpart(nameOf(note.pitch), source, target, key);
      const pitch = placed(name, note.pitch, ground, laid);
      if (degree !== null) bent.push({ at, pitch, degree });
      if (!moved.some((n) => n.at === at && midiOf(n.pitch) === midiOf(pitch))) moved.push({ at, length, pitch });
    }
  return { notes: moved, bent };
}

/** The highest pitch of a name that is not over a key. */
function below(name: NoteName, highest: number): Pitch {
  const pitch = pitchAt(name, highest);
  return midiOf(pitch) > highest ? octaveUp(pitch, -1) : pitch;
}

/** The pitch of a name that lies nearest to a key, on the keyboard. */
function nearest(name: NoteName, midi: number): Pitch {
  const ways = [-1, 0, 1].map((octaves) => octaveUp(pitchAt(name, midi), octaves));
  const near = ways
    .filter((p) => midiOf(p) >= LOWEST_KEY)
    .sort((a, b) => Math.abs(midiOf(a) - midi) - Math.abs(midiOf(b) - midi));
  return near[0] ?? ways[2];
}

/** What a note of one chord is on another; the degree that another stands in for, where the other chord does not have it. */
function counterpart(
  name: NoteName,
  from: Chord,
  to: Chord,
  key: Key,
): { readonly name: NoteName; readonly degree: number | null } {
  if (pitchClass(name) === pitchClass(from.bass ?? from.root)) return { name: to.bass ?? to.root, degree: null };
  const tone = toneFor(from, name);
  if (tone === null) return { name: between(name, from.root, to.root, key), degree: null };
  const interval = intervalOf(to, tone.degree);
  if (interval !== null) return { name: transposeName(to.root, interval), degree: null };
  const other = (STAND_INS[tone.degree] ?? []).map((d) => intervalOf(to, d)).find((i) => i !== null);
  return { name: other ? transposeName(to.root, other) : to.root, degree: tone.degree };
}

/** A note between those of a chord: as many steps of the scale from the other root; one outside the scale as many half steps. */
function between(name: NoteName, from: NoteName, to: NoteName, key: Key): NoteName {
  const scale = scaleOf(key);
  const stepOf = (note: NoteName) => scale.findIndex((s) => pitchClass(s) === pitchClass(note));
  const [note, here, there] = [stepOf(name), stepOf(from), stepOf(to)];
  if (Math.min(note, here, there) < 0) return simpleName(transposeName(to, intervalBetween(from, name)));
  return scale[(note - here + there + scale.length) % scale.length];
}

/** A name as far over the new ground as the note was over the old one, to within a few steps where it is another degree. */
function placed(name: NoteName, was: Pitch, ground: Pitch, laid: Pitch): Pitch {
  const wanted = staffStep(laid) + staffStep(was) - staffStep(ground);
  const near = [-1, 0, 1].map((octaves) => octaveUp(pitchAt(name, midiOf(laid) + midiOf(was) - midiOf(ground)), octaves));
  const on = near.filter((p) => midiOf(p) >= LOWEST_KEY && midiOf(p) <= HIGHEST_KEY && midiOf(p) >= midiOf(laid));
  const away = (p: Pitch) => Math.abs(staffStep(p) - wanted);
  return [...on, laid].reduce((best, next) => (away(next) < away(best) && nameOf(next) === name ? next : best), on[0] ?? laid);
}
