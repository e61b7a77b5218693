import { describe, expect, it } from 'vitest';
import { DEMOS, demo } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { explainBar, explainFingerAt } from '../arrange/explain.js';
import type { Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { ENGLISH } from '../words/index.js';

const withHarmony = (doc: Document, size: 'one' | 'two'): Document =>
  applyEdit(doc, { code: 'edit.setting', range: null, setting: 'harmony', value: { density: 50, size } });

const tuneOf = (doc: Document) => arrange(doc).score.filter((n) => n.hand === 'right' && n.role === 'melody');

describe('harmony under the tune', () => {
  it.each(DEMOS)('leaves the tune its fingers where it can, and says where it cannot: %s', (name) => {
    for (const size of ['one', 'two'] as const) {
      const plain = demo(name);
      const alone = new Map(tuneOf(plain).map((n) => [n.at, n.finger]));
      const doc = withHarmony(plain, size);
      const under = new Set(arrange(doc).score.flatMap((n) => (n.role === 'harmony' ? [n.at] : [])));
      const tune = tuneOf(doc);
      const single = tune.filter((n) => !under.has(n.at));
      const kept = single.filter((n) => n.finger === alone.get(n.at));
      expect(kept.length / single.length).toBeGreaterThanOrEqual(0.8);
      const changed = tune.find((n) => n.finger !== alone.get(n.at));
      const told = changed ? (explainFingerAt(doc, changed.at)?.facts ?? []).map(ENGLISH.fact) : [];
      if (changed)
        expect(told[0]).toBe(`Alone the melody has finger ${alone.get(changed.at)} here; what is played with it takes this one.`);
    }
  });
});

describe('why a finger', () => {
  it('tells how the hand came to the note, and prices every other finger as the search does', () => {
    const doc = demo('harbour-glass.abc');
    for (const { at, finger } of tuneOf(doc).slice(0, 12)) {
      const reasons = explainFingerAt(doc, at);
      expect(reasons?.finger).toBe(finger);
      expect(reasons?.others.map((o) => o.fact.finger).toSorted()).toEqual([1, 2, 3, 4, 5].filter((f) => f !== finger));
      for (const { more, fact } of reasons?.others ?? []) {
        expect(more).toBeGreaterThanOrEqual(-1e-6);
        expect(ENGLISH.fact(fact)).toMatch(/^would /);
      }
      expect(ENGLISH.fact(reasons?.facts.at(-1) ?? { code: 'finger.chosen' })).toMatch(/^(The hand|The thumb|Finger \d)/);
    }
    expect(explainFingerAt(doc, -1)).toBeNull();
  });

  it('says that a finger was chosen, and still prices the others', () => {
    const plain = demo('harbour-glass.abc');
    const [, note] = tuneOf(plain);
    const other = note.finger === 5 ? 3 : 5;
    const doc = applyEdit(plain, { code: 'edit.fingers', hand: 'right', at: note.at, fingers: [other] });
    const reasons = explainFingerAt(doc, note.at);
    expect(reasons?.facts[0]).toEqual({ code: 'finger.chosen' });
    expect(reasons?.others.find((o) => o.fact.finger === note.finger)?.more).toBeLessThan(0);
    expect(explainBar(doc, 1)?.fingers.find((f) => f.place.bar === 1)?.finger).toBeDefined();
  });
});
