import type { Format } from '../../formats/open.js';
import type { ChordLength, CountedThing, LineName, Question, RefusedAt, Refusal, Remedy } from '../../formats/result.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';

const FORMAT_NAMES: Readonly<Record<Format, string>> = {
  abc: 'ABC',
  chordpro: 'words with chords',
  musicxml: 'MusicXML',
  midi: 'MIDI',
  letters: 'letter lines',
  project: 'a Joined Hands project',
};

/** "line 4, bar 2". */
function refusedAt(at: RefusedAt): string {
  if ('line' in at) return `line ${at.line}`;
  if ('measure' in at) return `measure ${at.measure}`;
  if ('bar' in at) return at.bar === 0 ? 'the pick-up' : `bar ${at.bar}`;
  return `melody note ${at.note}`;
}

const REMEDIES: Readonly<Record<Remedy, string>> = {
  'abc-lines': 'Paste a tune with X:, M:, L: and K: lines.',
  'smaller-book': 'Choose a smaller book.',
  'one-song': 'Choose a file with one song.',
  'shorter-song': 'Choose a shorter song.',
  'break-line': 'Break it at a bar line.',
  'close-graces': 'Write } after them.',
  'write-voices': 'Write the overlaid notes as voices of their own.',
  'usual-meter': 'Write one such as 3/4 or 6/8.',
  'shorten-rest': 'Shorten the rest.',
  'usual-symbol': 'Write it in the usual way, such as Gm7 or D/F#, or N.C. for no chord.',
  'begin-tune-line': 'Start with a line such as “tune: C4 D E C |”.',
  'name-line': 'Start it with tune:, chord:, words:, title:, by:, key:, time:, tempo:, pickup:, last-bar:, names: or section:',
  'change-last-bar': 'Change one of the two; fill what is left of its last count with a rest (.).',
  'fill-header': 'Write a value after it or take the line out.',
  'example-key': 'Write one such as “key: G minor”.',
  'example-time': 'Write one such as “time: 3/4”.',
  'example-tempo': 'Write quarter notes a minute, from 20 to 400.',
  'example-pickup': 'Write its counts, such as “pickup: 1”.',
  'example-names': 'Write “names: letters”, “names: solfege” or “names: german”.',
  'example-last-bar': 'Write one such as “last-bar: 2”.',
  'fewer-slices': 'Divide it into fewer.',
  'fewer-notes': 'Leave some out: a hand has five fingers.',
  'change-either': 'Change one of the two.',
  'rest-or-pickup': 'Write a rest (.) before it, or more counts after “pickup:”.',
  'letter-or-rest': 'Write a letter or a rest (.).',
  'write-note':
    'Write a letter from A to G or do, re, mi, with # or b and an octave if needed, a hold (-) or a rest (.); + between notes struck together.',
  'other-octave': 'Write it in another octave.',
  'tune-line-first': 'Write the tune line first.',
  'bar-for-bar': 'Write one bar here for each bar of the tune.',
  'fewer-counts': 'Take one out or link two with _.',
  'fewer-counts-or-bar': 'Take one out, link two with _, or add a bar line.',
  'more-counts': 'Add a hold (-) or a rest (.).',
  syllables: 'Each syllable takes the next note of its bar; use . to skip a note.',
  'fewer-repeats': 'Use fewer repeats.',
  'file-with-tune': 'Choose a file with a melody in it.',
  'write-chords-over': 'Write a chord in brackets before its syllable, [C]like this, or on the line above it.',
  'ending-numbers': 'Correct the ending numbers in the file.',
  'shorten-note': 'Shorten a note or add a bar line.',
  'lengthen-note': 'Lengthen a note or add a rest.',
  'press-key': 'Press a key to begin.',
  'correct-chord': 'Correct the chord in the file.',
  'correct-file': 'Correct it in the file and open it again.',
  'export-midi': 'Export it again as a Standard MIDI File of type 0 or 1.',
  'export-musicxml': 'Export it again as MusicXML (.musicxml) from the program it was written in.',
  'save-again': 'Save the file again in the program it came from, or choose another file.',
};

const LASTS: Readonly<Record<ChordLength, string>> = { bar: 'a bar each', half: 'half a bar each', 'two-bars': 'two bars each' };

const PLENTY = {
  voices: 'voices',
  overlays: '“&” signs',
  notes: 'notes',
  bars: 'bars',
  attributes: 'attributes',
  tags: 'tags',
} as const;

