import type { ChordTiming } from '../song/decisions.js';
import { countAhead, isSyncopated } from '../song/rhythm.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, metricStrength } from '../time/meter.js';
import { TICKS_PER_QUARTER, type Ticks } from '../time/ticks.js';

/**
 * Where each chord is struck under a tune, in the order of the chords: where it is written, on the beat, or ahead of it. What begins a
 * part, at one of its `starts`, is struck there: a part can be played by itself.
 */
export function chordPlaces(
  written: readonly Ticks[],
  tune: readonly MelodyNote[],
  bars: readonly Bar[],
  timingAt: (at: Ticks) => ChordTiming,
  starts: ReadonlySet<Ticks> = new Set(),
): Ticks[] {
  const movedBy: Readonly<Record<ChordTiming, (at: Ticks, sounding: MelodyNote | undefined) => Ticks>> = {
    written: (at) => at,
    plain: (at) => onBeat(at, bars),
    early: (at, sounding) => withTune(at, sounding, bars),
    'eighth-early': (at) => (starts.has(at) ? at : eighthEarly(at, bars)),
  };
  const places: Ticks[] = [];
  let n = 0;
  written.forEach((at, i) => {
    while (n < tune.length && tune[n].at + tune[n].length <= at) n++;
    const timing = timingAt(at);
    const moved = movedBy[timing](at, tune[n]);
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

/** A chord on a beat comes an eighth before it; in the first bar there is nothing to come before. */
function eighthEarly(at: Ticks, bars: readonly Bar[]): Ticks {
  const bar = barAt(bars, at);
  const eighth = TICKS_PER_QUARTER / 2;
  return metricStrength(offsetInBar(bar, at), bar.meter) > 0 && at >= eighth ? at - eighth : at;
}

/** A chord on a beat that the tune sings ahead of is struck with that note. */
function withTune(at: Ticks, sounding: MelodyNote | undefined, bars: readonly Bar[]): Ticks {
  if (!sounding || sounding.at >= at || !isSyncopated(sounding, bars)) return at;
  return countAhead(sounding, bars) === at ? sounding.at : at;
}
