import { TEXTURES } from '../catalogue/textures/list.js';
import { barsOf, type Texture } from '../song/texture-data.js';
import { meterName, type Meter } from '../time/meter.js';

/** The tokens of a texture in a meter, bar by bar; null where it has no pattern for that meter. */
export function patternFor(texture: Texture, meter: Meter): readonly (readonly string[])[] | null {
  const name = meterName(meter);
  const pattern = texture.patterns.find((p) => p.meter === name);
  return pattern ? barsOf(pattern.steps) : null;
}

/** The plain block chords: each chord struck where it begins and at each bar line, as the left hand voices it. */
const PLAIN = 'block';

/** Block chords that are held over the bar lines for as long as they last. */
export const HELD = 'held-block';

/** A part that is left to the player: it stands in plain chords, and a texture is only named for it. */
export const FREE = 'free';

/** The left hand as it was written in the music that was brought in. */
export const WRITTEN = 'written';

/** True where the left hand plays its chords as they are voiced. */
export const isPlain = (texture: string): boolean => texture === PLAIN || texture === HELD || texture === FREE;

/** A texture by its name, the pianist's own before those that come with the application. */
export function textureNamed(id: string, own: readonly Texture[] = []): Texture | null {
  return own.find((t) => t.id === id) ?? TEXTURES.find((t) => t.id === id) ?? null;
}

/** What a texture is called, those that are no pattern among them. */
export function textureTitle(id: string, own: readonly Texture[] = []): string {
  return id === WRITTEN ? 'as written' : (textureNamed(id, own)?.title ?? 'free');
}
