import { harmonyUnder, type NoOctave } from '../fills/harmony.js';
import { lowOctave, withLastTouch } from '../fills/close.js';
import type { FillNote } from '../catalogue/fills/fill.js';
import { chordsForVoice, chordsOverBass, type SungChord } from '../fills/sing-along.js';
import { blockStrikes, type Strike } from '../left-hand/strikes.js';
import { voiceLeftHand, type LeftHand, type VoicedChord } from '../left-hand/voice.js';
import { innerUnder } from '../right-hand/inner.js';
import { fingerRightHand, type RightHand } from '../right-hand/right-hand.js';
import { notesUnderStay } from '../right-hand/stay.js';
import { notesUnderTune, notesWithTune, type UnderNote } from '../right-hand/under-melody.js';
import type { Hands } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';
import type { Material } from './material.js';
import { besideFills, keptFills, roomsOf, type FillSlot } from './rooms.js';
import { stretchAt, voicingWishes, type Settings } from './settings.js';
import { asStruck, textureLeftHand, type TexturedChord } from './texture-plan.js';

/** The left hand as it is played. */
export interface LeftSide {
  /** What it is asked to strike. */
  readonly strikes: readonly Strike[];
  /** The way that was found through the voicings. */
  readonly voicingPath: LeftHand;
  /** The chords as they are learned first, one for every strike. */
  readonly chords: readonly VoicedChord[];
  /** Notes of the song that the right hand strikes with its tune, and chord notes that the left hand's school hands to it. */
  readonly stacks: readonly UnderNote[];
  readonly delegatedNotes: readonly UnderNote[];
  /** What a texture makes of each chord, null where it stays plain; and the chords with what is really struck. */
  readonly dressed: readonly (TexturedChord | null)[];
  readonly struck: readonly VoicedChord[];
}

/** The right hand as it is played. */
export interface RightSide {
  readonly under: readonly UnderNote[];
  /** Notes of the tune that were to be doubled an octave below and cannot be. */
  readonly withoutOctave: readonly NoOctave[];
  readonly rooms: readonly FillSlot[];
  readonly fills: readonly FillNote[];
  /** Chords in place of a tune that is sung. */
  readonly sung: readonly SungChord[];
  /** Chords that the hands share, where the tune rests: what the right hand plays of them. */
  readonly interludes: readonly SungChord[];
  readonly fingered: RightHand;
}

/** The chords that the left hand is asked to strike, where they are struck. */
export function strikesOf(settings: Settings, { bars, starts, spans }: Material): Strike[] {
  const held = { at: (at: Ticks) => stretchAt(settings, at).heldOver, starts };
  return blockStrikes(spans, bars, held).filter((s) => stretchAt(settings, s.at).level !== 'tune');
}

/** Lays the left hand: voiced on its way, with the touch of its last chord, and dressed. */
export function leftSide(settings: Settings, material: Material): LeftSide {
  const { bars, starts, played, song } = material;
  const { hands, close } = settings;
  const arranged = settings.playMode === 'arranged';
  const strikes = strikesOf(settings, material);
  const voicingPath = voiceLeftHand(strikes, played, voicingWishes(settings, material));
  const touched = withLastTouch(voicingPath.chords, close.touch, strikes.at(-1)?.beat ?? 1);
  const chords = settings.playMode === 'outline' ? touched.map(lowestOf) : touched;
  const stacks = [...notesWithTune(played), ...innerUnder(material.inner, played)];
  const delegatedNotes = arranged
    ? notesUnderTune(chords, played, hands, bars, (at) => stretchAt(settings, at).under === 'long').filter(
        (u) => !stacks.some((s) => u.at < s.at + s.length && s.at < u.at + u.length),
      )
    : [];
  const hanging = [...stacks, ...delegatedNotes].flatMap((u) =>
    u.pitches.map((pitch) => ({ at: u.at, length: u.length, pitch })),
  );
  const dressed = textureLeftHand(settings, chords, {
    bars,
    hands,
    key: song.key,
    phrases: starts,
    tempo: song.tempo,
    left: material.left,
    right: [...played, ...hanging].sort((a, b) => a.at - b.at),
  });
  const closed = arranged && close.touch === 'octave' ? closedLow(dressed, chords, hands) : dressed;
  return { strikes, voicingPath, chords, stacks, delegatedNotes, dressed: closed, struck: asStruck(chords, closed) };
}

/** Lays the right hand over the left: harmony and fills where they are wished for, and a finger for every note. */
export function rightSide(
  settings: Settings,
  material: Material,
  { chords, stacks, delegatedNotes, struck }: LeftSide,
): RightSide {
  const { hands, playMode, plays } = settings;
  const { bars, starts, ends, played, song } = material;
  // A hand that holds several keys has none free for a fill.
  const holds = (at: Ticks) => stacks.some((s) => s.at <= at && at < s.at + s.length);
  const rooms = playMode === 'arranged' ? roomsOf(settings, song, ends, struck, bars).filter((r) => !holds(r.at)) : [];
  const fills = plays.fills ? keptFills(rooms) : [];
  const harmony = {
    tune: played,
    chords: struck,
    bars,
    hands,
    ends,
    taken: new Set([...stacks, ...delegatedNotes].map((u) => u.at)),
  };
  const stays = notesUnderStay(played, (at) => stretchAt(settings, at).stay, song.key);
  const added = plays.harmony
    ? harmonyUnder({
        ...harmony,
        taken: new Set([...harmony.taken, ...stays.map((u) => u.at)]),
        harmonyAt: (at) => stretchAt(settings, at).harmony,
      })
    : { under: [], without: [] };
  const more = [...stacks, ...stays, ...added.under];
  const under = besideFills(more.length === 0 ? delegatedNotes : [...delegatedNotes, ...more].sort((a, b) => a.at - b.at), fills);
  const task = { tune: played, under, fills, hands, tempo: song.tempo, fingers: settings.rightFingers, key: song.key };
  return {
    under,
    withoutOctave: added.without,
    rooms,
    fills,
    sung: playMode === 'sing-along' ? chordsForVoice(chords, hands) : [],
    interludes: playMode === 'arranged' ? chordsOverBass(underRests(chords, played), hands) : [],
    fingered: fingerRightHand({ ...task, phrases: starts }),
  };
}

/** The chords whose upper notes are the right hand's and under which the tune rests from end to end. */
function underRests(chords: readonly VoicedChord[], tune: readonly MelodyNote[]): VoicedChord[] {
  let n = 0;
  return chords.filter(({ at, length, school }) => {
    while (n < tune.length && tune[n].at + tune[n].length <= at) n++;
    return school === 'under-melody' && (n === tune.length || tune[n].at >= at + length);
  });
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
  dressed: readonly (TexturedChord | null)[],
  chords: readonly VoicedChord[],
  hands: Hands,
): readonly (TexturedChord | null)[] {
  const last = chords.at(-1);
  const low = last ? lowOctave(last, hands) : null;
  return low ? [...dressed.slice(0, -1), { ...low, fingers: low.notes.length > 1 ? [5, 1] : [5], turns: [] }] : dressed;
}
