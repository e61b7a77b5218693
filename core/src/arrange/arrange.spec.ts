import { ENGLISH, togetherWords } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf, songs } from '../../testing/songs.js';
import { fillPlaces } from '../fills/places.js';
import { midiOf } from '../pitch/pitch.js';
import { letterChart } from '../sheet/chart.js';
import { HAND_PROFILES, KEYBOARD_SIZES, KEYBOARDS, SPANS, type Document, handsOf } from '../song/decisions.js';
import { pinVoicing } from '../song/edits.js';
import { layBars } from '../time/bars.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { chartText, report } from '../words/texts/index.js';
import { arrange } from './arrange.js';
import type { Arrangement } from './arrangement.js';

const anyHands = fc
  .record({ profile: fc.constantFrom(...HAND_PROFILES), keys: fc.constantFrom(...KEYBOARD_SIZES) })
  .map(({ profile, keys }) => handsOf(profile, keys));

/** An independent look for hands in each other's way: every pair of notes that sound together. */
function clashes(arrangement: Arrangement): { chordAt: number; kind: string }[] {
  const right = arrangement.score.filter((n) => n.hand === 'right');
  return arrangement.score
    .filter((n) => n.hand === 'left')
    .flatMap((l) =>
      right
        .filter((r) => r.at < l.at + l.length && l.at < r.at + r.length && midiOf(r.pitch) - midiOf(l.pitch) < 3)
        .map((r) => ({ chordAt: l.at, kind: `${r.pitch} over ${l.pitch}` })),
    );
}

describe('arrange', () => {
  it('keeps every chord within the hand and every key on the keyboard', () => {
    fc.assert(
      fc.property(songs(), anyHands, (song, hands) => {
        const { parts, score, findings } = arrange({ ...documentOf(song), hands });
        for (const chord of parts.flatMap((p) => p.chords)) {
          const midis = chord.pitches.map(midiOf);
          expect(midis[midis.length - 1] - midis[0]).toBeLessThanOrEqual(SPANS[hands.profile].limit);
          expect(chord.fingers).toHaveLength(chord.pitches.length);
        }
        const { low, high } = KEYBOARDS[hands.keys];
        for (const n of score) {
          expect(midiOf(n.pitch)).toBeGreaterThanOrEqual(low);
          expect(midiOf(n.pitch)).toBeLessThanOrEqual(high);
        }
        expect(findings.filter((f) => f.rule === 'reach' || f.rule === 'keyboard')).toEqual([]);
      }),
    );
  });

  it('loses no note, no chord and no bar', () => {
    fc.assert(
      fc.property(songs(), (song) => {
        const { parts, score } = arrange(documentOf(song));
        expect(parts.flatMap((p) => p.melody.map(({ finger: _, stops: __, ...note }) => note))).toEqual(song.melody);
        expect(score.filter((n) => n.role === 'melody').map((n) => [n.at, n.length, n.pitch])).toEqual(
          song.melody.map((n) => [n.at, n.length, n.pitch]),
        );
        const struck = parts.flatMap((p) => p.chords).filter((c) => song.chords.some((s) => s.at === c.at));
        expect(struck.map((c) => [c.at, c.symbol])).toEqual(
          song.chords.filter((c) => c.symbol !== 'N.C.').map((c) => [c.at, c.symbol]),
        );
        parts.forEach((p, i) => expect(p.number).toBe(i + 1));
      }),
    );
  });

  it('reports every place where the hands meet too closely', () => {
    fc.assert(
      fc.property(songs(), anyHands, (song, hands) => {
        const arrangement = arrange({ ...documentOf(song), hands });
        const told = new Set(arrangement.findings.filter((f) => f.rule.startsWith('collision')).map((f) => f.chordAt));
        expect(new Set(clashes(arrangement).map((c) => c.chordAt))).toEqual(told);
      }),
    );
  });

  it('names same key, crossing and closeness apart', () => {
    const song = songOf(
      [
        ['G3', 4],
        ['E3', 4],
        ['A3', 4],
      ],
      [
        [0, 'C'],
        [4, 'C'],
        [8, 'C'],
      ],
    );
    const pinned = [0, 4, 8].reduce((d, at) => pinVoicing(d, at * Q, ['C3', 'E3', 'G3']), documentOf(song));
    const rules = arrange(pinned).findings.filter((f) => f.rule.startsWith('collision'));
    expect(rules.map((f) => [f.rule, f.severity])).toEqual([
      ['collision-same-key', 'fix'],
      ['collision-same-key', 'fix'],
      ['collision-close', 'warn'],
    ]);
    expect(ENGLISH.fact(rules[0].fact)).toBe('Bar 1, count 1: both hands need G3.');
    expect(rules[0].part).toBe(1);
  });

  it('gives the same bytes for the same document', () => {
    for (const name of DEMOS) {
      const document = demo(name);
      const once = JSON.stringify(arrange(document));
      expect(JSON.stringify(arrange(JSON.parse(JSON.stringify(document)) as Document))).toBe(once);
    }
  });

  it('writes a tune that runs off a short keyboard an octave down, and says so', () => {
    const song = songOf(
      [
        ['C6', 2],
        ['E6', 2],
      ],
      [[0, 'C']],
    );
    const { score, findings } = arrange({ ...documentOf(song), hands: handsOf('medium', 49) });
    expect(score.filter((n) => n.role === 'melody').map((n) => n.pitch)).toEqual(['C5', 'E5']);
    expect(ENGLISH.fact(findings[0].fact)).toContain(
      'E6 at bar 1, count 3 is off a 49-key keyboard, so the whole melody is written an octave lower.',
    );
  });

  it('says so when chords were suggested or there is nothing to find any for, and keeps text that names none', () => {
    const bare = arrange(documentOf(songOf([['C5', 4]])));
    expect(bare.findings.map((f) => ENGLISH.fact(f.fact))).toEqual([
      'This song came without chords: one chord was suggested for its melody.',
    ]);
    expect(bare.parts[0].chords.map((c) => [c.symbol, c.source])).toEqual([['C', 'suggested']]);
    expect(arrange(documentOf(songOf([[null, 4]]))).findings.map((f) => f.rule)).toEqual(['no-chords']);
    const odd = arrange(documentOf(songOf([['C5', 4]], [[0, 'A Neapolitan']])));
    expect(odd.findings.map((f) => f.rule)).toEqual(['chord-unread']);
    expect(odd.song.chords[0].symbol).toBe('A Neapolitan');
  });

  it('rests the left hand at N.C.', () => {
    const { parts } = arrange(
      documentOf(
        songOf(
          [
            ['C5', 4],
            ['D5', 4],
          ],
          [
            [0, 'C'],
            [4, 'N.C.'],
          ],
        ),
      ),
    );
    expect(parts.flatMap((p) => p.chords).map((c) => c.at)).toEqual([0]);
  });
});

