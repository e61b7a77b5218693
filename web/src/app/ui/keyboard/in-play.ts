/** The lowest and the highest of some keys, as MIDI numbers; null where there are none. */
export const keysInPlay = (keys: readonly number[]): readonly [low: number, high: number] | null =>
  keys.length === 0 ? null : [Math.min(...keys), Math.max(...keys)];
