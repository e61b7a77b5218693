import { proposeTextures } from '../fills/propose.js';
import type { Edit } from '../song/edit.js';
import type { Texture } from '../song/texture-data.js';
import { barAt } from '../time/bars.js';
import type { Arrangement } from './arrangement.js';

type Planned = Pick<Arrangement, 'parts' | 'bars' | 'sections' | 'song'>;

/** A texture for every part of an arrangement, by its sections, form, tempo and energy; null where the meter has none. */
export function proposedPlan({ parts, bars, sections, song }: Planned): (Texture | null)[] {
  const sectionOf = (number: number) => sections.find((s) => s.from <= number && number <= s.to)?.name ?? null;
  return proposeTextures(
    parts.map((p) => ({ label: p.label, meter: barAt(bars, p.end - 1).meter, section: sectionOf(p.number) })),
    song.tempo,
  );
}

/** The proposed texture in every part that has one. */
export function proposedPlanEdit(arrangement: Planned): Edit {
  const plan = proposedPlan(arrangement);
  const edits = arrangement.parts.flatMap(({ start, end }, i): Edit[] => {
    const texture = plan[i];
    return texture ? [{ code: 'edit.setting', range: { start, end }, setting: 'texture', value: texture.id }] : [];
  });
  return { code: 'edit.several', as: { kind: 'texture-plan' }, edits };
}