const DAMAGED = { midi: 'MIDI file', zip: 'compressed file', xml: 'XML' } as const;
const VALUES = {
  key: 'a key',
  time: 'a time signature',
  tempo: 'a tempo',
  pickup: 'a pick-up',
  counts: 'a number of counts',
  names: 'a way to name notes',
} as const;

type RefusalCodes = CodesOf<
  | 'file'
  | 'line'
  | 'abc'
  | 'chordpro'
  | 'meter'
  | 'tune'
  | 'note'
  | 'part'
  | 'repeats'
  | 'bar'
  | 'midi'
  | 'recording'
  | 'musicxml'
  | 'zip'
  | 'letters'
  | 'song'
  | 'data'
>;

/** Why a file was refused: sentences that may follow the place of the fault. */
export const refusals: Sayings<RefusalCodes, Speech> = {
  'file.empty': () => 'the file is empty.',
  'file.too-long': ({ most, what }, say) =>
    what === 'letters' ? `it is longer than ${say.number(most)} letters.` : `it is larger than ${most} MB.`,
  'file.too-many': ({ most, what }, say) => `it has more than ${say.number(most)} ${PLENTY[what]}.`,
  'file.damaged': ({ format }) => `the ${DAMAGED[format]} is damaged and cannot be read to the end.`,
  'file.unreadable-here': () => 'something here cannot be read.',
  'line.too-long': ({ most }, say) => `the line is longer than ${say.number(most)} letters.`,
  'chordpro.no-chords': () => 'there are no chords in it.',
  'abc.no-key': () => 'this is not ABC: there is no K: line for the key.',
  'abc.no-tune': () => 'this is not ABC: there is no tune in it.',
  'abc.open-graces': () => 'the grace notes are not closed.',
  'meter.uncountable': ({ text }) => `the time signature ${text} cannot be counted.`,
  'tune.long-rest': ({ most }) => `the melody rests for more than ${most} bars at once.`,
  'tune.none': () => 'there is no melody in it.',
  'note.off-keyboard': ({ pitch }, say) => `the note ${say.pitch(pitch)} is off the keyboard (A0 to C8).`,
  'note.duration': () => 'a note has no proper duration.',
  'note.no-letter': ({ text }) => `a note has no letter from A to G${text ? `, but “${text}”` : ''}.`,
  'note.altered': ({ semitones }) => `a note is raised or lowered by ${semitones} half steps.`,
  'note.octave': ({ octave }) => `a note is in octave ${octave}.`,
  'part.transposed': ({ semitones }) => `the part is transposed by ${semitones} half steps.`,
  'repeats.too-long': ({ most }, say) => `the repeats make more than ${say.number(most)} bars.`,
  'repeats.nothing-left': () => 'the repeats and endings leave no note to play.',
  'bar.counts': ({ counts, expected, meter }, say) =>
    `the bar has ${say.count(counts, 'count')} where ${expected} ${expected === 1 ? 'is' : 'are'} expected${meter ? ` in ${meter}` : ''}.`,
  'bar.too-short': () => 'the bar is too short to count.',
  'midi.no-head': () => 'this is not a MIDI file: its header is missing.',
  'midi.type': ({ type }) => `this is a MIDI file of type ${type}.`,
  'midi.frames': () => 'this MIDI file counts film frames instead of beats.',
  'recording.nothing': () => 'nothing was played yet.',
  'musicxml.no-tag': () => 'this is not MusicXML: it does not begin with an XML tag.',
  'musicxml.no-score': () => 'this is XML, but not a MusicXML score.',
  'musicxml.entities': () => 'the file defines entities of its own, which no score needs.',
  'musicxml.no-part': () => 'the score has no part.',
  'zip.too-large': () => 'the compressed file unpacks to more than any score needs.',
  'zip.no-score': () => 'there is no score in the compressed file.',
  'letters.nothing': () => 'there is nothing here yet.',
  'letters.unnamed-line': () => 'the line does not say what it is.',
  'letters.no-tune': () => 'there is no tune yet.',
  'letters.last-bar': ({ counts }, say) =>
    `the last bar does not have the ${say.count(counts, 'count')} that “last-bar:” promises.`,
  'letters.empty-header': ({ name }) => `“${name}:” is empty.`,
  'letters.value': ({ what, text }) => `“${text}” is not ${VALUES[what]}.`,
  'letters.slices': ({ slices }) => `a count cannot be divided into ${slices}.`,
  'letters.pickup-counts': ({ counts, expected }, say) =>
    `the pick-up has ${say.count(counts, 'count')} where “pickup:” promises ${expected}.`,
  'letters.before-pickup': () => 'the pick-up begins later than this.',
  'letters.hold': () => 'there is no note before this hold (-).',
  'letters.key-twice': ({ text }) => `“${text}” has a key twice.`,
  'letters.stack': ({ notes }) => `there are ${notes} notes at once.`,
  'letters.not-a-note': ({ text }) => `“${text}” is not a note.`,
  'letters.row-without-tune': ({ row }) => `there is no tune line above this ${row} line.`,
  'letters.row-bars': ({ bars, expected }, say) => `there are ${say.count(bars, 'bar')} where the tune has ${expected}.`,
  'letters.syllable': ({ text }) => `there is no note for “${text}”.`,
  'song.no-meter': () => 'the song has no time signature at its start.',
  'song.meters-out-of-order': () => 'the time signatures are out of order.',
  'song.long-pickup': () => 'the pick-up is longer than the song.',
  'song.too-many-bars': ({ most }, say) => `the song has more than ${say.number(most)} bars.`,
  'song.overlap': ({ place }, say) => `two melody notes sound at once at ${say.place(place)}.`,
  'song.key-twice': ({ place }, say) => `one key is struck twice at ${say.place(place)}.`,
  'song.note-past-end': ({ place }, say) => `the melody note at ${say.place(place)} runs past the end of the song.`,
  'song.chords-out-of-order': ({ place }, say) => `the chords are out of order at ${say.place(place)}.`,
  'song.chord-past-end': ({ symbol }, say) => `the chord ${say.symbol(symbol)} lies past the end of the song.`,
  'data.too-large': () => 'it is larger or longer than any song needs.',
  'data.missing': () => 'something is missing there, or is not what it should be.',
  'data.off-keyboard': () => 'a note is off the keyboard (A0 to C8).',
  'data.not-a-pitch': () => 'something there is not a pitch.',
  'data.steps': () => 'a pattern holds something that is not a degree, or bars of different lengths.',
  'data.span': () => 'the comfortable span is wider than the limit.',
};

