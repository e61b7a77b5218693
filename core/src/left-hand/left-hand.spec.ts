import { changeInShort, changeWords, ENGLISH, sentences } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { documentOf, songOf, songs, SYMBOLS, TWO_FIVE_ONE } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { BASS_WISHES, SCHOOLS, HAND_PROFILES, KEYBOARD_SIZES, KEYBOARDS, SPANS, handsOf } from '../song/decisions.js';
import { pinVoicing, transposeSong } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { voicingsFor } from './candidates.js';
import { motionBetween } from './costs.js';
import { chordFingerFact, chordFingers, triedFingersFact } from '../fingers/chords.js';
import { spansFor } from '../fingers/spans.js';
import { voiceLeftHand } from './voice.js';
import { cheapestPath } from './path.js';
import { settleHome, voicingProblem, type VoicingProblem, type VoicingWishes } from './problem.js';
import { solve } from './settle.js';
import { voiceMoves } from './reasons.js';

const wishes = (more: Partial<VoicingWishes> = {}): VoicingWishes => ({
  hands: handsOf(),
  pins: new Map(),
  schoolAt: () => 'close',
  bassAt: () => 'free',
  ...more,
});

/** The least that a problem costs over every home that its symbols may have: all of them are tried, with the cheapest way for each. */
function leastOverHomes(problem: VoicingProblem): number {
  const { layers } = problem;
  const symbols = [...new Set(layers.filter((l) => l.bass === 'free').map((l) => l.strike.symbol))]
    .map((symbol) => layers.filter((l) => l.strike.symbol === symbol))
    .filter((places) => places.length > 1);
  const least = (k: number): number =>
    k === symbols.length
      ? solve(problem).cost
      : Math.min(
          ...symbols[k][0].voicings.map((home) => {
            for (const layer of symbols[k]) settleHome(layer, home);
            return least(k + 1);
          }),
        );
  return least(0);
}

const voiced = (song = TWO_FIVE_ONE) => arrange(documentOf(song)).parts.flatMap((p) => p.chords);

describe('the reference everyone learns', () => {
  it('is ii–V–I with two voices moving, then two', () => {
    const chords = voiced();
    expect(chords.map((c) => c.pitches.join(' '))).toEqual(['D3 F3 A3 C4', 'D3 F3 G3 B3', 'C3 E3 G3 B3']);
    expect(chords.map((c) => c.motion)).toEqual([0, 3, 3]);
    expect(sentences(chords[1].why, ENGLISH)).toMatch(/^D and F stay; A falls to G; C falls to B\./);
    expect(changeInShort(chords[1].moves, ENGLISH)).toBe('two stay, two fall');
  });

  it.each(['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'])('comes out so in %s', (tonic) => {
    const chords = voiced(transposeSong(TWO_FIVE_ONE, { tonic, mode: 'major' }));
    expect(chords.map((c) => c.inversion)).toEqual([0, 2, 0]);
    expect(chords.map((c) => c.motion)).toEqual([0, 3, 3]);
    expect(chords.map((c) => c.common)).toEqual([0, 2, 2]);
  });
});

