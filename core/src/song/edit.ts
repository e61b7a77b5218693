import type { Key } from '../harmony/key.js';
import type { NoteName, Pitch } from '../pitch/pitch.js';
import type { Ticks } from '../time/ticks.js';
import {
  LAYERS,
  type BassWish,
  type Choices,
  type Document,
  type FillKind,
  type Hand,
  type Hands,
  type Layer,
  type School,
  type Stay,
  type Stop,
  type Suggesting,
  type PlayMode,
} from './decisions.js';
import { muteLayer, removeTexture, saveTexture, setBalance, setClose, setFill, setPlayMode } from './dressing.js';
import {
  clearParts,
  type InheritableSettings,
  mergePart,
  moveCut,
  nameSection,
  pinVoicing,
  removeChord,
  giveTune,
  remind,
  writeKeys,
  type KeysOf,
  setStop,
  renamePart,
  respell,
  restoreChord,
  setBass,
  setChord,
  setChordSchool,
  setFingers,
  setPartSize,
  setPassage,
  setSchoolEverywhere,
  setSetting,
  setSuggestion,
  splitPart,
  strikeWith,
  type TickRange,
  transposeDocument,
  unpinVoicing,
  type Wishes,
  withChoices,
} from './edits.js';
import { changeFacts, type SongFacts } from './facts.js';
import type { KeyNote, MelodyNote } from './song.js';
import type { Texture } from './texture-data.js';
import { changeNote, type NoteChange } from './tune.js';
import { dropVersion, keepVersion, takeVersion } from './versions.js';

/** A setting of a stretch, or of the whole song (null), where it takes the place of those of its stretches. */
export type SettingEdit = {
  [K in keyof InheritableSettings]: {
    readonly code: 'edit.setting';
    readonly range: TickRange | null;
    readonly setting: K;
    readonly value: InheritableSettings[K];
    /** What the value is called where the pianist named it. */
    readonly title?: string;
  };
}[keyof InheritableSettings];

/** A change to a single chord, note or space, by its place in ticks. */
export type PlaceEdit =
  /** Writes a chord; keys that were kept up to `until` (the next chord where it is left out) are let go. */
  | {
      readonly code: 'edit.chord';
      readonly at: Ticks;
      readonly symbol: string;
      readonly until?: Ticks;
      /** Where the chord before is struck once more, or a chord to come is struck early. */
      readonly how?: 'again' | 'early';
    }
  | { readonly code: 'edit.leave-out'; readonly at: Ticks; readonly symbol: string }
  | { readonly code: 'edit.restore-chord'; readonly at: Ticks }
  | { readonly code: 'edit.voicing'; readonly at: Ticks; readonly pitches: readonly Pitch[] }
  | { readonly code: 'edit.free-voicing'; readonly at: Ticks }
  /** Fingers bottom-up; null for those that are found. */
  | { readonly code: 'edit.fingers'; readonly at: Ticks; readonly hand: Hand; readonly fingers: readonly number[] | null }
  /** Another name for the key of a tune's note, "Db" for "C#". */
  /** A note of the tune is put right: higher or lower, earlier or later, split, joined with the next, or taken away. */
  | { readonly code: 'edit.note'; readonly at: Ticks; readonly change: NoteChange }
  | { readonly code: 'edit.respell'; readonly at: Ticks; readonly name: NoteName }
  /** What is struck with a note of the tune, in half steps below it; none where it is struck alone. */
  | { readonly code: 'edit.strike-with'; readonly at: Ticks; readonly below: readonly number[] }
  /** A line to be reminded by; none where it is empty. */
  | { readonly code: 'edit.remind'; readonly at: Ticks; readonly text: string }
  /** Sets a fermata on the note that begins at a place, or a breath before the place; or takes it away. */
  | { readonly code: 'edit.stop'; readonly at: Ticks; readonly stop: Stop; readonly there: boolean }
  /** Writes what the left hand plays in a stretch, in place of what was written there. */
  | {
      readonly code: 'edit.keys';
      /** The left hand, or the second voice of the right. */
      readonly hand: KeysOf;
      readonly at: Ticks;
      readonly length: Ticks;
      readonly notes: readonly KeyNote[];
    }
  | { readonly code: 'edit.chord-school'; readonly at: Ticks; readonly school: School | null }
  | { readonly code: 'edit.fill'; readonly at: Ticks; readonly kind: FillKind | null };

