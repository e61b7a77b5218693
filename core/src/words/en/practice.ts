import type { GripLabel } from '../../catalogue/drills/drill.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';

const hand = (which: 'left' | 'right'): string => (which === 'right' ? 'Right hand' : 'Left hand');

/** What keys are called: "Dm7, second inversion". */
export const grip = (label: GripLabel, say: Speech): string =>
  'pitch' in label ? say.pitch(label.pitch) : `${say.symbol(label.symbol)}, ${say.position(label.position)}`;

export const practice: Sayings<CodesOf<'verdict' | 'today' | 'task' | 'drill' | 'log'>, Speech> = {
  'verdict.timing': ({ hand: which, timing, at }, say) =>
    'chord' in at
      ? `${hand(which)} ${timing} at each change to ${say.symbol(at.chord)}.`
      : `${hand(which)} ${timing} on ${at.notes} of ${at.of} notes.`,
  'verdict.wrong': ({ hand: which, notes }, say) => `${hand(which)}: ${say.countInWords(notes, 'wrong note')}.`,
  'verdict.missing': ({ hand: which, notes }, say) => `${hand(which)}: ${say.countInWords(notes, 'note')} missing.`,
  'verdict.extra': ({ keys }, say) => `${capital(say.countInWords(keys, 'key'))} too many.`,
  'verdict.clean': () => 'Clean: every note in its place.',
  'verdict.nearly': () => 'Every note is there; a few are out of time.',
  'verdict.marked-clean': () => 'Marked clean.',
  'verdict.marked-not-yet': () => 'Not yet. Take it slower if you like.',
  'verdict.heard-other': ({ hand: which, notes }, say) =>
    `${hand(which)}: another key was heard ${notes === 1 ? 'once' : `for ${say.countInWords(notes, 'note')}`}.`,
  'verdict.not-heard': ({ hand: which, notes }, say) => `${hand(which)}: ${say.countInWords(notes, 'note')} not heard.`,
  'verdict.all-heard': ({ inTime }) =>
    inTime ? 'Everything was heard, and in time.' : 'Everything was heard; a few notes out of time.',
  'verdict.found-by-ear': () => 'Heard to the end: every place came through.',
  'verdict.found': ({ slips }, say) =>
    slips === 0
      ? 'You found every key, one after another.'
      : `You found every key, with ${say.countInWords(slips, 'wrong key')} on the way.`,
  'today.warm-up': () => 'The scale of the song and its chord shapes.',
  'today.rest': () => 'Stand up, let your arms hang and look into the distance.',
  'today.nothing-due': () => 'Nothing is due: play it for fun.',
  'today.due': ({ days }) =>
    days === null
      ? 'Due for review.'
      : days === 1
        ? 'Last played yesterday; due again.'
        : `Last played ${days} days ago; due again.`,
  'today.new-hand': () => 'New: one hand first.',
  'today.next-step': () => 'The next step.',
  'today.begun': ({ tempo, goal }) => `In progress: ♩ = ${tempo} of ${goal}.`,
  'task.cadence': ({ cadence, key, symbols }, say) => `${cadence} in ${say.key(key)}: ${symbols.map(say.symbol).join(', ')}`,
  'task.inversions': ({ symbol }, say) => `${say.chord(symbol)} through its inversions, up and down`,
  'task.seventh': ({ symbol }, say) => `${say.symbol(symbol)}: ${say.chord(symbol)}`,
  'task.play': (label, say) => `Play ${grip(label, say)}`,
  'task.which-chord': () => 'Which chord is this?',
  'task.which-position': ({ symbol }, say) => `Which position is ${say.symbol(symbol)} in?`,
  'task.change': ({ from, to, semitones }, say) =>
    `${say.symbol(from)} to ${say.symbol(to)}: the voices move ${say.count(semitones, 'half step')}`,
  'task.jump': ({ from, to, semitones }, say) =>
    `The right hand moves ${say.interval(semitones)}: ${say.pitch(from)} to ${say.pitch(to)}`,
  'task.run': ({ run, key, hand: which }, say) => `${capital(run)} of ${say.key(key)}, ${which} hand, up and down`,
  'task.song-chords': () => 'Each chord of the song once, in order',
  'drill.cadence': ({ cadence }) => `${cadence} with the nearest voicings`,
  'drill.inversions': ({ symbol }, say) => `Inversions of ${say.symbol(symbol)}`,
  'drill.sevenths': ({ key }, say) => `Seventh chords of ${say.key(key)}`,
  'drill.from-names': () => 'Chords from their names',
  'drill.to-names': () => 'Names from keys',
  'drill.positions': () => 'Inversions from keys',
  'drill.hard-moves': ({ song }) => `Hard moves of ${song}`,
  'drill.run': ({ run, key, hand: which }, say) => `${capital(run)} of ${say.key(key)}, ${which} hand`,
  'drill.song-chords': () => 'Chord shapes of the song',
  'drill.warm-up': ({ song }) => `Warm-up for ${song}`,
  'log.not-json': () => 'This is not a practice log. Choose a file saved from the log.',
  'log.damaged': ({ entry, field }) =>
    `The practice log cannot be read at ${entry === null ? 'its heading' : `entry ${entry}${field ? `, ${field}` : ''}`}. Choose a file saved from the log.`,
};