describe('the path', () => {
  it('equals exhaustive search on random layers and steps', () => {
    const cost = fc.integer({ min: 0, max: 40 });
    const run = fc.record({
      layers: fc.array(fc.array(cost, { minLength: 1, maxLength: 4 }), { minLength: 6, maxLength: 6 }),
      steps: fc.array(cost, { minLength: 96, maxLength: 96 }),
    });
    fc.assert(
      fc.property(run, ({ layers, steps }) => {
        const step = (i: number, from: number, to: number) => steps[(i * 16 + from * 4 + to) % 96];
        const found = cheapestPath(
          layers.map((l) => ({ size: l.length, cost: (c) => l[c] })),
          step,
        );
        const all = (i: number, before: number): number =>
          i === layers.length
            ? 0
            : Math.min(...layers[i].map((own, c) => own + (i > 0 ? step(i, before, c) : 0) + all(i + 1, c)));
        expect(found.cost).toBe(all(0, 0));
        const walked = found.choices.reduce(
          (sum, c, i) => sum + layers[i][c] + (i > 0 ? step(i, found.choices[i - 1], c) : 0),
          0,
        );
        expect(walked).toBe(found.cost);
      }),
    );
  });

  it('chooses among the voicings of the very hand, keyboard, school and wish, whoever asked for the chord before', () => {
    const asked = fc.record({
      profile: fc.constantFrom(...HAND_PROFILES),
      keys: fc.constantFrom(...KEYBOARD_SIZES),
      firstYear: fc.boolean(),
      school: fc.constantFrom(...SCHOOLS),
      dominants: fc.constantFrom('four' as const, 'three' as const, 'all-three' as const),
      octave: fc.constantFrom(-1, 0, 1),
    });
    fc.assert(
      fc.property(fc.constantFrom('G7', 'Dm7', 'C/E'), fc.array(asked, { minLength: 2, maxLength: 5 }), (symbol, all) => {
        for (const { profile, keys, firstYear, school, dominants, octave } of all) {
          const hands = { ...handsOf(profile), keys, firstYear };
          const wish = { dominants, octave };
          const strikes = [{ at: 0, length: Q, symbol, restruck: false, beat: Q, writtenAt: 0 }];
          const [layer] = voicingProblem(strikes, [], wishes({ hands, schoolAt: () => school, wishAt: () => wish })).layers;
          expect(layer.voicings).toEqual(voicingsFor(layer.chord, hands, school, wish));
        }
      }),
    );
  });

  it.each(SCHOOLS)('equals exhaustive search on random runs of real chords under a tune: %s', (school) => {
    const count = school === 'close' ? 5 : 6;
    const chords = fc.array(fc.constantFrom(...SYMBOLS.filter((s) => s !== 'N.C.')), { minLength: count, maxLength: count });
    const tune = fc.array(fc.constantFrom('E4', 'G4', 'C5', 'E5', 'A5'), { minLength: count, maxLength: count });
    fc.assert(
      fc.property(chords, tune, fc.constantFrom(...BASS_WISHES), (symbols, pitches, bass) => {
        const melody = pitches.map((pitch, i) => ({ at: i * Q, length: Q, pitch, lyric: null }));
        const strikes = symbols.map((symbol, i) => ({
          at: i * Q,
          length: Q,
          symbol,
          restruck: false,
          beat: Q,
          writtenAt: i * Q,
        }));
        const wished = wishes({ schoolAt: () => school, bassAt: () => bass });
        const problem = voicingProblem(strikes, melody, wished);
        const { layers, step } = problem;
        // Every path is tried; one is left early only when even five shared keys a step could not save it.
        let best = Infinity;
        const walk = (i: number, before: number, sum: number): void => {
          if (sum - 2.5 * (layers.length - i) >= best) return;
          if (i === layers.length) {
            best = sum;
            return;
          }
          layers[i].costs.forEach((own, c) => walk(i + 1, c, sum + own + (i > 0 ? step(i, before, c) : 0)));
        };
        walk(0, 0, 0);
        expect(solve(problem).cost).toBeCloseTo(best, 6);
        const settled = leastOverHomes(voicingProblem(strikes, melody, wished));
        const left = voiceLeftHand(strikes, melody, wished);
        // Nearest inversions may pay more than the table's least to travel no more than root positions.
        if (school !== 'close' || bass !== 'free') expect(left.cost).toBeCloseTo(settled, 6);
        else if (left.cost > settled + 1e-6) expect(left.travel).toBeLessThanOrEqual(left.travelRoot);
      }),
      { numRuns: 12 },
    );
  });

  it('cannot be bettered by any other voicing of one real chord, whatever its neighbours', () => {
    fc.assert(
      fc.property(songs({ maxBars: 6 }), (song) => {
        for (const chord of voiced(song))
          for (const other of chord.alternatives) expect(other.cost).toBeGreaterThanOrEqual(-0.01);
      }),
      { numRuns: 40 },
    );
  });

  it('cannot be bettered by keeping any alternative: the whole cost never falls', () => {
    fc.assert(
      fc.property(songs({ maxBars: 3 }), fc.integer({ min: 0, max: 5 }), (song, pick) => {
        const document = documentOf(song);
        const before = arrange(document);
        for (const chord of before.parts.flatMap((p) => p.chords).slice(0, 4)) {
          const other = chord.alternatives[pick % Math.max(1, chord.alternatives.length)];
          if (!other || other.symbol === 'N.C.') continue;
          const after = arrange(pinVoicing(document, chord.at, other.pitches));
          const moved = after.parts.flatMap((p) => p.chords).find((c) => c.at === chord.at);
          expect(moved?.pitches).toEqual(other.pitches);
          // Where motion had to be weighed heavier to stay within root position's, the table is not what was least.
          if (before.totals.motionWeight !== 1 || after.totals.motionWeight !== 1) continue;
          expect(after.totals.pathCost).toBeGreaterThanOrEqual(before.totals.pathCost - 0.01);
          expect(after.totals.pathCost).toBeLessThanOrEqual(before.totals.pathCost + other.cost + 0.02);
        }
      }),
      { numRuns: 30 },
    );
  });
});

