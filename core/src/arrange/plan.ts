import { proposeTextures } from '../fills/propose.js';
import type { Document } from '../song/decisions.js';
import { setWish } from '../song/edits.js';
import type { Texture } from '../song/texture-data.js';
import { barAt } from '../time/bars.js';
import type { Arrangement } from './arrangement.js';

/** A texture for every part of an arrangement, by form and energy; null where the meter has none. */
export function proposedPlan({ parts, bars }: Pick<Arrangement, 'parts' | 'bars'>): (Texture | null)[] {
  return proposeTextures(parts.map((p) => ({ label: p.label, meter: barAt(bars, p.end - 1).meter })));
}

/** The document with the proposed texture in every part. */
export function withProposedPlan(doc: Document, arrangement: Pick<Arrangement, 'parts' | 'bars'>): Document {
  const plan = proposedPlan(arrangement);
  return arrangement.parts.reduce((d, { start, end }, i) => {
    const texture = plan[i];
    return texture ? setWish(d, { start, end }, 'texture', texture.id) : d;
  }, doc);
}
