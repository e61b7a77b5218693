import type { BoundaryTerm } from '../../divide/boundaries.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';
import { MOVES } from './labels.js';

/** What speaks for a cut, or against it, in a phrase. */
const SIGNS: Readonly<Record<BoundaryTerm['term'], string>> = {
  section: 'a new section begins',
  lineEnd: 'a line of lyrics ends',
  doubleBar: 'there is a double bar',
  repeat: 'there is a repeat',
  rest: 'the melody rests',
  longNote: 'a long note ends the phrase',
  sentenceEnd: 'the sentence ends',
  capital: 'a word begins with a capital',
  comma: 'the lyrics pause',
  breath: 'a breath is marked',
  slurEnd: 'a slur ends',
  cadence: 'the chords come home',
  returns: 'an earlier phrase returns',
  alike: 'the rhythm of the opening returns',
  longest: 'no note near it is as long',
  leap: 'the melody leaps',
  everyFourBars: 'four bars are complete',
  everyTwoBars: 'two bars are complete',
  barLine: 'it falls on a bar line',
  usualPickup: 'it has the same pick-up as the start',
  insideWord: 'it cuts a word in two',
  offBeat: 'it falls off the beat',
  midBar: 'it falls inside a bar',
};

/** Why parts begin where they do, and what makes them hard: phrases without a stop. */
export const parts: Sayings<CodesOf<'boundary' | 'difficulty'>, Speech> = {
  'boundary.sign': ({ term }) => SIGNS[term],
  'boundary.yours': () => 'you cut here',
  'difficulty.speed': ({ perSecond }, say) => `up to ${say.number(perSecond, 1)} notes a second in the right hand`,
  'difficulty.jumps': ({ hand, jumps, fast }, say) => {
    const many = `${say.countInWords(jumps, 'jump')} in the ${hand} hand`;
    if (fast === 0) return many;
    if (fast === jumps) return jumps === 1 ? `a fast jump in the ${hand} hand` : `${many}, all of them fast`;
    return `${many}, ${say.countInWords(fast, 'of them', 'of them')} fast`;
  },
  'difficulty.moves': ({ moves }, say) => say.countInWords(moves, 'right-hand position change'),
  'difficulty.right-stretches': ({ stretches }, say) =>
    `${say.countInWords(stretches, 'wide stretch', 'wide stretches')} in the right hand`,
  'difficulty.right-struck': ({ notes }, say) => `${say.countInWords(notes, 'melody note')} struck together with others`,
  'difficulty.right-black': ({ black, notes }) => `${black} of ${notes} notes on black keys`,
  'difficulty.syncopation': ({ notes }, say) => `${say.countInWords(notes, 'note')} ahead of the beat`,
  'difficulty.no-rest': ({ counts }, say) => `${say.count(counts, 'count')} without a rest`,
  'difficulty.left-speed': ({ perSecond }, say) => `up to ${say.number(perSecond, 1)} strikes a second in the left hand`,
  'difficulty.changes': ({ changes, seconds }, say) =>
    `${say.countInWords(changes, 'chord change')} in ${say.count(Math.round(seconds), 'second')}`,
  'difficulty.motion': ({ semitones }, say) => `the chords move ${say.count(Math.round(semitones), 'half step')} at a time`,
  'difficulty.left-stretches': ({ chords }, say) => say.countInWords(chords, 'wide chord'),
  'difficulty.left-black': () => 'many black keys in the left hand',
  'difficulty.big-chords': ({ notes }, say) => `chords of up to ${say.countInWords(notes, 'note')}`,
  'difficulty.leaps': ({ leaps }, say) => `${say.countInWords(leaps, 'leap')} in a row in the melody`,
  'difficulty.accidentals': ({ notes }, say) => `${say.countInWords(notes, 'note')} outside the key`,
  'difficulty.black-turns': ({ turns }, say) =>
    `the hand moves on a black key ${turns === 1 ? 'once' : say.countInWords(turns, 'time')}`,
  'difficulty.shapes': ({ shapes, seconds }, say) =>
    `${say.countInWords(shapes, 'left-hand shape')} in ${say.count(Math.round(seconds), 'second')}`,
  'difficulty.apart': ({ times }, say) =>
    `the left hand plays between the melody notes ${times === 1 ? 'once' : say.countInWords(times, 'time')}`,
  'difficulty.between': () => 'notes between the counts',
};

/** Why a note of a pattern is not played. */
const LEFT_OUT = {
  reach: 'this hand cannot reach it',
  muddy: 'so low it would sound muddy',
  melody: 'the melody needs the room',
} as const;

/** Where hands begin, what fills are, where textures give way. */
export const playing: Sayings<CodesOf<'hand' | 'fill' | 'bend'>, Speech> = {
  'hand.starts': ({ thumb, first }, say) =>
    first
      ? `Thumb on ${say.pianoKey(thumb)}; start with finger ${first.finger} on ${say.pitch(first.pitch)}.`
      : `Thumb on ${say.pianoKey(thumb)}.`,
  'hand.stays': () => 'The hand stays there for the whole part.',
  'hand.goes': ({ move, at, thumb }, say) =>
    move === 'under'
      ? `${capital(say.place(at))}: the thumb passes under to ${say.pianoKey(thumb)}.`
      : `${capital(say.place(at))}: ${MOVES[move]}; thumb on ${say.pianoKey(thumb)}.`,
  'fill.broken': ({ symbol, from }, say) => `${say.symbol(symbol)} broken upwards from the melody’s ${say.pitch(from)}.`,
  'fill.echo': ({ notes, higher }, say) =>
    `An echo: the last notes, ${say.pitches(notes)}, an octave ${higher ? 'higher' : 'lower'}.`,
  'fill.walk': ({ to }, say) => `Steps up or down to ${say.pitch(to)}, where the melody goes on.`,
  'fill.turn': ({ around }, say) => `A turn around ${say.pitch(around)}: the notes above and below it.`,
  'bend.pedal-note': ({ pitch, symbol }, say) =>
    `${say.pitch(pitch)} stays in the bass under ${say.symbol(symbol)} as a pedal note.`,
  'bend.off-keyboard': ({ pitch }, say) => `${say.pitch(pitch)} is off this keyboard and is played an octave higher.`,
  'bend.lower': ({ symbol }, say) =>
    `The melody comes down here, so the pattern over ${say.symbol(symbol)} is played an octave lower.`,
  'bend.first-half': ({ symbol }, say) =>
    `The melody comes down here, so the pattern over ${say.symbol(symbol)} is cut to its first half and held.`,
  'bend.left-out': ({ pitch, cause }, say) => `${say.pitch(pitch)} is left out: ${LEFT_OUT[cause]}.`,
  'bend.short': ({ symbol }, say) => `${say.symbol(symbol)} is shorter than the pattern, which stops with the chord.`,
  'bend.no-octave': ({ pitch }, say) => `${say.pitch(pitch)} closes the song alone: this hand does not reach an octave.`,
};
