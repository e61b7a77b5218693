import { textureNamed, WRITTEN } from '../../fills/texture.js';
import type { EditFact, EditGroup, SettingEdit } from '../../song/edit.js';
import type { SongFacts } from '../../song/facts.js';
import type { NoteChange } from '../../song/tune.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { LEVELS } from './findings.js';
import {
  BASSES,
  DOMINANTS,
  ENDINGS,
  FILLS,
  LAYERS,
  PLAY_MODES,
  SCHOOLS,
  SWELLS,
  TIMINGS,
  TOUCHES,
  TUNE_RHYTHMS,
  UNDER_TUNE,
  VOCABULARIES,
  WALKS,
  FEELS,
} from './labels.js';

/** What is put right in a note of the melody. */
function noteChange(change: NoteChange): string {
  switch (change.kind) {
    case 'pitch': {
      const by = Math.abs(change.by);
      const far =
        by % 12 === 0 ? (by === 12 ? 'an octave' : `${by / 12} octaves`) : by === 1 ? 'a half step' : `${by} half steps`;
      return `a note ${far} ${change.by > 0 ? 'higher' : 'lower'}`;
    }
    case 'begin':
      return change.by > 0 ? 'a note later' : 'a note earlier';
    case 'split':
      return 'split a note';
    case 'join':
      return 'join two notes';
    case 'remove':
      return 'take a note away';
  }
}

/** Facts of a song. */
const FACTS: Readonly<Record<keyof SongFacts, string>> = {
  title: 'the title',
  composer: 'the credits',
  key: 'the key',
  meter: 'the meter',
  tempo: 'the tempo',
};

/** What a setting is changed to, for the list of steps back. */
function setting(edit: SettingEdit): string {
  switch (edit.setting) {
    case 'timing':
      return `chords ${TIMINGS[edit.value]}`;
    case 'touch':
      return `chords ${TOUCHES[edit.value]}`;
    case 'rhythm':
      return `rhythm ${TUNE_RHYTHMS[edit.value]}`;
    case 'octave':
      return 'the octave of the melody';
    case 'dominants':
      return `dominant sevenths: ${DOMINANTS[edit.value]}`;
    case 'under':
      return `chords ${UNDER_TUNE[edit.value]}`;
    case 'leftOctave':
      return 'the octave of the left hand';
    case 'level':
      return LEVELS[edit.value];
    case 'texture':
      if (edit.value === WRITTEN) return 'play the left hand as written';
      return edit.value === 'free' ? 'play it freely' : (edit.title ?? textureNamed(edit.value)?.title ?? 'your own pattern');
    case 'harmony':
      return 'harmony under the melody';
    case 'pedal':
      return edit.value ? 'the pedal' : 'no pedal';
    case 'walk':
      return edit.value === 'none' ? 'no walk' : `walk ${WALKS[edit.value]}`;
    case 'loudness':
      return `play it ${edit.value}`;
    case 'swell':
      return SWELLS[edit.value];
    case 'ending':
      return ENDINGS[edit.value];
  }
}

/** What several changes make together. */
function group(as: EditGroup, say: Speech): string {
  switch (as.kind) {
    case 'texture-plan':
      return 'a texture for every part';
    case 'endings':
      return 'first and second endings';
    case 'louder':
      return 'louder each time';
    case 'softer':
      return 'softer each time';
    case 'alternate':
      return 'alternate two textures';
    case 'octave-again':
      return 'an octave higher the second time';
    case 'clear-collisions':
      return 'clear all collisions';
    case 'free-voicings':
      return 'let kept chords move freely';
    case 'skip-passing':
      return 'skip passing chords';
    case 'import-textures':
      return 'patterns from a file';
    case 'to-recording':
      return 'set the song to a recording';
    case 'options':
      return 'the options given';
    case 'section':
      return `energy ${as.energy} in ${as.name ?? 'the section'}`;
    case 'own-keys': {
      const keys = as.hand === 'left' ? 'your own left hand' : 'your own second voice';
      return `${keys}${as.given ? ' given' : ''}${as.symbol === null ? '' : ` for ${say.symbol(as.symbol)}`}`;
    }
    case 'use-texture':
      return `${as.title} in part ${as.part}`;
    case 'shape-wherever':
      return `${say.symbol(as.symbol)} as ${say.pitches(as.pitches)} everywhere`;
    case 'in-repeats':
      return `${say.fact(as.of)}, in repeats too`;
  }
}