/** A change to a stretch, or to the whole song where the range is null. */
export type RangeEdit =
  | SettingEdit
  | { readonly code: 'edit.school'; readonly range: TickRange | null; readonly school: School | null }
  | { readonly code: 'edit.bass'; readonly range: TickRange | null; readonly bass: BassWish }
  | { readonly code: 'edit.suggest'; readonly range: TickRange | null; readonly suggest: Suggesting | null }
  | { readonly code: 'edit.stay'; readonly range: TickRange; readonly stay: Stay | null };

/** What several changes make together. */
export type EditGroup =
  | { readonly kind: 'texture-plan' | 'endings' | 'louder' | 'softer' | 'alternate' | 'octave-again' | 'clear-collisions' }
  | { readonly kind: 'free-voicings' | 'skip-passing' | 'import-textures' | 'options' | 'to-recording' }
  | { readonly kind: 'section'; readonly energy: number; readonly name: string | null }
  /** Keys of one's own under a chord, in a bar or a part; given to it from the chord before. */
  | { readonly kind: 'own-keys'; readonly hand: KeysOf; readonly symbol: string | null; readonly given: boolean }
  | { readonly kind: 'use-texture'; readonly title: string; readonly part: number }
  | { readonly kind: 'shape-wherever'; readonly symbol: string; readonly pitches: readonly Pitch[] }
  | { readonly kind: 'in-repeats'; readonly of: Edit };

/** A change that the pianist makes, as data: the page, its undo list, fixes, repeats, other tabs and the command make the same one. */
export type Edit =
  | PlaceEdit
  | RangeEdit
  | { readonly code: 'edit.several'; readonly as: EditGroup; readonly edits: readonly Edit[] }
  // How the song is divided. Two parts are always neighbours, as they stand.
  | { readonly code: 'edit.move-cut'; readonly parts: readonly [TickRange, TickRange]; readonly to: Ticks }
  | { readonly code: 'edit.split'; readonly part: TickRange; readonly at: Ticks }
  | { readonly code: 'edit.merge'; readonly parts: readonly [TickRange, TickRange] }
  | { readonly code: 'edit.part-size'; readonly size: Choices['partSize'] }
  | { readonly code: 'edit.clear-parts' }
  | { readonly code: 'edit.name-part'; readonly at: Ticks; readonly name: string }
  | { readonly code: 'edit.name-section'; readonly at: Ticks; readonly name: string }
  // How it is played.
  | { readonly code: 'edit.balance'; readonly percent: number }
  | { readonly code: 'edit.feel'; readonly feel: Choices['feel'] }
  | { readonly code: 'edit.close'; readonly change: Partial<Choices['close']> }
  | { readonly code: 'edit.mute'; readonly layer: Layer; readonly muted: boolean }
  | { readonly code: 'edit.up-to-layer'; readonly layer: Layer }
  | { readonly code: 'edit.play-mode'; readonly mode: PlayMode }
  | { readonly code: 'edit.save-texture'; readonly texture: Texture }
  | { readonly code: 'edit.remove-texture'; readonly id: string; readonly title: string }
  // The song and who plays it.
  | { readonly code: 'edit.hands'; readonly change: Partial<Hands> }
  | { readonly code: 'edit.key'; readonly key: Key }
  | { readonly code: 'edit.facts'; readonly change: Partial<SongFacts> }
  /** Gives a song a tune, as far as the song is long; it is played from then on. */
  | { readonly code: 'edit.tune'; readonly notes: readonly MelodyNote[] }
  /** Leaves the tune alone: its chords, written and given, with their kept keys, are taken away. */
  | { readonly code: 'edit.strip-chords' }
  // Kept versions; `kept` is an ISO date and time, `at` milliseconds.
  | { readonly code: 'edit.keep-version'; readonly name: string; readonly kept: string }
  | { readonly code: 'edit.take-version'; readonly name: string }
  | { readonly code: 'edit.drop-version'; readonly name: string }
  | { readonly code: 'edit.go-back'; readonly at: number; readonly document: Document };

/** What a step back or forth is named by: an edit made here, or what another tab made. */
export type EditFact = Edit | { readonly code: 'edit.elsewhere'; readonly edit: Edit | null };

type Apply = { readonly [C in Edit['code']]: (doc: Document, edit: Extract<Edit, { readonly code: C }>) => Document };

