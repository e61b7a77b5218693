import type { Meter } from '../time/meter.js';
import type { Texture } from '../song/texture-data.js';
import { TEXTURES } from '../catalogue/textures/registry.js';
import { isPlain, patternFor } from './texture.js';

/** A part as a plan of textures sees it. */
interface PlannedPart {
  readonly label: string;
  readonly meter: Meter;
}

/** Energies of a song that opens quietly, grows with each new letter and each return, and closes more quietly. */
const ENERGY = { opening: 2, newLetter: 1, again: 1, most: 4, closing: 2 } as const;

/** A texture for every part: quiet first, livelier as letters are new or return, quieter at the end; null where none fits. */
export function proposeTextures(parts: readonly PlannedPart[]): (Texture | null)[] {
  const letters: string[] = [];
  const times = new Map<string, number>();
  return parts.map(({ label, meter }, i) => {
    const letter = label.replace(/′+$/, '');
    if (!letters.includes(letter)) letters.push(letter);
    const again = times.get(letter) ?? 0;
    times.set(letter, again + 1);
    const rise = Math.min(2, letters.indexOf(letter)) * ENERGY.newLetter + again * ENERGY.again;
    const last = i === parts.length - 1 && i > 0;
    const energy = last ? ENERGY.closing : Math.min(ENERGY.most, ENERGY.opening + rise);
    return nearestTo(energy, meter);
  });
}

/** The first texture of an energy in a meter, or of the nearest lower one; null where the meter has none. */
export function nearestTo(energy: number, meter: Meter): Texture | null {
  for (let e = energy; e > 0; e--) {
    const found = TEXTURES.find((t) => t.energy === e && !isPlain(t.id) && patternFor(t, meter));
    if (found) return found;
  }
  return null;
}
