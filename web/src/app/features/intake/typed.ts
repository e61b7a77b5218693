import type { Typing } from './state';

/** A way in that is typed: what stands there to begin with, what is offered in its place, and how it is written. */
export interface TypedWay {
  readonly label: string;
  /** The text that is there at first. */
  readonly first: string;
  /** What is said of it, and what is put in its place where that is wished for. */
  readonly says: string;
  readonly button: string;
  readonly instead: string;
  readonly guide: readonly { readonly sign: string; readonly says: string }[];
}

const HEAD = `title: My song
key: C major
time: 4/4
tempo: 88
`;

/** The notations that are typed or pasted. */
export const TYPED = {
  letters: {
    label: $localize`Letter lines`,
    first: $localize`${HEAD}
tune : E4   - G  - | A   - G   - | F   E  D   E  | C  - - - |
chord: C    - -  - | F   - C   - | G7  -  -   -  | C  - - - |
words: Rope - in - | fog - off - | and a- way we | go - - - |
`,
    says: $localize`A short example. Write over it.`,
    button: $localize`Start with an empty grid`,
    // One bar to write on from.
    instead: `${HEAD}
tune : C4 - - - |
chord: C  - - - |
`,
    guide: [
      { sign: 'C4 D Bb', says: $localize`Letter names, one a count. Name the octave once; each letter then takes the nearest.` },
      { sign: '- \u00A0 .', says: $localize`A hold, and a rest.` },
      { sign: 'G_A', says: $localize`Two in one count. A_B_C is three.` },
      { sign: 'E4+C', says: $localize`Struck together: the melody first, the others below it.` },
      { sign: '|', says: $localize`A bar line. Every bar is counted.` },
      {
        sign: 'chord: \u00A0 words:',
        says: $localize`The same grid: a chord on its count, a syllable for each note, “sail- ing” for one word.`,
      },
      { sign: 'left:', says: $localize`A left hand of your own, if you have one: C3 E+G E+G.` },
      { sign: 'inner:', says: $localize`A second voice of the right hand, held or moving while the tune does not.` },
    ],
  },
  abc: {
    label: $localize`ABC text`,
    first: '',
    says: $localize`Paste a whole ABC tune, from its first line.`,
    button: $localize`Show a short example`,
    instead: `X:1
T:Fog Bell
M:3/4
L:1/4
Q:1/4=92
K:F
"F"F A c | "Bb"d2 c | "C7"B G E | "F"F3 |]
w: Fog bell is ring-ing and home is near
`,
    guide: [
      { sign: 'X: \u00A0 K:', says: $localize`A tune begins with its number; the key is the last line before the notes.` },
      { sign: "C D c c'", says: $localize`Capitals from middle C up, small letters an octave above, a mark for one more.` },
      { sign: 'G2 \u00A0 G/', says: $localize`Twice as long, half as long as the L: line says.` },
      { sign: '"Gm7"', says: $localize`A chord. Without any, chords are suggested for the melody.` },
      { sign: 'w:', says: $localize`A syllable for each note of the line above, “sail-ing” for one word.` },
    ],
  },
  words: {
    label: $localize`Words with chords`,
    first: '',
    says: $localize`Paste words with their chords, in brackets or on the line above.`,
    button: $localize`Show a short example`,
    instead: `{title: Late Boat}
{time: 4/4}

Verse:
C            F
Rope in, fog off,
      G7         C
And a-way, a-way we go
`,
    guide: [
      { sign: '[C]Rope in', says: $localize`A chord in brackets, right before the syllable it falls on.` },
      { sign: 'C     G7', says: $localize`Or a line of chords alone: each falls on the syllable under it.` },
      { sign: 'Verse:   [Verse]', says: $localize`A section of the song, on a line of its own.` },
      { sign: '{title: …}', says: $localize`Facts of the song: title, composer, key, time, tempo.` },
    ],
  },
} as const satisfies Record<Typing, TypedWay>;
