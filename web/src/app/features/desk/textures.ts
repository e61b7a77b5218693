import type { Arrangement, Part } from '@joined-hands/core/arrange';
import { patternFor, TEXTURES } from '@joined-hands/core/fills';
import type { Document, Texture } from '@joined-hands/core/song';
import { barAt } from '@joined-hands/core/time';

/** The textures that the meter of a part has a pattern for, the pianist's own first. */
export function texturesOf({ choices }: Document, { bars }: Arrangement, part: Part): readonly Texture[] {
  const { meter } = barAt(bars, part.end - 1);
  return [...choices.textures, ...TEXTURES].filter((t) => patternFor(t, meter));
}

/** What else pianists call some textures, for the finder. */
const ALSO_CALLED: Readonly<Record<string, string>> = {
  'bass-chord-chord': $localize`waltz, three in a bar`,
  'bass-chord': $localize`march, two in a bar`,
  'alternating-bass': $localize`country, root and fifth`,
  'step-line': $localize`walking, jazz`,
  'broken-triad': $localize`arpeggio, ballad`,
  'pushed-bass': $localize`early, syncopated`,
  'held-block': $localize`slow, long chords`,
  block: $localize`plain, easiest`,
};

export const keywordsOf = (texture: string): string => ALSO_CALLED[texture] ?? $localize`pattern, accompaniment`;
