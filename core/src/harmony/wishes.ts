/** How many kinds of chord a suggestion may use, each holding the ones before it. */
export const VOCABULARIES = ['three', 'triads', 'sevenths', 'rich'] as const;
export type Vocabulary = (typeof VOCABULARIES)[number];

/** How often a suggested chord may change; "proposed" leaves bar or half bar to the search. */
export const HARMONIC_RHYTHMS = ['proposed', 'bar', 'half', 'beat'] as const;
export type HarmonicRhythm = (typeof HARMONIC_RHYTHMS)[number];
