import type { Document, Layer, Level } from '../song/decisions.js';
import { LAYERS, LEVELS } from '../song/decisions.js';
import { isPlain } from '../fills/texture.js';
import { wishAt } from '../song/edits.js';
import type { Ticks } from '../time/ticks.js';

/** True where a layer is asked for and not muted. Only a song that is played as it is arranged has texture, harmony and fills. */
export function plays({ choices }: Pick<Document, 'choices'>, layer: Layer): boolean {
  if (choices.muted.includes(layer)) return false;
  return choices.way === 'arranged' || !['texture', 'harmony', 'fills'].includes(layer);
}

/**
 * How full the left hand is at a place: what was asked for, and no fuller than its layers allow. With its chords muted it plays
 * two notes, with those muted bass notes, with those muted nothing; a texture that is heard needs its chords.
 */
export function levelAt(doc: Document, at: Ticks): Level {
  const level = wishAt(doc, at, 'level');
  const { muted } = doc.choices;
  if (muted.length === 0 || (plays(doc, 'texture') && !isPlain(wishAt(doc, at, 'texture')))) return level;
  const most: Level = !muted.includes('block')
    ? 'full'
    : !muted.includes('two-note')
      ? 'two-note'
      : !muted.includes('bass')
        ? 'bass'
        : 'tune';
  return LEVELS[Math.min(LEVELS.indexOf(level), LEVELS.indexOf(most))];
}

/** The document with all layers after one muted: a version to practise before the next is added. */
export function upToLayer(doc: Document, layer: Layer): Document {
  const after = LAYERS.slice(LAYERS.indexOf(layer) + 1);
  return { ...doc, choices: { ...doc.choices, muted: after } };
}
