import { ENGLISH, phrases } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { grouped } from '../lists/grouped.js';
import { midiOf, nameOf, pitchClass } from '../pitch/pitch.js';
import { applyEdit } from '../song/edit.js';
import { removeChord, setChord, setPassage, setSuggestion } from '../song/edits.js';
import type { Song } from '../song/song.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { suggestChords, type SuggestionTask } from './suggest.js';
import { parseChord, type Chord } from './symbol.js';
import { VOCABULARIES } from './wishes.js';
import { poseSuggestion } from './suggest.js';
import { keyChords } from './vocabulary.js';

const C = { tonic: 'C', mode: 'major' } as const;
const taskOf = (song: Song, more: Partial<SuggestionTask> = {}): SuggestionTask => ({
  tune: song.melody,
  bars: layBars(song),
  key: song.key,
  tempo: song.tempo,
  vocabulary: 'triads',
  rhythm: 'proposed',
  from: 0,
  to: song.length,
  ends: [song.length],
  fixed: new Map(),
  ...more,
});
const symbols = (song: Song, more: Partial<SuggestionTask> = {}) => suggestChords(taskOf(song, more)).map((c) => c.symbol);
const tune = (...notes: [string, number][]) => songOf(notes);

/** A plain tune of eight bars that rises to the fifth, opens on the dominant and comes home. */
const plain = tune(
  ...(['C5 E5 G5 E5', 'A5 F5 A5 F5', 'G5 E5 C5 E5', 'D5 B4 D5 D5'].flatMap((bar) => bar.split(' ').map((p) => [p, 1])) as [
    string,
    number,
  ][]),
  ...(['C5 E5 G5 E5', 'A5 F5 D5 F5', 'G5 F5 D5 B4'].flatMap((bar) => bar.split(' ').map((p) => [p, 1])) as [string, number][]),
  ['C5', 4],
);

/** The least that any row of states over three places costs, and what the row that the search found costs. */
function tried(task: SuggestionTask): { least: number; found: number; row: string } {
  const { places, states, own, step } = poseSuggestion(task);
  const chosen = suggestChords(task);
  const row = places.map(({ from }) => chosen.findLast((c) => c.at <= from)?.symbol ?? '');
  let [least, found] = [Infinity, Infinity];
  for (const a of states[0])
    for (const b of states[1]) {
      const before = own(0, a) + own(1, b) + step(1, a, b);
      for (const c of states[2]) {
        const cost = before + own(2, c) + step(2, b, c);
        least = Math.min(least, cost);
        // Rows of equal cost may differ in their chords: what the search found must cost no more than the least.
        if (a.symbol === row[0] && b.symbol === row[1] && c.symbol === row[2]) found = Math.min(found, cost);
      }
    }
  return { least, found, row: row.join(' ') };
}

