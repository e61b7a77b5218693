import type { ChordFunction } from '../../harmony/vocabulary.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';

const FUNCTIONS: Readonly<Record<ChordFunction, string>> = {
  home: 'the home chord',
  fourth: 'the IV chord',
  dominant: 'the dominant',
  'relative-minor': 'the relative minor',
  'minor-second': 'the ii chord',
  'minor-third': 'the iii chord',
  'dominant-third-below': 'the dominant with its third in the bass',
  'dominant-seventh': 'the dominant seventh',
  'second-seventh': 'the ii chord with its seventh',
  'home-major-seventh': 'the home chord with a major seventh',
  'fourth-major-seventh': 'the IV chord with a major seventh',
  'relative-minor-seventh': 'the relative minor with its seventh',
  'third-seventh': 'the iii chord with its seventh',
  'leading-half-diminished': 'the half-diminished chord on the seventh degree',
  'dominant-of-dominant': 'the dominant of the dominant',
  'dominant-of-relative-minor': 'the dominant of the relative minor',
  'dominant-of-second': 'the dominant of the ii chord',
  'dominant-of-fourth': 'the dominant of the IV chord',
  'dominant-of-third': 'the dominant of the iii chord',
  'fourth-minor': 'the IV chord turned minor',
  'raised-fourth': 'the half-diminished chord on the raised fourth degree',
  'passing-diminished': 'a passing diminished chord',
  'tritone-substitute': 'the dominant’s tritone substitute (♭II7)',
  'sixth-major': 'the VI chord',
  'relative-major': 'the relative major',
  subtonic: 'the ♭VII chord',
  'second-half-diminished': 'the half-diminished ii chord',
  'home-seventh': 'the home chord with its seventh',
  'fourth-seventh': 'the iv chord with its seventh',
  'sixth-major-seventh': 'the VI chord with a major seventh',
  'relative-major-seventh': 'the relative major with its seventh',
  'dominant-of-relative-major': 'the dominant of the relative major',
  'dominant-of-sixth': 'the dominant of the VI chord',
  'leading-diminished': 'the diminished seventh on the leading note',
  'dominant-minor': 'the minor v chord',
  'dominant-minor-seventh': 'the minor v chord with its seventh',
  'fourth-major': 'the major IV chord',
  'fourth-dominant-seventh': 'the IV chord with its seventh',
  'subtonic-major-seventh': 'the ♭VII chord with a major seventh',
  'subtonic-minor': 'the minor chord a whole step below home',
  'second-flat': 'the ♭II chord',
  'second-major': 'the major II chord',
  'leading-minor': 'the minor chord a half step below home',
  outside: 'a chord from outside the key',
};

/** What chords do in their places: phrases, to be joined into a sentence. */
export const chords: Sayings<CodesOf<'chord'>, Speech> = {
  'chord.none': () => 'no chord sounds here',
  'chord.holds': ({ inside, outside }, say) => {
    const names = (notes: readonly string[]) => say.list(notes.map(say.note));
    if (inside.length === 0) return `it has none of the melody’s ${names(outside)}`;
    return `it has the melody’s ${names(inside)}${outside.length > 0 ? `, but not ${names(outside)}` : ''}`;
  },
  'chord.function': ({ what }) => FUNCTIONS[what],
  'chord.leads-to': ({ to }, say) => `it leads on to ${say.symbol(to)}`,
  'chord.falls-a-fifth': ({ to }, say) => `its root falls a fifth to ${say.symbol(to)}`,
  'chord.follows': ({ from }, say) => `${say.symbol(from)} leads into it`,
  'chord.ends': ({ on }) =>
    ({
      home: 'the part ends at home',
      dominant: 'the part ends open, on the dominant',
      elsewhere: 'the part ends away from home',
    })[on],
  'chord.pace': ({ pace }) =>
    ({
      vamp: 'chords stay for two bars or longer in this part',
      bar: 'chords come on the bar lines in this part',
      half: 'chords come by half bars in this part',
      beat: 'chords come on the beats in this part',
    })[pace],
  'chord.as-triad': ({ symbol }, say) => `${say.symbol(symbol)}, played as a plain triad`,
  'chord.fourth-holds': () => 'the fourth holds the third back',
  'chord.fourth-falls': () => 'the fourth falls to the second',
  'chord.third-arrives': ({ third }, say) => `${say.note(third)} arrives at last and the song comes to rest`,
  'chord.turns-back': ({ by, to }, say) => {
    const where = to === null ? 'to the start' : `to ${say.symbol(to)}`;
    return by === 'dominant'
      ? `a turnaround: V7 leads back ${where}`
      : `a turnaround: the tritone substitute leads back ${where}`;
  },
  'chord.unread': ({ text }) => `“${text}” is not a chord symbol.`,
  'chord.altered': ({ note, semitones }) => `the ${note} of a chord is raised or lowered by ${semitones} half steps.`,
};

/** What keys a tune may be heard in. */
export const keys: Sayings<CodesOf<'key'>, Speech> = {
  'key.reading': ({ key, better, why }, say) => {
    const signs = why.map((w) =>
      w.sign === 'ends'
        ? `it ends on ${say.note(w.on)}`
        : w.sign === 'has'
          ? `it has ${say.list(w.notes.map(say.note))}`
          : `it keeps coming back to ${say.note(w.on)}`,
    );
    const name = say.key(key);
    return `${better ? `The melody sounds more like ${name}` : `The melody could also be heard in ${name}`}: ${say.list(signs)}.`;
  },
};

/** How a chord that is put in between leads to the next one. */
export const approaches: Sayings<CodesOf<'approach' | 'turnaround'>, Speech> = {
  'approach.dominant': ({ to }, say) => `Its dominant: the root falls a fifth to ${say.note(to)}.`,
  'approach.half-step-above': ({ to }, say) => `Tritone substitution: it slides down a half step to ${say.note(to)}.`,
  'approach.diminished-between': ({ from, to }, say) =>
    `A diminished chord between ${say.note(from)} and ${say.note(to)}, moving up by half steps.`,
  'approach.chromatic-between': ({ roots }, say) => `The roots fall by half steps: ${roots.map(say.note).join(', ')}.`,
  'approach.raised-fourth': ({ from }, say) => `The root of ${say.symbol(from)} rises a half step.`,
  'approach.minor-fourth': ({ from }, say) => `The third of ${say.symbol(from)} falls a half step on its way home.`,
  'turnaround.dominant': ({ symbol, tonic }, say) =>
    `Turnaround (V7): ${say.symbol(symbol)} wants to go home to ${say.note(tonic)}.`,
  'turnaround.tritone': ({ symbol, tonic }, say) =>
    `Tritone substitution (♭II7): ${say.symbol(symbol)} slides down to ${say.note(tonic)}.`,
  'turnaround.tritone-of-dominant': ({ symbol }, say) => `${say.symbol(symbol)} slides down to the dominant, which leads home.`,
};
