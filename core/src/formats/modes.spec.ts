import { describe, expect, it } from 'vitest';
import { makeTune } from '../../testing/made-tunes.js';
import { documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { keyName, keysOf, MODES, scaleOf } from '../harmony/key.js';
import { pitchAt } from '../pitch/pitch.js';
import { writtenScore } from '../sheet/written.js';
import type { Song } from '../song/song.js';
import { ENGLISH } from '../words/index.js';
import { openFile, writeAbc, writeLetters, writeMidi, writeMusicXml } from './index.js';

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

  it('is found again in a MIDI file, which can only say major or minor, and where it says nothing true', () => {
    for (const mode of ['dorian', 'mixolydian'] as const)
      for (let i = 0; i < 12; i++) {
        const { song, key } = makeTune(i, mode);
        const bytes = writeMidi(
          song,
          song.melody.map((n) => ({ ...n, hand: 'right', loudness: 0.6 })),
        );
        const back = openFile('a.mid', bytes);
        expect(back.ok && keyName(back.document.song.key), song.title).toBe(keyName(key));
      }
    // "C major" under a tune in G minor, as programs write it where nobody named a key.
    const names = 'G4 Bb4 D5 C5 Bb4 A4 G4 F#4 G4 A4 Bb4 C5 D5 Eb5 D5 C5 Bb4 A4 G4 G4'.split(' ');
    const song = songOf(
      names.map((p): [string, number] => [p, 1]),
      [],
      { key: { tonic: 'C', mode: 'major' } },
    );
    const unnamed = openFile(
      'a.mid',
      writeMidi(
        song,
        song.melody.map((n) => ({ ...n, hand: 'right', loudness: 0.6 })),
      ),
    );
    expect(unnamed.ok && keyName(unnamed.document.song.key)).toBe('G minor');
  });
});
