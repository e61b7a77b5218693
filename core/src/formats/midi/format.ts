import { ofSong, type FileFormat } from '../format.js';
import { readMidi } from './read.js';

export const midi = {
  order: 10,
  endings: ['mid', 'midi'],
  looks: (_, head) => head.startsWith('MThd'),
  read: ofSong(readMidi),
} satisfies FileFormat;
