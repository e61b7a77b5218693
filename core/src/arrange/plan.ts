import { proposeTextures } from '../fills/propose.js';
import type { Edit } from '../song/edit.js';
import type { Texture } from '../song/texture-data.js';
import { barAt } from '../time/bars.js';
import type { Arrangement } from './arrangement.js';

/** A texture for every part of an arrangement, by form and energy; null where the meter has none. */
export function proposedPlan({ parts, bars }: Pick<Arrangement, 'parts' | 'bars'>): (Texture | null)[] {
  return proposeTextures(parts.map((p) => ({ label: p.label, meter: barAt(bars, p.end - 1).meter })));
}

/** The proposed texture in every part that has one. */
export function proposedPlanEdit(arrangement: Pick<Arrangement, 'parts' | 'bars'>): Edit {
  const plan = proposedPlan(arrangement);
  const edits = arrangement.parts.flatMap(({ start, end }, i): Edit[] => {
    const texture = plan[i];
    return texture ? [{ code: 'edit.setting', range: { start, end }, setting: 'texture', value: texture.id }] : [];
  });
  return { code: 'edit.several', as: { kind: 'texture-plan' }, edits };
}
