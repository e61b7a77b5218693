import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsOf } from '../../testing/playable.js';
import { demo, DEMOS, documentOf, songs, SYMBOLS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import {
  ENDINGS,
  FILL_KINDS,
  HAND_PROFILES,
  handsOf,
  LOUDNESSES,
  SWELLS,
  WALKS,
  PLAY_MODES,
  type Document,
  type FillKind,
  type Layer,
} from '../song/decisions.js';
import { muteLayer, setBalance, setClose, setFill, setPlayMode } from '../song/dressing.js';
import { applyEdit } from '../song/edit.js';
import { setSetting } from '../song/edits.js';
import { LAYERS } from '../song/decisions.js';
import { TEXTURES } from '../catalogue/textures/list.js';

/** A document with the same fill wished for wherever the tune leaves room, as far as it is offered. */
function filled(doc: Document, kind: FillKind): Document {
  return arrange(doc)
    .parts.flatMap((p) => p.rooms)
    .reduce(
      (d, room) => setFill(d, room.at, room.offers.some((o) => o.kind === kind) ? kind : (room.offers[0]?.kind ?? null)),
      doc,
    );
}

const dressed = (doc: Document, texture = 'rise-and-fall'): Document =>
  filled(setSetting(setSetting(doc, null, 'texture', texture), null, 'harmony', { density: 50, size: 'two' }), 'broken');

describe('all layers together', () => {
  it('can be played by one pair of hands in random songs, whatever is asked for', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 4, symbols: SYMBOLS }),
        fc.record({
          profile: fc.constantFrom(...HAND_PROFILES),
          keys: fc.constantFrom(49 as const, 61 as const, 88 as const),
          texture: fc.constantFrom(...TEXTURES.map((t) => t.id)),
          walk: fc.constantFrom(...WALKS),
          ending: fc.constantFrom(...ENDINGS),
          touch: fc.constantFrom('plain' as const, 'rolled' as const, 'octave' as const),
          kind: fc.constantFrom(...FILL_KINDS),
          size: fc.constantFrom('one' as const, 'two' as const, 'octave' as const, 'full' as const),
          density: fc.integer({ min: 0, max: 80 }),
          loudness: fc.constantFrom(...LOUDNESSES),
          swell: fc.constantFrom(...SWELLS),
          way: fc.constantFrom(...PLAY_MODES),
          balance: fc.integer({ min: 0, max: 80 }),
          muted: fc.subarray([...LAYERS]),
        }),
        (song, w) => {
          let doc: Document = { ...documentOf(song), hands: handsOf(w.profile, w.keys) };
          doc = setSetting(setSetting(doc, null, 'texture', w.texture), null, 'walk', w.walk);
          doc = setSetting(setSetting(doc, null, 'ending', w.ending), null, 'harmony', { density: w.density, size: w.size });
          doc = setSetting(setSetting(doc, null, 'loudness', w.loudness), null, 'swell', w.swell);
          doc = setBalance(setClose(doc, { touch: w.touch, slower: 30 }), w.balance);
          doc = filled(setPlayMode(doc, w.way), w.kind);
          doc = w.muted.reduce((d, layer) => muteLayer(d, layer, true), doc);
          expect(faultsOf(doc)).toEqual([]);
        },
      ),
      { numRuns: 250 },
    );
  });

  it.each(DEMOS)('can be played in %s by every hand', (name) => {
    const song = demo(name);
    const found = HAND_PROFILES.flatMap((profile) =>
      (['broken', 'echo', 'walk', 'turn'] as const).flatMap((kind) =>
        faultsOf(filled(dressed({ ...song, hands: handsOf(profile) }), kind)),
      ),
    );
    expect(found).toEqual([]);
  });
});

describe('layers', () => {
  const doc = dressed(demo('harbour-glass.abc'));
  const tuneOf = (d: Document) =>
    arrange(d)
      .score.filter((n) => n.role === 'melody')
      .map(({ at, length, pitch }) => [at, length, pitch]);
  const leftOf = (d: Document) => arrange(d).score.filter((n) => n.hand === 'left');
  const most = (d: Document) => {
    const left = leftOf(d);
    return Math.max(0, ...left.map((n) => left.filter((m) => m.at === n.at).length));
  };

  it('come one over the other, and none changes the tune', () => {
    const upTo = (layer: Layer) => applyEdit(doc, { code: 'edit.up-to-layer', layer });
    const tunes = LAYERS.map((layer) => tuneOf(upTo(layer)));
    for (const tune of tunes) expect(tune).toEqual(tunes[0]);
    expect(LAYERS.map((layer) => most(upTo(layer))).slice(0, 4)).toEqual([0, 1, 2, 4]);
    const notes = LAYERS.map((layer) => arrange(upTo(layer)).score.length);
    expect(notes[4]).toBeGreaterThan(notes[3]);
    expect(notes[5]).toBeGreaterThan(notes[4]);
    expect(notes[6]).toBeGreaterThan(notes[5]);
  });

  it.each<[Layer, string]>([
    ['harmony', 'harmony'],
    ['fills', 'fill'],
  ])('are silent one by one: %s', (layer, role) => {
    const has = (d: Document) => arrange(d).score.some((n) => n.hand === 'right' && n.role === role);
    expect(has(doc)).toBe(true);
    expect(has(muteLayer(doc, layer, true))).toBe(false);
    expect(has(muteLayer(muteLayer(doc, layer, true), layer, false))).toBe(true);
  });

  it('let the layer below be heard where the texture is silent, and nothing where all are', () => {
    const plain = setSetting(doc, null, 'texture', 'block');
    expect(leftOf(muteLayer(doc, 'texture', true))).toEqual(leftOf(plain));
    const none = (['bass', 'two-note', 'block', 'texture'] as const).reduce((d, layer) => muteLayer(d, layer, true), doc);
    expect(leftOf(none)).toEqual([]);
  });

  it('leave the tune to a singer when it is silent', () => {
    expect(tuneOf(muteLayer(doc, 'tune', true))).toEqual([]);
    expect(arrange(muteLayer(doc, 'tune', true)).parts[0].melody.length).toBeGreaterThan(0);
  });
});

describe('an outline', () => {
  it('is the tune and the lowest key of each chord, under the finger that plays it later', () => {
    const doc = demo('lamps-across-the-sound.letters');
    const [whole, outline] = [arrange(doc), arrange(setPlayMode(dressed(doc), 'outline'))];
    const lowest = whole.parts.flatMap((p) => p.chords.map((c) => [c.at, c.pitches[0], c.fingers[0]]));
    expect(outline.parts.flatMap((p) => p.chords.map((c) => [c.at, c.pitches.join(), c.fingers[0]]))).toEqual(lowest);
    expect(outline.score.filter((n) => n.hand === 'right' && n.role !== 'melody')).toEqual([]);
    expect(outline.score.length).toBe(lowest.length + whole.song.melody.length);
  });
});