/** A moment as a day and an hour, where the reader is. */
const moment = (at: number): string => new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** What a step back or forth would undo or do again: short phrases behind "Undo:". */
export const edits: Sayings<CodesOf<'edit'>, Speech> = {
  'edit.several': ({ as }, say) => group(as, say),
  'edit.setting': setting,
  'edit.school': ({ school }) => (school ? SCHOOLS[school].name : 'the usual chord shapes'),
  'edit.chord-school': ({ school }) => (school ? SCHOOLS[school].name : 'the chord shape of its part'),
  'edit.bass': ({ bass }) => `${BASSES[bass]} bass`,
  'edit.suggest': ({ suggest }) => (suggest ? `suggest ${VOCABULARIES[suggest.vocabulary]}` : 'the original chords'),
  'edit.stay': ({ stay }) => (stay ? 'keep the right hand on one note' : 'play the melody'),
  'edit.chord': ({ symbol, how }, say) => (how ? `strike ${say.symbol(symbol)} ${how}` : `write ${say.symbol(symbol)}`),
  'edit.leave-out': ({ symbol }, say) => `leave ${say.symbol(symbol)} out`,
  'edit.restore-chord': () => 'restore the chord',
  'edit.voicing': ({ pitches }, say) => `keep ${say.pitches(pitches)}`,
  'edit.free-voicing': () => 'let the chord move freely',
  'edit.fingers': ({ hand, fingers }) =>
    fingers === null
      ? `use the suggested ${hand === 'left' ? 'fingers' : 'finger'}`
      : `${fingers.length === 1 ? 'finger' : 'fingers'} ${fingers.join('-')}`,
  'edit.note': ({ change }) => noteChange(change),
  'edit.respell': ({ name }, say) => `spell it ${say.note(name)}`,
  'edit.strike-with': ({ below }) => (below.length === 0 ? 'strike the note alone' : `strike ${below.length + 1} notes together`),
  'edit.remind': ({ text }) => (text.trim() ? 'a reminder' : 'no reminder'),
  'edit.stop': ({ stop, there }) => (there ? `a ${stop}` : `no ${stop}`),
  'edit.keys': ({ hand, notes }) =>
    `${notes.length > 0 ? 'write' : 'clear'} the ${hand === 'left' ? 'left hand' : 'second voice'}`,
  'edit.fill': ({ kind }) =>
    kind === null ? 'leave a space undecided' : kind === 'none' ? 'leave a space empty' : `a ${FILLS[kind]}`,
  'edit.move-cut': () => 'move where a part begins',
  'edit.split': () => 'divide a part',
  'edit.merge': () => 'merge two parts',
  'edit.part-size': ({ size }) => `${size} parts`,
  'edit.clear-parts': () => 'divide by the phrases',
  'edit.name-part': () => 'name a part',
  'edit.name-section': () => 'name a section',
  'edit.balance': () => 'the balance of the hands',
  'edit.feel': ({ feel }) => (feel === 'straight' ? 'straight eighths' : FEELS[feel]),
  'edit.close': () => 'the ending',
  'edit.mute': ({ layer, muted }) => `${LAYERS[layer]} ${muted ? 'silent' : 'heard'}`,
  'edit.up-to-layer': ({ layer }) => `up to ${LAYERS[layer]}`,
  'edit.play-mode': ({ mode }) => PLAY_MODES[mode],
  'edit.save-texture': ({ texture }) => `save ${texture.title}`,
  'edit.remove-texture': ({ title }) => `delete ${title}`,
  'edit.hands': () => 'change the hands',
  'edit.key': ({ key }, say) => `into ${say.key(key)}`,
  'edit.facts': ({ change }, say) => say.list(Object.keys(change).map((fact) => FACTS[fact as keyof SongFacts])),
  'edit.tune': () => 'write the melody',
  'edit.strip-chords': () => 'the melody without chords',
  'edit.keep-version': ({ name }) => `keep ${name || 'a version'}`,
  'edit.take-version': ({ name }) => `go back to ${name}`,
  'edit.drop-version': ({ name }) => `delete ${name}`,
  'edit.go-back': ({ at }) => `go back to ${moment(at)}`,
  'edit.elsewhere': ({ edit }: Extract<EditFact, { code: 'edit.elsewhere' }>, say) =>
    edit ? `${say.fact(edit)}, in another tab` : 'a change in another tab',
};
