import type { CodesOf, Sayings } from '../fact.js';
import { STEPS } from './labels.js';
import { stepTitle } from '../practice.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';

/** Bars that are named before a list of them is cut short. */
const MOST_BARS = 8;

export const screens: Sayings<CodesOf<'screen'>, Speech> = {
  'screen.bars': ({ bars }, say) => say.count(bars, 'bar'),
  'screen.signature': ({ signature }, say) =>
    signature === 0 ? 'none' : say.count(Math.abs(signature), signature > 0 ? 'sharp' : 'flat'),
  'screen.notes-and-chords': ({ notes, chords }, say) => `${say.count(notes, 'note')}, ${say.count(chords, 'chord')}`,
  'screen.room': ({ counts }, say) => `Room for ${say.count(counts, 'count')}`,
  'screen.more-places': ({ places }, say) => `The same in ${say.countInWords(places, 'more place')}.`,
  'screen.shapes-to-learn': ({ shapes, places }, say) =>
    `${capital(say.countInWords(shapes, 'left-hand shape'))} to learn, in ${say.countInWords(places, 'place')}.`,
  'screen.travel': ({ halfSteps, inRootPosition }, say) =>
    `The hand moves ${say.count(halfSteps, 'half step')} in all; in root position it would move ${inRootPosition}.`,
  'screen.span': ({ halfSteps }, say) => `${say.interval(halfSteps)}, ${say.count(halfSteps, 'half step')}`,
  'screen.fingers-wanted': ({ keys }, say) =>
    `Write ${say.countInWords(keys, 'finger')} from the lowest key up, such as ${[5, 3, 2, 1].slice(0, keys).join('-')}.`,
  'screen.chords-move': ({ counts }, say) =>
    counts.length === 0
      ? 'nothing changes in this part'
      : `${say.countInWords(counts.length, 'chord moves', 'chords move')}, to ${counts.join(', ')}`,
  'screen.stands-in': ({ notes }, say) =>
    `${say.list(notes.map(say.pitch))} ${notes.length === 1 ? 'stands' : 'stand'} in for what this chord does not have.`,
  'screen.recording': ({ recording: { keys, beat, cents } }, say) => {
    const [key, other] = keys;
    const inKey = key ? `It seems to be in ${say.key(key)}${other ? `, or ${say.key(other)}` : ''}` : 'No key was heard';
    const atTempo = beat ? `at about ${Math.round(beat.tempo)} beats a minute` : 'without a steady beat';
    const off =
      Math.abs(cents) < 8 ? '' : ` It sounds ${Math.abs(cents)} cents ${cents > 0 ? 'higher' : 'lower'} than a tuned piano.`;
    return `${inKey}, ${atTempo}.${off}`;
  },
  'screen.asked': ({ kind, from, to, tempo }) =>
    `${stepTitle({ whole: false, parts: { from, to } })}, ${STEPS[kind]}, up to ♩ = ${tempo}`,
  'screen.passes': ({ passes }, say) =>
    passes === 0
      ? 'You have not practised this song yet.'
      : `${capital(say.countInWords(passes, 'pass', 'passes'))} of this song in the log.`,
  'screen.song': ({ key, parts, tempo }, say) =>
    `${capital(say.key(key))}, ${say.countInWords(parts, 'part')}, ♩ = ${say.number(tempo)}`,
  'screen.sung': ({ notes, unsure, octaves }, say) => {
    const heard = `${capital(say.count(notes, 'note'))} heard${unsure > 0 ? `, ${unsure} of them not clearly` : ''}.`;
    const moved =
      octaves === 0
        ? ''
        : ` Written ${say.count(Math.abs(octaves), 'octave')} ${octaves > 0 ? 'higher' : 'lower'} than you sang.`;
    return `${heard}${moved} Check the melody before you go on: this is a draft.`;
  },
  'screen.draft': ({ name, notes, unsure }, say) =>
    `This is a draft: ${say.count(notes, 'note')} heard in ${name}${unsure > 0 ? `, ${unsure} of them not clearly` : ''}. Correct it on the desk.`,
  'screen.notes-ahead': ({ notes }, say) => (notes > 0 ? `${say.count(notes, 'note')} ahead of the beat` : ''),
  'screen.bar-list': ({ bars }) =>
    `${bars.length === 1 ? 'bar' : 'bars'} ${bars.slice(0, MOST_BARS).join(', ')}${bars.length > MOST_BARS ? ' …' : ''}`,
  'screen.drilled': ({ clean, seconds, wrong, shown, of }, say) => {
    const tries = wrong === 0 ? 'nothing wrong' : say.countInWords(wrong, 'wrong try', 'wrong tries');
    return `${clean ? 'Clean' : 'Through'} in ${say.count(seconds, 'second')}: ${tries}${shown > 0 ? `, ${shown} of ${of} shown` : ''}.`;
  },
  'screen.found-in-file': ({ leftOut }, say) =>
    leftOut === 0
      ? 'Found in the file: everything is used'
      : `Found in the file: ${say.count(leftOut, 'kind of sign', 'kinds of signs')} left out`,
  'screen.in-bin': ({ songs }, say) => `The bin: ${say.count(songs, 'song')}`,
  'screen.binned': ({ songs }, say) => `${say.count(songs, 'song is', 'songs are')} in the bin.`,
  'screen.put-back': ({ songs }) => (songs === 1 ? 'Put it back' : 'Put them back'),
  'screen.songs-added': ({ songs }, say) => `${say.count(songs, 'song was', 'songs were')} added to your shelf.`,
  'screen.saved-automatically': ({ times }, say) => `Saved automatically: ${say.count(times, 'time')}`,
  'screen.fortnight': ({ minutes, days, inARow }, say) =>
    `${say.count(minutes, 'minute')} on ${say.count(days, 'day')} of the last 14${inARow > 1 ? `; ${inARow} days in a row` : ''}.`,
  'screen.passes-removed': ({ passes }) => (passes === 1 ? 'Removed from the log.' : `${passes} entries removed from the log.`),
  'screen.passes-added': ({ passes, known }, say) =>
    `${say.count(passes, 'pass', 'passes')} added to the log${known > 0 ? `; ${known} were already here` : ''}.`,
};
