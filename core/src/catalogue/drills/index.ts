export { CADENCES } from './cadences.js';
export { type Drill, type DrillAnswer, type DrillWishes, type GripLabel } from './drill.js';
export { DRILL_START, drillFigures, isDrillClean, pressInDrill, type TaskOutcome } from './progress.js';
export { ALL_KEYS, DRILLS, drillOf, parseDrillId, type DrillKind } from './registry.js';
