import * as z from 'zod';
import '../zod.js';
import { HARMONIC_RHYTHMS, VOCABULARIES } from '../harmony/wishes.js';
import { isPitch } from '../pitch/pitch.js';
import { FILL_NAMES, SCHOOLS } from './catalogue-names.js';
import { MOST } from './limits.js';
import { line, SongSchema, symbolText, ticks } from './song.js';
import { FEELS } from '../time/swing.js';
import { TextureSchema } from './texture-data.js';

export { SCHOOLS };

const pitch = z.string().refine(isPitch, { message: 'not-a-pitch' });

/** A stretch that the pianist made one part. Stretches never overlap; the rest of the song is divided around them. */
const PartChoice = z.object({ start: ticks, end: ticks.min(1) });

/** How the lowest notes of the left hand should go from chord to chord. */
export const BASS_WISHES = ['free', 'falling', 'rising', 'held'] as const;

/** Notes that a resting right hand plays while the chords move under it: the tonic, the fifth, both by turns, or both at once. */
export const STAY_NOTES = ['tonic', 'fifth', 'both', 'together'] as const;

/** Rhythm figures for a right hand that stays on its note. */
export const STAY_FIGURES = ['held', 'counts', 'off-beats', 'long-short', 'rocking'] as const;

/**
 * When the left hand strikes a chord: where its symbol stands, on the beat, with a note of the tune that is sung ahead of it, or an
 * eighth before the beat.
 */
export const CHORD_TIMINGS = ['written', 'plain', 'early', 'eighth-early'] as const;

/** How long the chords of the accompaniment are held: for as long as they are written, lightly, or short. */
export const TOUCHES = ['held', 'light', 'short'] as const;

/** Where time stops for a moment: a note that is held beyond its length, or a breath after one. */
export const STOPS = ['fermata', 'breath'] as const;

/** The rhythm of the tune: as it is sung, or straightened to learn first. */
export const TUNE_RHYTHMS = ['sung', 'plain'] as const;

/** How much of the arrangement is played, from the tune alone to everything that was asked for. */
export const LEVELS = ['tune', 'bass', 'two-note', 'triads', 'full'] as const;

/** How long parts are to be. */
export const PART_SIZES = ['smaller', 'usual', 'larger'] as const;

const textureName = z.string().min(1).max(40);
const octave = z.number().int().min(-2).max(2);
const leftOctave = z.number().int().min(-1).max(1);

/** What hangs under the tune where harmony is added. */
export const HARMONY_SIZES = ['one', 'two', 'octave', 'full'] as const;

/** Harmony under the tune: how many notes in a hundred carry it, at most 80, and what hangs there. */
const Harmony = z.object({ density: z.number().int().min(0).max(80), size: z.enum(HARMONY_SIZES) });

/** How the last notes of a texture may lead to the next chord's bass: by the scale or by half steps, from below or above. */
export const WALKS = ['none', 'scale-below', 'scale-above', 'half-below', 'half-above'] as const;

/**
 * How many notes a dominant seventh is played with. Usual are three after triads, its fifth left out, and four where most chords of
 * the song are sevenths.
 */
export const DOMINANTS = ['usual', 'three', 'four'] as const;

/** Where the right hand strikes the chord that hangs under the tune: at changes and strong notes, or under long notes alone. */
export const UNDER_TUNE = ['changes', 'long'] as const;

/** How loud a part is, the softest first. */
export const LOUDNESSES = ['pp', 'p', 'mp', 'mf', 'f', 'ff'] as const;

/** How the loudness moves inside a part. */
export const SWELLS = ['none', 'rise', 'fall', 'arch'] as const;

/**
 * How a part closes: as written, with its last chord suspended, or turned back to what follows by a dominant or by the dominant
 * a half step above.
 */
export const ENDINGS = ['plain', 'suspended', 'dominant', 'flat-second'] as const;

/** How the last chord of the song is struck. */
export const LAST_TOUCHES = ['plain', 'rolled', 'octave'] as const;

/** What may be played where the tune leaves room; "none" where the pianist wants nothing there. */
export const FILL_KINDS = [...FILL_NAMES, 'none'] as const;

/** The layers of an arrangement in the order in which they are learned; each takes the place of the one before it in its hand. */
export const LAYERS = ['tune', 'bass', 'two-note', 'block', 'texture', 'harmony', 'fills'] as const;

/** Ways to play a song: as it is arranged, its highest and lowest notes alone, or as an accompaniment to a voice. */
export const PLAY_MODES = ['arranged', 'outline', 'sing-along'] as const;

