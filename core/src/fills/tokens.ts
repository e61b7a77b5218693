import { barsOf, type Texture } from '../song/texture-data.js';

/** Before an attack that a small note leads to. */
export const GRACED = '^';

/** An attack without the sign of its small note. */
export const ungraced = (token: string): string => (token.startsWith(GRACED) ? token.slice(1) : token);

/** Tokens that strike the chord as it was learned, whole or without its bass. */
const SHAPE_TOKENS: readonly string[] = ['c', 'u', 'b', 'r'];

/** True for a token that strikes the chord as it was learned, whole or in part. */
export const isShaped = (token: string): boolean => SHAPE_TOKENS.includes(ungraced(token));

/** True for a token that strikes the third or the seventh of a chord, or all of it: without one nobody hears which chord it is. */
export const tells = (token: string): boolean =>
  ungraced(token)
    .split('+')
    .some((t) => ['c', 'u', 'r', '3', '7', '10', '14'].includes(t));

/** True for a texture that goes up and down the notes of a chord, counted from its bass, and tells which chord it is. */
export function isBroken({ patterns }: Texture): boolean {
  const tokens = patterns.flatMap((p) => barsOf(p.steps).flat());
  return (
    tokens.some(tells) &&
    !tokens.some((t) =>
      ungraced(t)
        .split('+')
        .some((one) => isShaped(one) || one === 'p'),
    )
  );
}
