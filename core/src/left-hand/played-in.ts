import type { Ticks } from '../time/ticks.js';

/** A key as it was pressed and let go, in ticks of the song; `until` is null for one that was not let go. */
export interface PlayedKey {
  readonly at: Ticks;
  readonly until: Ticks | null;
  readonly midi: number;
}

/** Share of the way to the next place before which a key counts as let go there. */
const LET_GO = 0.6;

/**
 * Keys that were played in, on places of a grid in order: those that begin nearest to a place are struck there together, from the lowest up.
 * Where all of them are let go well before the next are struck, an empty entry says so. Keys that begin after the end are not taken.
 */
export function keysOnPlaces(
  played: readonly PlayedKey[],
  places: readonly Ticks[],
  end: Ticks,
): ReadonlyMap<Ticks, readonly number[]> {
  const [first] = places;
  const step = (places[1] ?? end) - first;
  const nearest = (at: Ticks) => places.reduce((best, p) => (Math.abs(p - at) < Math.abs(best - at) ? p : best));
  const found = new Map<Ticks, Set<number>>();
  const released = new Map<Ticks, Ticks>();
  for (const { at, until, midi } of played) {
    if (at < first - step || at > end - step / 2) continue;
    const place = nearest(at);
    found.set(place, (found.get(place) ?? new Set()).add(midi));
    released.set(place, Math.max(released.get(place) ?? 0, until ?? end));
  }
  const struck = [...found.keys()].sort((a, b) => a - b);
  const written = new Map<Ticks, readonly number[]>();
  struck.forEach((place, i) => {
    written.set(
      place,
      [...(found.get(place) ?? [])].sort((a, b) => a - b),
    );
    const next = struck[i + 1] ?? end;
    const up = places.find((p) => p > place && p >= (released.get(place) ?? end) - LET_GO * step);
    if (up !== undefined && up < next) written.set(up, []);
  });
  return new Map([...written].sort(([a], [b]) => a - b));
}
