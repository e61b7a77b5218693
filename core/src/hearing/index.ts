export { latenessOf } from './claps.js';
export { HEARING } from './figures.js';
export { freeBeat, type FreeLine } from './free-beat.js';
export { hearLine, onBeat, type HeardLine, type HeardNote, type SungTo } from './line.js';
export { PianoListener, type DuePlace, type Following, type HeardKey } from './listener.js';
export { hearRecording, type HeardBeat, type HeardRecording } from './recording.js';
export { ANY_PIANO, type FittedKey, type PianoFit } from './templates.js';
export { inQuarters, isUnsure, tonesIn, type HeardTone, type NoteModel, type NoteScores } from './tones.js';
export { fitOf, type MeasuredKey } from './tuning.js';
