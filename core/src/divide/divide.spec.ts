import { repeatWords } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { noChoices } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import { layBars } from '../time/bars.js';
import { barTicks } from '../time/meter.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { findBoundaries } from './boundaries.js';
import { divide } from './divide.js';
import { placesOf, stretchCost } from './divide.js';

const SIZES = ['smaller', 'usual', 'larger'] as const;
const starts = (song: Song, partSize: (typeof SIZES)[number] = 'usual') =>
  divide(song, layBars(song), { partSize, parts: [] }).map((s) => s.start / Q);

describe('dividing', () => {
  it('tiles every song exactly, whatever the size and the cuts of the pianist', () => {
    fc.assert(
      fc.property(songs(), fc.constantFrom(...SIZES), fc.array(fc.nat(40), { maxLength: 4 }), (song, partSize, cuts) => {
        const edges = [...new Set(cuts.map((c) => Math.min(c * Q, song.length)))].sort((a, b) => a - b);
        const parts = edges.flatMap((e, i) => (i % 2 === 0 && edges[i + 1] > e ? [{ start: e, end: edges[i + 1] }] : []));
        const stretches = divide(song, layBars(song), { partSize, parts });
        expect(stretches[0].start).toBe(0);
        expect(stretches[stretches.length - 1].end).toBe(song.length);
        stretches.slice(1).forEach((s, i) => expect(s.start).toBe(stretches[i].end));
        for (const s of stretches) expect(s.end).toBeGreaterThan(s.start);
        for (const p of parts) expect(stretches).toContainEqual({ ...p, reasons: [{ code: 'boundary.yours' }] });
      }),
    );
  });

  it('is the exact minimum over every way to cut', () => {
    fc.assert(
      fc.property(songs({ maxBars: 3 }), fc.constantFrom(...SIZES), (song, size) => {
        const bars = layBars(song);
        const bar = barTicks(song.meters[0]);
        const places = placesOf(song, findBoundaries(song, bars).slice(0, 11), 0, song.length);
        const inside = places.slice(1, -1);
        const costOf = (chosen: readonly (typeof places)[number][]) =>
          chosen.slice(1).reduce((sum, p, i) => sum + stretchCost(chosen[i], p, bar, size), 0);
        let best = Infinity;
        for (let set = 0; set < 1 << inside.length; set++) {
          const chosen = [places[0], ...inside.filter((_, i) => set & (1 << i)), places[places.length - 1]];
          best = Math.min(best, costOf(chosen));
        }
        if (findBoundaries(song, bars).length > 11) return;
        const cuts = new Set(divide(song, bars, { partSize: size, parts: [] }).map((s) => s.start));
        const found = places.filter((p) => cuts.has(p.at) || p.at === song.length);
        expect(costOf(found)).toBeCloseTo(best, 6);
      }),
      { numRuns: 60 },
    );
  });

  it('cuts the demo songs at their printed phrases', () => {
    const lamps = demo('lamps-across-the-sound.letters').song;
    expect(starts(lamps)).toEqual([0, 12, 24, 36, 48]);
    const glass = demo('harbour-glass.abc').song;
    expect(starts(glass)).toEqual([0, 16, 32, 48, 64, 80, 96, 112]);
    const nettle = demo('all-aboard-for-nettle-point.musicxml').song;
    expect(starts(nettle)).toEqual([0, 8, 16, 24]);
  });

  it('gives more parts when they should be smaller and fewer when larger', () => {
    const { song } = demo('harbour-glass.abc');
    expect(starts(song, 'smaller').length).toBeGreaterThan(starts(song).length);
    expect(starts(song, 'larger').length).toBeLessThan(starts(song).length);
  });

  it('lets a pick-up lead into its phrase and a rest end one', () => {
    const phrase: [string | null, number][] = [
      ['G4', 1],
      ['C5', 1],
      ['E5', 1],
      ['D5', 1],
      ['C5', 1],
      ['D5', 1],
      ['C5', 1],
      [null, 1],
    ];
    const song = songOf([...phrase, ...phrase], [], { pickup: Q });
    const boundary = findBoundaries(song, layBars(song)).reduce((best, b) => (b.strength > best.strength ? b : best));
    expect(boundary.at / Q).toBe(8);
    expect(boundary.terms.map((t) => t.term)).toEqual(expect.arrayContaining(['usualPickup', 'rest']));
    expect(boundary.terms.reduce((sum, t) => sum + t.worth, 0)).toBe(boundary.strength);
  });

  it('never cuts inside a word when it can help it', () => {
    const words = ['sail', 'ing', 'on', 'and', 'home', 'a', 'gain', 'now'];
    const song = songOf(words.map(() => ['C5', 1] as const));
    song.melody.forEach((n, i) => (n.lyric = { text: words[i], joins: i === 3 }));
    expect(starts(song, 'smaller')).not.toContain(4);
  });
});

