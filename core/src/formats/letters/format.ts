import { ofSong, type FileFormat } from '../format.js';
import { decodeText } from '../text.js';
import { readLetters } from './read.js';

export const letters = {
  order: 40,
  endings: ['letters', 'txt'],
  looks: (_, head) => /^\s*tune\s*:/im.test(head),
  read: ofSong((data) => readLetters(decodeText(data))),
} satisfies FileFormat;
