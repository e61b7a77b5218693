export {
  BASS_WISHES,
  type BassWish,
  type Choices,
  CHORD_TIMINGS,
  type ChordTiming,
  type Document,
  DOMINANTS,
  type Ending,
  ENDINGS,
  type FillKind,
  type Hand,
  HAND_PROFILES,
  type HandProfile,
  type Hands,
  handsOf,
  HandsSchema,
  type Harmony,
  HARMONY_SIZES,
  KEYBOARD_SIZES,
  KEYBOARDS,
  type KeyboardSize,
  LAST_TOUCHES,
  type LastTouch,
  type Layer,
  type Loudness,
  LAYERS,
  LEVELS,
  LONGEST_REMINDER,
  LOUDNESSES,
  MEASURABLE,
  newDocument,
  PART_SIZES,
  type School,
  SCHOOLS,
  spanOf,
  SPANS,
  type Stay,
  STAY_FIGURES,
  STAY_NOTES,
  type Suggesting,
  type Swell,
  SWELLS,
  STOPS,
  type Stop,
  type Touch,
  TOUCHES,
  TUNE_RHYTHMS,
  UNDER_TUNE,
  type TuneRhythm,
  type Walk,
  WALKS,
  type PlayMode,
} from './decisions.js';
export { GRACE_SECONDS } from './touch.js';
export { alternateTextures } from './alternate.js';
export { applyEdit, type Edit, type EditFact, type SettingEdit } from './edit.js';
export {
  isChordText,
  type TickRange,
  passageAt,
  rangeOf,
  resolveChords,
  type InheritableSettings,
  type KeysOf,
  settingAt,
} from './edits.js';
export { metersFor, type SongFacts } from './facts.js';
export { linkedEdit, type LinkedEdit } from './linked.js';
export { projectText } from './project-text.js';
export { keysOf, type Song } from './song.js';
export { oneLine } from './text.js';
export { barsOf, type Texture } from './texture-data.js';
export { documentOfVersion } from './versions.js';
export { changedTune, type NoteChange } from './tune.js';