const Suggesting = z.object({ vocabulary: z.enum(VOCABULARIES), rhythm: z.enum(HARMONIC_RHYTHMS) });

/** Letters of a reminder. */
export const LONGEST_REMINDER = 80;

/** A line that the pianist wrote at a place. */
const Reminder = z.object({ at: ticks, text: line(LONGEST_REMINDER).min(1) });

/** A name that the pianist gave to what begins at a place. */
const Named = z.object({ at: ticks, name: line(80).min(1) });

/** What the pianist wants in a stretch of the song. What is not there is as the song has it. */
const Passage = z.object({
  start: ticks,
  end: ticks.min(1),
  school: z.enum(SCHOOLS).optional(),
  bass: z.enum(BASS_WISHES).optional(),
  /** Suggested chords in place of the given ones. */
  suggest: Suggesting.optional(),
  /** A right hand that stays on one or two notes in place of the tune. */
  stay: z.object({ notes: z.enum(STAY_NOTES), figure: z.enum(STAY_FIGURES) }).optional(),
  timing: z.enum(CHORD_TIMINGS).optional(),
  touch: z.enum(TOUCHES).optional(),
  rhythm: z.enum(TUNE_RHYTHMS).optional(),
  /** Octaves that the tune is played higher. */
  octave: octave.optional(),
  level: z.enum(LEVELS).optional(),
  dominants: z.enum(DOMINANTS).optional(),
  under: z.enum(UNDER_TUNE).optional(),
  /** Octaves that the left hand's chords lie higher. */
  leftOctave: leftOctave.optional(),
  /** The name of the accompaniment texture. */
  texture: textureName.optional(),
  harmony: Harmony.optional(),
  /** The pedal, changed with the chords. */
  pedal: z.boolean().optional(),
  walk: z.enum(WALKS).optional(),
  loudness: z.enum(LOUDNESSES).optional(),
  swell: z.enum(SWELLS).optional(),
  ending: z.enum(ENDINGS).optional(),
});

/**
 * What the pianist decided. Nothing else is stored: all that is not here is computed again whenever anything
 * changes, and what is here is never overridden silently.
 */
export const ChoicesSchema = z.object({
  partSize: z.enum(PART_SIZES).default('usual'),
  parts: z.array(PartChoice).max(MOST.stretches).default([]),
  names: z.array(Named).max(MOST.stretches).default([]),
  /** Chords written or changed; null where the song's chord is left out and the one before it goes on. */
  chords: z
    .array(z.object({ at: ticks, symbol: symbolText.nullable() }))
    .max(MOST.choices)
    .default([]),
  pins: z
    .array(z.object({ at: ticks, pitches: z.array(pitch).min(1).max(5) }))
    .max(MOST.choices)
    .default([]),
  /** The school of the whole song; null for the usual one of the hand that plays. */
  school: z.enum(SCHOOLS).nullable().default(null),
  bass: z.enum(BASS_WISHES).default('free'),
  /** Suggested chords for the whole song in place of its own; null keeps what the song brought. */
  suggest: Suggesting.nullable().default(null),
  /** Stretches with a left hand of their own. They never overlap. */
  passages: z.array(Passage).max(MOST.stretches).default([]),
  /** Single chords in another school. */
  chordSchools: z
    .array(z.object({ at: ticks, school: z.enum(SCHOOLS) }))
    .max(MOST.choices)
    .default([]),
  timing: z.enum(CHORD_TIMINGS).default('written'),
  touch: z.enum(TOUCHES).default('held'),
  rhythm: z.enum(TUNE_RHYTHMS).default('sung'),
  octave: octave.default(0),
  level: z.enum(LEVELS).default('full'),
  dominants: z.enum(DOMINANTS).default('usual'),
  under: z.enum(UNDER_TUNE).default('changes'),
  leftOctave: leftOctave.default(0),
  texture: textureName.default('block'),
  harmony: Harmony.default({ density: 0, size: 'one' }),
  pedal: z.boolean().default(false),
  walk: z.enum(WALKS).default('none'),
  loudness: z.enum(LOUDNESSES).default('mf'),
  swell: z.enum(SWELLS).default('none'),
  ending: z.enum(ENDINGS).default('plain'),
  /** How eighth notes are played through the song. */
  feel: z.enum(FEELS).default('straight'),
  /** How much softer than the tune the accompaniment is, in percent. */
  balance: z.number().int().min(0).max(80).default(28),
  /** The end of the song: how much slower it becomes over the last two bars, in percent, and how its last chord is struck. */
  close: z
    .object({ slower: z.number().int().min(0).max(60), touch: z.enum(LAST_TOUCHES) })
    .default({ slower: 0, touch: 'plain' }),
  /** Fills that were kept or refused, by the places where the tune leaves room. */
  fills: z
    .array(z.object({ at: ticks, kind: z.enum(FILL_KINDS) }))
    .max(MOST.choices)
    .default([]),
  /** Textures that the pianist wrote. */
  textures: z.array(TextureSchema).max(100).default([]),
  /** Layers that are not played. */
  muted: z.array(z.enum(LAYERS)).max(LAYERS.length).default([]),
  playMode: z.enum(PLAY_MODES).default('arranged'),
  /** Fingers that the pianist chose, bottom-up, for what a hand strikes at a place. */
  fingers: z
    .array(
      z.object({ at: ticks, hand: z.enum(['left', 'right']), fingers: z.array(z.number().int().min(1).max(5)).min(1).max(5) }),
    )
    .max(MOST.choices)
    .default([]),
  /** Names of sections, each at the place where it begins. */
  sections: z.array(Named).max(MOST.stretches).default([]),
  /** Fermatas, each on the note that begins there, and breaths, each before the place. */
  stops: z
    .array(z.object({ at: ticks, kind: z.enum(STOPS) }))
    .max(MOST.choices)
    .default([]),
  /** What the pianist wrote to be reminded of, one line a place. */
  reminders: z.array(Reminder).max(MOST.choices).default([]),
});

