/**
 * Left-hand fingers for a chord, bottom-up, as chord books print them: three notes 5-3-1, with the second finger
 * where the lower gap is a fourth or more and the fourth where it is a step; four notes 5-3-2-1, or 5-4-2-1 in the
 * first inversion of a seventh and where the lowest gap is a step; a fifth or wider 5-1; two close notes 2-1.
 * `inversion` is 0 for root position.
 */
export function chordFingers(midis: readonly number[], inversion: number | null): number[] {
  const gap = midis.length > 1 ? midis[1] - midis[0] : 0;
  switch (midis.length) {
    case 1:
      return [5];
    case 2:
      return gap <= 5 ? [2, 1] : [5, 1];
    case 3:
      return [5, gap >= 5 ? 2 : gap <= 2 ? 4 : 3, 1];
    case 4:
      return [5, inversion === 1 || gap <= 2 ? 4 : 3, 2, 1];
    default:
      return [5, 4, 3, 2, 1];
  }
}