/** A refusal as it is shown: "Line 4, measure 2: “Gzz” is not a chord symbol. Write it in the usual way …" */
export function refusal({ place, cause, remedy }: Refusal, say: Speech): string {
  const where = place ? `${capital(place.map(refusedAt).join(', '))}: ` : '';
  const why = say.fact(cause);
  return `${where}${place ? why : capital(why)} ${REMEDIES[remedy]}`;
}

export const faults: Sayings<CodesOf<'open' | 'project' | 'parcel' | 'archive' | 'textures'>, Speech> = {
  'open.too-large': ({ megabytes }) => `The file is larger than ${megabytes} MB. Choose a file with one song.`,
  'open.empty': () => 'The file is empty. Choose a file with a song in it.',
  'open.unknown-ending': () =>
    'This kind of file cannot be opened. Choose an .abc, .musicxml, .xml, .mxl, .mid, .letters or .json file.',
  'open.looks-like': ({ format, looks }) =>
    `The file is not ${FORMAT_NAMES[format]}: it looks like ${FORMAT_NAMES[looks]}. Rename it or choose that format.`,
  'open.no-text': ({ format }) =>
    `The file is not ${FORMAT_NAMES[format]}: there is no readable text in it. Choose a file with a song in it.`,
  'open.refused': ({ refusal: of }, say) => refusal(of, say),
  'parcel.damaged': () => 'This link is not whole. Ask for it again, or for the file.',
  'parcel.too-large': () => 'This link holds more than a song. Ask for the file instead.',
  'parcel.newer': ({ version }) => `This link was made by a newer version (${version}). Update Joined Hands to open it.`,
  'project.not-json': () => 'This is not a project file. Choose one saved by Joined Hands.',
  'project.not-ours': () => 'This JSON file is not a project. Choose one saved by Joined Hands.',
  'project.newer': ({ version }) => `This project was saved by a newer version (${version}). Update Joined Hands to open it.`,
  'project.damaged': ({ path, fault }, say) =>
    `The project file is damaged${path.length > 0 ? ` at ${path.join(' › ')}` : ''}: ${say.fact(fault)} Choose another copy of it.`,
  'archive.too-large': () => 'This file unpacks to more than a shelf holds. Choose one saved from the shelf.',
  'archive.damaged': () => 'This is not a shelf file, or it is damaged. Choose one saved from the shelf.',
  'archive.empty': () => 'There are no songs in this file. Choose one saved from the shelf.',
  'textures.not-json': () => 'This is not a file of patterns. Choose one saved here.',
  'textures.none': () => 'There are no patterns in this file. Choose one saved here.',
  'textures.damaged': ({ number, field }) =>
    `Pattern ${number}${field ? `, ${field},` : ''} cannot be read. Nothing was changed. Choose another copy of the file.`,
};