export const HAND_PROFILES = ['child', 'small', 'medium', 'large'] as const;
export const KEYBOARD_SIZES = [49, 61, 76, 88] as const;

/** Widest and narrowest span that can be measured, in semitones. */
export const MEASURABLE = { least: 4, most: 24 } as const;
const reach = z.number().int().min(MEASURABLE.least).max(MEASURABLE.most);

/** A span that was measured: what lies easily, and what is never exceeded, in semitones from lowest to highest key. */
const Span = z
  .object({ comfortable: reach, limit: reach })
  .refine((s) => s.comfortable <= s.limit, { message: 'comfortable-past-limit' });

/** Who plays, on which keyboard. */
export const HandsSchema = z.object({
  profile: z.enum(HAND_PROFILES).default('medium'),
  keys: z.union([z.literal(49), z.literal(61), z.literal(76), z.literal(88)]).default(88),
  /** A player in the first year: two notes are a chord, and nothing lies past the comfortable span. */
  firstYear: z.boolean().default(false),
  /** The fullest that this player is given: a part that is arranged fuller is played at this level. */
  most: z.enum(LEVELS).default('full'),
  /** Measured spans, null where the profile's holds. */
  left: Span.nullable().default(null),
  right: Span.nullable().default(null),
});

export const DOCUMENT_VERSION = 5;

type Saved = Readonly<Record<string, unknown>>;
const isSaved = (data: unknown): data is Saved => typeof data === 'object' && data !== null && !Array.isArray(data);

/** Choices of version 4 as version 5 has them: the play mode by its name, and stretches with what is wished for alone. */
function choicesFrom4(choices: unknown): unknown {
  if (!isSaved(choices)) return choices;
  const { way, passages, ...rest } = choices;
  const wished = (passage: unknown) =>
    isSaved(passage) ? Object.fromEntries(Object.entries(passage).filter(([, value]) => value !== null)) : passage;
  return {
    ...rest,
    ...(way === undefined ? {} : { playMode: way }),
    ...(passages === undefined ? {} : { passages: Array.isArray(passages) ? passages.map(wished) : passages }),
  };
}

/**
 * Brings data saved by an earlier version forward, untouched where it is of this version or of a later one. Version 1 knew no schools,
 * suggestions or measured hands, version 2 no fingers, sections, octaves, rhythms, levels, textures, harmony or pedal, version 3 no
 * walks, dynamics, endings, fills, own textures, layers or kept versions: their usual values fill in.
 */
function migrate(data: unknown): unknown {
  if (!isSaved(data) || ![1, 2, 3, 4].some((version) => data['version'] === version)) return data;
  const { choices, versions } = data;
  const kept = (version: unknown) => (isSaved(version) ? { ...version, choices: choicesFrom4(version['choices']) } : version);
  return {
    ...data,
    version: DOCUMENT_VERSION,
    choices: choicesFrom4(choices),
    ...(Array.isArray(versions) ? { versions: versions.map(kept) } : {}),
  };
}

