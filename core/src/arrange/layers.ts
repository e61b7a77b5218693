import type { Document, Layer } from '../song/decisions.js';
import { LAYERS } from '../song/decisions.js';

/** The document with all layers after one muted: a version to practise before the next is added. */
export function upToLayer(doc: Document, layer: Layer): Document {
  const after = LAYERS.slice(LAYERS.indexOf(layer) + 1);
  return { ...doc, choices: { ...doc.choices, muted: after } };
}
