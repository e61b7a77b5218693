export { type Day, dayAfter, dayOf, daysBetween } from './days.js';
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
export { JOIN_ORDERS, type JoinOrder, STEP_ORDERS, type StepOrder } from './step.js';
