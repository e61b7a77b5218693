import { nameOf, type Pitch } from '../../pitch/pitch.js';
import type { TermDifference, VoiceMove, VoicingShape } from '../../left-hand/reasons.js';
import type { TermCost } from '../../left-hand/problem.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';

/** What a voicing is called in a list of others. */
export function shape(of: VoicingShape, say: Speech): string {
  switch (of.kind) {
    case 'one-note':
      return 'one note';
    case 'octave':
      return 'octave';
    case 'two-notes':
      return `two notes over ${say.note(of.bottom)}`;
    case 'open':
      return 'open position';
    case 'close': {
      const position = say.position(of.position);
      return of.form === 'no-fifth'
        ? `${position} without the fifth`
        : of.form === 'rootless'
          ? `${position} without the root`
          : position;
    }
  }
}

/** A chord change voice by voice: "D and F stay; A falls to G". */
export function change(moves: readonly VoiceMove[], say: Speech): string {
  const up = [...moves].reverse();
  const name = (pitch: Pitch | null) => say.note(nameOf(pitch ?? ''));
  const stays = up.filter((m) => m.from !== null && m.to !== null && m.semitones === 0).map((m) => name(m.to));
  if (moves.length > 0 && stays.length === moves.length) return 'every key stays';
  const clauses = stays.length > 0 ? [`${say.list(stays)} ${stays.length === 1 ? 'stays' : 'stay'}`] : [];
  for (const m of up) {
    if (m.from === null) clauses.push(`${name(m.to)} is added`);
    else if (m.to === null) clauses.push(`${name(m.from)} is left out`);
    else if (m.semitones !== 0) clauses.push(`${name(m.from)} ${m.semitones > 0 ? 'rises' : 'falls'} to ${name(m.to)}`);
  }
  return clauses.join('; ');
}

/** The same in short: "two stay, one falls". */
export function changeInShort(moves: readonly VoiceMove[], say: Speech): string {
  const whole = moves.filter((m) => m.from !== null && m.to !== null);
  const count = (test: (m: VoiceMove) => boolean, one: string, many: string) => {
    const n = whole.filter(test).length;
    return n === 0 ? [] : [say.countInWords(n, one, many)];
  };
  return [
    ...count((m) => m.semitones === 0, 'stays', 'stay'),
    ...count((m) => m.semitones > 0, 'rises', 'rise'),
    ...count((m) => m.semitones < 0, 'falls', 'fall'),
  ].join(', ');
}

/** What one voice does: "up a minor third". */
export function move({ from, to, semitones }: VoiceMove, say: Speech): string {
  if (from === null) return 'added';
  if (to === null) return 'left out';
  return semitones === 0 ? 'stays' : `${semitones > 0 ? 'up' : 'down'} ${say.interval(semitones)}`;
}

/** What a term of the search says against a voicing that it costs more. */
const AGAINST: Readonly<Record<TermCost['term'], string>> = {
  motion: 'move more',
  commonTone: 'keep fewer keys',
  shift: 'shift the hand further',
  moveOnRepeat: 'move while the chord stays the same',
  bassLine: 'take the bass against your line',
  form: 'leave more of the chord out',
  spread: 'have to be broken or rolled',
  stretch: 'stretch the hand further',
  muddy: 'sound muddier down there',
  otherShape: 'be another shape for this chord to learn',
  drift: 'lie further from the usual range',
  blackThumb: 'put the thumb on a black key',
  crossesTune: 'run into the melody',
  nearTune: 'crowd the melody',
  startInverted: 'start away from root position',
  endInverted: 'end away from root position',
};

/** And for one that it costs less. */
const FOR: Readonly<Record<TermCost['term'], string>> = {
  motion: 'move less',
  commonTone: 'keep more keys',
  shift: 'shift the hand less',
  moveOnRepeat: 'stay where it is',
  bassLine: 'keep nearer to your bass line',
  form: 'keep more of the chord',
  spread: 'be struck together',
  stretch: 'stretch the hand less',
  muddy: 'sound clearer',
  otherShape: 'be the shape that the chord has elsewhere',
  drift: 'lie nearer to the usual range',
  blackThumb: 'keep the thumb off the black keys',
  crossesTune: 'stay clear of the melody',
  nearTune: 'leave the melody more room',
  startInverted: 'start in root position',
  endInverted: 'end in root position',
};

