import type { FillPlace } from '../catalogue/fills/fill.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, type Bar } from '../time/bars.js';
import { countTicks } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** Counts that the tune must leave free before a fill has room. */
const FILL_COUNTS = 2;

/**
 * Where the tune holds a note or rests for two counts or more after it was struck. A fill begins one count after the
 * note, so that the note is heard; `end` is the end of the part.
 */
export function fillPlaces(melody: readonly MelodyNote[], end: Ticks, bars: readonly Bar[]): FillPlace[] {
  const places: FillPlace[] = [];
  melody.forEach((note, i) => {
    const count = countTicks(barAt(bars, note.at).meter);
    const until = melody[i + 1]?.at ?? end;
    const at = note.at + count;
    const counts = Math.floor((until - at) / count);
    if (until - note.at >= FILL_COUNTS * count && counts >= 1) places.push({ at, length: until - at, counts });
  });
  return places;
}