describe('suggested chords', () => {
  it('are what a plain tune asks for', () => {
    expect(symbols(plain, { vocabulary: 'three', ends: [16 * Q, 32 * Q] })).toEqual(['C', 'F', 'C', 'G', 'C', 'F', 'G', 'C']);
    expect(symbols(plain, { vocabulary: 'sevenths', ends: [16 * Q, 32 * Q] }).slice(-2)).toEqual(['G7', 'C']);
  });

  it('cost the least of all rows of chords: exhaustive search agrees', () => {
    const pitches = fc.array(fc.constantFrom('C5', 'D5', 'E5', 'F#5', 'G5', 'Ab5', 'B4'), { minLength: 3, maxLength: 3 });
    fc.assert(
      fc.property(pitches, fc.boolean(), fc.boolean(), (notes, ends, pinned) => {
        const song = tune(...notes.map((p): [string, number] => [p, 4]));
        const fixed = new Map(pinned ? [[4 * Q, 'Ebmaj7']] : []);
        const task = taskOf(song, { vocabulary: 'three', rhythm: 'bar', ends: ends ? [8 * Q, 12 * Q] : [], fixed });
        const { least, found, row } = tried(task);
        expect(found, row).toBeCloseTo(least, 6);
      }),
      { numRuns: 25 },
    );
  });

  it('cost the least at any pace: exhaustive search agrees, over bars of one count and parts that may turn', () => {
    const pitches = fc.array(fc.constantFrom('C5', 'D5', 'E5', 'F5', 'G5', 'A5', 'B4'), { minLength: 3, maxLength: 3 });
    fc.assert(
      fc.property(pitches, fc.constantFrom(40, 90, 200), fc.boolean(), (notes, tempo, parts) => {
        const song = songOf(
          notes.map((p): [string, number] => [p, 1]),
          [],
          { tempo, meters: [{ at: 0, beats: 1, unit: 4 }] },
        );
        const { least, found, row } = tried(taskOf(song, { vocabulary: 'three', ends: parts ? [Q, 3 * Q] : [3 * Q] }));
        expect(found, row).toBeCloseTo(least, 6);
      }),
      { numRuns: 6 },
    );
  });

  it('use only the vocabulary asked for, and change no more often', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 8 }),
        fc.constantFrom(...VOCABULARIES),
        fc.constantFrom('bar', 'half', 'beat'),
        (song, vocabulary, rhythm) => {
          const bars = layBars(song);
          const own = suggestChords(taskOf(song, { vocabulary, rhythm }));
          for (const { at, symbol, key } of own) {
            expect(keyChords(key, vocabulary).map((c) => c.symbol)).toContain(symbol);
            if (rhythm === 'bar') expect(bars.some((b) => b.start === at)).toBe(true);
          }
          expect(own.length).toBeGreaterThan(0);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('hear a stretch in another key where the tune goes there', () => {
    const bars =
      'C5 E5 G5 E5 | D5 B4 C5 C5 | A5 F#5 D5 F#5 | G5 B4 D5 G5 | F#5 E5 D5 A5 | B5 A5 F#5 D5 | A5 F#5 E5 F#5 | G5 G5 G5 G5';
    const home = 'C5 E5 G5 E5 | F5 A5 F5 D5 | G5 F5 D5 B4 | C5 C5 C5 C5';
    const wanders = tune(...`${bars} | ${home}`.split(/[ |]+/).map((p): [string, number] => [p, 1]));
    const keys = suggestChords(taskOf(wanders, { vocabulary: 'sevenths' })).map((c) => c.key.tonic);
    expect(keys).toContain('G');
    expect(keys.at(-1)).toBe('C');
  });

  it('are borrowed where the tune has their note: the dominant of the dominant, and the minor fourth', () => {
    const over = (third: string) =>
      symbols(tune(...`C5 E5 G5 E5 | ${third} | D5 B4 G4 B4 | C5 C5 C5 C5`.split(/[ |]+/).map((p): [string, number] => [p, 1])), {
        vocabulary: 'rich',
        rhythm: 'bar',
      });
    expect(over('F#5 A5 F#5 D5')[1]).toBe('D7');
    expect(over('Ab5 F5 C5 Ab5')[1]).toBe('Fm');
    expect(over('A5 F5 C5 A5')[1]).toMatch(/^F/);
  });

  it('know a suspension by how it resolves: the chord is that of the note it falls to', () => {
    const song = tune(['E5', 2], ['C5', 2], ['C5', 2], ['B4', 2], ['C5', 4]);
    expect(symbols(song, { vocabulary: 'three', rhythm: 'bar' })).toEqual(['C', 'G', 'C']);
  });

  it('know an appoggiatura: what is leapt to and leans on the next note does not ask for a chord of its own', () => {
    const bars = (second: string) => `C5 E5 G5 C5 | ${second} | D5 B4 G4 B4 | C5 C5 C5 C5`.split(/[ |]+/);
    const over = (second: string) =>
      symbols(tune(...bars(second).map((p): [string, number] => [p, 1])), { vocabulary: 'three', rhythm: 'bar' });
    expect(over('F5 E5 C5 G4')).toEqual(['C', 'G', 'C']);
    expect(over('F5 A5 C5 F5')).toEqual(['C', 'F', 'G', 'C']);
  });

  it('give the diminished seventh degree as the dominant in first inversion', () => {
    expect(keyChords(C, 'triads').map((c) => c.symbol)).toEqual(['C', 'F', 'G', 'Am', 'Dm', 'Em', 'G/B']);
    expect(keyChords({ tonic: 'A', mode: 'minor' }, 'triads').map((c) => c.symbol)).toContain('E/G#');
  });

  it('hold the chords that richer vocabularies name', () => {
    const rich = keyChords(C, 'rich').map((c) => c.symbol);
    for (const symbol of ['D7', 'E7', 'A7', 'Fm', 'F#m7b5', 'C#dim7', 'Db7']) expect(rich).toContain(symbol);
    for (const key of [C, { tonic: 'F#', mode: 'major' } as const, { tonic: 'Eb', mode: 'minor' } as const])
      for (const { symbol } of keyChords(key, 'rich')) expect(parseChord(symbol).kind).toBe('chord');
  });
});

