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
  /** How late claps usually are heard and how near to it, in seconds; how many have to be heard, and the latest that a microphone is taken to be. */
  claps: { usual: 0.1, near: 0.2, fewest: 4, most: 0.6 },
  free: {
    /** Quarters a minute that are sung, how finely they are told apart and how likely they are, in octaves of the beat. */
    slowest: 44,
    fastest: 176,
    step: 1 / 24,
    usual: 92,
    octaves: 0.6,
    /** How exactly a length is sung, in octaves, and what it costs that the beat gives way by one. */
    width: 0.14,
    turn: 60,
    /** What a note of so many eighths costs, what any other does, and the longest, in eighths. */
    common: [0, 0.7, 0.2, 1.2, 0.7, 2.5, 1.3, 3, 1.5] as readonly number[],
    rare: 3,
    longest: 16,
    /** The fewest notes that tell a beat; eighths by which a note may end before the next and still go up to it. */
    fewest: 4,
    breath: 1,
    /** By how much bar lines must fall better for a song to begin with a pick-up, in eighths of long notes on them. */
    pickup: 0.25,
  },
  tempo: { slowest: 45, fastest: 190, usual: 104, octaves: 0.75 },
  onset: {
    /** Samples of a frame and from one to the next, and bands by which its rise is told, in hertz. */
    window: 1024,
    hop: 256,
    bands: 40,
    lowest: 50,
    highest: 8000,
    /** How many times the noise of the room a band is measured by, what silence counts as, and how fast that noise is taken to rise, a frame. */
    over: 4,
    silence: 0.01,
    rise: 1.002,
    /** Frames over which a rise is told. */
    back: 3,
    /** Seconds before and after a frame with which it is compared, by how much it rises at least, and how many times their mean. */
    around: 0.15,
    ahead: 0.03,
    least: 0.08,
    times: 1.6,
    /** Seconds that two beginnings lie apart at least, and from the first sample of a frame to the beginning that it tells. */
    apart: 0.05,
    shift: 0.002,
  },
  listen: {
    /** Keys that are listened for, overtones of each, the highest hertz, and rounds in which keys are fitted. */
    lowest: 21,
    highest: 108,
    partials: 16,
    top: 5000,
    rounds: 30,
    /** How fast overtones get softer, and hertz below which a sounding board gives little. */
    loss: 0.7,
    thin: 90,
    /** Seconds of a window, of the shortest one, and between what lies before a beginning and after it. */
    window: 0.186,
    short: 0.06,
    gap: 0.008,
    /** What a key costs that is due one place later than the next, one that is not due, and one of the lowest keys, below which it costs that. */
    near: 0.25,
    other: 0.8,
    otherLow: 3,
    dense: 36,
    /** Share of the strongest key from which one is heard: due now, due soon, not due at all, and where nothing is asked for. */
    heardDue: 0.1,
    heardNear: 0.14,
    heardOther: 0.35,
    heardAlone: 0.5,
    /** Share that a due key must have of one so many half steps from it that is not due. */
    beside: [
      [-2, 0.35],
      [-1, 0.5],
      [1, 0.5],
      [2, 0.35],
      [12, 0.35],
    ],
    /** Share from which a key speaks fully for its place, what each place passed over costs, and how many may be. */
    surely: 0.2,
    skip: 0.12,
    ahead: 4,
    /** Share of the loudest key of late below which nothing was struck, seconds in which that one counts half, and times the room's own noise. */
    soft: 0.15,
    forget: 4,
    overRoom: 2,
    /** Seconds in which no key can be struck twice. */
    again: 0.1,
    /** Keys by which the pitch of a piano is told, hundredths of a half step from which it matters, and at which a key is another. */
    tunedBy: 12,
    outOfTune: 4,
    farthest: 45,
    /** Times the room's noise that a piano should be louder. */
    clear: 12,
  },
  tones: {
    /** How likely a key must begin, and sound on; frames of the shortest note, and in which a note may be silent. */
    begins: 0.7,
    sounds: 0.3,
    shortest: 5,
    gap: 11,
    /** How sure a note must be to be one at all, and not to be marked. */
    least: 0.4,
    sure: 0.5,
  },
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
