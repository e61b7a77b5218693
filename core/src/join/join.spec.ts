import { ENGLISH, jumpWords, togetherWords } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import type { Arrangement } from '../arrange/arrangement.js';
import { fixAllCollisions } from '../arrange/fix-all.js';
import { midiOf } from '../pitch/pitch.js';
import { handsOf, HAND_PROFILES, type Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { pinVoicing, setFingers } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { cheapestPath } from '../left-hand/path.js';
import { sungWords } from './counting.js';

/** An independent look: pairs of notes of the two hands that sound together under a small third apart, or crossed. */
const meetings = ({ score }: Arrangement) =>
  score
    .filter((n) => n.hand === 'left')
    .flatMap((l) =>
      score.filter(
        (r) => r.hand === 'right' && r.at < l.at + l.length && l.at < r.at + r.length && midiOf(r.pitch) - midiOf(l.pitch) < 3,
      ),
    ).length;

const pinned = (notes: readonly (readonly [string | null, number])[], ...chords: readonly (readonly string[])[]): Document =>
  chords.reduce(
    (doc, pitches, i) => pinVoicing(doc, i * 4 * Q, [...pitches]),
    documentOf(
      songOf(
        notes,
        chords.map((_, i) => [i * 4, i % 2 === 0 ? 'C' : 'F'] as const),
      ),
    ),
  );
const rules = (doc: Document) => arrange(doc).findings.map((f) => f.rule);

describe('collisions', () => {
  it('are found where the left hand lies in the space the right needs, though no notes meet', () => {
    const doc = setFingers(
      pinned(
        [
          ['B4', 1],
          ['A4', 1],
          ['B4', 2],
        ],
        ['C4', 'E4'],
      ),
      'right',
      0,
      [5],
    );
    const { findings, parts } = arrange(doc);
    expect(parts[0].places[0].thumb).toBe('E4');
    const [crowded] = findings.filter((f) => f.rule === 'crowded' || f.rule.startsWith('collision'));
    expect([crowded.rule, ENGLISH.fact(crowded.fact)]).toEqual([
      'crowded',
      'Bar 1, count 1: the left hand’s E4 lies where the right thumb rests, on E4.',
    ]);
    expect(crowded.fixes.some((f) => f.action?.code === 'edit.setting' && f.action.setting === 'octave')).toBe(true);
  });

  it('every single way out of one that changes the hands keeps them apart there', () => {
    const doc = pinned([['E4', 4]], ['C4', 'E4', 'G4']);
    const [collision] = arrange(doc).findings.filter((f) => f.rule.startsWith('collision'));
    const ways = collision.fixes.flatMap((f) => (f.action ? [f.action] : []));
    expect(ways.map((w) => w.code)).toEqual(['edit.voicing', 'edit.voicing', 'edit.setting']);
    for (const way of ways) {
      const after = arrange(applyEdit(doc, way));
      if (way.code === 'edit.voicing') expect(meetings(after)).toBe(0);
      else expect(after.parts[0].melody[0].pitch).toBe('E5');
    }
  });

  it('are all cleared at once, with what that costs', () => {
    const doc = pinned(
      [
        ['E4', 4],
        ['F4', 4],
        ['C5', 4],
      ],
      ['C4', 'E4', 'G4'],
      ['C4', 'F4', 'A4'],
      ['E3', 'G3', 'C4'],
    );
    const fix = fixAllCollisions(doc, arrange(doc));
    expect(fix && ENGLISH.fact(fix.fact)).toMatch(
      /^move two chords clear of the melody, with \d+ half steps (more|less) motion$/,
    );
    if (!fix?.action) throw new Error('no way out');
    const after = arrange(applyEdit(doc, fix.action));
    expect(meetings(after)).toBe(0);
    expect(after.parts.flatMap((p) => p.chords)[2].pitches).toEqual(['E3', 'G3', 'C4']);
    expect(fixAllCollisions(doc, after)).toBeNull();
  });

  it('clearing all leaves none that could be cleared, in random songs with a low tune', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 4, symbols: ['C', 'Dm7', 'G7', 'Am', 'F'], stacks: false }),
        fc.constantFrom(...HAND_PROFILES),
        (song, profile) => {
          const low = { ...song, melody: song.melody.map((n) => ({ ...n, pitch: n.pitch.replace('5', '4') })) };
          const doc = { ...documentOf(low), hands: handsOf(profile) };
          const at = low.chords.map((c) => c.at);
          const crowded = at.reduce((d, place) => pinVoicing(d, place, ['G4']), doc);
          const before = arrange(crowded);
          const fix = fixAllCollisions(crowded, before);
          expect(fix === null).toBe(meetings(before) === 0);
          if (!fix?.action) return;
          const after = arrange(applyEdit(crowded, fix.action));
          expect(meetings(after)).toBe(0);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('clearing takes the least motion: as every choice of places shows', () => {
    const sizes = [3, 4, 2, 3];
    const own = (i: number, c: number) => ((i * 7 + c * 5) % 6) + 1;
    const step = (i: number, a: number, b: number) => (i * 3 + a * 4 + b * 9) % 8;
    const layers = sizes.map((size, i) => ({ size, cost: (c: number) => own(i, c) }));
    let best = Infinity;
    for (let code = 0; code < 3 * 4 * 2 * 3; code++) {
      const row = [code % 3, ((code / 3) | 0) % 4, ((code / 12) | 0) % 2, ((code / 24) | 0) % 3];
      best = Math.min(
        best,
        row.reduce((s, c, i) => s + own(i, c) + (i > 0 ? step(i, row[i - 1], c) : 0), 0),
      );
    }
    expect(cheapestPath(layers, step).cost).toBe(best);
  });
});

describe('jumps and doublings', () => {
  it('a far and fast jump of the left hand is told with its distance, time and speed', () => {
    const doc = pinned([['C6', 8]], ['C2', 'G2'], ['C4', 'F4', 'A4']);
    const fast = { ...doc, song: { ...doc.song, tempo: 240 } };
    const jumped = arrange(fast).findings.find((f) => f.rule === 'jump');
    expect(jumped && ENGLISH.fact(jumped.fact)).toBe(
      'Bar 2, count 1: the left hand jumps more than a tenth from C2 to C4 in 1.0 s (24 half steps a second).',
    );
    expect(rules({ ...doc, song: { ...doc.song, tempo: 60 } })).not.toContain('jump');
  });

  it('a tune that leaps out of the hand is a jump of the right hand, a tune in one place is none', () => {
    const leap = songOf(
      [
        ['C5', 0.25],
        ['C6', 0.25],
        ['C5', 0.25],
        ['E6', 0.25],
      ],
      [[0, 'C']],
    );
    const jumps = (song: typeof leap) =>
      arrange(documentOf(song)).parts.flatMap((p) => p.jumps.filter((j) => j.hand === 'right'));
    const far = jumps(leap).find((j) => j.distance > 7);
    expect(far && jumpWords(far, ENGLISH)).toMatch(
      /^the right hand shifts its position by .* between C[56] and [CE][56] in 0\.\d s \(\d+ half steps a second\)\.$/,
    );
    expect(far && jumpWords({ ...far, to: far.from }, ENGLISH)).toContain(`to play ${far?.from} again`);
    expect(
      jumps(
        songOf(
          [
            ['C5', 1],
            ['G5', 1],
            ['E5', 1],
          ],
          [[0, 'C']],
        ),
      ),
    ).toEqual([]);
  });

  it('a note that both hands play for no gain can be left out in one press', () => {
    const song = songOf([['E5', 4]], [[0, 'Cmaj7']]);
    const doc = pinVoicing(documentOf(song), 0, ['C3', 'E3', 'G3', 'B3']);
    const doubled = arrange(doc).findings.find((f) => f.rule === 'doubled');
    expect(doubled && ENGLISH.fact(doubled.fact)).toContain('doubles the melody’s E5 with E3');
    const action = doubled?.fixes[0].action;
    if (!action) throw new Error('no way out');
    expect(arrange(applyEdit(doc, action)).parts[0].chords[0].pitches).toEqual(['C3', 'G3', 'B3']);
    expect(rules(pinVoicing(documentOf(song), 0, ['C3', 'G3', 'B3']))).not.toContain('doubled');
  });

  it('say no collision, jump or doubling of the demo songs twice', () => {
    for (const name of DEMOS) {
      const told = arrange(demo(name)).findings.map((f) => `${f.rule} ${f.at} ${ENGLISH.fact(f.fact)}`);
      expect(new Set(told).size).toBe(told.length);
    }
  });
});

describe('where the hands meet, in words', () => {
  const song = songOf(
    [
      ['C5', 1],
      ['D5', 1],
      ['E5', 2],
      ['F5', 2],
      ['G5', 2],
    ],
    [
      [0, 'C'],
      [3, 'Bbm'],
      [4, 'F'],
      [5, 'G'],
    ],
  );
  const words = [['har', true], ['bour', false], ['glass,', false], null, ['go', false]] as const;
  song.melody.forEach((n, i) => {
    const word = words[i];
    n.lyric = word ? { text: word[0], joins: word[1] } : null;
  });

  it('name the note, the chord, the count and the syllable, and what arrives between notes', () => {
    const { parts } = arrange(documentOf(song));
    const points = parts.flatMap((p) => p.together.map((t) => togetherWords(t, ENGLISH)));
    expect(points).toEqual([
      'C5 with C major on 1, on the first syllable of “harbour”.',
      'Bb minor comes on 4, while E5 is held on “glass”.',
      'F5 with F major on 1, on “glass”.',
      'G major comes on 2, while F5 is held on “glass”.',
    ]);
  });

  it('a syllable goes on over the notes that have none', () => {
    expect(sungWords(song.melody).map((w) => w && `${w.word} ${w.syllable}/${w.of}`)).toEqual([
      'harbour 1/2',
      'harbour 2/2',
      'glass 1/1',
      'glass 1/1',
      'go 1/1',
    ]);
  });
});