describe('repeats', () => {
  it('are recognised note for note and chord for chord, and share a letter', () => {
    const { parts } = arrange(demo('harbour-glass.abc'));
    expect(parts.map((p) => p.label).join(' ')).toBe('A B A B′ C D A B′');
    expect(parts[2].repeats).toEqual({ part: 1, kind: 'exact', differsFrom: null, steps: null });
    expect(parts[7].repeats?.part).toBe(4);
    expect(parts[1].repeats).toBeNull();
  });

  it('are not claimed when a chord differs', () => {
    const four: [string, number][] = [
      ['C5', 1],
      ['D5', 1],
      ['E5', 1],
      ['C5', 1],
    ];
    const song = songOf(
      [...four, ...four],
      [
        [0, 'C'],
        [4, 'Am'],
      ],
    );
    const choices = {
      ...noChoices(),
      parts: [
        { start: 0, end: 4 * Q },
        { start: 4 * Q, end: 8 * Q },
      ],
    };
    expect(arrange({ ...documentOf(song), choices }).parts.map((p) => p.label)).toEqual(['A', 'B']);
  });
});

describe('near repeats', () => {
  const figure: [string, number][] = [
    ['C5', 1],
    ['D5', 0.5],
    ['E5', 0.5],
    ['F5', 1],
    ['G5', 1],
    ['E5', 2],
    ['C5', 2],
  ];
  const second = (notes: [string, number][], chords: [number, string][] = []) => {
    const song = songOf([...figure, ...notes], [[0, 'C'], [4, 'F'], [8, 'C'], [12, 'F'], ...chords]);
    const doc = documentOf(song);
    const parts = [
      { start: 0, end: 8 * Q },
      { start: 8 * Q, end: song.length },
    ];
    return arrange({ ...doc, choices: { ...doc.choices, parts } }).parts[1];
  };
  const words = (part: ReturnType<typeof second>) =>
    part.repeats && repeatWords({ ...part.repeats, fromBar: ((part.repeats.differsFrom ?? 0) - part.start) / Q });

  it('a copy with another ending, with the place where it differs', () => {
    const part = second([...figure.slice(0, 6), ['A5', 2]]);
    expect(part.repeats).toEqual({ part: 1, kind: 'new-ending', differsFrom: 14 * Q, steps: null });
    expect([part.label, words(part)]).toEqual(['A′', 'same as part 1 up to bar 6']);
  });

  it('the same tune over other chords from some place on', () => {
    expect(second(figure, [[13, 'Dm']]).repeats).toMatchObject({ kind: 'new-ending', differsFrom: 13 * Q });
  });

  it('the same a third higher', () => {
    const higher = second([
      ['E5', 1],
      ['F5', 0.5],
      ['G5', 0.5],
      ['A5', 1],
      ['B5', 1],
      ['G5', 2],
      ['E5', 2],
    ]);
    expect([higher.repeats?.kind, higher.repeats?.steps, words(higher)]).toEqual(['transposed', 2, 'part 1, a third higher']);
  });

  it('the same rhythm on other notes, the last one as long as it likes', () => {
    const same = second([
      ['G5', 1],
      ['E5', 0.5],
      ['C5', 0.5],
      ['D5', 1],
      ['A5', 1],
      ['B4', 2],
      ['C5', 4],
    ]);
    expect([same.repeats?.kind, same.label, words(same)]).toEqual(['same-rhythm', 'B', 'same rhythm as part 1']);
  });

  it('nothing where too little is alike', () => {
    expect(
      second([
        ['C5', 1],
        ['D5', 0.5],
        ['E5', 0.5],
        ['C5', 2],
        ['A4', 1],
        ['B4', 1],
        ['C5', 2],
      ]).repeats,
    ).toBeNull();
    expect(
      second([
        ['C5', 4],
        ['D5', 4],
      ]).repeats,
    ).toBeNull();
  });

  it('hold for random songs: what is called the same is the same', () => {
    fc.assert(
      fc.property(songs({ maxBars: 6 }), (song) => {
        const half = song.length - song.pickup;
        const twice = { ...song, length: song.length + half, melody: [...song.melody], chords: [...song.chords] };
        for (const n of song.melody) if (n.at >= song.pickup) twice.melody.push({ ...n, at: n.at + half });
        for (const c of song.chords) twice.chords.push({ ...c, at: c.at + half });
        const { parts } = arrange(documentOf(twice));
        for (const part of parts) {
          if (part.repeats === null) continue;
          const first = parts[part.repeats.part - 1];
          const until = part.repeats.kind === 'exact' ? part.end : (part.repeats.differsFrom ?? part.start);
          const inside = (p: typeof part) =>
            p.melody.filter((n) => n.at - p.start < until - part.start).map((n) => `${n.at - p.start} ${n.pitch}`);
          expect(inside(part)).toEqual(inside(first));
        }
      }),
      { numRuns: 60 },
    );
  });
});
