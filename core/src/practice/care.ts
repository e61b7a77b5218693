import type { Pass } from '../log/log.js';

/** Seconds of practice without a rest before one is advised, and of quiet that count as a rest. */
export const REST = { after: 22 * 60, quiet: 4 * 60 } as const;

/** Seconds for which one has been practising without a rest, at a moment in milliseconds. The passes are in order of time. */
export function withoutRest(passes: readonly Pick<Pass, 'at' | 'seconds'>[], now: number): number {
  let began = now;
  let later = now;
  for (let i = passes.length - 1; i >= 0; i--) {
    const { at, seconds } = passes[i];
    if (later - at > REST.quiet * 1000) break;
    later = at - seconds * 1000;
    began = Math.min(began, later);
  }
  return (now - began) / 1000;
}
