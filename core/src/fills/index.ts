export { readTextures, writeTextures } from './exchange.js';
export { columnKeys, GRID_ROWS, type GridRow, regrid, rowsOf, toggleRow, withColumn } from './grid.js';
export { MOST_HARMONY } from './harmony.js';
export { soundsUntil } from './pedal.js';
export { nearestTo } from './propose.js';
export { TEXTURES } from '../catalogue/textures/list.js';
export type { ListedTexture } from '../catalogue/textures/texture.js';
export { sketchOf, type Sketch } from './sketch.js';
export { FREE, isPlain, patternFor, textureNamed, textureTitle, WRITTEN } from './texture.js';
