// Written by `npm run lists` from the files that it names: they say their order.
import { arpeggio } from './runs.js';
import { cadence } from './cadence.js';
import { fromName } from './from-name.js';
import { hardMoves } from './hard-moves.js';
import { inversion } from './naming.js';
import { inversions } from './inversions.js';
import { name } from './naming.js';
import { scale } from './runs.js';
import { sevenths } from './sevenths.js';
import { warmUp } from './warm-up.js';

/** Every kind of drill. */
export const ALL_DRILLS = [warmUp, hardMoves, cadence, inversions, sevenths, fromName, name, inversion, scale, arpeggio] as const;
