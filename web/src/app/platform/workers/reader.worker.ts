import { expose } from 'comlink';
import { cardOf, checkDocument, type SongCard } from '@joined-hands/core/sheet';
import type { Document } from '@joined-hands/core/song';
import { readParcel, taskIn, type ReadParcel, type Task } from '@joined-hands/core/passing';
import type { HeardTone } from '@joined-hands/core/hearing';
import {
  midiOfTones,
  openFile,
  readAbc,
  readChordPro,
  readArchive,
  readLetters,
  readRecording,
  writeArchive,
  type Answers,
  type Format,
  type Opened,
  type ReadArchive,
  type Reading,
  type Recording,
} from '@joined-hands/core/formats';

/** Reading files by itself, so that a file that takes long or is hostile can be let go with its worker. */
const reader = {
  open(name: string, data: Uint8Array, format: Format | null, answers: Answers): Opened {
    return openFile(name, data, format ?? undefined, answers);
  },

  /** Songs as one shelf file, and such a file as songs. */
  pack(documents: readonly unknown[]): Uint8Array {
    return writeArchive(documents);
  },

  /** What songs show of themselves on the shelf, whatever was saved of them. */
  cards(documents: readonly unknown[]): SongCard[] {
    return documents.map(cardOf);
  },

  /** What a link holds. */
  readParcel(letters: string): ReadParcel {
    return readParcel(letters);
  },

  /** The task that came with a project file, or null. */
  taskIn(data: Uint8Array): Task | null {
    return taskIn(new TextDecoder().decode(data));
  },

  unpack(data: Uint8Array): ReadArchive {
    return readArchive(data);
  },

  /** Documents as they were saved, checked; null for one that cannot be read. */
  check(documents: readonly unknown[]): (Document | null)[] {
    return documents.map((saved) => {
      const checked = checkDocument(saved);
      return checked.ok ? checked.document : null;
    });
  },

  /** What was heard of a recording as a MIDI file, to be opened like one that was played. */
  heard(title: string, tempo: number, tones: readonly HeardTone[]): Uint8Array {
    return midiOfTones(title, tempo, tones);
  },

  readLetters(text: string): Reading {
    return readLetters(text);
  },

  /** A tune that was played in, as a song. */
  readRecording(recording: Recording, answers: Answers): Reading {
    return readRecording(recording, answers);
  },

  readChordPro(text: string, answers: Answers): Reading {
    return readChordPro(text, answers);
  },

  readAbc(text: string, answers: Answers): Reading {
    return readAbc(text, answers);
  },
};

export type ReaderApi = typeof reader;

expose(reader);
