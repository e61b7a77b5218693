import type { Arrangement, Part } from '@joined-hands/core/arrange';
import { patternFor, TEXTURES, type ListedTexture } from '@joined-hands/core/fills';
import type { Document, Texture } from '@joined-hands/core/song';
import { barAt } from '@joined-hands/core/time';

/** The textures that the meter of a part has a pattern for, the pianist's own first. */
export function texturesOf({ choices }: Document, { bars }: Arrangement, part: Part): readonly Texture[] {
  const { meter } = barAt(bars, part.end - 1);
  return [...choices.textures, ...TEXTURES].filter((t) => patternFor(t, meter));
}

/** What a texture is looked for by in the finder, beside its name. */
export const keywordsOf = (texture: Texture | ListedTexture): string =>
  ('alsoCalled' in texture && texture.alsoCalled) || $localize`pattern, accompaniment`;
