import type { Part } from './arrangement.js';

/** A song is as hard as its parts on average, and as its hardest one. */
const HARDEST_SHARE = 0.5;

/** Difficulty of a song, 0 to 100: between that of its parts on average, weighed by their length, and that of the hardest. */
export function songDifficulty(parts: readonly Pick<Part, 'start' | 'end' | 'difficulty'>[]): number {
  if (parts.length === 0) return 0;
  const length = parts.reduce((sum, p) => sum + p.end - p.start, 0);
  const mean = parts.reduce((sum, p) => sum + p.difficulty.score * (p.end - p.start), 0) / length;
  const most = Math.max(...parts.map((p) => p.difficulty.score));
  return Math.round(HARDEST_SHARE * most + (1 - HARDEST_SHARE) * mean);
}
