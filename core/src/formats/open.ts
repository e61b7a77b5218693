import type { Document } from '../song/decisions.js';
import type { ContentFault } from './format.js';
import { READERS } from './list.js';
import type { Answers, Found } from './result.js';
import { decodeText } from './text.js';

/** Why a file cannot be opened. */
export type OpenFault =
  | { readonly code: 'open.too-large'; readonly megabytes: number }
  | { readonly code: 'open.empty' }
  | { readonly code: 'open.unknown-ending' }
  | { readonly code: 'open.looks-like'; readonly format: Format; readonly looks: Format }
  | { readonly code: 'open.no-text'; readonly format: Format }
  | ContentFault;

/** A file as a document, or what is wrong with it, where, and what to do. */
export type Opened =
  | ({ readonly ok: true; readonly document: Document } & Found)
  | { readonly ok: false; readonly name: string; readonly fault: OpenFault };

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

/** The format of a file by its ending; plain text is letter lines, or words with chords where it looks like that. */
function formatIn(name: string, looks: Format | null): Format | null {
  return looks === 'chordpro' && /\.txt$/i.test(name) ? looks : formatOf(name);
}

/** Text that holds control bytes is no text. */
function looksBinary(data: Uint8Array): boolean {
  const head = new TextEncoder().encode(decodeText(data.subarray(0, 4000)));
  let odd = 0;
  for (const byte of head) if (byte === 0 || (byte < 9 && byte > 0) || (byte > 13 && byte < 32)) odd++;
  return odd > head.length / 100;
}

/**
 * Reads a file of any known format. `wanted` overrules the file's ending. A file that is not what it is called is
 * refused with what it looks like.
 */
export function openFile(name: string, data: Uint8Array, wanted: Format | null = null, answers: Answers = {}): Opened {
  const refused = (fault: OpenFault): Opened => ({ ok: false, name, fault });
  if (data.length > MOST_BYTES) return refused({ code: 'open.too-large', megabytes: MOST_BYTES / 1e6 });
  if (data.length === 0) return refused({ code: 'open.empty' });
  const looks = sniff(data);
  const format = wanted ?? formatIn(name, looks);
  if (format === null) return refused({ code: 'open.unknown-ending' });
  if (looks !== null && looks !== format) return refused({ code: 'open.looks-like', format, looks });
  if (looks === null && format !== 'midi' && looksBinary(data)) return refused({ code: 'open.no-text', format });
  const read = READERS[format].read(data, answers);
  return read.ok ? read : refused(read.fault);
}
