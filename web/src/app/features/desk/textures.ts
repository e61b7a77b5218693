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
  'bass-chord-chord': 'waltz, three in a bar',
  'bass-chord': 'march, two in a bar',
  'alternating-bass': 'country, root and fifth',
  'step-line': 'walking, jazz',
  'broken-triad': 'arpeggio, ballad',
  'pushed-bass': 'early, syncopated',
  'held-block': 'slow, long chords',
  block: 'plain, easiest',
};

export const keywordsOf = (texture: string): string => ALSO_CALLED[texture] ?? 'pattern, accompaniment';
