export { REST, withoutRest } from './care.js';
export { type Day, dayAfter, dayOf, daysBetween } from './days.js';
export { grade, type Grade, type GradedNote, type HeardNote } from './grade.js';
export { isOver, pressWhileWaiting, releaseWhileWaiting, WAITING, type Waiting, waitPlaces } from './listen.js';
export {
  accuracyMap,
  daysInARow,
  drillOfStep,
  drillStep,
  isDrill,
  isSavedPass,
  logCsv,
  minutesPerDay,
  ofStep,
  type Pass,
  type PassDraft,
  readLog,
  tempoReached,
  writeLog,
} from './log.js';
export { simulateLog, type PractisedDays } from './practised.js';
export { dueAhead, isDue, reviewOf } from './review.js';
export { notesOf, type PlacedNote, plainScore } from './score.js';
export { type PlayingManner, playStandIn } from './stand-in-player.js';
export { JOIN_ORDERS, type JoinOrder, STEP_ORDERS, type StepOrder } from './step.js';
export { stepsOf } from './steps.js';
export { type StepState, stepStates, todayFor } from './today.js';
export { asHeardBy, figuresOf, type HeardBy, isClean, type PassFigures, type VerdictFact, verdictsOf } from './verdict.js';
