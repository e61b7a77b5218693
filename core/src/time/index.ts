export { type Bar, barAt, countIn, layBars, offsetInBar, placeOf } from './bars.js';
export { countAt } from './counts.js';
export { barTicks, beatTicks, countTicks, type Meter, meterFrom, meterName } from './meter.js';
export { tappedTempo } from './tap.js';
export { type Feel, FEELS, heardIn, swingShare, swung, unswung } from './swing.js';
export { placeAfter, secondsTo } from './tempo.js';
export { TICKS_PER_QUARTER, toSeconds } from './ticks.js';
