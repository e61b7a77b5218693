import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songs } from '../../testing/songs.js';
import { handsOf, HAND_PROFILES, SCHOOLS } from '../song/decisions.js';
import { barAt } from '../time/bars.js';
import { ENGLISH, sentences } from '../words/index.js';
import { explanationText } from '../words/texts/index.js';
import { arrange } from './arrange.js';
import { explainAlternative, explainBar } from './explain.js';

const sum = (terms: readonly { readonly cost: number }[]): number => terms.reduce((total, t) => total + t.cost, 0);

describe('an explanation', () => {
  it('adds up, term by term, to what the searches weighed: in random songs, schools and hands', () => {
    const cases = fc.record({
      song: songs({ maxBars: 5 }),
      profile: fc.constantFrom(...HAND_PROFILES),
      school: fc.constantFrom(...SCHOOLS),
    });
    fc.assert(
      fc.property(cases, ({ song, profile, school }) => {
        const plain = documentOf(song);
        const doc = { ...plain, hands: handsOf(profile), choices: { ...plain.choices, school } };
        const { parts, bars } = arrange(doc);
        const chords = new Map(parts.flatMap((p) => p.chords.map((c) => [`${c.at}`, c])));
        const byPlace = new Map([...chords.values()].map((c) => [c.pitches.join() + c.symbol, c]));
        for (const { number } of bars) {
          const explained = explainBar(doc, number);
          for (const { chosen, rival, symbol } of explained?.voicings ?? []) {
            const chord = byPlace.get(chosen.pitches.join() + symbol);
            expect(chord).toBeDefined();
            const known = [...chords.values()].filter((c) => c.pitches.join() === chosen.pitches.join() && c.symbol === symbol);
            if (!rival) continue;
            const more = sum(rival.terms) - sum(chosen.terms);
            const same = known.some((c) => Math.abs((c.alternatives[0]?.cost ?? NaN) - more) < 0.011);
            expect(same, `${symbol} ${more}`).toBe(true);
          }
          for (const { symbol, terms, rival } of explained?.harmony ?? []) {
            const more = sum(rival?.terms ?? []) - sum(terms);
            const known = [...chords.values()].filter((c) => c.symbol === symbol);
            expect(known.some((c) => Math.abs((c.otherChords[0]?.cost ?? NaN) - more) < 0.011)).toBe(true);
          }
          for (const { more } of explained?.cuts ?? []) expect(more).toBeGreaterThanOrEqual(-1e-9);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('says of every alternative what decided against it, and nothing of keys that are none', () => {
    const doc = demo('harbour-glass.abc');
    for (const chord of arrange(doc).parts.flatMap((p) => p.chords.filter((c) => !c.restruck))) {
      for (const { pitches, cost, shape } of chord.alternatives) {
        const fact = explainAlternative(doc, chord.at, pitches);
        if (fact === null) expect(Math.abs(cost)).toBeLessThan(1);
        else if (fact.code !== 'voicing.decided') throw new Error(`It says ${fact.code}.`);
        else {
          expect([fact.more, fact.against]).toEqual([cost, shape]);
          // What differs by less than a quarter of a half step is not named.
          const named = fact.terms.reduce((total, t) => total + t.saved, 0);
          expect(Math.abs(named - cost)).toBeLessThan(1);
        }
      }
      expect(explainAlternative(doc, chord.at, chord.pitches)).toBeNull();
    }
    expect(explainAlternative(doc, doc.song.length + 1, ['C3'])).toBeNull();
  });

  it('tells of each finger what the phrase would cost with another one, and where the song would be cut otherwise', () => {
    const doc = demo(DEMOS[0]);
    const { parts, bars } = arrange(doc);
    const bar = explainBar(doc, barAt(bars, parts[1].start).number);
    expect(bar?.cuts).toHaveLength(1);
    expect(bar?.cuts[0].more).toBeGreaterThan(0);
    expect(bar?.fingers.length).toBeGreaterThan(1);
    for (const { finger, rival, terms } of bar?.fingers ?? []) {
      expect(rival?.finger).not.toBe(finger);
      expect(Math.abs(sum(rival?.terms ?? []) - sum(terms) - (rival?.more ?? NaN))).toBeLessThan(1e-6);
    }
    expect(explainBar(doc, 999)).toBeNull();
  });

  it('is the reason that the panel gives: the nearest alternative and the terms in which it differs most', () => {
    const chords = arrange(demo(DEMOS[1])).parts.flatMap((p) => p.chords);
    const told = chords.flatMap((c) => c.why.filter((f) => f.code === 'voicing.decided').map((fact) => ({ c, fact })));
    expect(told.length).toBeGreaterThan(chords.length / 3);
    for (const { c, fact } of told) {
      expect(c.alternatives).toContainEqual(expect.objectContaining({ shape: fact.against, cost: fact.more }));
      expect(fact.terms.reduce((sum, t) => sum + t.saved, 0)).toBeGreaterThan(fact.more - 1);
      expect(sentences([fact], ENGLISH)).toMatch(/^[A-Z].* would .+\.$/);
    }
  });

  it('is plain text of every decision in a bar', () => {
    const text = explanationText(explainBar(demo(DEMOS[1]), 1) ?? fail(), ENGLISH);
    expect(text).toMatch(/^Bar 1\n/);
    for (const part of ['Chord at bar 1', 'Voicing of Fmaj7', 'Finger', 'motion to']) expect(text).toContain(part);
    expect(text).not.toMatch(/undefined|NaN|\[object/);
  });
});

const fail = (): never => {
  throw new Error('no such bar');
};
