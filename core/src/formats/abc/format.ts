import { ofSong, type FileFormat } from '../format.js';
import { decodeText } from '../text.js';
import { readAbc } from './read.js';

export const abc = {
  order: 50,
  endings: ['abc'],
  looks: (_, head) => /^\s*X:\s*\d/m.test(head) || (/^K:/m.test(head) && /^[LMT]:/m.test(head)),
  read: ofSong((data, answers) => readAbc(decodeText(data), answers)),
} satisfies FileFormat;
