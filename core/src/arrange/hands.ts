import { harmonyUnder } from '../fills/harmony.js';
import { lowOctave, withLastTouch } from '../fills/close.js';
import type { FillNote } from '../fills/offers.js';
import { chordsForVoice, type SungChord } from '../fills/sing-along.js';
import { HELD } from '../fills/texture.js';
import { blockStrikes, type Strike } from '../left-hand/strikes.js';
import { voiceLeftHand, type LeftHand, type VoicedChord } from '../left-hand/voice.js';
import { fingerRightHand, type RightHand } from '../right-hand/right-hand.js';
import { notesUnderTune, type UnderNote } from '../right-hand/under-melody.js';
import type { Document } from '../song/decisions.js';
import { wishAt } from '../song/edits.js';
import type { Ticks } from '../time/ticks.js';
import { levelAt, plays } from './layers.js';
import type { Material } from './material.js';
import { besideFills, keptFills, roomsOf, type Room } from './rooms.js';
import { asStruck, dressLeftHand, type DressedChord } from './texture-plan.js';
import { wishesOf } from './wishes.js';

/** The left hand as it is played. */
export interface LeftSide {
  /** What it is asked to strike. */
  readonly strikes: readonly Strike[];
  /** The way that was found through the voicings. */
  readonly way: LeftHand;
  /** The chords as they are learned first, one for every strike. */
  readonly chords: readonly VoicedChord[];
  /** Chord notes that its school hands to the right hand. */
  readonly hung: readonly UnderNote[];
  /** What a texture makes of each chord, null where it stays plain; and the chords with what is really struck. */
  readonly dressed: readonly (DressedChord | null)[];
  readonly struck: readonly VoicedChord[];
}

/** The right hand as it is played. */
export interface RightSide {
  readonly under: readonly UnderNote[];
  readonly rooms: readonly Room[];
  readonly fills: readonly FillNote[];
  /** Chords in place of a tune that is sung. */
  readonly sung: readonly SungChord[];
  readonly fingered: RightHand;
}

/** Lays the left hand: voiced on its way, with the touch of its last chord, and dressed. */
export function leftSide(doc: Document, { bars, starts, played, song, spans }: Material): LeftSide {
  const { hands, choices } = doc;
  const arranged = choices.way === 'arranged';
  const held = { at: (at: Ticks) => wishAt(doc, at, 'texture') === HELD && plays(doc, 'texture'), starts };
  const strikes = blockStrikes(spans, bars, held).filter((s) => levelAt(doc, s.at) !== 'tune');
  const way = voiceLeftHand(strikes, played, wishesOf(doc, spans));
  const touched = withLastTouch(way.chords, choices.close.touch, strikes.at(-1)?.beat ?? 1);
  const chords = choices.way === 'outline' ? touched.map(lowestOf) : touched;
  const hung = arranged ? notesUnderTune(chords, played, hands, bars) : [];
  const hanging = hung.flatMap((u) => u.pitches.map((pitch) => ({ at: u.at, length: u.length, pitch })));
  const dressed = dressLeftHand(doc, chords, {
    ...{ bars, hands, key: song.key, phrases: starts, tempo: song.tempo },
    right: [...played, ...hanging].sort((a, b) => a.at - b.at),
  });
  const closed = arranged && choices.close.touch === 'octave' ? closedLow(dressed, chords, hands) : dressed;
  return { strikes, way, chords, hung, dressed: closed, struck: asStruck(chords, closed) };
}

/** Lays the right hand over the left: harmony and fills where they are wished for, and a finger for every note. */
export function rightSide(doc: Document, material: Material, { chords, hung, struck }: LeftSide): RightSide {
  const { hands, choices } = doc;
  const { bars, starts, ends, played, song } = material;
  const rooms = choices.way === 'arranged' ? roomsOf(doc, ends, played, struck, bars, song.key) : [];
  const fills = keptFills(doc, rooms);
  const harmony = { tune: played, chords: struck, bars, hands, ends, taken: new Set(hung.map((u) => u.at)) };
  const added = plays(doc, 'harmony') ? harmonyUnder({ ...harmony, wishAt: (at) => wishAt(doc, at, 'harmony') }) : [];
  const under = besideFills(added.length === 0 ? hung : [...hung, ...added].sort((a, b) => a.at - b.at), fills);
  const task = { tune: played, under, fills, hands, tempo: song.tempo, fingers: choices.fingers, key: song.key };
  return {
    ...{ under, rooms, fills },
    sung: choices.way === 'sing-along' ? chordsForVoice(chords, hands) : [],
    fingered: fingerRightHand({ ...task, phrases: starts }),
  };
}

/** A chord as an outline has it: its lowest key alone, under the finger that plays it in the whole chord. */
function lowestOf(chord: VoicedChord): VoicedChord {
  return {
    ...chord,
    pitches: chord.pitches.slice(0, 1),
    fingers: chord.fingers.slice(0, 1),
    struck: chord.struck.slice(0, 1).map((n) => ({ ...n, length: chord.at + chord.length - n.at })),
    spread: 'together',
  };
}

/** The chords with the last one laid as a low octave, if there is one. */
function closedLow(
  dressed: readonly (DressedChord | null)[],
  chords: readonly VoicedChord[],
  hands: Document['hands'],
): readonly (DressedChord | null)[] {
  const last = chords.at(-1);
  const low = last ? lowOctave(last, hands) : null;
  return low ? [...dressed.slice(0, -1), { ...low, fingers: low.notes.length > 1 ? [5, 1] : [5] }] : dressed;
}