describe('voicings', () => {
  it('keep within the hand and the keyboard for every chord, hand and keyboard', () => {
    for (const symbol of SYMBOLS) {
      const chord = parseChord(symbol);
      if (chord.kind !== 'chord') continue;
      for (const profile of HAND_PROFILES)
        for (const keys of KEYBOARD_SIZES) {
          const all = voicingsFor(chord, handsOf(profile, keys));
          expect(all.length).toBeGreaterThan(0);
          for (const { midis, pitches } of all) {
            expect(midis[midis.length - 1] - midis[0]).toBeLessThanOrEqual(SPANS[profile].limit);
            expect(midis[0]).toBeGreaterThanOrEqual(KEYBOARDS[keys].low);
            expect(midis[midis.length - 1]).toBeLessThanOrEqual(KEYBOARDS[keys].high);
            expect(pitches.map(midiOf)).toEqual(midis);
            expect([...midis].sort((a, b) => a - b)).toEqual(midis);
          }
        }
    }
  });

  it('are spelled from the chord', () => {
    for (const symbol of SYMBOLS) {
      const chord = parseChord(symbol) as Chord;
      if (chord.kind !== 'chord') continue;
      const names = new Set([...chord.tones.map((t) => t.name), chord.bass]);
      for (const v of voicingsFor(chord, handsOf())) for (const p of v.pitches) expect(names.has(nameOf(p))).toBe(true);
    }
  });

  it('come in every inversion of triads and sevenths', () => {
    const inversions = (symbol: string) =>
      new Set(
        voicingsFor(parseChord(symbol) as Chord, handsOf())
          .filter((v) => v.form === 'full')
          .map((v) => v.inversion),
      );
    expect(inversions('F')).toEqual(new Set([0, 1, 2]));
    expect(inversions('A7')).toEqual(new Set([0, 1, 2, 3]));
  });

  it('keep a written bass at the bottom', () => {
    for (const symbol of ['D/F#', 'C/D', 'Am7/G'])
      for (const v of voicingsFor(parseChord(symbol) as Chord, handsOf()))
        expect(nameOf(v.pitches[0])).toBe(symbol.split('/')[1]);
  });

  it('find a place for a wide bass even for a small hand', () => {
    const v = voicingsFor(parseChord('Bb/B') as Chord, handsOf('child', 49));
    expect(v.every((x) => nameOf(x.pitches[0]) === 'B')).toBe(true);
  });
});

describe('the left hand of a song', () => {
  it('stays under a tune that comes down to meet it', () => {
    const low = songOf(
      [
        ['E4', 4],
        ['D4', 4],
        ['E4', 4],
      ],
      [
        [0, 'C'],
        [4, 'G'],
        [8, 'C'],
      ],
    );
    for (const chord of voiced(low)) expect(midiOf(chord.pitches[chord.pitches.length - 1])).toBeLessThan(62 - 2);
  });

  it('presses a long chord again at each bar line, keys unchanged', () => {
    const long = songOf(
      [
        ['E5', 4],
        ['D5', 4],
        ['C5', 4],
      ],
      [[0, 'C']],
    );
    const chords = voiced(long);
    expect(chords.map((c) => c.at)).toEqual([0, 4 * Q, 8 * Q]);
    expect(chords.map((c) => c.restruck)).toEqual([false, true, true]);
    expect(new Set(chords.map((c) => c.pitches.join())).size).toBe(1);
    expect(chords[1].motion).toBe(0);
  });

  it('holds a pin through every recomputation and bends the neighbours to it', () => {
    const pinned = pinVoicing(documentOf(TWO_FIVE_ONE), 4 * Q, ['G2', 'B2', 'D3', 'F3']);
    for (const profile of HAND_PROFILES) {
      const chord = arrange({ ...pinned, hands: handsOf(profile, 88) }).parts.flatMap((p) => p.chords)[1];
      expect(chord.pitches).toEqual(['G2', 'B2', 'D3', 'F3']);
      expect(chord.pinned).toBe(true);
      expect(chord.alternatives.length).toBeGreaterThan(0);
    }
  });

  it('reports a pin that the hand cannot reach instead of changing it', () => {
    const wide = pinVoicing(documentOf(TWO_FIVE_ONE), 4 * Q, ['G2', 'D3', 'B3']);
    const { findings } = arrange({ ...wide, hands: handsOf('child', 88) });
    expect(findings.filter((f) => f.rule === 'reach').map((f) => f.severity)).toEqual(['fix']);
  });

  it('travels no more than the same chords in root position on plain progressions', () => {
    for (const symbols of [
      ['C', 'F', 'G', 'C'],
      ['Am', 'Dm', 'E7', 'Am'],
      ['Fmaj7', 'Dm7', 'Gm7', 'C7'],
    ]) {
      const song = songOf(
        symbols.map(() => ['C6', 4] as const),
        symbols.map((s, i) => [i * 4, s] as const),
      );
      const { totals } = arrange(documentOf(song));
      expect(totals.leftTravel).toBeLessThan(totals.leftTravelRoot);
    }
  });
});