/** Half steps by which two voicings differ, to a tenth. */
const halfSteps = ({ saved }: TermDifference): number => Math.round(Math.abs(saved) * 10) / 10;

/** A term for or against a voicing, and where that shows: "move 4 half steps more on to the next chord". */
function weighed(difference: TermDifference, say: Speech): string {
  const { term, where, saved } = difference;
  const next = where === 'to' ? ' on to the next chord' : '';
  if (term === 'motion') return `move ${say.count(halfSteps(difference), 'half step')} ${saved > 0 ? 'more' : 'less'}${next}`;
  return `${(saved > 0 ? AGAINST : FOR)[term]}${next}`;
}

/** Terms that are named on either side. */
const NAMED = 2;

/** What decided between a chosen voicing and another: what the other would gain, then what it would cost. */
function decision(other: string, terms: readonly TermDifference[], say: Speech): string {
  const side = (test: (t: TermDifference) => boolean) => {
    const told = terms.filter(test).slice(0, NAMED);
    // Motion here and on to the next chord goes in one breath.
    const [first, second] = told;
    if (first?.term === 'motion' && second?.term === 'motion') {
      const [here, next] = first.where === 'to' ? [second, first] : [first, second];
      return `move ${say.count(halfSteps(here), 'half step')} ${here.saved > 0 ? 'more' : 'less'} here and ${halfSteps(next)} on to the next chord`;
    }
    return say.list(told.map((t) => weighed(t, say)));
  };
  const [gains, losses] = [side((t) => t.saved < 0), side((t) => t.saved > 0)];
  const said = gains && losses ? `${gains}, but ${losses}` : gains || losses;
  return `${capital(other)} would ${said}.`;
}

const BECAUSE = {
  hand: 'the whole chord is too wide for this hand',
  tune: 'the whole chord would get in the way of the melody or lie too far off',
  notes: 'the chord has more notes than the hand needs',
} as const;

/** What was left out of a chord, and why. */
export function thinned(form: string, cause: keyof typeof BECAUSE): string {
  const because = BECAUSE[cause];
  switch (form) {
    case 'no-fifth':
      return `The fifth is left out: ${because}.`;
    case 'two-note':
      return `Two notes stand for the chord: ${because}.`;
    case 'one-note':
      return `One note stands for the chord: ${because}.`;
    default:
      return 'The root is left out: the third and seventh say which chord it is.';
  }
}

export const voicing: Sayings<CodesOf<'voicing'>, Speech> = {
  'voicing.yours': () => 'You chose this voicing.',
  'voicing.starts': ({ position }, say) => `The hand starts here, in ${say.position(position)}.`,
  'voicing.same-again': () => 'The same chord again: every key stays.',
  'voicing.change': ({ moves }, say) => `${capital(change(moves, say))}.`,
  'voicing.bass-line': ({ rises, asked, followed }) =>
    followed
      ? `The bass ${rises ? 'rises' : 'falls'}, as you asked.`
      : `The bass ${rises ? 'rises' : 'falls'} here: no ${asked} bass was within reach.`,
  'voicing.three-notes': ({ fifth }, say) => `Three notes are enough for it: the fifth, ${say.note(fifth)}, is left out.`,
  'voicing.thinned': ({ form, cause }) => thinned(form, cause),
  'voicing.spread': ({ spread, width, limit }) => {
    const wide = `It spans ${width} half steps and this hand reaches ${limit}`;
    return spread === 'broken'
      ? `${wide}, so it is broken: the low note first, the rest a beat later, with the pedal holding them together.`
      : `${wide}, so it is rolled from the bottom, with the pedal holding the low note.`;
  },
  'voicing.decided': ({ against, terms }, say) => decision(shape(against, say), terms, say),
  'voicing.shape': ({ shape: of, notes }, say) => `${capital(shape(of, say))}, ${say.count(notes, 'note')}.`,
};
