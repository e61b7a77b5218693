import { midiOf, nameOf } from '../../pitch/pitch.js';
import type { Collision } from '../../join/collisions.js';
import type { ConflictFacts } from '../../join/conflicts.js';
import type { Jump } from '../../join/jumps.js';
import type { Advice } from '../../arrange/fixes.js';
import type { Place } from '../../time/bars.js';
import type { Level } from '../../song/decisions.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';
import { thinned } from './voicing.js';

/** A melody note that grates with the chord under it. */
export function conflict({ note, against, kind, passing }: ConflictFacts, symbol: string, say: Speech): string {
  const [up, down] = [say.pitch(note), say.pitch(against)];
  if (passing) return `${up} passes a half step from ${down} in the chord, too quickly to matter.`;
  if (kind === 'third') return `the melody’s ${up} contradicts ${down}, the third of ${say.symbol(symbol)}.`;
  const below = midiOf(note) - midiOf(against) > 12 ? 'an octave and a half step' : 'a half step';
  return `the melody’s ${up} clashes with ${down}, ${below} below it.`;
}

/** Two hands in each other's way. */
function collision({ kind, left, right }: Pick<Collision, 'kind' | 'left' | 'right'>, say: Speech): string {
  const [l, r] = [say.pitch(left), say.pitch(right)];
  switch (kind) {
    case 'same-key':
      return `both hands need ${l}.`;
    case 'crossing':
      return `the left hand’s ${l} lies above the melody’s ${r}, so the hands cross.`;
    case 'close':
      return `the left hand’s ${l} lies right under the melody’s ${r}.`;
    case 'space':
      return `the left hand’s ${l} lies where the right thumb rests, on ${r}.`;
  }
}

/**
 * A jump: how far, in what time, and how fast that is. The right hand moves its five-finger place, which is another distance than that
 * of the two notes around the move.
 */
export function jump({ hand, from, to, distance, seconds }: Jump, say: Speech): string {
  const [a, b] = [say.pitch(from), say.pitch(to)];
  const where = from === to ? `to play ${a} again` : `between ${a} and ${b}`;
  const move =
    hand === 'left'
      ? `left hand jumps ${say.interval(distance)} from ${a} to ${b}`
      : `right hand shifts its position by ${say.interval(distance)} ${where}`;
  return `the ${move} in ${say.number(seconds, 1)} s (${Math.round(distance / seconds)} half steps a second).`;
}

const ADVICE: Readonly<Record<Advice, string>> = {
  'longer-keyboard': 'choose a longer keyboard',
  'another-key': 'choose another key',
  'melody-octave-up': 'play the melody an octave higher',
  'nearest-inversion': 'use the nearest inversion',
  'slower-tempo': 'take a slower tempo',
  'usual-symbol': 'write the chord in the usual way',
  'write-chord': 'write a chord',
};

export const LEVELS: Readonly<Record<Level, string>> = {
  tune: 'melody alone',
  bass: 'bass notes',
  'two-note': 'two-note chords',
  triads: 'plain triads',
  full: 'full chords',
};

const at = ({ symbol, place }: { readonly symbol: string; readonly place: Place }, say: Speech): string =>
  `${say.symbol(symbol)} at ${say.place(place)}`;
const headed = (place: Place, sentence: string, say: Speech): string => `${capital(say.place(place))}: ${sentence}`;

