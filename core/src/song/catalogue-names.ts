// Written by `npm run lists` from the files that it names: they say their order.

/** Kinds of fills, in the order in which they are offered. */
export const FILL_NAMES = ['broken', 'echo', 'walk', 'turn'] as const;

/** Schools of left-hand voicing, the usual one first. */
export const SCHOOLS = ['close', 'root', 'two-note', 'shell', 'fifths', 'open', 'octave', 'single-bass', 'under-melody'] as const;
