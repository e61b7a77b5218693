export { findConflicts, notesOver } from './conflicts.js';
export { countNotes, sungWords } from './counting.js';