export const findings: Sayings<CodesOf<'finding'>, Speech> = {
  'finding.spread': (f, say) =>
    `${at(f, say)} spans ${f.width} half steps and this hand reaches ${f.limit}, so it is ${
      f.spread === 'broken' ? 'broken, low note first' : 'rolled from the bottom'
    }.`,
  'finding.reach': (f, say) => `${at(f, say)} spans ${f.width} half steps; this hand reaches ${f.limit}.`,
  'finding.stretch': (f, say) =>
    `${at(f, say)} spans ${f.width} half steps; ${f.comfortable} are comfortable for this hand. Never force a stretch.`,
  'finding.keyboard': (f, say) => `${at(f, say)} goes off the end of this ${f.keys}-key keyboard.`,
  'finding.low': (f, say) => `${at(f, say)} is close and low, and may sound muddy.`,
  'finding.thinned': (f, say) => `${at(f, say)} is not played in full. ${thinned(f.form, f.cause)}`,
  'finding.fast': (f, say) => `${at(f, say)} lasts ${say.number(f.seconds, 1)} s, which is very short; you can skip it.`,
  'finding.pin-lost': ({ pitches, place }, say) =>
    `You kept ${say.pitches(pitches)} at ${say.place(place)}, but no chord is played there now.`,
  'finding.pin-foreign': ({ names, symbol, place }, say) =>
    `${say.list(names.map(say.note))}, which you kept at ${say.place(place)}, ${names.length === 1 ? 'is' : 'are'} not in ${say.symbol(symbol)}.`,
  'finding.conflict': (f, say) => headed(f.place, conflict(f, f.symbol, say), say),
  'finding.collision': (f, say) => headed(f.place, collision(f, say), say),
  'finding.jump': ({ place, jump: of }, say) => headed(place, jump(of, say), say),
  'finding.doubled': ({ symbol, place, left, right }, say) =>
    headed(
      place,
      `${say.symbol(symbol)} doubles the melody’s ${say.pitch(right)} with ${say.pitch(left)}. Without ${say.note(nameOf(left))} nothing is missing and there is less to hold.`,
      say,
    ),
  'finding.no-octave': ({ pitch, place, cause }, say) =>
    `${say.pitch(pitch)} at ${say.place(place)} is not doubled: ${cause === 'hand' ? 'this hand does not reach an octave' : 'the left hand needs the key below'}.`,
  'finding.octave-kept': ({ pitch, place, keys }, say) =>
    `${say.pitch(pitch)} at ${say.place(place)} is off a ${keys}-key keyboard, so this part of the melody stays in its octave.`,
  'finding.wide-stack': ({ pitches, left, place }, say) =>
    `${say.pitches(pitches)} at ${say.place(place)} are more than this hand and keyboard hold at once: ${say.pitches(left)} ${left.length === 1 ? 'is' : 'are'} left out.`,
  'finding.wide-inner': ({ pitch, place }, say) =>
    `${say.pitch(pitch)} at ${say.place(place)} is left out: this hand and keyboard do not have it beside what is held there.`,
  'finding.left-bent': ({ pitches, why, place }, say) => {
    const keys = `The left hand’s ${say.pitches(pitches)} at ${say.place(place)}`;
    const are = pitches.length === 1 ? 'is' : 'are';
    return why === 'keyboard'
      ? `${keys} ${are} off the keyboard and ${are} played in the nearest octave on it.`
      : `${keys} ${are} left out: ${why === 'reach' ? 'this hand does not reach so far' : 'a hand has five fingers'}.`;
  },
  'finding.chord-unread': ({ symbol, place }, say) =>
    `“${symbol}” at ${say.place(place)} is kept as text: it is not a chord symbol.`,
  'finding.chords-suggested': ({ chords }, say) =>
    `This song came without chords: ${say.countInWords(chords, 'chord was', 'chords were')} suggested for its melody.`,
  'finding.no-chords': () => 'This song has no chord symbols, so the left hand rests. Write a chord in any bar to begin.',
  'finding.ending-left-out': ({ place, obstacle }, say) =>
    `The ending you asked for at ${say.place(place)} is left out: ${say.fact(obstacle)}.`,
  'finding.tune-moved': ({ pitch, place, keys, octaves }, say) =>
    `${say.pitch(pitch)} at ${say.place(place)} is off a ${keys}-key keyboard, so the whole melody is written ${
      Math.abs(octaves) === 1 ? 'an octave' : 'two octaves'
    } ${octaves < 0 ? 'lower' : 'higher'}.`,
  'finding.tune-folded': ({ pitch, place, keys }, say) =>
    `${say.pitch(pitch)} at ${say.place(place)} is off a ${keys}-key keyboard: notes like it are written in the nearest octave that is on it.`,
};

/** Why an ending cannot be played: phrases. */
export const endings: Sayings<CodesOf<'ending'>, Speech> = {
  'ending.no-third': ({ symbol }, say) => `${say.symbol(symbol)} has no third to hold back`,
  'ending.too-short': ({ symbol }, say) => `${say.symbol(symbol)} is too short for it`,
  'ending.third-in-melody': ({ pitch }, say) => `the melody has the third, ${say.pitch(pitch)}, at the same time`,
  'ending.nothing-follows': () => 'no chord follows',
  'ending.already-there': ({ symbol }, say) => `${say.symbol(symbol)} is there already`,
};

/** What ways out do: phrases that a button may show. */
export const fixes: Sayings<CodesOf<'fix'>, Speech> = {
  'fix.advice': ({ advice }) => ADVICE[advice],
  'fix.let-go': () => 'let it move freely',
  'fix.move': ({ how, pitches, without, away }, say) => {
    const what = { place: 'move it', 'fewer-notes': 'play fewer notes', inversion: 'use another inversion' }[how];
    const lost = without.length > 0 ? `, without ${say.list(without.map(say.note))}` : `, ${say.count(away, 'half step')} away`;
    return `${what}: ${say.pitches(pitches)}${lost}`;
  },
  'fix.leave-out': ({ name, pitches }, say) => `leave out ${say.note(name)}: ${say.pitches(pitches)}`,
  'fix.chord': ({ how, symbol }, say) => {
    const what = {
      'first-inversion': 'use the chord with the melody’s note',
      quality: 'change the kind of chord',
      chord: 'change the chord',
    }[how];
    return `${what}: ${say.symbol(symbol)}`;
  },
  'fix.skip': ({ symbol }, say) => `skip ${say.symbol(symbol)}`,
  'fix.octave-up': ({ part }) => `play the melody of part ${part} an octave higher, the left hand as it is`,
  'fix.clear-all': ({ chords, motion, raised }, say) => {
    const far =
      motion === 0
        ? 'with no more motion'
        : `with ${say.count(Math.abs(motion), 'half step')} ${motion > 0 ? 'more' : 'less'} motion`;
    return [
      ...(chords > 0 ? [`move ${say.countInWords(chords, 'chord')} clear of the melody, ${far}`] : []),
      ...(raised.length > 0
        ? [`play the melody of ${raised.length === 1 ? 'part' : 'parts'} ${say.list(raised.map(String))} an octave higher`]
        : []),
    ].join('; ');
  },
  'fix.level': ({ level }) => LEVELS[level],
  'fix.nearest-inversions': () => 'nearest inversions',
  'fix.straighten': () => 'a straightened melody',
  'fix.on-the-beat': () => 'chords on the beat',
  'fix.let-all-go': () => 'letting kept chords move',
  'fix.skip-passing': () => 'skipping passing chords',
};