function lineName({ of, name, number, staff, voice }: LineName): string {
  const whole = name ?? (of === 'part' ? `Part ${number}` : `Track ${number}`);
  return `${whole}${staff === null ? '' : `, staff ${staff}`}${voice === null ? '' : `, voice ${voice}`}`;
}

const GRIDS = {
  eighths: 'eighths',
  triplets: 'triplets',
  sixteenths: 'sixteenths',
  mixed: 'sixteenths and triplets',
} as const;

export const notices: Sayings<CodesOf<'notice' | 'entry'>, Speech> = {
  'notice.stacked': ({ measure, notes, kept, pitch }, say) =>
    kept === 'all'
      ? `Measure ${measure} has ${notes} notes at once in the melody: all are kept there and wherever notes are stacked, the top one as the melody.`
      : `Measure ${measure} has ${notes} notes at once in the melody: the ${kept} one, ${say.pitch(pitch)}, is kept there and wherever notes are stacked.`,
  'notice.not-written': ({ counted }, say) =>
    `Left out, because this kind of file has no place for it: ${say.list(counted.map(({ what, count }) => `${COUNTED[what]} (${count})`))}.`,
  'notice.inner-kept': () => 'The right hand’s second voice is kept: it is played and fingered with the melody.',
  'notice.left-kept': () => 'The left hand of the file is kept beside the chords: choose the texture “as written” to play it.',
  'notice.order': ({ order }) => `Repeats are played out. On the page, the measures are played as ${order}.`,
  'notice.voices': ({ voice }) => `The file has several voices: voice ${voice} is the melody.`,
  'notice.key-changes': ({ measure }) => `The key changes at measure ${measure}: the notes are kept as written.`,
  'notice.transposed': () => 'The part is written for a transposing instrument: it is read as it sounds.',
  'entry.named': ({ text }) => text,
  'entry.tune': ({ number }) => `Tune ${number}`,
  'entry.voice': ({ number }) => `voice ${number}`,
  'entry.line': ({ name, notes, sung }, say) => `${lineName(name)}: ${say.count(notes, 'note')}${sung ? ', sung' : ''}`,
  'entry.stacks': ({ keep }) => (keep === 'all' ? 'all of them' : `the ${keep} note`),
  'entry.chords': ({ named }) => (named ? 'named from the accompaniment' : 'none'),
  'entry.length': ({ lasts }) => LASTS[lasts],
  'entry.grid': ({ grid, off }) => `${GRIDS[grid]} (${off} ms off on average)`,
};

/** What is asked of a file that leaves something open. */
export const QUESTIONS: Readonly<Record<Question['id'], string>> = {
  tune: 'The tune is',
  voice: 'The melody is in',
  line: 'The melody is in',
  stacks: 'Where notes are stacked, keep',
  chords: 'Chords',
  length: 'Chords last',
  grid: 'Write it in',
};

/** Things that a file may hold, in the plural. */
export const COUNTED: Readonly<Record<CountedThing, string>> = {
  'melody-notes': 'melody notes',
  syllables: 'syllables',
  'further-verses': 'syllables of further verses',
  'chord-symbols': 'chord symbols',
  'grace-notes': 'grace notes',
  slurs: 'slurs',
  fermatas: 'fermatas',
  breaths: 'breath marks',
  ornaments: 'ornaments',
  'rare-ornaments': 'rarer ornaments',
  words: 'words above the staff',
  'playing-signs': 'playing signs',
  'other-lines': 'notes of other lines',
  'left-hand': 'notes of the left hand',
  'second-voice': 'notes of a second voice in the right hand',
  reminders: 'reminders',
  'other-parts': 'notes of other parts',
  accompaniment: 'accompanying notes',
  'accompaniment-as-chords': 'accompanying notes, heard as chords',
  'tempo-changes': 'tempo changes',
  controls: 'pedal and other controls',
  'layout-lines': 'layout lines (%%)',
  dynamics: 'dynamics',
  swells: 'crescendos and diminuendos',
  pedal: 'pedal marks',
  'octave-signs': 'octave signs',
  articulations: 'articulations',
  technical: 'fingerings and other playing signs',
  rolled: 'rolled chords',
  glides: 'glides',
  tremolos: 'tremolos',
  'figured-bass': 'figured bass signs',
  'chord-diagrams': 'chord diagrams',
  'cue-notes': 'cue notes',
  'page-layout': 'page layout signs',
};
