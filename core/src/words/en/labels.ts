import type { Feel } from '../../time/swing.js';
import type { DrillKind } from '../../catalogue/drills/registry.js';
import type { ChordChangeKind } from '../../harmony/changes.js';
import type { Aspect } from '../../arrange/compare.js';
import type { StepKind } from '../../log/step.js';
import type { HandPlace } from '../../right-hand/positions.js';
import type { Mode } from '../../harmony/key.js';
import type { HarmonicRhythm, Vocabulary } from '../../harmony/wishes.js';
import type {
  BassWish,
  Dominants,
  UnderTune,
  ChordTiming,
  Ending,
  FillKind,
  Hand,
  HandProfile,
  Harmony,
  Layer,
  School,
  Stay,
  Swell,
  Touch,
  TuneRhythm,
  Walk,
  PlayMode,
  Choices,
} from '../../song/decisions.js';

/** The schools of voicing, as a choice is labelled, and what each is good for. */
export const SCHOOLS: Readonly<Record<School, { readonly name: string; readonly about: string }>> = {
  close: { name: 'nearest inversion', about: 'Full chords that move as little as possible.' },
  root: { name: 'root position', about: 'Full chords with the root below: easy to name, far to jump.' },
  'two-note': { name: 'two notes', about: 'Two notes close to the hand, for a first year.' },
  shell: { name: 'root and seventh', about: 'The root with its seventh or third: just the essentials.' },
  fifths: { name: 'root and fifth', about: 'Open fifths: the melody says major or minor.' },
  open: { name: 'open 1–5–10', about: 'Wide and warm; rolled or broken where it is past your reach.' },
  octave: { name: 'root octaves', about: 'The root in octaves: strong and hollow.' },
  'single-bass': { name: 'one bass note', about: 'The bass note alone: the lightest hand.' },
  'under-melody': { name: 'chord under the melody', about: 'The right hand plays the chord, the left the bass.' },
};

/** The modes of a key, as a choice is labelled. */
export const MODES: Readonly<Record<Mode, string>> = {
  major: 'major',
  minor: 'minor',
  dorian: 'Dorian',
  mixolydian: 'Mixolydian',
  phrygian: 'Phrygian',
  lydian: 'Lydian',
};

export const HANDS: Readonly<Record<Hand, string>> = { left: 'left hand', right: 'right hand' };

/** Whose hands: by themselves, and before what is theirs. */
export const PROFILES: Readonly<Record<HandProfile, { readonly name: string; readonly hand: string }>> = {
  child: { name: 'child', hand: 'child hand' },
  small: { name: 'small', hand: 'small hand' },
  medium: { name: 'medium', hand: 'medium hand' },
  large: { name: 'large', hand: 'large hand' },
};

export const PART_SIZES: Readonly<Record<Choices['partSize'], string>> = {
  smaller: 'smaller',
  usual: 'usual',
  larger: 'larger',
};

export const LAYERS: Readonly<Record<Layer, string>> = {
  tune: 'melody',
  bass: 'bass notes',
  'two-note': 'two-note chords',
  block: 'block chords',
  texture: 'texture',
  harmony: 'harmony under the melody',
  fills: 'fills',
};

export const FILLS: Readonly<Record<Exclude<FillKind, 'none'>, string>> = {
  broken: 'broken chord',
  echo: 'echo',
  walk: 'walk',
  turn: 'turn',
};

export const ENDINGS: Readonly<Record<Ending, string>> = {
  plain: 'as written',
  suspended: 'suspended',
  dominant: 'turnaround (V7)',
  'flat-second': 'tritone substitution (♭II7)',
};

export const SWELLS: Readonly<Record<Swell, string>> = {
  none: 'steady',
  rise: 'growing',
  fall: 'fading',
  arch: 'louder, then softer',
};

export const WALKS: Readonly<Record<Walk, string>> = {
  none: 'none',
  'scale-below': 'up the scale',
  'scale-above': 'down the scale',
  'half-below': 'up in half steps',
  'half-above': 'down in half steps',
};

export const HARMONY_SIZES: Readonly<Record<Harmony['size'], string>> = {
  one: 'one note',
  two: 'two',
  octave: 'the octave',
  full: 'the chord under long notes',
};

export const VOCABULARIES: Readonly<Record<Vocabulary, string>> = {
  three: 'three chords',
  triads: 'six triads',
  sevenths: 'sevenths',
  rich: 'rich',
};

/** How often suggested chords change. */
export const HARMONIC_RHYTHMS: Readonly<Record<HarmonicRhythm, string>> = {
  proposed: 'when it fits',
  bar: 'every bar',
  half: 'every half bar',
  beat: 'every beat',
};

