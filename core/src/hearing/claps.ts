import { HEARING } from './figures.js';

/**
 * By how many seconds a microphone hears late, told by claps to a beat: the middle of how late what began near each clap was. `begun` are the
 * seconds at which something began, `asked` those at which a clap was counted. Null where too few claps were heard.
 */
export function latenessOf(begun: readonly number[], asked: readonly number[]): number | null {
  const { usual, near, fewest, most } = HEARING.claps;
  const late = asked
    .flatMap((at) => {
      const found = begun.find((t) => Math.abs(t - at - usual) < near);
      return found === undefined ? [] : [found - at];
    })
    .sort((a, b) => a - b);
  return late.length < fewest ? null : Math.min(most, Math.max(0, late[late.length >> 1]));
}
