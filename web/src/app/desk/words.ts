import type { Ending, Swell, Walk } from '@joined-hands/core/song';

/** Endings, swells and walks as they are labelled on the desk and in the plan. */
export const ENDING_WORDS: Readonly<Record<Ending, string>> = {
  plain: 'as written',
  suspended: 'suspended',
  dominant: 'turnaround (V7)',
  'flat-second': 'tritone substitution (♭II7)',
};
export const SWELL_WORDS: Readonly<Record<Swell, string>> = {
  none: 'steady',
  rise: 'growing',
  fall: 'fading',
  arch: 'louder, then softer',
};
export const WALK_WORDS: Readonly<Record<Walk, string>> = {
  none: 'none',
  'scale-below': 'up the scale',
  'scale-above': 'down the scale',
  'half-below': 'up in half steps',
  'half-above': 'down in half steps',
};

/** A section as it is named on screen: a letter alone would read as the form letter of a part. */
export const sectionTitle = (name: string | null): string | null => (name && name.length <= 2 ? `Section ${name}` : name);
