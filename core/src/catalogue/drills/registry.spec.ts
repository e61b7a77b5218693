import { arrange } from '../../arrange/arrange.js';
import { midiOf } from '../../pitch/pitch.js';
import { CADENCES } from './cadences.js';
import { handsOf } from '../../song/decisions.js';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS } from '../../../testing/songs.js';
import type { DrillWishes } from './drill.js';
import { ALL_KEYS, DRILLS, drillOf, parseDrillId } from './registry.js';

const glass = arrange(demo(DEMOS[1]));
const WISHES: DrillWishes = { key: { tonic: 'Eb', mode: 'major' }, hand: 'right', cadence: CADENCES[1], chord: 'Gm7/F', seed: 3 };
const OTHER: DrillWishes = { key: { tonic: 'A', mode: 'minor' }, hand: 'left', cadence: CADENCES[0], chord: 'C', seed: 9 };

describe('the book of drills', () => {
  it('has questions for every kind, with keys that a keyboard has', () => {
    for (const { kind } of DRILLS) {
      const drill = drillOf(kind, WISHES, glass, handsOf());
      expect(drill?.tasks.length, kind).toBeGreaterThan(0);
      const midis = drill?.tasks.flatMap((t) => t.grips.flatMap((g) => g.pitches.map(midiOf))) ?? [];
      expect(Math.min(...midis)).toBeGreaterThanOrEqual(21);
      expect(Math.max(...midis)).toBeLessThanOrEqual(108);
    }
  });

  it('finds a kept drill again as it was wished for', () => {
    for (const { kind } of DRILLS) {
      const id = drillOf(kind, WISHES, glass, handsOf())?.id ?? '';
      const found = parseDrillId(id, OTHER);
      expect(found?.kind).toBe(kind);
      expect(drillOf(kind, found?.wishes ?? OTHER, glass, handsOf())?.id).toBe(id);
    }
    expect(parseDrillId('gone', OTHER)).toBeNull();
  });

  it('needs a song for what is made of one, and a chord that can be read', () => {
    expect(drillOf('warm-up', WISHES, null, handsOf())).toBeNull();
    expect(drillOf('hard-moves', WISHES, null, handsOf())).toBeNull();
    expect(drillOf('inversions', { ...WISHES, chord: 'Xyz' }, null, handsOf())).toBeNull();
    expect(drillOf('name', WISHES, null, handsOf())?.tasks).toHaveLength(8);
  });

  it('takes a close through all twelve keys, each a fourth above the last', () => {
    const asks = drillOf('cadence', { ...WISHES, key: ALL_KEYS[0] }, null, handsOf())?.tasks.map((t) => t.ask) ?? [];
    expect(new Set(asks).size).toBe(12);
    expect(asks.slice(0, 3).map((a) => a.code === 'task.cadence' && a.key.tonic)).toEqual(['C', 'F', 'Bb']);
  });
});
