import { Midi } from '@tonejs/midi';
import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf } from '../../testing/songs.js';
import { readMusicXml, writeMidi, writeMusicXml } from '../formats/index.js';
import { arrange } from '../arrange/arrange.js';
import { writtenScore } from '../sheet/written.js';
import { setSetting } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { soundsUntil } from './pedal.js';

const song = songOf(
  [
    ['C5', 4],
    ['D5', 4],
    ['E5', 4],
    ['C5', 4],
  ],
  [
    [0, 'C'],
    [6, 'F'],
    [8, 'F'],
    [10, 'N.C.'],
    [12, 'C'],
  ],
);
const doc = documentOf(song);
const pedalled = setSetting(doc, null, 'pedal', true);

describe('the pedal', () => {
  it('is pressed, changes where the chord does, and is lifted where the hand rests and at the end', () => {
    expect(arrange(doc).pedal).toEqual([]);
    expect(arrange(pedalled).pedal.map((p) => [p.at / Q, p.kind])).toEqual([
      [0, 'press'],
      [6, 'change'],
      [10, 'lift'],
      [12, 'press'],
      [16, 'lift'],
    ]);
  });

  it('holds for a part alone', () => {
    const glass = demo('harbour-glass.abc');
    const [, second] = arrange(glass).parts;
    const { pedal } = arrange(setSetting(glass, second, 'pedal', true));
    expect(pedal[0]).toEqual({ at: second.chords[0].at, kind: 'press' });
    expect(pedal.at(-1)).toEqual({ at: second.end, kind: 'lift' });
  });

  it('lets notes sound to its next move, and no further', () => {
    const points = arrange(pedalled).pedal;
    expect(soundsUntil({ at: 0, length: Q }, points)).toBe(6 * Q);
    expect(soundsUntil({ at: 5 * Q, length: 2 * Q }, points)).toBe(10 * Q);
    expect(soundsUntil({ at: 10 * Q, length: Q }, points)).toBe(11 * Q);
    expect(soundsUntil({ at: 15 * Q, length: Q }, points)).toBe(16 * Q);
  });

  it('is written under the staff and as controller 64', () => {
    const arrangement = arrange(pedalled);
    const xml = writeMusicXml(writtenScore(arrangement));
    expect([...xml.matchAll(/<pedal type="(\w+)"/g)].map((m) => m[1])).toEqual(['start', 'change', 'stop', 'start', 'stop']);
    expect(readMusicXml(xml).ok).toBe(true);
    const midi = new Midi(writeMidi(arrangement.song, arrangement.score, arrangement.pedal));
    const moves = midi.tracks
      .find((t) => t.name === 'Left hand')
      ?.controlChanges[64].map((c) => [(c.ticks / midi.header.ppq) | 0, c.value]);
    expect(moves).toEqual([
      [0, 1],
      [6, 0],
      [6, 1],
      [10, 0],
      [12, 1],
      [16, 0],
    ]);
  });
});
