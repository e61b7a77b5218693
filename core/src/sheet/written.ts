import type { Arrangement } from '../arrange/arrange.js';
import type { WrittenScore } from '../formats/musicxml/write.js';

/** The arrangement as it is engraved: the tune, the left hand's chords, part numbers over the staff. */
export function writtenScore(arrangement: Arrangement): WrittenScore {
  return {
    song: arrangement.song,
    left: arrangement.parts.flatMap((p) => p.chords),
    parts: arrangement.parts.map((p) => ({ number: p.number, start: p.start })),
  };
}