describe('suggestions in a song', () => {
  const bare = documentOf(plain);
  const row = (doc: typeof bare) => arrange(doc).song.chords.map((c) => c.symbol);

  it('come by themselves for a bare tune, and bend around what the pianist writes', () => {
    const written = setChord(bare, 4 * Q, 'Dm7');
    expect(row(written)[1]).toBe('Dm7');
    expect(
      arrange(written)
        .parts.flatMap((p) => p.chords)
        .find((c) => c.at === 4 * Q)?.source,
    ).toBe('chosen');
    const left = removeChord(written, 4 * Q);
    expect(arrange(left).song.chords.some((c) => c.at === 4 * Q)).toBe(false);
  });

  it('replace given chords in one part only, and give way again', () => {
    const doc = demo('harbour-glass.abc');
    const [, part] = arrange(doc).parts;
    const asked = setPassage(doc, part, { suggest: { vocabulary: 'three', rhythm: 'bar' } });
    const inside = (c: { at: number }) => c.at >= part.start && c.at < part.end;
    const after = arrange(asked).song.chords;
    expect(after.filter((c) => !inside(c))).toEqual(doc.song.chords.filter((c) => !inside(c)));
    expect(after.filter(inside).every((c) => ['F', 'Bb', 'C'].includes(c.symbol))).toBe(true);
    expect(arrange(setPassage(asked, part, { suggest: null })).song.chords).toEqual(doc.song.chords);
  });

  it('replace the chords of the whole song on request', () => {
    const doc = setSuggestion(demo('harbour-glass.abc'), { vocabulary: 'three', rhythm: 'bar' });
    const given = new Set(demo('harbour-glass.abc').song.chords.map((c) => c.symbol));
    expect(row(doc).every((symbol) => (parseChord(symbol) as Chord).tones.length === 3)).toBe(true);
    expect(row(doc).some((symbol) => given.has(symbol))).toBe(false);
    expect(row(setSuggestion(doc, null))).toEqual(doc.song.chords.map((c) => c.symbol));
  });

  it('leave three ranked others with reasons at every place, given or suggested', () => {
    for (const doc of [bare, demo('harbour-glass.abc')])
      for (const chord of arrange(doc).parts.flatMap((p) => p.chords)) {
        expect(chord.otherChords).toHaveLength(3);
        // Different chords, not other kinds of one.
        const roots = [chord.symbol, ...chord.otherChords.map((o) => o.symbol)].map((s) => (parseChord(s) as Chord).root);
        expect(new Set(roots.map(pitchClass)).size).toBe(4);
        const costs = chord.otherChords.map((o) => o.cost);
        expect([...costs].sort((a, b) => a - b)).toEqual(costs);
        for (const other of chord.otherChords) {
          expect(other.symbol).not.toBe(chord.symbol);
          expect(other.why[0].code).toBe('chord.holds');
          expect(phrases(other.why, ENGLISH)).toMatch(/^It has .+\.$/);
        }
        expect(chord.chordWhy.length).toBeGreaterThan(0);
      }
  });
});

describe('conflicts between tune and chord', () => {
  const over = (note: string, symbol: string, length = 4) => documentOf(songOf([[note, length]], [[0, symbol]]));
  const conflict = (doc: ReturnType<typeof over>) => arrange(doc).findings.find((f) => f.rule === 'conflict');
  const words = (doc: ReturnType<typeof over>) => ENGLISH.fact(conflict(doc)?.fact ?? { code: 'finding.no-chords' });

  it('are a half step above a chord note, or a third that contradicts', () => {
    expect(words(over('C5', 'Em'))).toBe('Bar 1, count 1: the melody’s C5 clashes with B3, an octave and a half step below it.');
    expect(words(over('Eb5', 'C'))).toMatch(/^Bar 1, count 1: the melody’s Eb5 contradicts E\d, the third of C\.$/);
    expect(conflict(over('G5', 'C'))).toBeUndefined();
    expect(conflict(over('Ab5', 'G7b9'))).toBeUndefined();
  });

  it('come with fixes in the order of the trade, and each of them mends it', () => {
    const doc = over('C5', 'Em');
    const fixes = conflict(doc)?.fixes ?? [];
    const order = ['use another inversion', 'leave out B', 'use the chord with', 'change the kind', 'change the chord'];
    const texts = fixes.map((f) => ENGLISH.fact(f.fact));
    const places = texts.map((text) => order.findIndex((o) => text.startsWith(o)));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(texts).toContain('use the chord with the melody’s note: C/E');
    expect(fixes.length).toBeGreaterThanOrEqual(4);
    for (const { action } of fixes) expect(action && conflict(applyEdit(doc, action))).toBeUndefined();
  });

  it('mend what they name in random songs', () => {
    fc.assert(
      fc.property(songs({ maxBars: 4 }), (song) => {
        const doc = documentOf(song);
        for (const f of arrange(doc).findings.filter((x) => x.rule === 'conflict'))
          for (const { action } of f.fixes) {
            const after = arrange(applyEdit(doc, action as NonNullable<typeof action>));
            const still = after.findings.filter((x) => x.rule === 'conflict' && x.chordAt === f.chordAt);
            if (action?.code === 'edit.voicing') expect(still).toEqual([]);
          }
      }),
      { numRuns: 40 },
    );
  });

  it('are let go where the note only passes', () => {
    const passing = songOf(
      [
        ['B4', 1.5],
        ['C5', 0.5],
        ['D5', 2],
      ],
      [[0, 'Em']],
    );
    expect(conflict(documentOf(passing))).toBeUndefined();
  });
});