/** How each change is made. One that is not possible, such as a cut outside its parts, leaves everything as it is. */
const APPLY: Apply = {
  'edit.several': (doc, { edits }) => edits.reduce(applyEdit, doc),
  // The union pairs each setting with its own values.
  'edit.setting': (doc, { range, setting, value }) => setSetting(doc, range, setting, value as never),
  'edit.school': (doc, { range, school }) => (range ? setPassage(doc, range, { school }) : setSchoolEverywhere(doc, school)),
  'edit.bass': (doc, { range, bass }) =>
    range ? setPassage(doc, range, { bass }) : setBass(everywhere(doc, { bass: null }), bass),
  'edit.suggest': (doc, { range, suggest }) =>
    range ? setPassage(doc, range, { suggest }) : setSuggestion(everywhere(doc, { suggest: null }), suggest),
  'edit.stay': (doc, { range, stay }) => setPassage(doc, range, { stay }),
  'edit.chord': (doc, { at, symbol, until }) => setChord(doc, at, symbol, until),
  'edit.leave-out': (doc, { at }) => removeChord(doc, at),
  'edit.restore-chord': (doc, { at }) => restoreChord(doc, at),
  'edit.voicing': (doc, { at, pitches }) => pinVoicing(doc, at, pitches),
  'edit.free-voicing': (doc, { at }) => unpinVoicing(doc, at),
  'edit.fingers': (doc, { hand, at, fingers }) => setFingers(doc, hand, at, fingers),
  'edit.note': (doc, { at, change }) => changeNote(doc, at, change),
  'edit.respell': (doc, { at, name }) => respell(doc, at, name),
  'edit.strike-with': (doc, { at, below }) => strikeWith(doc, at, below),
  'edit.remind': (doc, { at, text }) => remind(doc, at, text),
  'edit.stop': (doc, { at, stop, there }) => setStop(doc, at, stop, there),
  'edit.keys': (doc, { hand, at, length, notes }) => writeKeys(doc, hand, at, length, notes),
  'edit.chord-school': (doc, { at, school }) => setChordSchool(doc, at, school),
  'edit.fill': (doc, { at, kind }) => setFill(doc, at, kind),
  'edit.move-cut': (doc, { parts, to }) => moveCut(doc, parts, 1, to) ?? doc,
  'edit.split': (doc, { part, at }) => splitPart(doc, [part], 0, at) ?? doc,
  'edit.merge': (doc, { parts }) => mergePart(doc, parts, 1) ?? doc,
  'edit.part-size': (doc, { size }) => setPartSize(doc, size),
  'edit.clear-parts': (doc) => clearParts(doc),
  'edit.name-part': (doc, { at, name }) => renamePart(doc, at, name),
  'edit.name-section': (doc, { at, name }) => nameSection(doc, at, name),
  'edit.balance': (doc, { percent }) => setBalance(doc, percent),
  'edit.feel': (doc, { feel }) => withChoices(doc, { feel }),
  'edit.close': (doc, { change }) => setClose(doc, change),
  'edit.mute': (doc, { layer, muted }) => muteLayer(doc, layer, muted),
  'edit.up-to-layer': (doc, { layer }) => withChoices(doc, { muted: LAYERS.slice(LAYERS.indexOf(layer) + 1) }),
  'edit.play-mode': (doc, { mode }) => setPlayMode(doc, mode),
  'edit.save-texture': (doc, { texture }) => saveTexture(doc, texture),
  'edit.remove-texture': (doc, { id }) => removeTexture(doc, id),
  'edit.hands': (doc, { change }) => ({ ...doc, hands: { ...doc.hands, ...change } }),
  'edit.key': (doc, { key }) => transposeDocument(doc, key),
  'edit.facts': (doc, { change }) => changeFacts(doc, change),
  'edit.tune': (doc, { notes }) => giveTune(doc, notes),
  'edit.strip-chords': (doc) => withChoices({ ...doc, song: { ...doc.song, chords: [] } }, { chords: [], pins: [] }),
  'edit.keep-version': (doc, { name, kept }) => keepVersion(doc, name, kept),
  'edit.take-version': (doc, { name }) => takeVersion(doc, name) ?? doc,
  'edit.drop-version': (doc, { name }) => dropVersion(doc, name),
  'edit.go-back': (doc, { document }) => ({ ...document, versions: doc.versions }),
};

/** The document with a change made; the same document where it is not possible there. */
export function applyEdit(doc: Document, edit: Edit): Document {
  return APPLY[edit.code](doc, edit as never);
}

/** What is wished for just in some stretches, taken back, since the whole song is to have it. */
const everywhere = (doc: Document, change: Wishes): Document => setPassage(doc, { start: 0, end: doc.song.length }, change);
