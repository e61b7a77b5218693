import { toneFor } from '../harmony/naming.js';
import { parseChord } from '../harmony/symbol.js';
import { midiOf, nameOf, octaveUp, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf, type Hands } from '../song/decisions.js';
import type { KeyNote } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';

/** A written left hand as this hand and keyboard play it. */
export interface WrittenLeft {
  readonly notes: readonly KeyNote[];
  /** Places where more is asked for than the hand holds or the keyboard has, with the keys that are left out or moved there. */
  readonly bent: readonly {
    readonly at: Ticks;
    readonly pitches: readonly Pitch[];
    readonly why: 'reach' | 'fingers' | 'keyboard';
  }[];
}

/** Most keys that a hand strikes at once. */
const FINGERS = 5;

/**
 * What a hand can play of a written left hand: keys off the keyboard in the nearest octave on it; of what is struck together as much as
 * the hand spans from the lowest key up. A key that is held while the hand moves out of its reach is let go.
 */
export function playedAsWritten(left: readonly KeyNote[], hands: Hands): WrittenLeft {
  const { low, high } = KEYBOARDS[hands.keys];
  const { limit } = spanOf(hands, 'left');
  const bent: { at: Ticks; pitches: Pitch[]; why: WrittenLeft['bent'][number]['why'] }[] = [];
  const say = (at: Ticks, why: (typeof bent)[number]['why'], pitch: Pitch) => {
    const said = bent.findLast((b) => b.at === at && b.why === why);
    if (said) said.pitches.push(pitch);
    else bent.push({ at, pitches: [pitch], why });
  };
  const notes: KeyNote[] = [];
  /** Indices of the notes that are still down. */
  let down: number[] = [];
  for (let i = 0; i < left.length;) {
    const { at } = left[i];
    const struck: KeyNote[] = [];
    for (; i < left.length && left[i].at === at; i++) {
      const pitch = onto(left[i].pitch, low, high);
      if (pitch !== left[i].pitch) say(at, 'keyboard', left[i].pitch);
      if (!struck.some((n) => midiOf(n.pitch) === midiOf(pitch))) struck.push({ ...left[i], pitch });
    }
    struck.sort((a, b) => midiOf(a.pitch) - midiOf(b.pitch));
    const kept = struck.filter((n) => midiOf(n.pitch) - midiOf(struck[0].pitch) <= limit);
    for (const n of struck) if (!kept.includes(n)) say(at, 'reach', n.pitch);
    for (const n of kept.slice(FINGERS)) say(at, 'fingers', n.pitch);
    const played = kept.slice(0, FINGERS);
    down = down.filter((k) => notes[k].at + notes[k].length > at);
    for (const k of down) {
      const keys = [notes[k], ...played].map((n) => midiOf(n.pitch));
      const holds = Math.max(...keys) - Math.min(...keys) <= limit && new Set(keys).size === keys.length;
      if (!holds) notes[k] = { ...notes[k], length: at - notes[k].at };
    }
    down = down.filter((k) => notes[k].at + notes[k].length > at);
    while (down.length + played.length > FINGERS) {
      const [first] = down.splice(0, 1);
      notes[first] = { ...notes[first], length: at - notes[first].at };
    }
    // What is held on both sides of what is struck may be too wide together.
    while (down.length > 0 && spread([...down.map((k) => notes[k]), ...played]) > limit) {
      const [first] = down.splice(0, 1);
      notes[first] = { ...notes[first], length: at - notes[first].at };
    }
    for (const n of played) down.push(notes.push(n) - 1);
  }
  return { notes, bent };
}

function onto(pitch: Pitch, low: number, high: number): Pitch {
  let found = pitch;
  while (midiOf(found) < low) found = octaveUp(found, 1);
  while (midiOf(found) > high) found = octaveUp(found, -1);
  return found;
}

const spread = (notes: readonly KeyNote[]): number => {
  const keys = notes.map((n) => midiOf(n.pitch));
  return Math.max(...keys) - Math.min(...keys);
};

/** What a written key is under a chord: its bass where it is the lowest of its moment, a note of it, or a step between chords. */
export function roleIn(symbol: string, note: KeyNote, lowest: boolean): 'bass' | 'chord' | 'fill' {
  const chord = parseChord(symbol);
  if (chord.kind !== 'chord' || (toneFor(chord, nameOf(note.pitch)) === null && chord.bass !== nameOf(note.pitch))) return 'fill';
  return lowest ? 'bass' : 'chord';
}
