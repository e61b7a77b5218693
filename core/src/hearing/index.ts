export { hearLine, onBeat, type HeardLine, type HeardNote, type SungTo } from './line.js';
export { hearRecording, type HeardBeat, type HeardRecording } from './recording.js';
