import { ofSong, type FileFormat } from '../format.js';
import { readMusicXml } from './read.js';

export const musicxml = {
  order: 20,
  endings: ['musicxml', 'xml', 'mxl'],
  looks: (data, head) =>
    (data[0] === 0x50 && data[1] === 0x4b) || /^\uFEFF?\s*<\?xml|^\uFEFF?\s*<(score|!DOCTYPE score)/.test(head),
  read: ofSong(readMusicXml),
} satisfies FileFormat;
