import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { keyName, keysOf, MODES, scaleOf } from '../harmony/key.js';
import { pitchAt } from '../pitch/pitch.js';
import { writtenScore } from '../sheet/written.js';
import type { Song } from '../song/song.js';
import { ENGLISH } from '../words/index.js';
import { openFile, writeAbc, writeLetters, writeMusicXml } from './index.js';

const read = (name: string, text: string): Song => {
  const opened = openFile(name, new TextEncoder().encode(text));
  if (!opened.ok) throw new Error(ENGLISH.fact(opened.fault));
  return opened.document.song;
};

describe('the mode of a key', () => {
  it('goes out and comes back in every format that names it, with the notes as they are spelled', () => {
    for (const mode of MODES)
      for (const key of keysOf(mode)) {
        const scale = scaleOf(key).map((name): [string, number] => [pitchAt(name, 66), 1]);
        const song = songOf([...scale, [pitchAt(key.tonic, 66), 1]], [[0, 'C']], { key });
        const pitches = song.melody.map((n) => n.pitch);
        for (const [name, text] of [
          ['a.abc', writeAbc(song)],
          ['a.letters', writeLetters(song)],
          ['a.musicxml', writeMusicXml(writtenScore(arrange(documentOf(song))))],
        ] as const) {
          const back = read(name, text);
          expect([name, keyName(back.key)]).toEqual([name, keyName(key)]);
          expect(back.melody.map((n) => n.pitch)).toEqual(pitches);
        }
      }
  });
});
