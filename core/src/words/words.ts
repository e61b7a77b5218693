import { symbolIn } from '../harmony/german-roots.js';
import { parseChord } from '../harmony/symbol.js';
import { midiOf, nameOf, pitchAt, pitchClass, type Pitch } from '../pitch/pitch.js';
import { EN } from './en/index.js';
import { MODES } from './en/labels.js';
import { INTERVALS, INVERSIONS, NUMBERS, degree, pianoKey, quality } from './en/music.js';
import type { Fact } from './fact.js';
import { KEY_NAMES, noteAloud, noteIn, type NoteNames } from '../pitch/note-names.js';
import type { Speech } from './speech.js';
import { capital } from './text.js';

const NUMBER = new Intl.NumberFormat('en', { maximumFractionDigits: 2 });

/** True for a name with two signs, which only readers of scores need. */
const hasTwoSigns = (name: string): boolean => /(bb|##)$/.test(name);

/**
 * Words for facts, with notes named one way or another. A note with two flats or sharps is called by its plain name, as one finds its key,
 * unless the exact name is wished for; the staff always has the exact one.
 */
export const wordsWith = (names: NoteNames, exact = false): Speech =>
  speechWith(
    (name) => noteIn(names, name),
    (text) => symbolIn(names, text),
    exact,
  );

/** Words that are read aloud, so that notes are understood: "B flat", "si bémol", "count 2 and". */
export function spokenWith(names: NoteNames): Speech {
  const written = speechWith(
    (name) => noteAloud(names, name),
    (text) => written.chord(text),
    false,
  );
  const spoken: Speech = {
    ...written,
    fact: (fact) => EN[fact.code](fact as never, spoken),
    // Which octave a key lies in is seen; it is not said.
    pitch: (p) => written.note(nameOf(p)),
    pitches: (all) => all.map((p) => written.note(nameOf(p))).join(', '),
  };
  return spoken;
}

/** A sentence as it is read aloud: signs that a voice would pass over are words. */
export const aloud = (sentence: string): string => sentence.replace(/(\d) &/g, '$1 and').replace(/(\d)–(\d)/g, '$1 to $2');

function speechWith(noteNamed: (name: string) => string, symbol: (text: string) => string, exact: boolean): Speech {
  const plainly = (name: string) => (hasTwoSigns(name) && !exact ? KEY_NAMES[pitchClass(name)] : name);
  const note = (name: string) => noteNamed(plainly(name));
  const pitch = (p: Pitch) => {
    const key = hasTwoSigns(nameOf(p)) && !exact ? pitchAt(plainly(nameOf(p)), midiOf(p)) : p;
    return noteNamed(nameOf(key)) + key.slice(nameOf(key).length);
  };
  const count = (n: number, one: string, many = `${one}s`) => `${NUMBER.format(n)} ${n === 1 ? one : many}`;
  const speech: Speech = {
    // Each code has its own function, which takes the facts of that code only.
    fact: (fact) => EN[fact.code](fact as never, speech),
    note,
    pitch,
    pitches: (pitches) => pitches.map(pitch).join(' '),
    notes: (pitches) => pitches.map((p) => note(nameOf(p))).join(' '),
    symbol,
    chord: (text) => {
      const chord = parseChord(text);
      if (chord.kind !== 'chord') return text;
      return `${note(chord.root)} ${quality(chord.quality)}${chord.bass ? ` over ${note(chord.bass)}` : ''}`;
    },
    key: ({ tonic, mode }) => `${note(tonic)} ${MODES[mode]}`,
    position: (position) =>
      position.kind === 'inversion'
        ? INVERSIONS[position.inversion]
        : position.kind === 'over'
          ? `over ${note(position.bass)}`
          : `${degree(position.degree)} in the bass`,
    struck: (name, beside) => [name, ...beside.map((b) => b.letter)].map(note).join('+'),
    pianoKey: (p) => pianoKey(note(nameOf(p)), midiOf(p) - midiOf('C4')),
    place: ({ bar, count: at }) => `${bar === 0 ? 'the pick-up' : `bar ${bar}`}, count ${at}`,
    interval: (semitones) => INTERVALS[Math.abs(semitones)] ?? 'more than a tenth',
    count,
    countInWords: (n, one, many = `${one}s`) =>
      n < NUMBERS.length && n > 0 ? `${NUMBERS[n]} ${n === 1 ? one : many}` : count(n, one, many),
    list: (items) => (items.length < 2 ? items.join('') : `${items.slice(0, -1).join(', ')} and ${items.at(-1)}`),
    number: (n, digits = 0) => n.toLocaleString('en', { minimumFractionDigits: digits, maximumFractionDigits: digits }),
  };
  return speech;
}

/** Plain English with letter names, for files and the command line. */
export const ENGLISH = wordsWith('letters');

/** Facts whose words are sentences, one after another. */
export const sentences = (facts: readonly Fact[], say: Speech): string => facts.map(say.fact).join(' ');

/** Facts whose words are phrases, in one sentence. */
export const phrases = (facts: readonly Fact[], say: Speech): string =>
  facts.length === 0 ? '' : `${capital(facts.map(say.fact).join('; '))}.`;
