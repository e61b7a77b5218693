import type { SceneKind } from '../../lesson/scene.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';
import { NUMBERS, barsInWords, hand, repeats, syllable } from './music.js';

/** What is done in a scene of a lesson. */
export const SCENES: Readonly<Record<SceneKind, string>> = {
  opening: 'What it is',
  repeat: 'What you know already',
  place: 'Where it is',
  names: 'Note by note',
  right: 'Right hand',
  chords: 'Chord by chord',
  left: 'Left hand',
  meet: 'Where the hands meet',
  together: 'Hands together',
  'so-far': 'One after the other',
  hardest: 'Slowly, three times',
  pattern: 'The pattern',
  fill: 'The fill',
  dressed: 'Slowly',
  ending: 'The ending',
  whole: 'Listen',
};

/** What a teacher says at the piano. */
export const lesson: Sayings<CodesOf<'lesson' | 'chapter'>, Speech> = {
  'chapter.opening': () => 'The song',
  'chapter.part': ({ number, bars }) => `Part ${number}${bars ? `, ${barsInWords(bars)}` : ''}`,
  'chapter.so-far': ({ from, to }) => (to === from + 1 ? `Parts ${from} and ${to}` : `Parts ${from} to ${to}`),
  'chapter.hardest': () => 'The hardest spot',
  'chapter.dressing': ({ number }) => `Part ${number}, as it is played`,
  'chapter.whole': () => 'The whole song',
  'lesson.opens': ({ title, key, meter, parts }, say) => {
    const many = parts === 1 ? '' : `, in ${parts < NUMBERS.length ? NUMBERS[parts] : parts} parts`;
    return `${title}, in ${say.key(key)}${many}. Count ${NUMBERS[meter.beats] ?? meter.beats} to a bar.`;
  },
  'lesson.part': ({ number, name, bars, piece }) =>
    `Part ${number}${name ? `, ${name}` : ''}: ${piece ? 'only ' : ''}${barsInWords(bars)}.`,
  'lesson.repeats': ({ part, as }) => {
    switch (as.kind) {
      case 'exact':
        return `Part ${part} is the same as part ${as.part}. You know it already.`;
      case 'new-ending':
        return `Part ${part} is the same as part ${as.part} up to bar ${as.fromBar}. Only what follows is new.`;
      case 'same-rhythm':
        return `Part ${part} has the same rhythm as part ${as.part}.`;
      case 'transposed':
        return `Part ${part} is ${repeats(as)}.`;
    }
  },
  'lesson.by-name': ({ hand: which }) =>
    which === 'right' ? 'The notes of the right hand, one by one.' : 'The chords of the left hand, from the bottom up.',
  'lesson.note': ({ name, beside }, say) => [name, ...beside].map(say.note).join(' and '),
  'lesson.alone': ({ hand: which }) => `${hand(which)} alone, slowly.`,
  'lesson.chord': ({ symbol, position, notes, fingers, again }, say) =>
    again
      ? `${capital(say.chord(symbol))} again.`
      : `${capital(say.chord(symbol))}, ${say.position(position)}: ${say.list(notes.map(say.note))}. Fingers ${fingers.join(', ')}.`,
  'lesson.meet': ({ bar, point, by }, say) => {
    const { chord, count, sung, melody, under } = point;
    const where = `falls on ${by === 'words' && sung ? syllable(sung) : count}`;
    const what = melody ? `, together with ${say.pitch(melody)}` : under ? `, while ${say.pitch(under)} is held` : ', by itself';
    return `${bar === 0 ? 'Pick-up' : `Bar ${bar}`}: ${say.chord(chord)} ${where}${what}.`;
  },
  'lesson.together': () => 'Both hands, slowly.',
  'lesson.so-far': ({ from, to }) =>
    to === from + 1 ? `Parts ${from} and ${to}, one after the other.` : `Parts ${from} to ${to}, one after the other.`,
  'lesson.hardest': ({ part, bars, reasons }, say) =>
    `The hardest spot is in part ${part}, ${barsInWords(bars)}: ${say.list(reasons.map(say.fact))}. We play it three times.`,
  'lesson.once-more': ({ time }) => (time === 2 ? 'Once more.' : 'And a third time.'),
  'lesson.pattern': ({ part, title, symbol, over }, say) => {
    const same = over.length > 0 ? ` It is the same over ${say.list(over.map(say.chord))}.` : '';
    return `In part ${part} the left hand plays a pattern: ${title}. Here it is over ${say.chord(symbol)}.${same}`;
  },
  'lesson.strike': ({ count, notes }, say) => `${count}: ${say.list(notes.map(say.note))}`,
  'lesson.fill': ({ bar, why }, say) =>
    `The melody leaves room ${bar === 0 ? 'in the pick-up' : `in bar ${bar}`}. ${say.fact(why)}`,
  'lesson.dressed': ({ part, pattern, fills }) => {
    const what = pattern && fills ? ' with its pattern and its fills' : pattern ? ' with its pattern' : fills ? ' with its fills' : ' with everything in it'; // prettier-ignore
    return `Part ${part}${what}, slowly.`;
  },
  'lesson.ending': () => 'It closes on a low octave; let it ring.',
  'lesson.whole': () => 'The whole song, as you will play it.',
};
