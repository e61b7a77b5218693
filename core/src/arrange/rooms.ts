import { fillOffers } from '../fills/offers.js';
import type { Fill, FillNote } from '../catalogue/fills/fill.js';
import { fillPlaces } from '../fills/places.js';
import type { FillPlace } from '../catalogue/fills/fill.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf } from '../pitch/pitch.js';
import type { UnderNote } from '../right-hand/under-melody.js';
import type { FillKind } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import { barAt, cutAt, firstAtOrAfter, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Settings } from './settings.js';

/** Room that the tune leaves, what may be played there, and what the pianist chose. */
export interface FillSlot extends FillPlace {
  readonly offers: readonly Fill[];
  /** What was kept, "none" where fills were refused, null where nothing was decided. */
  readonly chosen: FillKind | null;
}

/** Every room for a fill in the song, part by part as they end, with the fills that this hand can play there over what the left hand strikes. */
export function roomsOf(
  { hands, fills: chosen }: Settings,
  { melody: tune, key, tempo }: Song,
  ends: readonly Ticks[],
  struck: readonly VoicedChord[],
  bars: readonly Bar[],
): FillSlot[] {
  return cutAt(tune, ends).flatMap((notes, i) =>
    fillPlaces(notes, ends[i], bars).map((place): FillSlot => {
      const index = firstAtOrAfter(tune, place.at);
      const until = place.at + place.length;
      const around = struck.slice(Math.max(0, firstAtOrAfter(struck, place.at + 1) - 1), firstAtOrAfter(struck, until));
      const offers = fillOffers({
        place,
        before: tune.slice(Math.max(0, index - 3), index),
        next: tune[index] ?? null,
        chord: around[0]?.symbol ?? '',
        meter: barAt(bars, place.at).meter,
        key,
        hands,
        tempo,
        left: Math.max(
          -Infinity,
          ...around.flatMap((c) =>
            c.struck.filter((n) => n.at < until && n.at + n.length > place.at).map((n) => midiOf(n.pitch)),
          ),
        ),
      });
      return { ...place, offers, chosen: chosen.get(place.at) ?? null };
    }),
  );
}

/** The notes of all fills that were kept and can be played. */
export function keptFills(rooms: readonly FillSlot[]): FillNote[] {
  return rooms.flatMap((r) => r.offers.find((o) => o.kind === r.chosen)?.notes ?? []);
}

/** Harmony gives way where a fill is played over the same note of the tune, so that the hand is free for it. */
export function besideFills(under: readonly UnderNote[], fills: readonly FillNote[]): UnderNote[] {
  return under.filter((u) => {
    const first = fills[firstAtOrAfter(fills, u.at)];
    return !first || first.at >= u.at + u.length;
  });
}
