/** Grids that played notes may be written on. Parts of a quarter note; two for a quarter that takes whichever is nearer. */
export const GRIDS = {
  eighths: { parts: [2] },
  triplets: { parts: [3] },
  sixteenths: { parts: [4] },
  mixed: { parts: [4, 3] },
} as const;
export type GridName = keyof typeof GRIDS;
export const GRID_NAMES = Object.keys(GRIDS) as GridName[];

/** Mean distance from the grid, in quarter notes, up to which a coarser grid is taken, and the farthest any note may lie from it. */
const CLOSE = { mean: 0.045, most: 0.075 } as const;

/** The places of a grid nearest to places in quarter notes. A quarter takes the division that its notes are nearer to in sum. */
export function snap(places: readonly number[], grid: GridName): number[] {
  const { parts } = GRIDS[grid];
  const byQuarter = new Map<number, number[]>();
  for (const p of places) byQuarter.set(Math.floor(p + 1e-6), [...(byQuarter.get(Math.floor(p + 1e-6)) ?? []), p]);
  const division = new Map<number, number>();
  for (const [quarter, inside] of byQuarter) {
    const cost = (n: number) => inside.reduce((sum, p) => sum + Math.abs(p - Math.round(p * n) / n), 0);
    division.set(
      quarter,
      parts.reduce<number>((best, n) => (cost(n) < cost(best) - 1e-9 ? n : best), parts[0]),
    );
  }
  return places.map((p) => {
    const n = division.get(Math.floor(p + 1e-6)) ?? parts[0];
    return Math.max(0, Math.round(p * n) / n);
  });
}

/** How far places lie from a grid: on average and at most, in quarter notes. */
export function distanceFrom(places: readonly number[], grid: GridName): { readonly mean: number; readonly most: number } {
  const off = snap(places, grid).map((p, i) => Math.abs(p - places[i]));
  return { mean: off.reduce((a, b) => a + b, 0) / Math.max(1, off.length), most: Math.max(0, ...off) };
}

/** The coarsest grid that the places lie close to; the finest where none is. */
export function likelyGrid(places: readonly number[]): GridName {
  return (
    GRID_NAMES.find((grid) => {
      const { mean, most } = distanceFrom(places, grid);
      return mean <= CLOSE.mean && most <= CLOSE.most;
    }) ?? 'mixed'
  );
}
