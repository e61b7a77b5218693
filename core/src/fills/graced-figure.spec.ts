import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { ALL_KEYS } from '../../testing/tunes.js';
import { arrange } from '../arrange/arrange.js';
import { readMusicXml, writeMidi, writeMusicXml } from '../formats/index.js';
import { readMidi } from '../formats/index.js';
import { scaleOf, type Key } from '../harmony/key.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { writtenScore } from '../sheet/written.js';
import { HAND_PROFILES, handsOf, type Document, type HandProfile } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import type { Texture } from '../song/texture-data.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { toggleRow } from './grid.js';

/** Two bars that alternate, on sixteenth counts: a bass and a third that a small note slides into; then another way round. */
const SLIDE: Texture = {
  id: 'slide',
  title: 'Slide',
  energy: 4,
  patterns: [
    {
      meter: '4/4',
      steps: '1 - - - - - ^3 - 5 - - - - - 8 - | 1 - - - ^5 - - - 8 - - - ^3+5 - - -',
    },
  ],
};

const figured = (key: Key, profile: HandProfile = 'medium'): Document => {
  const roots = [scaleOf(key)[0], scaleOf(key)[0], scaleOf(key)[3], scaleOf(key)[4]];
  const song = songOf(
    roots.map(() => ['C7', 4] as const),
    roots.map((r, i) => [4 * i, r] as const),
    { key },
  );
  const doc = { ...documentOf(song), hands: handsOf(profile) };
  const saved = applyEdit(doc, { code: 'edit.save-texture', texture: SLIDE });
  return applyEdit(saved, { code: 'edit.setting', range: null, setting: 'texture', value: SLIDE.id });
};

describe('small notes in a figure of one’s own', () => {
  it('lead from a half step below to the highest key of their attack, in every key and hand, and to nothing else', () => {
    for (const key of ALL_KEYS)
      for (const profile of HAND_PROFILES) {
        const left = arrange(figured(key, profile)).score.filter((n) => n.hand === 'left');
        const graced = left.filter((n) => n.graces);
        expect(graced.length).toBeGreaterThanOrEqual(4);
        for (const n of graced) {
          expect(n.graces?.map(midiOf)).toEqual([midiOf(n.pitch) - 1]);
          expect(Math.max(...left.filter((m) => m.at === n.at).map((m) => midiOf(m.pitch)))).toBe(midiOf(n.pitch));
          expect(nameOf(n.graces?.[0] ?? '')).toMatch(/^[A-G][b#]?$/);
        }
        // The bars take turns: the first slides on its second beat and a half, the next on its second and fourth.
        const places = graced.map((n) => (n.at % (8 * Q)) / Q);
        for (const place of places) expect([1.5, 5, 7]).toContain(place);
      }
  });

  it('are engraved before their note, and played before it in MIDI', () => {
    const arrangement = arrange(figured({ tonic: 'C', mode: 'major' }));
    const xml = writeMusicXml(writtenScore(arrangement));
    expect(xml).toMatch(/<grace slash="yes"\/><pitch><step>D<\/step><alter>1<\/alter>[^\n]*<staff>2<\/staff>/);
    expect(readMusicXml(xml).ok).toBe(true);
    const graces = arrangement.score.filter((n) => n.graces).length;
    const read = readMidi(writeMidi(arrangement.song, arrangement.score));
    const plain = readMidi(writeMidi(arrangement.song, arrangement.score.map(({ graces: _, ...n }) => n))); // prettier-ignore
    expect(graces).toBeGreaterThan(0);
    expect(read.ok && read.song.left).toEqual(plain.ok && plain.song.left);
  });

  it('are set on the grid only where something is struck, and cleared with it', () => {
    expect(toggleRow('3+5', '^')).toBe('^3+5');
    expect(toggleRow('^3+5', '8')).toBe('^3+5+8');
    expect(toggleRow('^3+5', '^')).toBe('3+5');
    expect(toggleRow('^3', '3')).toBe('-');
    for (const token of ['-', '.', 'w']) expect(toggleRow(token, '^')).toBe(token);
    expect(toggleRow('^3', 'w')).toBe('w');
  });
});
