import type { ChordQuality } from '../../harmony/symbol.js';
import type { RepeatPlace } from '../../sheet/chart.js';
import type { CountedNote, SungSyllable } from '../../join/counting.js';
import type { Together } from '../../join/together.js';
import type { Part } from '../../arrange/arrangement.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';

/** Distances in semitones, as they are named. */
export const INTERVALS: readonly string[] = [
  'nothing',
  'a half step',
  'a whole step',
  'a minor third',
  'a major third',
  'a fourth',
  'a tritone',
  'a fifth',
  'a minor sixth',
  'a major sixth',
  'a minor seventh',
  'a major seventh',
  'an octave',
  'a minor ninth',
  'a major ninth',
  'a minor tenth',
  'a major tenth',
];

export const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'];
export const INVERSIONS = ['root position', 'first inversion', 'second inversion', 'third inversion'] as const;

const DEGREES: Readonly<Record<number, string>> = {
  2: 'second',
  4: 'fourth',
  6: 'sixth',
  7: 'seventh',
  9: 'ninth',
  11: 'eleventh',
  13: 'thirteenth',
};

export const degree = (n: number): string => DEGREES[n] ?? `${n}th`;

const TRIADS: Readonly<Record<ChordQuality['triad'], string>> = {
  major: 'major',
  minor: 'minor',
  diminished: 'diminished',
  augmented: 'augmented',
  sus2: 'suspended second',
  sus4: 'suspended fourth',
  'major-flat-five': 'major, flat fifth',
  'minor-sharp-five': 'minor, raised fifth',
  fifth: 'fifth',
  altered: 'altered',
};

/** A chord's kind: "minor seventh", "dominant seventh flat ninth". */
export function quality({ triad, seventh, sixth, natural, altered }: ChordQuality): string {
  const signs = altered.map((a) => `${a.sign} ${degree(a.degree)}`);
  if (seventh === null) {
    const added = sixth ? [natural === 9 ? 'six-nine' : 'sixth'] : natural ? [`added ${degree(natural)}`] : [];
    return [TRIADS[triad], ...added].join(' ');
  }
  const size = degree(natural ?? 7);
  if (triad === 'diminished' && seventh === '7d') return 'diminished seventh';
  if (triad === 'diminished' && seventh === '7m') {
    const top = natural ?? altered.at(-1)?.degree;
    return ['half-diminished', ...(top ? [degree(top)] : [])].join(' ');
  }
  if (triad === 'minor' || triad === 'diminished' || triad === 'minor-sharp-five')
    return [seventh === '7M' ? 'minor, major' : 'minor', size, ...signs].join(' ');
  if (triad === 'sus4') return ['suspended', size, ...signs].join(' ');
  const fifth = triad === 'major-flat-five' ? ', flat fifth' : triad === 'augmented' ? ', raised fifth' : '';
  return [seventh === '7M' ? 'major' : 'dominant', size, ...signs].join(' ') + fifth;
}

/** A hand at the head of a sentence. */
export const hand = (which: 'left' | 'right'): string => (which === 'right' ? 'Right hand' : 'Left hand');

/** The bars of a part: "bars 1–4". */
const barsOf = ({ from, to }: Part['bars']): string => (from === to ? `bar ${from}` : `bars ${from}–${to}`);

/** The same as it is said: "bars 1 to 4", "the pick-up and bar 1". */
export function barsInWords({ from, to }: Part['bars']): string {
  if (from === to) return from === 0 ? 'the pick-up' : `bar ${from}`;
  if (from === 0) return to === 1 ? 'the pick-up and bar 1' : `the pick-up and bars 1 to ${to}`;
  return to === from + 1 ? `bars ${from} and ${to}` : `bars ${from} to ${to}`;
}

/** The title of a part: its own name with its bars, or the bars alone. */
export function partTitle({ name, bars }: Pick<Part, 'name' | 'bars'>): string {
  return name ? `${name} · ${barsOf(bars)}` : capital(barsOf(bars));
}

const STEPS = ['', 'a step', 'a third', 'a fourth', 'a fifth', 'a sixth', 'a seventh', 'an octave'];

/** How a part takes up another: "same as part 1". */
export function repeats({ part, kind, steps, fromBar }: RepeatPlace): string {
  switch (kind) {
    case 'exact':
      return `same as part ${part}`;
    case 'new-ending':
      return `same as part ${part} up to bar ${fromBar}`;
    case 'transposed':
      return `part ${part}, ${STEPS[Math.abs(steps ?? 0)] ?? 'more than an octave'} ${(steps ?? 0) > 0 ? 'higher' : 'lower'}`;
    case 'same-rhythm':
      return `same rhythm as part ${part}`;
  }
}

/** A syllable: "the second syllable of “harbour”", or the word itself where it has one only. */
export function syllable({ word, syllable: n, of }: SungSyllable): string {
  return of === 1 ? `“${word}”` : `the ${ORDINALS[n - 1] ?? `${n}th`} syllable of “${word}”`;
}

/** Where a chord meets the tune: "D5 with G minor on 1, on “lamps”." */
export function together({ chord, melody, under, count, sung }: Together, say: Speech): string {
  const name = say.chord(chord);
  if (melody) return `${say.pitch(melody)} with ${name} on ${count}${sung ? `, on ${syllable(sung)}` : ''}.`;
  if (!under) return `${capital(name)} alone on ${count}.`;
  return `${capital(name)} comes on ${count}, while ${say.pitch(under)} is held${sung ? ` on ${syllable(sung)}` : ''}.`;
}

/** How a note is counted: "Played on 2 &, held over 3: it comes ahead of the beat." */
export function counting({ count, passed, hold, tied, syncopated }: CountedNote): string {
  const over = hold !== null ? `, held for ${hold}` : passed.length > 0 ? `, held over ${passed.join(', ')}` : '';
  return `Played on ${count}${over}${tied ? ', across the bar line' : ''}.${syncopated ? ' It comes ahead of the beat.' : ''}`;
}

/** What is counted while a note is held: "2 3", "hold 6". */
export const held = ({ passed, hold }: CountedNote): string => (hold === null ? passed.join(' ') : `hold ${hold}`);

/** Which parts a change can be applied to as well. */
export function alsoIn(parts: readonly number[], differing: readonly number[], say: Speech): string {
  const named = (numbers: readonly number[]) => `${numbers.length === 1 ? 'part' : 'parts'} ${say.list(numbers.map(String))}`;
  const not = differing.length > 0 ? `; not where ${named(differing)} ${differing.length === 1 ? 'differs' : 'differ'}` : '';
  return `Also in ${named(parts)}${not}.`;
}

const TIMES = ['', '', 'second ', 'third ', 'fourth '];

/** Which one of its name a key is, counted from middle C. */
export function pianoKey(name: string, away: number): string {
  if (away === 0) return 'middle C';
  const times = Math.ceil(Math.abs(away) / 12);
  return `the ${TIMES[times] ?? `${times}th `}${name} ${away > 0 ? 'above' : 'below'} middle C`;
}
