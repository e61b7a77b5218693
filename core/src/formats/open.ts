import { newDocument, type Document } from '../song/decisions.js';
import { readAbc } from './abc/read.js';
import { readLetters } from './letters/read.js';
import { readMidi } from './midi/read.js';
import { readMusicXml } from './musicxml/read.js';
import { readProject, type ProjectFault } from './project/project.js';
import type { Answers, Found, Reading, Refusal } from './result.js';
import { decodeText } from './text.js';

/** Why a file cannot be opened. */
export type OpenFault =
  | { readonly code: 'open.too-large'; readonly megabytes: number }
  | { readonly code: 'open.empty' }
  | { readonly code: 'open.unknown-ending' }
  | { readonly code: 'open.looks-like'; readonly format: Format; readonly looks: Format }
  | { readonly code: 'open.no-text'; readonly format: Format }
  | { readonly code: 'open.refused'; readonly refusal: Refusal }
  | ProjectFault;

/** A file as a document, or what is wrong with it, where, and what to do. */
export type Opened =
  | ({ readonly ok: true; readonly document: Document } & Found)
  | { readonly ok: false; readonly name: string; readonly fault: OpenFault };

type Read = ({ readonly ok: true; readonly document: Document } & Found) | { readonly ok: false; readonly fault: OpenFault };

/** How files of a format are known and read. */
interface Reader {
  /** Endings of its files, in lower case. */
  readonly endings: readonly string[];
  /** Whether bytes look like it; the head is the first 4,000 of them as text. */
  readonly looks: (data: Uint8Array, head: string) => boolean;
  readonly read: (data: Uint8Array, answers: Answers) => Read;
}

/** A reader of songs, as the table takes it. */
const song =
  (read: (data: Uint8Array, answers: Answers) => Reading): Reader['read'] =>
  (data, answers) => {
    const found = read(data, answers);
    if (!found.ok) return { ok: false, fault: { code: 'open.refused', refusal: found.refusal } };
    const { notices, questions, counted } = found;
    return { ok: true, document: newDocument(found.song), notices, questions, counted };
  };

/** Every format that a song may come in. What a file looks like is tried in this order. */
const READERS = {
  midi: {
    endings: ['mid', 'midi'],
    looks: (_, head) => head.startsWith('MThd'),
    read: song(readMidi),
  },
  musicxml: {
    endings: ['musicxml', 'xml', 'mxl'],
    looks: (data, head) =>
      (data[0] === 0x50 && data[1] === 0x4b) || /^\uFEFF?\s*<\?xml|^\uFEFF?\s*<(score|!DOCTYPE score)/.test(head),
    read: song(readMusicXml),
  },
  project: {
    endings: ['json'],
    looks: (_, head) => /^\s*\{/.test(head),
    read: (data) => {
      const read = readProject(decodeText(data));
      return read.ok ? { ok: true, document: read.document, notices: [], questions: [], counted: [] } : read;
    },
  },
  letters: {
    endings: ['letters', 'txt'],
    looks: (_, head) => /^\s*tune\s*:/im.test(head),
    read: song((data) => readLetters(decodeText(data))),
  },
  abc: {
    endings: ['abc'],
    looks: (_, head) => /^\s*X:\s*\d/m.test(head) || (/^K:/m.test(head) && /^[LMT]:/m.test(head)),
    read: song((data, answers) => readAbc(decodeText(data), answers)),
  },
} as const satisfies Record<string, Reader>;

export type Format = keyof typeof READERS;

/** Formats a file may come in. */
export const FORMATS = Object.keys(READERS) as Format[];

/** No file with one song is larger, whatever its format; the readers have narrower limits of their own. */
export const MOST_BYTES = 20_000_000;

/** The format that a file's ending names, or null. */
export function formatOf(name: string): Format | null {
  const ending = /\.([A-Za-z]+)$/.exec(name)?.[1].toLowerCase() ?? '';
  return FORMATS.find((f) => (READERS[f].endings as readonly string[]).includes(ending)) ?? null;
}

/** What the bytes of a file look like, whatever it is called. Null when they look like nothing known. */
export function sniff(data: Uint8Array): Format | null {
  const head = decodeText(data.subarray(0, 4000));
  return FORMATS.find((f) => READERS[f].looks(data, head)) ?? null;
}

/** Text that holds control bytes is no text. */
function looksBinary(data: Uint8Array): boolean {
  const head = new TextEncoder().encode(decodeText(data.subarray(0, 4000)));
  let odd = 0;
  for (const byte of head) if (byte === 0 || (byte < 9 && byte > 0) || (byte > 13 && byte < 32)) odd++;
  return odd > head.length / 100;
}

/**
 * Reads a file of any known format. `format` overrules the file's ending. A file that is not what it is called is
 * refused with what it looks like.
 */
export function openFile(name: string, data: Uint8Array, format: Format | null = formatOf(name), answers: Answers = {}): Opened {
  const refused = (fault: OpenFault): Opened => ({ ok: false, name, fault });
  if (data.length > MOST_BYTES) return refused({ code: 'open.too-large', megabytes: MOST_BYTES / 1e6 });
  if (data.length === 0) return refused({ code: 'open.empty' });
  if (format === null) return refused({ code: 'open.unknown-ending' });
  const looks = sniff(data);
  if (looks !== null && looks !== format) return refused({ code: 'open.looks-like', format, looks });
  if (looks === null && format !== 'midi' && looksBinary(data)) return refused({ code: 'open.no-text', format });
  const read = READERS[format].read(data, answers);
  return read.ok ? read : refused(read.fault);
}
