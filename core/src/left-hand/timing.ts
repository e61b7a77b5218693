import type { ChordTiming } from '../song/decisions.js';
import { countAhead, isSyncopated } from '../song/rhythm.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** Where each chord is struck under a tune, in the order of the chords: where it is written, on the beat, or ahead of it. */
export function chordPlaces(
  written: readonly Ticks[],
  tune: readonly MelodyNote[],
  bars: readonly Bar[],
  timingAt: (at: Ticks) => ChordTiming,
): Ticks[] {
  const places: Ticks[] = [];
  let n = 0;
  written.forEach((at, i) => {
    while (n < tune.length && tune[n].at + tune[n].length <= at) n++;
    const timing = timingAt(at);
    const moved = timing === 'written' ? at : timing === 'plain' ? onBeat(at, bars) : withTune(at, tune[n], bars);
    // A chord never passes its neighbours.
    const least = i === 0 ? 0 : places[i - 1] + 1;
    const most = (written[i + 1] ?? Infinity) - 1;
    places.push(moved >= least && moved <= most ? moved : at);
  });
  return places;
}

/** A chord that stands between counts in the second half of a beat moves onto the next beat. */
function onBeat(at: Ticks, bars: readonly Bar[]): Ticks {
  const bar = barAt(bars, at);
  const offset = offsetInBar(bar, at);
  const beat = beatTicks(bar.meter);
  const late = offset % beat;
  if (metricStrength(offset, bar.meter) > 0 || late * 2 < beat) return at;
  const to = at + beat - late;
  return to < bars[bars.length - 1].end ? to : at;
}

/** A chord on a beat that the tune sings ahead of is struck with that note. */
function withTune(at: Ticks, sounding: MelodyNote | undefined, bars: readonly Bar[]): Ticks {
  if (!sounding || sounding.at >= at || !isSyncopated(sounding, bars)) return at;
  return countAhead(sounding, bars) === at ? sounding.at : at;
}
