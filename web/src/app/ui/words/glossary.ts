/** What a word on the screen means, and where a figure comes from. The words here are the ones used everywhere. */
export const GLOSSARY = {
  part: {
    word: $localize`Part`,
    says: $localize`A passage short enough to remember, one to four bars. It ends where the phrase does: on a long note, at a rest, or before a leap.`,
  },
  join: {
    word: $localize`Join`,
    says: $localize`A moment at which both hands strike together. On the strip a clasp closes around its count.`,
  },
  school: {
    word: $localize`School`,
    says: $localize`A style of left-hand chords, such as nearest inversions, root position or two notes.`,
  },
  motion: {
    word: $localize`Motion`,
    says: $localize`How far the left hand travels from chord to chord, in half steps, all fingers added up.`,
  },
  difficulty: {
    word: $localize`Difficulty`,
    says: $localize`From 0 to 100, for each hand and for both together: how fast and wide the hand moves, black keys under the thumb, position changes, stretches, and how often the hands play together. Weighed as teachers grade pieces; under 20 is a tune in one place over slow chords, over 60 a busy one with leaps.`,
  },
  jumps: {
    word: $localize`Jump`,
    says: $localize`A move of the whole hand by a fifth or more, at fourteen half steps a second or faster. Look at the key before you move.`,
  },
  stretches: {
    word: $localize`Wide stretch`,
    says: $localize`Notes played together that are wider than your comfortable span, as measured under Hands.`,
  },
  energy: {
    word: $localize`Energy`,
    says: $localize`From 1 to 5: how often the left hand strikes and how far it moves. A quiet verse has less energy than a chorus.`,
  },
  minutes: {
    word: $localize`Minutes`,
    says: $localize`A part of four bars takes five to ten minutes to play slowly with both hands; harder parts take longer, and repeated parts nothing extra.`,
  },
  tempoReached: {
    word: $localize`Tempo reached`,
    says: $localize`The fastest tempo at which a part was clean, against the song’s own. Three clean takes in a row move you up a tenth.`,
  },
  accuracy: {
    word: $localize`Right`,
    says: $localize`The percentage of notes played with the right key. Stopping or slowing down makes no note wrong; early and late notes are counted separately.`,
  },
  clean: {
    word: $localize`Clean`,
    says: $localize`Almost no note wrong, missing or extra, and no more than one in ten out of time.`,
  },
  due: {
    word: $localize`Due`,
    says: $localize`What you have learned comes back after a day, then after about twice as long each time, as long as it stays clean.`,
  },
  troubles: {
    word: $localize`Problems to fix`,
    says: $localize`Places where the hands collide, a chord is out of reach, or melody and chord clash. The desk offers ways to fix each one.`,
  },
} as const satisfies Record<string, { readonly word: string; readonly says: string }>;

export type Term = keyof typeof GLOSSARY;
