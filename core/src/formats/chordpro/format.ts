import { ofSong, type FileFormat } from '../format.js';
import { decodeText } from '../text.js';
import { chordsIn, readChordPro } from './read.js';

/** A chord in brackets inside a line of words, or a directive that names the song. */
const SIGNS = /^\s*\{\s*(title|t|artist|key|start_of_\w+|so[vcb])\s*[:}]|^(?!\s*[A-Za-z]:).*\[[A-G][^\]\s]{0,9}\]\s*[a-z]/im;

export const chordpro = {
  order: 60,
  endings: ['cho', 'chopro', 'chordpro', 'crd', 'pro'],
  looks: (_, head) => {
    const lines = head.split(/\r\n?|\n/);
    return SIGNS.test(head) || lines.some((line, i) => chordsIn(line) !== null && /[a-z]{2}/.test(lines[i + 1] ?? ''));
  },
  read: ofSong((data, answers) => readChordPro(decodeText(data), answers)),
} satisfies FileFormat;
