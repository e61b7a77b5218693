/**
 * Every figure of the hearing. Times are in seconds, loudness in decibels under the loudest of the recording, pitches in half steps.
 * Sources: the clarity measure is McLeod and Wyvill, A smarter way to find pitch (2005); spectral flux as in Bello and others, A tutorial
 * on onset detection (2005); what is preferred among tempi is after Parncutt (1994). The values were set on made-up tunes.
 */
export const HEARING = {
  line: {
    /** How long a window is, three periods of the lowest voice, how much of its middle tells the loudness, and how far on the next one lies. */
    window: 0.046,
    middle: 0.012,
    hop: 0.01,
    lowest: 38,
    highest: 104,
    /** Clarity from which a window has a pitch, and how soft it may be. */
    clear: 0.8,
    softest: -38,
    /** Width of a voice around its note, and what a frame costs that is farther off than two such widths. */
    width: 0.45,
    most: 8,
    /** What going to another note costs, and what a frame costs that is silent inside a note, or has a pitch inside a rest. */
    change: 14,
    unheard: 0.9,
    ignored: 1.6,
    /** A dip of the loudness that parts two notes on one pitch, and the shortest note. */
    dip: 5,
    shortest: 0.07,
    /** Share of frames near its pitch from which a note is sure. */
    sure: 0.7,
  },
  flux: { window: 1024, hop: 256, bands: 40, lowest: 60, highest: 8000 },
  tempo: { slowest: 45, fastest: 190, usual: 104, octaves: 0.75 },
  tone: { window: 8192, hop: 4096, lowest: 65, highest: 1600, peaks: 24 },
} as const;

/** A frequency as a key that may lie between two. */
export const keyAt = (hertz: number): number => 69 + 12 * Math.log2(hertz / 440);

/** What is left of a frequency, by which a voice or a piano is higher than its nearest key, from -0.5 to 0.5; by a mean on the circle. */
export function tuningOf(keys: readonly number[], weights: readonly number[] = keys.map(() => 1)): number {
  let [x, y] = [0, 0];
  keys.forEach((k, i) => {
    x += weights[i] * Math.cos(2 * Math.PI * k);
    y += weights[i] * Math.sin(2 * Math.PI * k);
  });
  return x === 0 && y === 0 ? 0 : Math.atan2(y, x) / (2 * Math.PI);
}
