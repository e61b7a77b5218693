import { ENGLISH, phrases, type Fact } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { compareKeys } from '../arrange/compare-keys.js';
import { levelOptions, whatHelps } from '../arrange/ease.js';
import { songDifficulty } from '../arrange/song-difficulty.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { HAND_PROFILES, handsOf, type Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { setSetting } from '../song/edits.js';
import { hardestOf } from './difficulty.js';

const scale = (length: number): [string, number][] => ['C5', 'D5', 'E5', 'F5', 'G5', 'F5', 'E5', 'D5'].map((p) => [p, length]);
const scoreOf = (
  notes: readonly (readonly [string | null, number])[],
  chords: readonly (readonly [number, string])[] = [[0, 'C']],
) => arrange(documentOf(songOf(notes, chords))).parts[0].difficulty;

describe('difficulty', () => {
  it('lies between 0 and 100 with at most three reasons, for every part, hand and song', () => {
    fc.assert(
      fc.property(songs(), fc.constantFrom(...HAND_PROFILES), (song, profile) => {
        for (const { difficulty } of arrange({ ...documentOf(song), hands: handsOf(profile) }).parts)
          for (const load of [difficulty, difficulty.right, difficulty.left, difficulty.together]) {
            expect(load.score).toBeGreaterThanOrEqual(0);
            expect(load.score).toBeLessThanOrEqual(100);
            expect(load.reasons.length).toBeLessThanOrEqual(3);
            expect(new Set(load.reasons.map(ENGLISH.fact)).size).toBe(load.reasons.length);
          }
      }),
      { numRuns: 50 },
    );
  });

  it('is low for a plain tune over slow chords and rises with each thing that makes playing hard', () => {
    const plain = scoreOf(scale(1));
    expect(plain.score).toBeLessThan(20);
    const harder = {
      faster: scoreOf(scale(0.25)),
      leaps: scoreOf(scale(1).map(([p, l], i) => [i % 2 ? p.replace('5', '7') : p, l] as const)),
      'black keys': scoreOf(scale(1).map(([p, l]) => [`${p[0] === 'E' ? 'E' : p[0]}b5`, l] as const)),
      changes: scoreOf(scale(1), [
        [0, 'C'],
        [1, 'F#m7'],
        [2, 'Bb9'],
        [3, 'E7'],
        [4, 'Ab'],
        [5, 'D7'],
      ]),
      apart: scoreOf(
        [
          ['C5', 4],
          ['D5', 4],
        ],
        [
          [0, 'C'],
          [1, 'F'],
          [2, 'C'],
          [3, 'G'],
          [4, 'C'],
        ],
      ),
      ahead: scoreOf([
        ['C5', 0.5],
        ['D5', 1],
        ['E5', 1],
        ['F5', 1],
        ['G5', 0.5],
      ]),
    };
    for (const [what, { score }] of Object.entries(harder)) expect([what, score > plain.score]).toEqual([what, true]);
    const words = (load: { reasons: readonly Fact[] }) => load.reasons.map(ENGLISH.fact).join('; ');
    expect(words(harder.faster.right)).toMatch(/^up to \d\.\d notes a second/);
    expect(words(harder.leaps.right)).toMatch(/jumps? in the right hand/);
    expect(words(harder.ahead.right)).toContain('ahead of the beat');
    expect(words(harder.apart.together)).toContain('plays between the melody notes three times');
  });

  it('flags one hardest part with what sets it apart, and none where all are alike', () => {
    for (const name of DEMOS) {
      const { parts, hardest } = arrange(demo(name));
      const most = Math.max(...parts.map((p) => p.difficulty.score));
      expect(parts.find((p) => p.number === hardest?.part)?.difficulty.score).toBe(most);
      expect(hardest?.reasons.length).toBeGreaterThan(0);
    }
    const [one] = arrange(documentOf(songOf(scale(1), [[0, 'C']]))).parts;
    expect(hardestOf([one])).toBeNull();
    expect(hardestOf([one, { ...one, number: 2 }])).toBeNull();
  });
});

