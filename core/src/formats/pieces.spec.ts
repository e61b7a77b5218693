import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { songOf, songs } from '../../testing/songs.js';
import { layBars, type MeterChange } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { assemble, expandRepeats, type RawMeasure, type RawSong } from './measures.js';
import { beamsOf } from './musicxml/beams.js';
import { barEvents, noteValues, splitForTuplets } from './pieces.js';

describe('written pieces', () => {
  it('tile every bar, cut at chord changes, ties joining what was one note', () => {
    fc.assert(
      fc.property(songs(), (song) => {
        const bars = layBars(song);
        barEvents(song, bars).forEach((pieces, i) => {
          let at = 0;
          for (const p of pieces) {
            expect(p.at).toBe(at);
            at += p.length;
          }
          expect(at).toBe(bars[i].end - bars[i].start);
        });
        const flat = barEvents(song, bars).flat();
        expect(flat.filter((p) => p.pitch && !p.continues)).toHaveLength(song.melody.length);
        expect(flat.filter((p) => p.chord)).toHaveLength(song.chords.length);
        flat.forEach((p, i) => p.tiedOn && expect(flat[i + 1].continues).toBe(true));
      }),
      { numRuns: 50 },
    );
  });

  it('gather triplets and leave plain notes alone', () => {
    const song = songOf([
      ['C5', 1 / 3],
      ['D5', 1 / 3],
      ['E5', 1 / 3],
      ['F5', 1],
      ['G5', 2],
    ]);
    const groups = splitForTuplets(barEvents(song, layBars(song))[0]);
    expect(groups.map((g) => [g.tuplet?.actual ?? 1, g.pieces.length])).toEqual([
      [3, 3],
      [1, 1],
      [1, 1],
    ]);
  });

  it('write any plain length as values that add up, longest first', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 256 }), (n) => {
        const length = (n * Q) / 32;
        const values = noteValues(length);
        expect(values.reduce((sum, v) => sum + v.ticks, 0)).toBe(length);
        expect([...values].sort((a, b) => b.ticks - a.ticks)).toEqual(values);
      }),
    );
    expect(noteValues(1.5 * Q)).toMatchObject([{ type: 'quarter', dots: 1 }]);
    expect(noteValues(2.5 * Q)).toMatchObject([
      { type: 'half', dots: 0 },
      { type: 'eighth', dots: 0 },
    ]);
  });
});

describe('beams', () => {
  const beams = (...levels: number[]) =>
    beamsOf(
      levels.map((level, i) => ({ at: (i * Q) / 2, level })),
      Q,
    );

  it('join the eighths of a beat and stop at its end', () => {
    expect(beams(1, 1, 1, 1).map((b) => /begin|end|continue/.exec(b)?.[0])).toEqual(['begin', 'end', 'begin', 'end']);
  });

  it('leave a lone eighth and quarters without', () => {
    expect(beams(1, 0, 0, 1)).toEqual(['', '', '', '']);
  });

  it('give a shorter note beside a longer one a hook', () => {
    const dotted = beamsOf(
      [
        { at: 0, level: 1 },
        { at: 0.75 * Q, level: 2 },
      ],
      Q,
    );
    expect(dotted[1]).toBe('<beam number="1">end</beam><beam number="2">backward hook</beam>');
  });
});

const four = { beats: 4, unit: 4 };
const measure = (name: string, more: Partial<RawMeasure> = {}, quarters = 4): RawMeasure => ({
  name,
  length: quarters * Q,
  meter: four,
  notes: [{ at: 0, length: quarters * Q, pitches: ['C5'], tiedOn: false, lyric: null }],
  chords: [],
  marks: [],
  repeatStart: false,
  times: 1,
  endings: null,
  mayBeShort: false,
  ...more,
});
const played = (...measures: RawMeasure[]) =>
  expandRepeats(measures)
    .map((m) => m.name)
    .join(' ');

describe('repeats', () => {
  it('are played as often as they are marked', () => {
    expect(played(measure('1', { repeatStart: true }), measure('2', { times: 3 }), measure('3'))).toBe('1 2 1 2 1 2 3');
  });

  it('take first and second endings in turn, also of more than one bar', () => {
    const song = [
      measure('1', { repeatStart: true }),
      measure('2', { endings: [1] }),
      measure('3', { endings: [1], times: 2 }),
      measure('4', { endings: [2] }),
      measure('5', { endings: [2] }),
      measure('6'),
    ];
    expect(played(...song)).toBe('1 2 3 1 4 5 6');
  });

  it('start again after a second ending that repeats something else', () => {
    const song = [
      measure('1', { repeatStart: true }),
      measure('2', { endings: [1], times: 2 }),
      measure('3', { endings: [2] }),
      measure('4', { repeatStart: true, times: 2 }),
    ];
    expect(played(...song)).toBe('1 2 1 3 4 4');
  });

  it('serve three passes with endings for two of them', () => {
    const song = [
      measure('1', { repeatStart: true }),
      measure('2', { endings: [1, 2], times: 3 }),
      measure('3', { endings: [3] }),
    ];
    expect(played(...song)).toBe('1 2 1 2 1 3');
  });
});

describe('putting measures together', () => {
  const raw = (...measures: RawMeasure[]): RawSong => ({
    title: 'T',
    composer: null,
    tempo: 90,
    signature: 0,
    mode: null,
    measures,
    notices: [],
  });
  const meters = (list: readonly MeterChange[]) => list.map((m) => [m.at / Q, m.beats]);

  it('joins the two halves of a bar that a repeat sign cuts', () => {
    const { song } = assemble(
      raw(measure('0', {}, 1), measure('1'), measure('2', { mayBeShort: true }, 3), measure('2b', {}, 1), measure('3')),
    );
    expect(song.pickup).toBe(Q);
    expect(meters(song.meters)).toEqual([[0, 4]]);
    expect(layBars(song).map((b) => b.number)).toEqual([0, 1, 2, 3]);
  });

  it('counts a short bar before a double bar in its own meter', () => {
    const { song } = assemble(raw(measure('1'), measure('2', { mayBeShort: true }, 2), measure('3')));
    expect(meters(song.meters)).toEqual([
      [0, 4],
      [4, 2],
      [6, 4],
    ]);
  });

  it('finds the mode from the notes where only a signature is written', () => {
    const note = (pitch: string) =>
      measure('1', { notes: [{ at: 0, length: 4 * Q, pitches: [pitch], tiedOn: false, lyric: null }] });
    const minor = assemble(raw(...['A4', 'C5', 'E5', 'D5', 'A4', 'E5', 'A4'].map(note))).song.key;
    const major = assemble(raw(...['C5', 'E5', 'G5', 'D5', 'C5', 'F5', 'C5'].map(note))).song.key;
    expect([minor, major]).toEqual([
      { tonic: 'A', mode: 'minor' },
      { tonic: 'C', mode: 'major' },
    ]);
  });

  it('joins tied notes over the bar line, with the syllable of the first', () => {
    const tied = { at: 0, length: 4 * Q, pitches: ['C5'], tiedOn: true, lyric: { text: 'home', joins: false } };
    const { song } = assemble(raw(measure('1', { notes: [tied] }), measure('2'), measure('3')));
    expect(song.melody.map((n) => [n.at / Q, n.length / Q, n.lyric?.text])).toEqual([
      [0, 8, 'home'],
      [8, 4, undefined],
    ]);
  });

  it('refuses an endless pile of repeats', () => {
    const many = Array.from({ length: 900 }, (_, i) => measure(String(i), { times: 8, repeatStart: true }));
    expect(() => assemble(raw(...many))).toThrow('repeats.too-long');
  });
});
