import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf, songs } from '../../testing/songs.js';
import { TEXTURES } from '../catalogue/textures/list.js';
import { muddiness } from '../left-hand/costs.js';
import { midiOf, type Pitch } from '../pitch/pitch.js';
import { handsOf, HAND_PROFILES, SCHOOLS, type Document } from '../song/decisions.js';
import { pinVoicing, setPassage, setSchool, setSetting } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { arrange } from './arrange.js';
import type { FindingFact } from './finding.js';

/** The keys that a finding names. */
function named(fact: FindingFact): Pitch[] {
  switch (fact.code) {
    case 'finding.conflict':
      return [fact.note, fact.against];
    case 'finding.collision':
    case 'finding.doubled':
      return [fact.left, fact.right];
    default:
      return [];
  }
}

const anyDocument = fc
  .record({
    song: songs({ maxBars: 6 }),
    school: fc.constantFrom(...SCHOOLS),
    profile: fc.constantFrom(...HAND_PROFILES),
    texture: fc.constantFrom('block', ...TEXTURES.map((t) => t.id)),
  })
  .map(({ song, school, profile, texture }): Document => {
    const doc = { ...documentOf(song), hands: handsOf(profile) };
    return setSetting(setSchool(doc, school), null, 'texture', texture);
  });

describe('findings', () => {
  it('speak only of notes that are played', () => {
    fc.assert(
      fc.property(anyDocument, (doc) => {
        const { findings, score } = arrange(doc);
        const played = new Set(score.map((n) => n.pitch));
        for (const { fact, rule } of findings) {
          // The place under the thumb is told where the left hand lies in the right one's way.
          const keys = rule === 'crowded' ? named(fact).slice(0, 1) : named(fact);
          for (const pitch of keys) expect([rule, pitch, played.has(pitch)]).toEqual([rule, pitch, true]);
        }
      }),
      { numRuns: 120 },
    );
  });

  it('are said once for a shape, with how often it comes again', () => {
    const doc = documentOf(songOf(Array.from({ length: 6 }, () => ['C6', 4] as const), [[0, 'C'], [4, 'F'], [8, 'C'], [12, 'F'], [16, 'C'], [20, 'C']])); // prettier-ignore
    const low = [0, 8, 16, 20].reduce((d, at) => pinVoicing(d, at * Q, ['C2', 'E2', 'G2']), doc);
    const told = arrange(low).findings.filter((f) => f.rule === 'low' && 'symbol' in f.fact && f.fact.symbol === 'C');
    expect(told.map((f) => [f.at, f.again])).toEqual([[0, 3]]);
  });

  it('offer no way out that does not lower the figure they speak of', () => {
    fc.assert(
      fc.property(anyDocument, (doc) => {
        const { findings, parts } = arrange(doc);
        const chords = parts.flatMap((p) => p.chords);
        for (const { rule, chordAt, fixes } of findings.filter((f) => ['low', 'stretch', 'reach', 'spread'].includes(f.rule))) {
          const chord = chords.find((c) => c.at === chordAt);
          const figure = (pitches: readonly Pitch[]) => {
            const midis = pitches.map(midiOf);
            return rule === 'low' ? muddiness(midis) : midis[midis.length - 1] - midis[0];
          };
          for (const { fact } of fixes)
            if (fact.code === 'fix.move') expect(figure(fact.pitches)).toBeLessThan(figure(chord?.pitches ?? []));
        }
      }),
      { numRuns: 120 },
    );
  });

  it('let everyday chords be, and say nothing of chords that a bass line does not play', () => {
    const everyday = songOf([['G5', 4]], [[0, 'G']]);
    const doc = pinVoicing(documentOf(everyday), 0, ['B2', 'D3', 'G3']);
    expect(arrange(doc).findings.map((f) => f.rule)).not.toContain('low');
    const clash = documentOf(songOf([['B4', 4]], [[0, 'C']]));
    expect(arrange(clash).findings.map((f) => f.rule)).not.toContain('conflict');
    const rub = pinVoicing(clash, 0, ['E3', 'G3', 'C4']);
    const pins = pinVoicing(documentOf(songOf([['C#5', 4]], [[0, 'C']])), 0, ['G3', 'C4']);
    expect(arrange(pins).findings.map((f) => f.rule)).toContain('conflict');
    for (const school of ['single-bass', 'octave'] as const)
      expect(arrange(setSchool({ ...rub, choices: { ...rub.choices, pins: [] } }, school)).findings).toEqual([]);
  });

  it('do not name a plain passing note, nor the friction of a hand that stays', () => {
    const passing = documentOf(songOf([['E5', 1], ['F5', 1], ['G5', 2]], [[0, 'C']])); // prettier-ignore
    const doc = pinVoicing(passing, 0, ['G3', 'C4', 'E4']);
    expect(arrange(doc).findings.map((f) => f.rule)).not.toContain('conflict');
    const stays = setPassage(doc, { start: 0, end: 4 * Q }, { stay: { notes: 'tonic', figure: 'counts' } });
    expect(arrange(setSetting(stays, null, 'texture', 'block')).findings.map((f) => f.rule)).not.toContain('conflict');
  });

  it('tell of leaps inside a texture, each once, and count them', () => {
    const chords = [[0, 'G'], [4, 'A'], [8, 'G'], [12, 'A']] as const; // prettier-ignore
    const song = songOf(
      Array.from({ length: 4 }, () => ['C6', 4] as const),
      chords,
      { tempo: 168 },
    );
    const plain = arrange(documentOf(song));
    const leaping = arrange(setSetting(documentOf(song), null, 'texture', 'bass-chord'));
    const jumps = (a: typeof plain) => a.findings.filter((f) => f.rule === 'jump');
    expect(jumps(plain)).toEqual([]);
    expect(jumps(leaping).length).toBeGreaterThan(0);
    const told = jumps(leaping).map((f) => (f.fact.code === 'finding.jump' ? `${f.fact.jump.from} ${f.fact.jump.to}` : ''));
    expect(new Set(told).size).toBe(told.length);
    expect(leaping.parts[0].difficulty.left.score).toBeGreaterThan(plain.parts[0].difficulty.left.score);
    expect(jumps(arrange(setSetting(documentOf(song), null, 'texture', 'shape-apart')))).toEqual([]);
  });

  it('are few in songs that are plainly set', () => {
    for (const name of DEMOS) expect(arrange(demo(name)).findings.length).toBeLessThanOrEqual(6);
  });
});