describe('a chord that passes too fast', () => {
  const quick = (tempo: number) =>
    documentOf(
      songOf(
        [['E5', 8]],
        [
          [0, 'C'],
          [3.5, 'Ab7'],
          [4, 'G'],
        ],
        { tempo },
      ),
    );

  it('is offered for skipping, and is gone when skipped', () => {
    const found = arrange(quick(90)).findings.find((f) => f.rule === 'fast');
    expect(found && ENGLISH.fact(found.fact)).toContain('Ab7 at bar 1, count 4 & lasts 0.3 s');
    const action = found?.fixes[0].action;
    const after = arrange(applyEdit(quick(90), action as NonNullable<typeof action>));
    expect(after.song.chords.map((c) => c.symbol)).toEqual(['C', 'G']);
    expect(arrange(quick(50)).findings.some((f) => f.rule === 'fast')).toBe(false);
  });
});

describe('a right hand that stays', () => {
  const doc = demo('lamps-across-the-sound.letters');
  const [, part] = arrange(doc).parts;
  const staying = (
    notes: 'tonic' | 'fifth' | 'both' | 'together',
    figure: 'held' | 'counts' | 'off-beats' | 'long-short' | 'rocking',
  ) => arrange(setPassage(doc, part, { stay: { notes, figure } }));

  it('plays one note, or two by turns, while the chords go on under it', () => {
    const names = (a: ReturnType<typeof arrange>) => new Set(a.parts[1].melody.map((n) => nameOf(n.pitch)));
    expect(names(staying('tonic', 'counts'))).toEqual(new Set(['G']));
    expect(names(staying('fifth', 'counts'))).toEqual(new Set(['D']));
    expect(names(staying('both', 'counts'))).toEqual(new Set(['G', 'D']));
    expect(staying('tonic', 'counts').parts[1].chords.map((c) => c.symbol)).toEqual(
      arrange(doc).parts[1].chords.map((c) => c.symbol),
    );
    expect(staying('tonic', 'counts').parts[2].melody).toEqual(arrange(doc).parts[2].melody);
  });

  it('holds both notes at once where that is asked for, under one hand', () => {
    const both = staying('together', 'counts');
    const struck = both.score.filter((n) => n.part === 2 && n.hand === 'right');
    const moments = grouped(struck, (n) => n.at);
    for (const notes of moments.values()) {
      expect(notes.map((n) => nameOf(n.pitch)).sort()).toEqual(['D', 'G']);
      expect(Math.abs(midiOf(notes[0].pitch) - midiOf(notes[1].pitch))).toBeLessThan(12);
      expect(new Set(notes.map((n) => n.finger)).size).toBe(2);
    }
    expect(moments.size).toBe(staying('tonic', 'counts').parts[1].melody.length);
  });

  it('has its rhythm figure within the part, no note over another', () => {
    const counts = { held: 4, counts: 12, 'off-beats': 12, 'long-short': 24, rocking: 24 } as const;
    for (const figure of ['held', 'counts', 'off-beats', 'long-short', 'rocking'] as const) {
      const { melody } = staying('tonic', figure).parts[1];
      expect(melody.length).toBeGreaterThanOrEqual(counts[figure] - 1);
      melody.forEach((n, i) => {
        expect(n.at >= part.start && n.at + n.length <= part.end).toBe(true);
        if (i > 0) expect(n.at).toBeGreaterThanOrEqual(melody[i - 1].at + melody[i - 1].length);
      });
    }
  });

  it('leaves the division as it was', () => {
    expect(staying('tonic', 'held').parts.map((p) => [p.start, p.end])).toEqual(arrange(doc).parts.map((p) => [p.start, p.end]));
    expect(staying('tonic', 'held').parts[1].melody.every((n) => midiOf(n.pitch) % 12 === pitchClass('G'))).toBe(true);
  });
});
