import type { Touch } from './decisions.js';
import type { Ticks } from '../time/ticks.js';

/** Seconds that a grace note is heard, and written to files in which notes last as long as they sound. */
export const GRACE_SECONDS = 0.07;

/** A touch that lets keys go before their time. */
export type ShortTouch = Exclude<Touch, 'held'>;

/** Shares of its length for which a key is held, and of its loudness, by the touch. */
const TOUCHED: Readonly<Record<ShortTouch, { readonly length: number; readonly loudness: number }>> = {
  light: { length: 0.6, loudness: 0.88 },
  short: { length: 0.35, loudness: 1 },
};

interface Touched {
  readonly length: Ticks;
  readonly touch?: ShortTouch;
}

/** How long the key of a note is held, in ticks: for its length, or less by its touch. */
export const heldFor = ({ length, touch }: Touched): Ticks =>
  touch === undefined ? length : Math.max(1, Math.round(length * TOUCHED[touch].length));

/** How loud a note is with its touch, by how loud it would be. */
export const touchedLoudness = (loudness: number, touch: ShortTouch | undefined): number =>
  touch === undefined ? loudness : Math.round(1000 * loudness * TOUCHED[touch].loudness) / 1000;
