import { toSeconds, type Ticks } from './ticks.js';

/** From a place on the music goes at a share of its tempo, in percent, until the next point. */
export interface TempoPoint {
  readonly at: Ticks;
  readonly percent: number;
  /** What is written there: a new tempo, that it slows down, or a sign by which time stops; nothing where it only goes on slowing. */
  readonly sign?: 'tempo' | 'rit' | 'stop';
}

/** Seconds from the start of the music to a place, at a tempo in quarter notes a minute. Points are in order, the first at 0. */
export function secondsTo(at: Ticks, points: readonly TempoPoint[], tempo: number): number {
  let seconds = 0;
  points.forEach((point, i) => {
    const until = Math.min(at, points[i + 1]?.at ?? Infinity);
    if (until > point.at) seconds += toSeconds(until - point.at, (tempo * point.percent) / 100);
  });
  return seconds;
}

/** The place that is reached some seconds after the start of the music: the inverse of {@link secondsTo}. */
export function placeAfter(seconds: number, points: readonly TempoPoint[], tempo: number): Ticks {
  let left = seconds;
  for (const [i, point] of points.entries()) {
    const perTick = toSeconds(1, (tempo * point.percent) / 100);
    const whole = ((points[i + 1]?.at ?? Infinity) - point.at) * perTick;
    if (left <= whole) return point.at + left / perTick;
    left -= whole;
  }
  return 0;
}
