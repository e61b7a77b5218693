/** A bracket over the keys and the width of its words, in one unit. */
export interface Bracket {
  readonly x1: number;
  readonly x2: number;
  readonly width: number;
}

/** Space between the words of two brackets. */
const GAP = 16;

/**
 * Where the words of brackets stand, by their middles: over their own bracket, leaning away from each other where two lie
 * close, and inside the room as far as it holds them. Brackets come from left to right, two at most.
 */
export function labelsOver(brackets: readonly Bracket[], room: { readonly from: number; readonly to: number }): number[] {
  const starts = brackets.map((b) => (b.x1 + b.x2 - b.width) / 2);
  const [one, other] = brackets;
  if (other && starts[1] - starts[0] < one.width + GAP) {
    const between = (one.x2 + other.x1) / 2;
    starts[0] = between - GAP / 2 - one.width;
    starts[1] = between + GAP / 2;
  }
  starts.forEach((start, i) => {
    const least = i === 0 ? room.from : starts[i - 1] + brackets[i - 1].width + GAP;
    starts[i] = Math.max(least, start);
  });
  for (let i = starts.length - 1; i >= 0; i--) {
    const most = (starts[i + 1] ?? room.to + GAP) - GAP - brackets[i].width;
    starts[i] = Math.min(most, starts[i]);
  }
  return starts.map((start, i) => start + brackets[i].width / 2);
}
