import { barAt, patternFor, TEXTURES, type Arrangement, type Document, type Part, type Texture } from '@joined-hands/core';

/** The textures that the meter of a part has a pattern for, the pianist's own first. */
export function texturesOf({ choices }: Document, { bars }: Arrangement, part: Part): readonly Texture[] {
  const { meter } = barAt(bars, part.end - 1);
  return [...choices.textures, ...TEXTURES].filter((t) => patternFor(t, meter));
}
