export { fingersInShort } from './fingers.js';
export { aloud, ENGLISH, phrases, sentences, spokenWith, wordsWith } from './words.js';
export { NOTE_NAMES, type NoteNames } from '../pitch/note-names.js';
export { type Code, type Fact } from './fact.js';
export { type Speech } from './speech.js';
export { capital } from './text.js';
export { hardestAdvice } from './lesson.js';
export { SCENES as SCENE_LABELS } from './en/lesson.js';
export { patternWords } from './pattern.js';
export { answer as answerWords, passTitle, stepTitle, stepWork } from './practice.js';
export {
  ASPECTS as ASPECT_LABELS,
  BASSES as BASS_LABELS,
  CAUTION,
  CHORD_CHANGES as CHORD_CHANGE_LABELS,
  DOMINANTS as DOMINANT_LABELS,
  DRILLS as DRILL_LABELS,
  FEELS as FEEL_LABELS,
  ENDINGS as ENDING_LABELS,
  FILLS as FILL_LABELS,
  HANDS as HAND_LABELS,
  HARMONIC_RHYTHMS as HARMONIC_RHYTHM_LABELS,
  HARMONY_SIZES as HARMONY_SIZE_LABELS,
  LAYERS as LAYER_LABELS,
  MODES as MODE_LABELS,
  MOVES as MOVE_LABELS,
  PART_SIZES as PART_SIZE_LABELS,
  PLAY_MODES as PLAY_MODE_LABELS,
  PROFILES as PROFILE_LABELS,
  SCHOOLS as SCHOOL_LABELS,
  STAY_NOTES as STAY_NOTE_LABELS,
  STAY_RHYTHMS as STAY_RHYTHM_LABELS,
  STEPS as STEP_LABELS,
  SWELLS as SWELL_LABELS,
  TIMINGS as TIMING_LABELS,
  TOUCHES as TOUCH_LABELS,
  TUNE_RHYTHMS as TUNE_RHYTHM_LABELS,
  UNDER_TUNE as UNDER_TUNE_LABELS,
  VOCABULARIES as VOCABULARY_LABELS,
  WALKS as WALK_LABELS,
} from './en/labels.js';
export { conflict as conflictWords, jump as jumpWords, LEVELS as LEVEL_LABELS } from './en/findings.js';
export { COUNTED as COUNTED_LABELS, QUESTIONS as QUESTION_LABELS, refusal as refusalWords } from './en/files.js';
export { grip as gripWords } from './en/practice.js';
export {
  alsoIn,
  counting as countingWords,
  held as heldCounts,
  partTitle,
  repeats as repeatWords,
  together as togetherWords,
} from './en/music.js';
export { change as changeWords, changeInShort, move as moveWords, shape as shapeWords } from './en/voicing.js';
