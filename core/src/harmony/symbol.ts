import { transposeName, type NoteName } from '../pitch/pitch.js';
import { remembered } from '../lists/remembered.js';

/** The number a chord note answers to: 1, 3, 5, 7, or a tension 2, 4, 6, 9, 11, 13. */
export type Degree = number;

/** One note of a chord, spelled from the root. */
export interface ChordTone {
  readonly degree: Degree;
  /** Interval from the root, "3m", "9A". */
  readonly interval: string;
  readonly name: NoteName;
}

/** A chord symbol that was understood. */
export interface Chord {
  readonly kind: 'chord';
  /** The text as it was written, signs turned into b and #. */
  readonly text: string;
  readonly root: NoteName;
  readonly tones: readonly ChordTone[];
  /** The note written after a slash, or null. */
  readonly bass: NoteName | null;
  readonly quality: ChordQuality;
}

/** What kind of chord a symbol stands for: its triad, and what is stacked on it. */
export interface ChordQuality {
  readonly triad:
    | 'major'
    | 'minor'
    | 'diminished'
    | 'augmented'
    | 'sus2'
    | 'sus4'
    | 'major-flat-five'
    | 'minor-sharp-five'
    | 'fifth'
    | 'altered';
  /** The seventh of the chord, by its interval from the root, or null. */
  readonly seventh: '7m' | '7M' | '7d' | null;
  /** A sixth in place of a seventh, or added to the triad. */
  readonly sixth: boolean;
  /** The highest tension that is not altered: 9, 11 or 13; null where there is none. */
  readonly natural: 9 | 11 | 13 | null;
  readonly altered: readonly { readonly degree: 9 | 11 | 13; readonly sign: 'flat' | 'sharp' }[];
}

/** A place without a chord: "N.C." */
export interface NoChord {
  readonly kind: 'none';
  readonly text: string;
}

/** Text that is not a chord symbol. */
export interface UnreadChord {
  readonly kind: 'unread';
  readonly text: string;
}

export type ChordSymbol = Chord | NoChord | UnreadChord;

type Third = '3M' | '3m' | '2M' | '4P' | null;

interface Build {
  third: Third;
  fifth: '5P' | '5d' | '5A' | null;
  seventh: '7m' | '7M' | '7d' | null;
  major: boolean;
  dim: boolean;
  extras: Map<number, string>;
  dropThird: boolean;
}

