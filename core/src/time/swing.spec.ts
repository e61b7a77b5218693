import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { documentOf, essence, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { readMusicXml, readProject, writeMidi, writeMusicXml, writeProject } from '../formats/index.js';
import { notesOf } from '../practice/score.js';
import { writtenScore } from '../sheet/written.js';
import { applyEdit } from '../song/edit.js';
import { layBars } from './bars.js';
import { FEELS, heardIn, swingShare, swung, unswung } from './swing.js';
import { TICKS_PER_QUARTER as Q } from './ticks.js';

const fourFour = layBars({ length: 16 * Q, pickup: 0, meters: [{ at: 0, beats: 4, unit: 4 }] });
const sixEight = layBars({ length: 12 * Q, pickup: 0, meters: [{ at: 0, beats: 6, unit: 8 }] });
const EIGHTHS = songOf(
  Array.from({ length: 16 }, (_, i) => [i % 2 ? 'D5' : 'C5', 0.5] as const),
  [[0, 'C']],
  { tempo: 120 },
);
const swinging = applyEdit(documentOf(EIGHTHS), { code: 'edit.feel', feel: 'swing' });

describe('eighth notes that swing', () => {
  it('are two to one up to a medium tempo, ever more even where it is quick, and halfway in a light swing', () => {
    expect(FEELS.map((feel) => swingShare(feel, 100))).toEqual([0.5, (2 / 3 + 0.5) / 2, 2 / 3]);
    for (let tempo = 40; tempo < 400; tempo += 10) {
      const [straight, light, full] = FEELS.map((feel) => swingShare(feel, tempo));
      expect(straight).toBe(0.5);
      expect(light).toBeGreaterThan(0.5);
      expect(full).toBeGreaterThan(light);
      expect(full).toBeLessThanOrEqual(swingShare('swing', tempo - 10));
    }
  });

  it('leave beats and triplets where they are, keep what is written in order, and lead back', () => {
    const place = fc.record({
      beat: fc.integer({ min: 0, max: 14 }),
      part: fc.constantFrom(0, 1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4),
    });
    fc.assert(
      fc.property(place, place, fc.constantFrom(...FEELS), fc.integer({ min: 50, max: 300 }), (a, b, feel, tempo) => {
        const share = swingShare(feel, tempo);
        const [x, y] = [a, b].map(({ beat, part }) => Math.round((beat + part) * Q));
        const [heardX, heardY] = [x, y].map((at) => swung(at, fourFour, share));
        if (a.part === 0 || a.part * 3 === Math.round(a.part * 3)) expect(heardX).toBe(x);
        else expect(unswung(heardX, fourFour, share)).toBeCloseTo(x, 3);
        // Triplets beside swung sixteenths come together at the closest.
        if (x < y) expect(heardX).toBeLessThanOrEqual(heardY + 1e-6);
      }),
    );
  });

  it('are even in six-eight', () => {
    for (let at = 0; at < 6 * Q; at += Q / 4) expect(swung(at, sixEight, 2 / 3)).toBe(at);
  });

  it('are heard so, asked for so in rehearsal, and written so to MIDI', () => {
    const arrangement = arrange(swinging);
    const heard = notesOf(arrangement, { from: 0, to: 2 * Q, hands: 'right', plain: true }).map((n) => n.at);
    expect(heard.map((at) => Math.round(at * 100) / 100)).toEqual([0, 0.67, 1, 1.67]);
    const even = notesOf(arrange(documentOf(EIGHTHS)), { from: 0, to: 2 * Q, hands: 'right', plain: true }).map((n) => n.at);
    expect(even).toEqual([0, 0.5, 1, 1.5]);
    const bytes = (doc: typeof swinging) => {
      const a = arrange(doc);
      return writeMidi(a.song, a.score, a.pedal, a.tempo, heardIn(a));
    };
    expect(bytes(swinging)).not.toEqual(bytes(documentOf(EIGHTHS)));
  });

  it('stand in a score as even eighths under the word', () => {
    const xml = writeMusicXml(writtenScore(arrange(swinging)));
    expect(xml).toContain('<swing><first>67</first><second>33</second><swing-type>eighth</swing-type></swing>');
    const back = readMusicXml(xml);
    expect(back.ok && essence(back.song)).toEqual(essence(EIGHTHS));
    expect(writeMusicXml(writtenScore(arrange(documentOf(EIGHTHS))))).not.toContain('swing');
  });

  it('change nothing else of any song, and are kept with it', () => {
    fc.assert(
      fc.property(songs({ maxBars: 3 }), fc.constantFrom(...FEELS), (song, feel) => {
        const doc = applyEdit(documentOf(song), { code: 'edit.feel', feel });
        const { swing, ...rest } = arrange(doc);
        const { swing: even, ...plain } = arrange(documentOf(song));
        expect(rest).toEqual(plain);
        expect([even, swing > 0.5]).toEqual([0.5, feel !== 'straight']);
        const kept = readProject(writeProject(doc));
        expect(kept.ok && kept.document.choices.feel).toBe(feel);
      }),
      { numRuns: 25 },
    );
  });
});
