// Written by `npm run lists` from the files that it names: they say their order.
import { broken } from './broken.js';
import { echo } from './echo.js';
import { turn } from './turn.js';
import { walk } from './walk.js';

/** Every kind of fill. */
export const FILLS = [broken, echo, walk, turn];
