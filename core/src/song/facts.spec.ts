import { describe, expect, it } from 'vitest';

import { demo, documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { meterName } from '../time/meter.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { changeFacts, metersFor } from './facts.js';

const names = (song: Parameters<typeof metersFor>[0]) => metersFor(song).map(meterName);
const row = (bars: number) => Array.from({ length: bars * 6 }, () => ['C5', 0.5] as const);

describe('the facts of a song', () => {
  it('can be read in the meters that divide it into whole bars', () => {
    const waltz = songOf(row(8), [[0, 'C']], { meters: [{ at: 0, beats: 3, unit: 4 }] });
    expect(names(waltz)).toEqual(expect.arrayContaining(['3/4', '6/8', '6/4']));
    expect(names(waltz)).not.toContain('5/4');
    const upbeat = songOf([['G4', 0.5], ...row(8)], [[1, 'C']], { meters: [{ at: 0, beats: 3, unit: 4 }], pickup: Q / 2 });
    expect(names(upbeat)).toContain('6/8');
  });

  it('can be read in their own meter, however rare it is', () => {
    const rare = songOf(row(7), [[0, 'C']], { meters: [{ at: 0, beats: 7, unit: 8 }] });
    expect(names(rare)[0]).toBe('7/8');
  });

  it('keep a song that changes its meter in its own', () => {
    const changing = songOf(row(4), [[0, 'C']], { meters: [{ at: 0, beats: 3, unit: 4 }, { at: 12 * Q, beats: 6, unit: 8 }] }); // prettier-ignore
    expect(names(changing)).toEqual(['3/4']);
    const doc = documentOf(changing);
    expect(changeFacts(doc, { meter: { beats: 6, unit: 8 } }).song.meters).toEqual(changing.meters);
  });

  it('move no note, and never leave the song without a title', () => {
    const doc = demo('harbour-glass.abc');
    const changed = changeFacts(doc, {
      title: '  ',
      composer: ' ',
      tempo: 90,
      key: { tonic: 'D', mode: 'minor' },
      meter: { beats: 2, unit: 4 },
    });
    expect(changed.song).toMatchObject({ title: doc.song.title, composer: null, tempo: 90, key: { tonic: 'D', mode: 'minor' } });
    expect(changed.song.melody).toEqual(doc.song.melody);
    expect(changed.song.chords).toEqual(doc.song.chords);
    const { bars, song } = arrange(changed);
    expect(bars).toHaveLength(2 * arrange(doc).bars.length);
    expect(new Set(bars.map((b) => b.end - b.start)).size).toBe(1);
    expect(song.key).toEqual({ tonic: 'D', mode: 'minor' });
  });
});
