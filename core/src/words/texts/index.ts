export { chartText } from './chart.js';
export { lessonText } from './lesson.js';
export { report } from './report.js';
export { explanationText } from './explain.js';
