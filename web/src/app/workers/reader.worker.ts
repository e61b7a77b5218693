import { expose } from 'comlink';
import { openFile, readAbc, readLetters, type Answers, type Format, type Opened, type Reading } from '@joined-hands/core/formats';

/** Reading files by itself, so that a file that takes long or is hostile can be let go with its worker. */
const reader = {
  open(name: string, data: Uint8Array, format: Format | null, answers: Answers): Opened {
    return openFile(name, data, format ?? undefined, answers);
  },

  readLetters(text: string): Reading {
    return readLetters(text);
  },

  readAbc(text: string, answers: Answers): Reading {
    return readAbc(text, answers);
  },
};

export type ReaderApi = typeof reader;

expose(reader);