export const DOMINANTS: Readonly<Record<Dominants, string>> = {
  usual: 'as usual',
  three: 'three notes',
  four: 'four notes',
};

export const UNDER_TUNE: Readonly<Record<UnderTune, string>> = {
  changes: 'at every change',
  long: 'under long notes only',
};

export const BASSES: Readonly<Record<BassWish, string>> = { free: 'free', falling: 'falling', rising: 'rising', held: 'held' };

export const TIMINGS: Readonly<Record<ChordTiming, string>> = {
  written: 'as written',
  plain: 'on the beat',
  early: 'with the melody',
  'eighth-early': 'an eighth early',
};

export const TOUCHES: Readonly<Record<Touch, string>> = { held: 'held', light: 'light', short: 'short' };

export const TUNE_RHYTHMS: Readonly<Record<TuneRhythm, string>> = { sung: 'as sung', plain: 'straightened' };

export const PLAY_MODES: Readonly<Record<PlayMode, string>> = {
  arranged: 'as arranged',
  outline: 'outline',
  'sing-along': 'sing-along',
};

/** Notes that a resting right hand stays on. */
export const STAY_NOTES: Readonly<Record<Stay['notes'], string>> = {
  tonic: 'the tonic',
  fifth: 'the fifth',
  both: 'both by turns',
  together: 'both at once',
};

/** Rhythms of a right hand that stays on its note. */
export const STAY_RHYTHMS: Readonly<Record<Stay['figure'], string>> = {
  held: 'one long note a bar',
  counts: 'on every beat',
  'off-beats': 'between the beats',
  'long-short': 'long and short',
  rocking: 'twice a beat',
};

export const STEPS: Readonly<Record<StepKind, string>> = {
  right: 'right hand alone',
  left: 'left hand alone',
  slow: 'hands together, slowly',
  tempo: 'hands together, up to tempo',
  join: 'joined together',
  whole: 'block chords, start to finish',
  fills: 'with texture and fills',
};

/** How the hand comes to a place. */
export const MOVES: Readonly<Record<HandPlace['move'], string>> = {
  stay: 'the hand stays',
  fresh: 'the hand starts',
  under: 'the thumb passes under',
  over: 'a finger crosses over the thumb',
  shift: 'the hand moves',
};

export const CHORD_CHANGES: Readonly<Record<ChordChangeKind, string>> = {
  'dominant-seventh': 'dominant seventh',
  minor: 'minor',
  major: 'major',
  diminished: 'diminished',
  'half-diminished': 'half-diminished',
  'diminished-seventh': 'diminished seventh',
  augmented: 'augmented',
  'major-seventh': 'major seventh',
  sixth: 'with a sixth',
  ninth: 'with a ninth',
  sus4: 'suspended fourth',
  sus2: 'suspended second',
  'half-step-up': 'a half step up',
  'half-step-down': 'a half step down',
};

export const ASPECTS: Readonly<Record<Aspect, string>> = {
  tune: 'the melody',
  chords: 'chords',
  texture: 'texture',
  left: 'left hand',
  right: 'right hand besides the melody',
};

/** The kinds of drills, as the list shows them. */
export const DRILLS: Readonly<Record<DrillKind, { readonly title: string; readonly about: string }>> = {
  'warm-up': { title: 'Warm up', about: 'The scale and arpeggio in both hands, then each chord shape of the song.' },
  'hard-moves': { title: 'Hard moves', about: 'The changes that take your hands furthest, one at a time.' },
  cadence: { title: 'Cadences', about: 'A cadence in all twelve keys, each chord as close as possible to the last.' },
  inversions: { title: 'Inversions', about: 'One chord through its inversions, up and down.' },
  sevenths: { title: 'Seventh chords of a key', about: 'The seventh chord on each degree, from its name.' },
  'from-name': { title: 'Chords from their names', about: 'You see a name and an inversion; find the keys.' },
  name: { title: 'Names from keys', about: 'Keys are held down: which chord is it?' },
  inversion: { title: 'Inversions from keys', about: 'A chord is held down: which inversion is it?' },
  scale: { title: 'Scales', about: 'Two octaves up and down, with the usual fingers.' },
  arpeggio: { title: 'Arpeggios', about: 'Two octaves up and down, with the usual fingers.' },
};

/** The caution that stands wherever the work can hurt, in one wording. */
export const CAUTION =
  'Never force a stretch. Stop if anything hurts or goes numb, and rest every 20 to 25 minutes. A teacher can help with technique, a clinician with pain that stays.';

export const FEELS: Readonly<Record<Feel, string>> = { straight: 'straight', light: 'light swing', swing: 'swing' };
