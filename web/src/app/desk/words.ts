import type { Ending, Swell, Walk } from '@joined-hands/core/song';

/** Endings, swells and walks as they are labelled on the desk and in the plan. */
export const ENDING_WORDS: Readonly<Record<Ending, string>> = {
  plain: 'as written',
  suspended: 'suspended',
  dominant: 'back by V',
  'flat-second': 'back by the half step',
};
export const SWELL_WORDS: Readonly<Record<Swell, string>> = {
  none: 'steady',
  rise: 'growing',
  fall: 'fading',
  arch: 'out and back',
};
export const WALK_WORDS: Readonly<Record<Walk, string>> = {
  none: 'none',
  'scale-below': 'up by the scale',
  'scale-above': 'down by the scale',
  'half-below': 'up by half steps',
  'half-above': 'down by half steps',
};

/** A section as it is named on screen: a letter alone would read as the form letter of a part. */
export const sectionTitle = (name: string | null): string | null => (name && name.length <= 2 ? `Section ${name}` : name);
