/** Every way to lay fingers on so many keys, from 0 to 5, as the hand meets them: from the thumb's side to the fifth finger's. */
export const WAYS_TO_LAY: readonly (readonly (readonly number[])[])[] = [0, 1, 2, 3, 4, 5].map((size) =>
  subsets([1, 2, 3, 4, 5], size),
);

function subsets(items: readonly number[], size: number): number[][] {
  if (size === 0) return [[]];
  return items.flatMap((item, i) => subsets(items.slice(i + 1), size - 1).map((rest) => [item, ...rest]));
}

/** Fingers as the hand meets its keys from fingers bottom-up, which for the left hand is the other way round; bottom-up again when done twice. */
export const inPlace = (fingers: readonly number[], hand: 'left' | 'right'): readonly number[] =>
  hand === 'left' ? [...fingers].reverse() : fingers;
