/** What a word on the screen means, and where a figure comes from. The words here are the ones used everywhere. */
export const GLOSSARY = {
  part: {
    word: 'Part',
    says: 'A stretch short enough to hold in mind, one to four bars. It ends where the phrase does: at a long note, a rest, or before a leap.',
  },
  join: { word: 'Join', says: 'A moment at which both hands strike together. On the strip a clasp closes around its count.' },
  school: {
    word: 'School',
    says: 'A way to lay chords for the left hand, such as nearest inversions, root positions or two notes.',
  },
  motion: {
    word: 'Motion',
    says: 'How far the left hand travels from chord to chord: every finger’s way in half steps, added up. The path with the least of it is looked for among all.',
  },
  difficulty: {
    word: 'Difficulty',
    says: 'From 0 to 100, for each hand and for both together: how fast and wide the hand moves, black keys under the thumb, shifts, stretches, and how often the hands must meet. Weighed as teachers grade pieces; under 20 is a tune in one place over slow chords, over 60 a busy one with leaps.',
  },
  jumps: {
    word: 'Jump',
    says: 'A move of the whole hand by a fifth or more, at fourteen half steps a second or faster. It needs looking before it needs fingers.',
  },
  stretches: { word: 'Wide reach', says: 'A chord or two notes wider than your hand spans in comfort, as measured under Hands.' },
  energy: {
    word: 'Energy',
    says: 'From 1 to 5: how often the left hand strikes and how far it moves. A quiet verse has less of it than a chorus.',
  },
  minutes: {
    word: 'Minutes',
    says: 'A part of four bars takes five to ten minutes to play slowly with both hands; harder ones more, parts that come again nothing new.',
  },
  tempoReached: {
    word: 'Tempo reached',
    says: 'The fastest tempo at which a part was clean, against the song’s own. Three clean passes lead one step up, a tenth faster.',
  },
  accuracy: {
    word: 'Right',
    says: 'The share of notes whose right key was heard at their place. A stop or a drift of the tempo makes no note wrong; early and late are counted for themselves.',
  },
  clean: { word: 'Clean', says: 'Hardly a note wrong, missing or extra, and no more than one in ten out of time.' },
  due: {
    word: 'Due',
    says: 'What was learned comes back after a day, then after growing gaps, about doubling, for as long as it stays clean.',
  },
  troubles: {
    word: 'To be mended',
    says: 'Places where the hands collide, a chord is out of reach, or tune and chord grate. Each has its ways out at the desk.',
  },
} as const satisfies Record<string, { readonly word: string; readonly says: string }>;

export type Term = keyof typeof GLOSSARY;