describe('motion and reasons', () => {
  it('pairs voices in order and lets unequal chords split', () => {
    expect(motionBetween([50, 53, 57, 60], [50, 53, 55, 59])).toBe(3);
    expect(motionBetween([48, 52, 55], [48, 52, 55])).toBe(0);
    expect(motionBetween([48, 55], [48, 52, 55])).toBe(3);
  });

  it('measures the same both ways', () => {
    const keys = fc
      .uniqueArray(fc.integer({ min: 40, max: 70 }), { minLength: 1, maxLength: 4 })
      .map((k) => k.sort((a, b) => a - b));
    fc.assert(
      fc.property(keys, keys, (a, b) => {
        expect(motionBetween(a, b)).toBe(motionBetween(b, a));
      }),
    );
  });

  it('says what every voice does, none lost', () => {
    const moves = voiceMoves(['C3', 'E3', 'G3'], ['C3', 'F3', 'A3', 'C4']);
    expect(moves.filter((m) => m.to !== null)).toHaveLength(4);
    expect(changeWords(moves, ENGLISH)).toBe('C stays; E rises to F; G rises to A; C is added');
    expect(changeInShort(voiceMoves(['D3', 'F3', 'A3'], ['D3', 'G3', 'B3']), ENGLISH)).toBe('one stays, two rise');
  });
});

describe('chord fingers', () => {
  it.each([
    [[48, 52, 55], '5-3-1'],
    [[52, 55, 60], '5-3-1'],
    [[55, 60, 64], '5-2-1'],
    [[48, 52, 55, 58], '5-3-2-1'],
    [[52, 55, 58, 60], '5-4-2-1'],
    [[48, 50, 54, 57], '5-4-2-1'],
    [[57, 60], '2-1'],
    [[48, 55], '5-1'],
    [[48, 60], '5-1'],
  ])('%j is %s', (midis, fingers) => {
    expect(chordFingers(midis, handsOf()).join('-')).toBe(fingers);
  });

  it('say what decided for them, and what others would cost before they are chosen', () => {
    const chord = { pitches: ['C3', 'E3', 'G3'], fingers: [5, 3, 1], spread: 'together' } as const;
    const told = (fingers: readonly number[], chosen = false, hands = handsOf()) =>
      ENGLISH.fact(chordFingerFact({ ...chord, fingers }, chosen, hands));
    expect(told([5, 3, 1])).toBe('The fingers that chord books give this shape.');
    expect(told([4, 2, 1], true)).toBe('You chose these fingers.');
    const wide = { ...chord, pitches: ['C3', 'G3', 'C4'], fingers: chordFingers([48, 55, 60], handsOf('child')) };
    expect(ENGLISH.fact(chordFingerFact(wide, false, handsOf('child')))).toMatch(/^(The fingers|Chord books have 5-2-1 here)/);
    expect(ENGLISH.fact(triedFingersFact(chord, [5, 4, 1], handsOf()))).toMatch(/^5-4-1 would stretch the hand more: \+\d/);
    expect(ENGLISH.fact(triedFingersFact({ ...chord, pitches: ['C3', 'A3', 'C4'] }, [5, 4, 1], handsOf()))).toBe(
      '5-4-1 does not reach these keys.',
    );
    // Of an open chord only what is held together has to reach; fingers that do not reach are worse than any that do.
    const open = { pitches: ['C3', 'G3', 'E4'], fingers: [5, 2, 1], spread: 'broken' } as const;
    expect(ENGLISH.fact(triedFingersFact(open, [5, 3, 1], handsOf()))).toMatch(/^5-3-1 would/);
    const beyond = { ...chord, pitches: ['C3', 'A3', 'C4'], fingers: [5, 4, 1] };
    expect(ENGLISH.fact(triedFingersFact(beyond, [5, 2, 1], handsOf()))).toMatch(/^5-2-1 would stretch the hand less/);
  });

  it('reach their keys in every hand, or no fingers do', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 4 }),
        fc.constantFrom(...HAND_PROFILES),
        (gaps, profile) => {
          const midis = gaps.reduce((all, gap) => [...all, all[all.length - 1] + gap], [45]);
          const fingers = chordFingers(midis, handsOf(profile));
          const spans = spansFor(handsOf(profile), 'left');
          const reach = (row: readonly number[]) =>
            row.every((f, i) => row.slice(0, i).every((g, k) => midis[i] - midis[k] <= spans(f, g).practicalMax));
          const any = [5, 4, 3, 2, 1].reduce<number[][]>((rows, f) => [...rows, ...rows.map((r) => [...r, f])], [[]]);
          expect(fingers.every((f, i) => i === 0 || f < fingers[i - 1])).toBe(true);
          expect(reach(fingers)).toBe(any.some((row) => row.length === midis.length && reach(row)));
        },
      ),
    );
  });
});
