import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { writeMusicXml } from '../formats/index.js';
import { arrange } from '../arrange/arrange.js';
import { writtenScore } from '../sheet/written.js';
import type { Document } from '../song/decisions.js';
import { pinVoicing, setSetting } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';

/** A tune that is sung half a count ahead of the second bar, over chords on the bar lines. */
const ahead = documentOf(
  songOf(
    [
      ['C5', 2],
      ['D5', 1.5],
      ['E5', 2.5],
      ['F5', 2],
    ],
    [
      [0, 'C'],
      [4, 'Am'],
    ],
  ),
);
const struck = (doc: Document) => arrange(doc).parts.flatMap((p) => p.chords.map((c) => [c.symbol, c.at / Q, c.length / Q]));

describe('when chords come', () => {
  it('early with the note that is sung ahead, and held over the bar line', () => {
    expect(struck(ahead)).toEqual([
      ['C', 0, 4],
      ['Am', 4, 4],
    ]);
    const early = setSetting(ahead, null, 'timing', 'early');
    expect(struck(early)).toEqual([
      ['C', 0, 3.5],
      ['Am', 3.5, 4.5],
    ]);
    const [, joined] = arrange(early).parts.flatMap((p) => p.together);
    expect([joined.melody, joined.count]).toEqual(['E5', '4 &']);
  });

  it('plainly on the beat where a chord is written just ahead of one', () => {
    const song = {
      ...ahead.song,
      chords: [
        { at: 0, symbol: 'C' },
        { at: 3.5 * Q, symbol: 'Am' },
      ],
    };
    const written = documentOf(song);
    expect(struck(written)).toEqual([
      ['C', 0, 3.5],
      ['Am', 3.5, 4.5],
    ]);
    expect(struck(setSetting(written, null, 'timing', 'plain'))).toEqual([
      ['C', 0, 4],
      ['Am', 4, 4],
    ]);
  });

  it('keeps a pin with its chord wherever that is struck', () => {
    const pinned = pinVoicing(ahead, 4 * Q, ['E3', 'A3', 'C4']);
    for (const timing of ['written', 'early'] as const) {
      const { parts, findings } = arrange(setSetting(pinned, null, 'timing', timing));
      const chord = parts.flatMap((p) => p.chords)[1];
      expect([chord.pitches, chord.pinned, chord.writtenAt]).toEqual([['E3', 'A3', 'C4'], true, 4 * Q]);
      expect(findings.filter((f) => f.rule === 'pin-lost')).toEqual([]);
    }
  });

  it('is written with a tie over the bar line', () => {
    const xml = writeMusicXml(writtenScore(arrange(setSetting(ahead, null, 'timing', 'early'))));
    const second = xml.slice(xml.indexOf('<measure number="2"'));
    const left = second.slice(second.indexOf('<voice>5</voice>') - 200);
    expect(left).toContain('<tie type="stop"/>');
    expect(xml.match(/<voice>5<\/voice>/g)).toHaveLength(3 + 3 + 3);
  });
});