/** Most versions that are kept of an arrangement. */
export const MOST_VERSIONS = 24;

/** An arrangement as it stood when it was kept under a name. */
const KeptVersion = z.object({
  name: line(80).min(1),
  /** When it was kept, as an ISO date and time. */
  kept: line(40),
  song: SongSchema,
  choices: ChoicesSchema,
  hands: HandsSchema,
});

/** The document: a song, the choices made on it and the hands that play it. Saved data carries its version. */
export const DocumentSchema = z.preprocess(
  migrate,
  z.object({
    version: z.literal(DOCUMENT_VERSION),
    song: SongSchema,
    choices: ChoicesSchema,
    hands: HandsSchema,
    versions: z.array(KeptVersion).max(MOST_VERSIONS).default([]),
  }),
);

/** True for data of a version that this program does not know yet. */
export function isNewerDocument(version: unknown): boolean {
  return typeof version === 'number' && version > DOCUMENT_VERSION;
}

export type Choices = z.infer<typeof ChoicesSchema>;
export type Hands = z.infer<typeof HandsSchema>;
export type Span = z.infer<typeof Span>;
export type School = (typeof SCHOOLS)[number];
export type BassWish = (typeof BASS_WISHES)[number];
export type Passage = z.infer<typeof Passage>;
export type Reminder = z.infer<typeof Reminder>;
export type Suggesting = z.infer<typeof Suggesting>;
export type Stay = NonNullable<Passage['stay']>;
export type ChordTiming = (typeof CHORD_TIMINGS)[number];
export type Touch = (typeof TOUCHES)[number];
export type Stop = (typeof STOPS)[number];
export type TuneRhythm = (typeof TUNE_RHYTHMS)[number];
export type Dominants = (typeof DOMINANTS)[number];
export type UnderTune = (typeof UNDER_TUNE)[number];
export type Level = (typeof LEVELS)[number];
export type Harmony = z.infer<typeof Harmony>;
export type Walk = (typeof WALKS)[number];
export type Loudness = (typeof LOUDNESSES)[number];
export type Swell = (typeof SWELLS)[number];
export type Ending = (typeof ENDINGS)[number];
export type LastTouch = (typeof LAST_TOUCHES)[number];
export type FillKind = (typeof FILL_KINDS)[number];
export type Layer = (typeof LAYERS)[number];
export type PlayMode = (typeof PLAY_MODES)[number];
export type KeptVersion = z.infer<typeof KeptVersion>;
export type Hand = 'left' | 'right';
export type HandProfile = Hands['profile'];
export type KeyboardSize = Hands['keys'];
export type Document = z.infer<typeof DocumentSchema>;

/** Comfortable and greatest span of one hand, lowest to highest key, in semitones. */
export const SPANS: Record<HandProfile, Span> = {
  child: { comfortable: 7, limit: 10 },
  small: { comfortable: 10, limit: 12 },
  medium: { comfortable: 12, limit: 14 },
  large: { comfortable: 14, limit: 16 },
};

/** Lowest and highest key of each keyboard, as MIDI numbers. */
export const KEYBOARDS: Record<KeyboardSize, { readonly low: number; readonly high: number }> = {
  49: { low: 36, high: 84 },
  61: { low: 36, high: 96 },
  76: { low: 28, high: 103 },
  88: { low: 21, high: 108 },
};

/** The span of one hand: as it was measured, or as its profile has it. */
export function spanOf(hands: Hands, hand: 'left' | 'right'): Span {
  const span = hands[hand] ?? SPANS[hands.profile];
  return hands.firstYear ? { comfortable: span.comfortable, limit: span.comfortable } : span;
}

/** No choices made. */
export function noChoices(): Choices {
  return ChoicesSchema.parse({});
}

/** Hands of a profile on a keyboard, nothing measured. */
export function handsOf(profile: HandProfile = 'medium', keys: KeyboardSize = 88): Hands {
  return { profile, keys, firstYear: false, most: 'full', left: null, right: null };
}

/** A document for a song that was just brought in. */
export function newDocument(song: Document['song'], hands: Hands = handsOf()): Document {
  // Words without a tune are there to be sung along to.
  const playMode = song.melody.length === 0 && song.words ? 'sing-along' : 'arranged';
  return { version: DOCUMENT_VERSION, song, choices: { ...noChoices(), playMode }, hands, versions: [] };
}
