export { PACE, secondsToSay } from './pace.js';
export { type LessonWishes } from './piece.js';
export { lessonScript } from './script.js';
export { type Chapter, type LessonLine, type LessonScript, type Passage, type Scene, type SceneKind } from './scene.js';