const ROOT = /^([A-G])(b|#)?/;
const SLASH = /\/\s*([A-G])(b|#)?$/;
const NONE = /^(n\.?\s*c\.?|no chord|tacet)$/i;

/** The spellings of lead sheets, tried in order at each place of the text after the root. */
const TOKENS: readonly (readonly [RegExp, (b: Build, m: RegExpExecArray) => void])[] = [
  [/^[\s(),]+/, () => undefined],
  [/^(?:m|mi|min|-)\s*[(]?(?:maj|Maj|ma|M)\s*7[)]?/, (b) => ((b.third = '3m'), (b.seventh = '7M'))],
  [/^(?:ø|m7b5|-7b5|min7b5|mi7b5|m7-5|half-?dim)7?/, (b) => ((b.third = '3m'), (b.fifth = '5d'), (b.seventh = '7m'))],
  [/^(?:Δ|△)7?/, (b) => (b.seventh = '7M')],
  [/^(?:maj|Maj|MAJ|ma|Ma|MA|M|j)/, (b) => (b.major = true)],
  [/^(?:dim|°|o)/, (b) => ((b.third = '3m'), (b.fifth = '5d'), (b.dim = true))],
  [/^(?:aug)/, (b) => (b.fifth = '5A')],
  [/^sus\s*(2|4|24|)/, (b, m) => ((b.third = m[1] === '2' ? '2M' : '4P'), m[1] === '24' && b.extras.set(9, '9M'))],
  [/^add\s*(b|#)?(2|4|6|9|11|13)/, (b, m) => addTension(b, Number(m[2]), m[1])],
  [/^(?:no|omit)\s*(3|5)/, (b, m) => (m[1] === '3' ? (b.dropThird = true) : (b.fifth = null))],
  [/^alt/, (b) => ((b.seventh = '7m'), (b.fifth = '5A'), b.extras.set(9, '9A'))],
  [/^(b|-)5/, (b) => (b.fifth = '5d')],
  [/^(#|\+)5/, (b) => (b.fifth = '5A')],
  [/^(b|#)(9|11|13)/, (b, m) => alter(b, Number(m[2]), m[1])],
  [/^\+(9|11)/, (b, m) => alter(b, Number(m[1]), '#')],
  [/^\+/, (b) => (b.fifth = '5A')],
  [/^(?:min|mi|m)/, (b) => (b.third = '3m')],
  [
    /^-(9|13)/,
    (b, m) => {
      if (b.seventh) return alter(b, Number(m[1]), 'b');
      b.third = '3m';
      stack(b, Number(m[1]));
    },
  ],
  [/^-/, (b) => (b.third = '3m')],
  [/^6\s*\/?\s*9/, (b) => (b.extras.set(6, '6M'), b.extras.set(9, '9M'))],
  [/^6/, (b) => b.extras.set(6, '6M')],
  [/^(7|9|11|13)/, (b, m) => stack(b, Number(m[1]))],
  [/^2/, (b) => b.extras.set(9, '9M')],
  [/^4/, (b) => (b.third = '4P')],
  [/^5/, (b) => (b.third = null)],
];

function stack(b: Build, top: number): void {
  b.seventh = b.major ? '7M' : b.dim ? '7d' : (b.seventh ?? '7m');
  if (top >= 9 && !b.extras.has(9)) b.extras.set(9, '9M');
  if (top === 11) {
    b.extras.set(11, '11P');
    // The third and the eleventh grate a half step apart, so a major eleventh chord is played without its third.
    if (b.third === '3M') b.dropThird = true;
  }
  if (top === 13) b.extras.set(13, '13M');
}

function alter(b: Build, degree: number, sign: string): void {
  if (b.seventh === null) b.seventh = b.major ? '7M' : '7m';
  const flat = { 9: '9m', 11: '11d', 13: '13m' }[degree] as string;
  const sharp = { 9: '9A', 11: '11A', 13: '13A' }[degree] as string;
  b.extras.set(degree, sign === 'b' ? flat : sharp);
}

function addTension(b: Build, degree: number, sign: string | undefined): void {
  const place = degree === 2 ? 9 : degree === 4 ? 11 : degree;
  if (sign) b.extras.set(place, `${place}${sign === 'b' ? 'm' : 'A'}`);
  else b.extras.set(place, `${place}${place === 11 ? 'P' : 'M'}`);
}

/** Makes typographic signs plain: "B♭" to "Bb", "F♯ø" to "F#ø". */
export function plainSigns(text: string): string {
  return text.replaceAll('♭', 'b').replaceAll('♯', '#').replaceAll('–', '-').replaceAll('−', '-').replaceAll('𝄫', 'bb');
}

/**
 * Reads a chord symbol in any of the usual spellings ("Gm7", "F#-7b5", "Bø", "E7(#9)", "C6/9", "D/F#", "N.C.").
 * Text that is not a chord symbol comes back as `unread`, never as an error.
 */
export const parseChord: (text: string) => ChordSymbol = remembered(4000, (text) => text, readChord);

function readChord(raw: string): ChordSymbol {
  const text = plainSigns(raw.trim());
  if (NONE.test(text)) return { kind: 'none', text: 'N.C.' };
  const root = ROOT.exec(text);
  if (!root) return { kind: 'unread', text };
  const slash = SLASH.exec(text);
  let rest = text.slice(root[0].length, slash ? slash.index : undefined);
  const b: Build = {
    third: '3M',
    fifth: '5P',
    seventh: null,
    major: false,
    dim: false,
    extras: new Map(),
    dropThird: false,
  };
  while (rest) {
    const hit = TOKENS.map(([pattern, apply]) => ({ match: pattern.exec(rest), apply })).find((t) => t.match);
    if (!hit?.match) return { kind: 'unread', text };
    hit.apply(b, hit.match);
    rest = rest.slice(hit.match[0].length);
  }
  const name = root[1] + (root[2] ?? '');
  const tones = tonesOf(name, b);
  const bass = slash ? slash[1] + (slash[2] ?? '') : null;
  return { kind: 'chord', text, root: name, tones, bass: bass === name ? null : bass, quality: qualityOf(b) };
}

function tonesOf(root: NoteName, b: Build): ChordTone[] {
  const tone = (degree: Degree, interval: string) => ({ degree, interval, name: transposeName(root, interval) });
  const tones = [tone(1, '1P')];
  if (b.third && !b.dropThird) tones.push(tone(b.third === '2M' ? 2 : b.third === '4P' ? 4 : 3, b.third));
  if (b.fifth) tones.push(tone(5, b.fifth));
  if (b.extras.has(6)) tones.push(tone(6, b.extras.get(6) as string));
  if (b.seventh) tones.push(tone(7, b.seventh));
  for (const degree of [9, 11, 13]) {
    const interval = b.extras.get(degree);
    if (interval) tones.push(tone(degree, interval));
  }
  return tones;
}

const TRIADS: Readonly<Record<string, ChordQuality['triad']>> = {
  '3M5P': 'major',
  '3m5P': 'minor',
  '3m5d': 'diminished',
  '3M5A': 'augmented',
  '2M5P': 'sus2',
  '4P5P': 'sus4',
  '3M5d': 'major-flat-five',
  '3m5A': 'minor-sharp-five',
  null5P: 'fifth',
};

function qualityOf(b: Build): ChordQuality {
  const tensions = ([9, 11, 13] as const).filter((d) => b.extras.has(d));
  const isAltered = (d: number) => !/[MP]$/.test(b.extras.get(d) as string);
  return {
    triad: TRIADS[`${b.third}${b.fifth ?? '5P'}`] ?? 'altered',
    seventh: b.seventh,
    sixth: b.extras.has(6),
    natural: tensions.filter((d) => !isAltered(d)).at(-1) ?? null,
    altered: tensions
      .filter(isAltered)
      .map((degree) => ({ degree, sign: /[md]$/.test(b.extras.get(degree) as string) ? 'flat' : 'sharp' })),
  };
}
