import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { ALL_KEYS } from '../../testing/tunes.js';
import { arrange } from '../arrange/arrange.js';
import type { PartChord } from '../arrange/arrangement.js';
import { TEXTURES } from '../catalogue/textures/list.js';
import { scaleOf, type Key } from '../harmony/key.js';
import { parseChord } from '../harmony/symbol.js';
import { midiOf, nameOf, pitchClass } from '../pitch/pitch.js';
import { setSetting } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';

/** Chords one after another, each so many quarters long, under a tune far above them. */
function dressed(symbols: readonly string[], quarters: number, texture: string, key: Key = { tonic: 'C', mode: 'major' }) {
  const doc = documentOf(
    songOf(
      symbols.map(() => ['C7', quarters] as const),
      symbols.map((s, i) => [i * quarters, s] as const),
      { key },
    ),
  );
  return arrange(setSetting(doc, null, 'texture', texture)).parts.flatMap((p) => p.chords);
}

/** Attacks as "count: pitches", counts from where the chord begins. */
const strikes = ({ at, dressed: d }: PartChord) =>
  [...new Set(d?.notes.map((n) => n.at))].map(
    (when) => `${(when - at) / Q}: ${(d?.notes ?? []).flatMap((n) => (n.at === when ? [n.pitch] : [])).join(' ')}`,
  );

/** Quarters that chords last, in turn over the keys: each texture meets every key and every length. */
const LENGTHS = [4, 2, 1] as const;
const KINDS = ['', 'm', '7', 'm7', 'maj7'];
/** Chords on every degree of a key, and some of them over another bass. */
const chordsOf = (key: Key) => [
  ...scaleOf(key).flatMap((root, d) => KINDS.filter((_, k) => (d + k) % 3 === 0).map((kind) => root + kind)),
  ...scaleOf(key).flatMap((root, d, all) => (d % 2 === 0 ? [`${root}/${all[(d + 2) % 7]}`] : [])),
];

const dressings = new Map<string, PartChord[]>();
/** The chords of every key in a texture: arranged once, asked about by several tests. */
function inEveryKey(texture: string): PartChord[] {
  const known = dressings.get(texture);
  if (known) return known;
  const chords = ALL_KEYS.flatMap((key, k) => dressed(chordsOf(key), LENGTHS[k % 3], texture, key));
  dressings.set(texture, chords);
  return chords;
}

/** Textures that strike no more than the chord as it lies, or another bass by what they are. */
const OTHER_BASS = ['block', 'held-block', 'counted-block', 'shape-apart', 'rest-chord', 'pedal-note'];
const ROOTED = TEXTURES.filter((t) => !OTHER_BASS.includes(t.id));

describe('the bass of a texture, in every key', () => {
  it.each(ROOTED.map((t) => t.id))(
    '%s: the first note of every chord is its root, or the bass that its symbol asks for',
    (texture) => {
      for (const chord of inEveryKey(texture)) {
        const parsed = parseChord(chord.symbol);
        const [first] = chord.dressed?.notes ?? [];
        expect(parsed.kind).toBe('chord');
        if (parsed.kind === 'chord') expect(pitchClass(nameOf(first.pitch))).toBe(pitchClass(parsed.bass ?? parsed.root));
      }
    },
  );

  it('over a slash chord patterns go up from the bass, the root among them', () => {
    const [overA, overE] = dressed(['F/A', 'C/E'], 2, 'rise-and-fall').map((c) =>
      c.dressed?.notes.slice(0, 4).map((n) => n.pitch),
    );
    expect(overA).toEqual(['A2', 'F3', 'A3', 'C4']);
    expect(overE).toEqual(['E2', 'C3', 'E3', 'G3']);
    for (const texture of ROOTED)
      for (const chord of dressed(['F/A', 'C/E', 'G/D', 'Am7/G', 'C/D'], 4, texture.id)) {
        const names = new Set(chord.dressed?.notes.map((n) => pitchClass(nameOf(n.pitch))));
        const parsed = parseChord(chord.symbol);
        if (parsed.kind === 'chord' && names.size > 1) expect(names.has(pitchClass(parsed.root))).toBe(true);
      }
  });

  it('alternates between root and fifth, over a slash chord with its root', () => {
    const basses = (symbol: string) =>
      dressed([symbol], 4, 'alternating-bass').flatMap((c) =>
        c.dressed?.notes.filter((n) => n.role === 'bass').map((n) => n.pitch),
      );
    expect(basses('G7')).toEqual(['G2', 'D2']);
    expect(basses('C/E')).toEqual(['E2', 'C2']);
  });
});

describe('a pattern fits its chord', () => {
  it('with two chords a bar a bass on 1 and the chord on 2, a bass on 3 and the chord on 4', () => {
    for (const texture of ['bass-chord', 'step-line'])
      for (const chord of dressed(['C', 'F', 'G7', 'Am'], 2, texture)) {
        expect(strikes(chord).map((s) => s.split(': ')[0])).toEqual(['0', '1']);
        expect(strikes(chord)[1].split(' ').length).toBeGreaterThan(2);
      }
  });

  it.each(TEXTURES.map((t) => t.id))('%s tells every chord by its third or seventh, down to one chord a beat', (texture) => {
    const tells = (token: string) => /(^|\+)(c|u|r|3|7|10|14)(\+|$)/.test(token);
    const own = TEXTURES.find((t) => t.id === texture)?.patterns.find((p) => p.meter === '4/4');
    if (!own?.steps.split(/[\s|]+/).some(tells)) return;
    for (const chord of inEveryKey(texture)) {
      // Over another bass the third may be the very note that a pedal takes the place of.
      if (chord.symbol.includes('/')) continue;
      const parsed = parseChord(chord.symbol);
      const heard = (chord.dressed?.notes ?? chord.struck).map((n) => pitchClass(nameOf(n.pitch)));
      const telling = parsed.kind === 'chord' ? parsed.tones.filter((t) => t.degree === 3 || t.degree === 7) : [];
      expect(telling.some((t) => heard.includes(pitchClass(t.name)))).toBe(true);
    }
  });

  it('a rest at the beginning is played', () => {
    const [chord] = dressed(['C'], 4, 'rest-chord');
    expect(strikes(chord)).toEqual(['1: C3 E3 G3', '3: C3 E3 G3']);
  });

  it('the ninth of a roll is that of the scale on its chord', () => {
    for (const key of ALL_KEYS)
      scaleOf(key).forEach((root, d, scale) => {
        const [chord] = dressed([root + (key.mode === 'major' && [1, 2, 5].includes(d) ? 'm' : '')], 4, 'long-roll', key);
        const ninth = chord.dressed?.notes[2];
        expect(pitchClass(nameOf(ninth?.pitch ?? 'C1'))).toBe(pitchClass(scale[(d + 1) % 7]));
        const up = midiOf(ninth?.pitch ?? 'C1') - midiOf(chord.dressed?.notes[0].pitch ?? 'C1');
        expect(up).toBeGreaterThan(12);
        expect(up).toBeLessThan(16);
      });
  });
});