describe('together', () => {
  const song = songOf(
    [
      ['C5', 3],
      ['D5', 1],
      [null, 2],
      ['E5', 2],
    ],
    [
      [0, 'C'],
      [2, 'F'],
      [4, 'G'],
    ],
  );
  const { parts } = arrange(documentOf(song));
  const points = parts.flatMap((p) => p.together);

  it('pairs every left-hand attack with the note struck on it, or says that it falls between', () => {
    expect(points.map((t) => [t.at / Q, t.melody, t.under, t.count])).toEqual([
      [0, 'C5', null, '1'],
      [2, null, 'C5', '3'],
      [4, null, null, '1'],
    ]);
  });

  it('says it in words', () => {
    expect(points.map((t) => togetherWords(t, ENGLISH))).toEqual([
      'C5 with C major on 1.',
      'F major comes on 3, while C5 is held.',
      'G major alone on 1.',
    ]);
  });
});

describe('room for fills', () => {
  it('is found where the tune holds or rests for two counts', () => {
    const song = songOf([
      ['C5', 1],
      ['D5', 3],
      ['E5', 1],
      [null, 3],
    ]);
    const places = fillPlaces(song.melody, song.length, layBars(song));
    expect(places.map((p) => [p.at / Q, p.counts])).toEqual([
      [2, 2],
      [5, 3],
    ]);
  });
});

describe('the report', () => {
  it('has every field of the contract, null where it does not apply', () => {
    const document = demo('lamps-across-the-sound.letters');
    const told = JSON.parse(JSON.stringify(report(document, arrange(document), ENGLISH))) as Record<string, never>;
    expect(told).toMatchObject({
      version: 1,
      song: {
        title: 'Lamps Across the Sound',
        key: 'G minor',
        time: '3/4',
        tempo: 88,
        bars: 20,
        pickup: 1,
        melodyNotes: 44,
        chordsGiven: true,
      },
    });
    const part = (told['parts'] as Record<string, unknown>[])[1];
    expect(Object.keys(part)).toEqual([
      'number',
      'label',
      'start',
      'end',
      'repeats',
      'melody',
      'chords',
      'together',
      'difficulty',
    ]);
    const [chord] = part['chords'] as Record<string, unknown>[];
    expect(Object.keys(chord)).toEqual([
      'at',
      'length',
      'symbol',
      'degree',
      'inversion',
      'position',
      'pitches',
      'fingers',
      'motion',
      'common',
      'withMelody',
      'why',
      'school',
      'spread',
      'chordWhy',
      'otherChords',
      'alternatives',
    ]);
    expect(chord).toMatchObject({ at: 13, length: 3, symbol: 'Cm', degree: 'iv' });
    expect((part['melody'] as unknown[])[0]).toEqual({ at: 12, length: 1, pitch: 'Bb4', finger: 1, lyric: 'I' });
    expect((part['together'] as unknown[])[0]).toEqual({ at: 13, melody: 'Eb5', chord: 'Cm', count: '1' });
    expect(Object.keys(told['totals'])).toEqual(['leftTravel', 'leftTravelRoot', 'pathCost']);
  });
});

describe('the letter chart', () => {
  const arrangement = arrange(demo('lamps-across-the-sound.letters'));

  it('holds every note and chord once', () => {
    const columns = letterChart(arrangement).flatMap((p) => p.bars.flatMap((b) => b.columns));
    expect(columns.filter((c) => c.letter).length).toBe(arrangement.song.melody.length);
    expect(columns.filter((c) => c.chord).length).toBe(arrangement.parts.flatMap((p) => p.chords).length);
  });

  it('puts each chord under the note it falls with', () => {
    const lines = chartText(arrangement, ENGLISH).split('\n');
    const from = lines.findIndex((l) => l.startsWith('Part 2'));
    const row = (name: string) => lines.slice(from + 5).find((l) => l.includes(name)) ?? '';
    expect(row('right').indexOf('Eb')).toBe(row('chord').indexOf('Cm'));
    expect(row('left')).toContain('Eb G C');
  });
});