describe('simpler versions', () => {
  const glass = demo('harbour-glass.abc');
  const chordsOf = (doc: Document) => arrange(doc).parts.flatMap((p) => p.chords);

  it('go from the tune alone over bass, two notes and triads to full chords, each no easier than the one before', () => {
    const all = levelOptions(glass, null);
    expect(all.map((v) => v.level)).toEqual(['tune', 'bass', 'two-note', 'triads', 'full']);
    all.slice(1).forEach((v, i) => expect(v.difficulty).toBeGreaterThanOrEqual(all[i].difficulty));
    expect(all.filter((v) => v.current).map((v) => v.level)).toEqual(['full']);
    expect(chordsOf(setSetting(glass, null, 'level', 'tune'))).toEqual([]);
    expect(new Set(chordsOf(setSetting(glass, null, 'level', 'bass')).map((c) => c.pitches.length))).toEqual(new Set([1]));
    expect(Math.max(...chordsOf(setSetting(glass, null, 'level', 'two-note')).map((c) => c.pitches.length))).toBe(2);
    const triads = chordsOf(setSetting(glass, null, 'level', 'triads'));
    expect(triads.slice(0, 3).map((c) => [c.symbol, c.pitches.map(nameOf).sort().join(' ')])).toEqual([
      ['Fmaj7', 'A E F'],
      ['Dm7', 'C D F'],
      ['Gm7', 'Bb F G'],
    ]);
    const six = triads.find((c) => phrases(c.chordWhy, ENGLISH).startsWith('F6'));
    expect(six && phrases(six.chordWhy, ENGLISH)).toMatch(/^F6, played as a plain triad; /);
  });

  it('hold for one part only where that is asked for, and never touch the tune', () => {
    const { parts } = arrange(glass);
    const simple = arrange(setSetting(glass, parts[2], 'level', 'bass'));
    expect(simple.parts.map((p) => Math.max(...p.chords.map((c) => c.pitches.length)) === 1)).toEqual(
      parts.map((p) => p.number === 3),
    );
    expect(simple.parts.flatMap((p) => p.melody.map((n) => n.pitch))).toEqual(parts.flatMap((p) => p.melody.map((n) => n.pitch)));
  });

  it('what would help is ranked by the points that it really gains', () => {
    const arrangement = arrange(glass);
    const helps = whatHelps(glass, arrangement, null);
    expect(helps.length).toBeGreaterThan(1);
    helps.forEach((help, i) => {
      expect(help.gain).toBe(songDifficulty(arrangement.parts) - songDifficulty(arrange(applyEdit(glass, help.action)).parts));
      if (i > 0) expect(help.gain).toBeLessThanOrEqual(helps[i - 1].gain);
    });
  });
});

describe('the twelve keys', () => {
  it.each(DEMOS)('%s: each compared on what is really played there, the one it stands in unchanged', (name) => {
    const doc = demo(name);
    const keys = compareKeys(doc);
    expect(keys).toHaveLength(12);
    expect(keys.filter((k) => k.current).map((k) => k.key)).toEqual([doc.song.key]);
    for (const facts of keys) {
      const there = arrange(applyEdit(doc, { code: 'edit.key', key: facts.key }));
      const black = there.score.filter((n) => [1, 3, 6, 8, 10].includes(midiOf(n.pitch) % 12)).length;
      expect([facts.black, facts.notes, facts.difficulty]).toEqual([black, there.score.length, songDifficulty(there.parts)]);
      expect(there.score.every((n) => /^[A-G](b|#|bb|##)?\d$/.test(n.pitch))).toBe(true);
    }
    expect(Math.max(...keys.map((k) => k.black))).toBeGreaterThan(Math.min(...keys.map((k) => k.black)));
  });

  it('take chosen chords, pins and fingers along', () => {
    const doc = documentOf(songOf([['C5', 4]], [[0, 'C']]));
    const chosen = {
      ...doc,
      choices: { ...doc.choices, chords: [{ at: 0, symbol: 'Am/E' }], pins: [{ at: 0, pitches: ['E3', 'A3', 'C4'] }] },
    };
    const { choices, song } = applyEdit(chosen, { code: 'edit.key', key: { tonic: 'Eb', mode: 'major' } });
    expect([song.key.tonic, song.melody[0].pitch, choices.chords[0].symbol]).toEqual(['Eb', 'Eb5', 'Cm/G']);
    expect(choices.pins[0].pitches).toEqual(['G3', 'C4', 'Eb4']);
  });

  it('an octave higher moves the tune alone, and again higher where a part returns', () => {
    const glass = demo('harbour-glass.abc');
    const before = arrange(glass);
    const up = arrange(setSetting(glass, before.parts[2], 'octave', 1));
    const lift = up.parts.map((p, i) => midiOf(p.melody[0].pitch) - midiOf(before.parts[i].melody[0].pitch));
    expect(lift).toEqual([0, 0, 12, 0, 0, 0, 0, 0]);
    expect(up.parts[2].repeats?.part).toBe(1);
    const short = { ...glass, hands: handsOf('medium', 49) };
    const refused = arrange(setSetting(short, null, 'octave', 2));
    expect(refused.findings.some((f) => f.rule === 'octave-kept')).toBe(true);
    expect(refused.score.every((n) => midiOf(n.pitch) <= 84)).toBe(true);
  });
});
