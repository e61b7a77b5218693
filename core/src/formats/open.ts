import { newDocument, type Document } from '../song/decisions.js';
import { readAbc } from './abc/read.js';
import { readLetters } from './letters/read.js';
import { readMidi } from './midi/read.js';
import { readMusicXml } from './musicxml/read.js';
import { readProject } from './project/project.js';
import { refusalSentence, type Answers, type Found, type Reading } from './result.js';
import { decodeText } from './text.js';

/** Formats a file may come in. */
export const FORMATS = ['abc', 'musicxml', 'midi', 'letters', 'project'] as const;
export type Format = (typeof FORMATS)[number];

/** A file as a document, or one sentence that says what is wrong, where, and what to do. */
export type Opened =
  ({ readonly ok: true; readonly document: Document } & Found) | { readonly ok: false; readonly sentence: string };

const ENDINGS: Record<string, Format> = {
  abc: 'abc',
  musicxml: 'musicxml',
  xml: 'musicxml',
  mxl: 'musicxml',
  mid: 'midi',
  midi: 'midi',
  letters: 'letters',
  txt: 'letters',
  json: 'project',
};

/** No file with one song is larger, whatever its format; the readers have narrower limits of their own. */
export const MOST_BYTES = 20_000_000;

/** The format that a file's ending names, or null. */
export function formatOf(name: string): Format | null {
  const ending = /\.([A-Za-z]+)$/.exec(name)?.[1].toLowerCase();
  return (ending && ENDINGS[ending]) || null;
}

const NAMES: Record<Format, string> = {
  abc: 'ABC',
  musicxml: 'MusicXML',
  midi: 'MIDI',
  letters: 'letter lines',
  project: 'a Joined Hands project',
};

/** What the bytes of a file look like, whatever it is called. Null when they look like nothing known. */
export function sniff(data: Uint8Array): Format | null {
  if (data[0] === 0x50 && data[1] === 0x4b) return 'musicxml';
  const head = decodeText(data.subarray(0, 4000));
  if (head.startsWith('MThd')) return 'midi';
  if (/^\uFEFF?\s*<\?xml|^\uFEFF?\s*<(score|!DOCTYPE score)/.test(head)) return 'musicxml';
  if (/^\s*\{/.test(head)) return 'project';
  if (/^(tune|chord|words|title)\s*:/im.test(head) && /^\s*tune\s*:/im.test(head)) return 'letters';
  if (/^\s*X:\s*\d/m.test(head) || (/^K:/m.test(head) && /^[LMT]:/m.test(head))) return 'abc';
  return null;
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
  const refused = (sentence: string): Opened => ({ ok: false, sentence: `${name}: ${sentence}` });
  if (data.length > MOST_BYTES) return refused('The file is larger than 20 MB. Choose a file with one song.');
  if (data.length === 0) return refused('The file is empty. Choose a file with a song in it.');
  if (format === null)
    return refused(
      'The ending of the file names no known format. Choose an .abc, .musicxml, .xml, .mxl, .mid, .letters or .json file.',
    );
  const looks = sniff(data);
  if (looks !== null && looks !== format)
    return refused(`The file is not ${NAMES[format]}: it looks like ${NAMES[looks]}. Rename it or choose that format.`);
  if (looks === null && format !== 'midi' && looksBinary(data))
    return refused(`The file is not ${NAMES[format]}: it holds no readable text. Choose a file with a song in it.`);
  if (format === 'project') {
    const read = readProject(decodeText(data));
    return read.ok ? { ok: true, document: read.document, notices: [], questions: [], counted: [] } : refused(read.sentence);
  }
  const read = readSong(format, data, answers);
  if (!read.ok) return refused(refusalSentence(read.refusal));
  const { notices, questions, counted } = read;
  return { ok: true, document: newDocument(read.song), notices, questions, counted };
}

function readSong(format: 'abc' | 'musicxml' | 'midi' | 'letters', data: Uint8Array, answers: Answers): Reading {
  if (format === 'musicxml') return readMusicXml(data, answers);
  if (format === 'midi') return readMidi(data, answers);
  const text = decodeText(data);
  return format === 'abc' ? readAbc(text, answers) : readLetters(text);
}
