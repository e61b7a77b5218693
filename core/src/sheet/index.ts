export { cardOf, checkDocument, type SongCard } from './card.js';
export { letterChart, repeatPlace, type PlacedReminder, type RepeatPlace } from './chart.js';
export { firstLook, type WarmUp } from './first-look.js';
export { chordShapes, joinsOf, lessonOf, worksheet, type Join, type LessonChord, type LessonPart } from './lesson.js';
export { wordLines } from './word-lines.js';
export { midiScore, writtenScore } from './written.js';
