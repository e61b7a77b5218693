import { broken } from './broken.js';
import { echo } from './echo.js';
import type { Fill, FillMaker } from './fill.js';
import { turn } from './turn.js';
import { walk } from './walk.js';

/** Every kind of fill: the compiler misses one that has no file. */
const MAKERS: Readonly<Record<Fill['kind'], FillMaker>> = { broken, echo, walk, turn };

/** The kinds of fills in the order in which they are offered. */
export const FILLS: readonly FillMaker[] = Object.values(MAKERS);
