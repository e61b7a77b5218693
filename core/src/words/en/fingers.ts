import type { CodesOf, FactOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';

/** When a hand moves, and why there. */
const WHEN: Readonly<Record<FactOf<'finger.moves'>['when'], string>> = {
  breath: 'The hand moves here, while the melody takes a breath',
  long: 'The hand moves here, after a long note',
  again: 'The hand moves here, on a repeated note',
  needed: 'The hand has to move here',
};

/** What a finger would do in place of the one that plays: follows its number. */
function instead({ because, moves }: FactOf<'finger.instead'>, say: Speech): string {
  if (because === 'even') return 'would do as well';
  if (moves > 0) return `would take ${say.countInWords(moves, 'more move', 'more moves')} of the hand`;
  return AGAINST[because];
}

const AGAINST: Readonly<Record<Exclude<FactOf<'finger.instead'>['because'], 'even'>, string>> = {
  move: 'would move the hand further, or at a worse time',
  crossing: 'would make a harder crossing',
  stretch: 'would stretch the hand further',
  black: 'would put the thumb or the fifth finger on a black key',
  again: 'would have to strike the same key again too quickly',
  learned: 'would not be the finger that the melody has alone',
};

const until = (notes: number, say: Speech): string => (notes === 1 ? '' : `, and plays ${say.countInWords(notes, 'note')} there`);

/** Why a chord has its fingers; the book's are given as text. */
const OF_CHORD: Readonly<Record<FactOf<'finger.of-chord'>['how'], (book: string) => string>> = {
  chosen: () => 'You chose these fingers.',
  book: () => 'The fingers that chord books give this shape.',
  place: () => 'Fingered from the place where the hand lies for most of its chords.',
  nearest: (book) => `Chord books have ${book} here; these are the nearest that this hand reaches.`,
};

/** Why a note has its finger. */
export const fingers: Sayings<CodesOf<'finger'>, Speech> = {
  'finger.chosen': () => 'You chose this finger.',
  'finger.yields': ({ alone }) => `Alone the melody has finger ${alone} here; what is played with it takes this one.`,
  'finger.begins': ({ notes, whole }, say) =>
    whole
      ? 'The hand begins here and plays the whole phrase without moving.'
      : `The hand begins here and plays ${say.countInWords(notes, 'note')} before it moves.`,
  'finger.stays': ({ finger }) => `The hand stays where it is; this key lies under finger ${finger}.`,
  'finger.crosses': ({ move, finger, notes }, say) =>
    move === 'under'
      ? `The thumb passes under finger ${finger} here${until(notes, say)}.`
      : `Finger ${finger} passes over the thumb here${until(notes, say)}.`,
  'finger.moves': ({ when, notes }, say) => `${WHEN[when]}${until(notes, say)}.`,
  'finger.of-chord': ({ how, book }) => OF_CHORD[how](book.join('-')),
  'finger.tried': ({ fingers, more }, say) => {
    const row = fingers.join('-');
    if (more === null) return `${row} does not reach these keys.`;
    if (Math.abs(more) < 0.05) return `${row} would do as well.`;
    return `${row} would stretch the hand ${more > 0 ? 'more' : 'less'}: ${more > 0 ? '+' : '−'}${say.number(Math.abs(more), 1)}.`;
  },
  'finger.pattern': ({ attacks }) => `In its pattern: ${attacks.map((a) => a.join('+')).join('-')}.`,
  'finger.turns': ({ move, finger, pitch }, say) =>
    move === 'under'
      ? `The thumb passes under finger ${finger} to ${say.pitch(pitch)}.`
      : `Finger ${finger} crosses over the thumb to ${say.pitch(pitch)}.`,
  'finger.instead': (fact, say) => instead(fact, say),
};
