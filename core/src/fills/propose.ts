import type { Meter } from '../time/meter.js';
import type { Texture } from '../song/texture-data.js';
import { TEXTURES } from '../catalogue/textures/list.js';
import { isPlain, patternFor } from './texture.js';
import { isBroken } from './tokens.js';

/** A part as a plan of textures sees it. */
interface PlannedPart {
  readonly label: string;
  readonly meter: Meter;
  /** The name of the section that it belongs to, or null. */
  readonly section?: string | null;
}

/** Energies of a song that opens quietly, grows with each new letter and each return, and closes quietly where it has an outro. */
const ENERGY = { opening: 2, newLetter: 1, again: 1, most: 4 } as const;

/** What the names of sections say about them, tried in order: a pre-chorus is no chorus. */
const SECTION_ENERGIES: readonly (readonly [pattern: RegExp, energy: number])[] = [
  [/pre.?chorus|bridge|middle|build|inter|solo/i, 3],
  [/chorus|refrain|hook/i, ENERGY.most],
  [/verse|strophe|intro|opening/i, ENERGY.opening],
  [/outro|coda|ending|closing|end\b|fine/i, ENERGY.opening],
];

/** Quarter notes a minute under which broken patterns go before a bass with its chord. */
const SLOW = 80;

/**
 * A texture for every part. A name of a section says how lively it is: the chorus most, verse and introduction less, an outro quiet. Where
 * nothing is named the song begins quietly and grows with letters that are new or return. What returns is never quieter than before.
 */
export function proposeTextures(parts: readonly PlannedPart[], tempo: number): (Texture | null)[] {
  const letters: string[] = [];
  const reached = new Map<string, { readonly energy: number; readonly times: number }>();
  return parts.map(({ label, meter, section }) => {
    const letter = label.replace(/′+$/, '');
    if (!letters.includes(letter)) letters.push(letter);
    const named = section ? SECTION_ENERGIES.find(([pattern]) => pattern.test(section))?.[1] : undefined;
    const key = named === undefined ? letter : `${named} ${section?.replace(/[\d\s]+$/, '').toLowerCase()}`;
    const before = reached.get(key);
    const rise = Math.min(2, letters.indexOf(letter)) * ENERGY.newLetter + (before?.times ?? 0) * ENERGY.again;
    const wished = named ?? Math.min(ENERGY.most, ENERGY.opening + rise);
    const energy = Math.max(wished, before?.energy ?? 0);
    reached.set(key, { energy, times: (before?.times ?? 0) + 1 });
    return (tempo < SLOW ? brokenNear(energy, meter) : null) ?? nearestTo(energy, meter, tempo);
  });
}

const fitting = (meter: Meter): Texture[] => TEXTURES.filter((t) => !isPlain(t.id) && patternFor(t, meter));

/** A broken pattern of an energy, or of the one beside it; null where the meter has none. */
function brokenNear(energy: number, meter: Meter): Texture | null {
  const broken = fitting(meter).filter(isBroken);
  for (const e of [energy, energy + 1, energy - 1]) {
    const found = broken.find((t) => t.energy === e);
    if (found) return found;
  }
  return null;
}

/**
 * The first texture of an energy in a meter, or of the nearest lower one; null where the meter has none. In a slow song the broken ones of
 * an energy go first.
 */
export function nearestTo(energy: number, meter: Meter, tempo: number = SLOW): Texture | null {
  const fit = fitting(meter);
  for (let e = energy; e > 0; e--) {
    const same = fit.filter((t) => t.energy === e);
    const found = (tempo < SLOW ? same.find(isBroken) : undefined) ?? same[0];
    if (found) return found;
  }
  return null;
}
