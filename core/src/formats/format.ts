import { applyEdit } from '../song/edit.js';
import { newDocument, type Document } from '../song/decisions.js';
import type { ProjectFault } from './project/project.js';
import type { Answers, Found, Reading, Refusal } from './result.js';

/** What is wrong with the contents of a file. */
export type ContentFault = { readonly code: 'open.refused'; readonly refusal: Refusal } | ProjectFault;

/** A file as a document, or what is wrong with it. */
export type Read =
  ({ readonly ok: true; readonly document: Document } & Found) | { readonly ok: false; readonly fault: ContentFault };

/** How files of a format are known and read. */
export interface FileFormat {
  /** Its turn when it is tried what a file looks like. */
  readonly order: number;
  /** Endings of its files, in lower case. */
  readonly endings: readonly string[];
  /** Whether bytes look like it; the head is the first 4,000 of them as text. */
  readonly looks: (data: Uint8Array, head: string) => boolean;
  readonly read: (data: Uint8Array, answers: Answers) => Read;
}

/** A reader of songs as the reader of a format. */
export const ofSong =
  (read: (data: Uint8Array, answers: Answers) => Reading): FileFormat['read'] =>
  (data, answers) => {
    const found = read(data, answers);
    if (!found.ok) return { ok: false, fault: { code: 'open.refused', refusal: found.refusal } };
    const { song, notices, questions, counted, reminders = [] } = found;
    const document = reminders.reduce(
      (doc, { at, text }) => applyEdit(doc, { code: 'edit.remind', at, text }),
      newDocument(song),
    );
    return { ok: true, document, notices, questions, counted };
  };
