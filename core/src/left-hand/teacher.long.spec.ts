import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { documentOf, songOf, songs, SYMBOLS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import type { PartChord } from '../arrange/arrangement.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { midiOf, nameOf, pitchClass } from '../pitch/pitch.js';
import { handsOf, SPANS, type Document, type HandProfile } from '../song/decisions.js';
import { setSetting, transposeSong } from '../song/edits.js';
import { applyEdit } from '../song/edit.js';
import type { Song } from '../song/song.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';

const KEYS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

/** A chord a bar under a tune that is out of their way. */
const under = (symbols: readonly string[]): Song =>
  songOf(
    symbols.map(() => ['C6', 4] as const),
    symbols.map((s, i) => [i * 4, s] as const),
  );

/** Chord progressions as songs for a first year have them, and one for hands that know sevenths. */
const PLAIN = ['C F G7 C', 'C Am F G', 'C C F C G7 C', 'Am Dm E7 Am', 'C Am Dm G7 C F G7 C', 'F C G G7 C'].map((p) =>
  p.split(' '),
);
const SEVENTHS = ['Dm7', 'G7', 'Cmaj7', 'A7', 'Dm7', 'G7', 'Cmaj7'];

const inKey = (song: Song, tonic: string): Song => transposeSong(song, { tonic, mode: 'major' });
const chordsOf = (doc: Document): PartChord[] => arrange(doc).parts.flatMap((p) => p.chords);
const of = (song: Song, hands = handsOf()): Document => ({ ...documentOf(song), hands });
const degreesOf = ({ symbol, pitches }: Pick<PartChord, 'symbol' | 'pitches'>) => {
  const { tones } = parseChord(symbol) as Chord;
  const pcs = new Set(pitches.map((p) => pitchClass(nameOf(p))));
  return tones.filter((t) => pcs.has(pitchClass(t.name))).map((t) => t.degree);
};
const shapesBySymbol = (chords: readonly PartChord[]) => {
  const shapes = new Map<string, Set<string>>();
  for (const c of chords) shapes.set(c.symbol, (shapes.get(c.symbol) ?? new Set()).add(c.pitches.join(' ')));
  return [...shapes.values()].map((s) => s.size);
};
const keysOf = (chords: readonly PartChord[]) => new Set(chords.flatMap((c) => c.pitches.map(midiOf))).size;

describe('a dominant seventh', () => {
  it.each(KEYS)('has root, third and seventh after triads, in %s', (tonic) => {
    for (const symbols of PLAIN) {
      for (const chord of chordsOf(of(inKey(under(symbols), tonic))).filter((c) => c.symbol.endsWith('7'))) {
        expect(chord.pitches).toHaveLength(3);
        expect(degreesOf(chord)).toEqual([1, 3, 7]);
        expect(chord.thinned).toBeNull();
      }
    }
  });

  it.each(KEYS)('has four notes among sevenths, in %s, and as many as are wished for', (tonic) => {
    const doc = of(inKey(under(SEVENTHS), tonic));
    const sizes = (d: Document) =>
      chordsOf(d)
        .filter((c) => (parseChord(c.symbol) as Chord).quality.triad === 'major' && !c.symbol.includes('maj'))
        .map((c) => c.pitches.length);
    expect(sizes(doc)).toEqual([4, 4, 4]);
    expect(sizes(setSetting(doc, null, 'dominants', 'three'))).toEqual([3, 3, 3]);
    const [, second] = arrange(doc).parts[0].chords;
    const there = setSetting(doc, { start: second.at, end: second.at + second.length }, 'dominants', 'three');
    expect(sizes(there)).toEqual([3, 4, 4]);
  });
});

describe('the first year', () => {
  const firstYear = (profile: HandProfile) => ({ ...handsOf(profile), firstYear: true });

  it.each(KEYS)('says in two notes which chord it is, one shape a chord and no more keys than full chords, in %s', (tonic) => {
    let [told, all] = [0, 0];
    for (const symbols of PLAIN)
      for (const profile of ['child', 'small', 'medium', 'large'] as const) {
        const song = inKey(under(symbols), tonic);
        const two = chordsOf(of(song, firstYear(profile)));
        const full = chordsOf(of(song, handsOf(profile)));
        expect(Math.max(...shapesBySymbol(two))).toBe(1);
        expect(keysOf(two)).toBeLessThanOrEqual(keysOf(full));
        for (const chord of two) {
          expect(chord.pitches.length).toBeLessThanOrEqual(2);
          all++;
          if (degreesOf(chord).some((d) => d === 3 || d === 7)) told++;
        }
      }
    expect(told / all).toBeGreaterThanOrEqual(0.98);
  });

  it('takes root and third under the hand: C–E, F–A, G–B', () => {
    const chords = chordsOf(of(under(['C', 'F', 'G', 'C']), firstYear('child')));
    expect(chords.map((c) => c.pitches.map(nameOf).join('–'))).toEqual(['C–E', 'F–A', 'G–B', 'C–E']);
    expect(chords.map((c) => c.fingers.join('-'))).toEqual(['5-3', '2-1', '2-1', '5-3']);
  });
});

describe('one chord, one shape', () => {
  it('keeps a symbol on its keys through a song', () => {
    let [symbols, shapes] = [0, 0];
    for (const tonic of KEYS)
      for (const progression of PLAIN) {
        const counts = shapesBySymbol(chordsOf(of(inKey(under([...progression, ...progression]), tonic))));
        symbols += counts.length;
        shapes += counts.reduce((a, b) => a + b, 0);
      }
    expect(shapes / symbols).toBeLessThanOrEqual(1.02);
  });

  it('lays a part that comes again exactly as it lay: keys, fingers, what a texture makes of it', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 3 }),
        songs({ maxBars: 2 }),
        fc.constantFrom('block', 'bass-chord', 'broken-triad', 'alternating-bass'),
        (phrase, other, texture) => {
          const doc = repeated(phrase, other);
          const { parts } = arrange(applyEdit(doc, { code: 'edit.setting', range: null, setting: 'texture', value: texture }));
          for (const part of parts) {
            if (part.repeats?.kind !== 'exact') continue;
            const first = parts[part.repeats.part - 1];
            const laid = (p: typeof part) =>
              p.chords.map((c) => [
                c.at - p.start,
                c.symbol,
                c.pitches,
                c.fingers,
                c.dressed?.notes.map((n) => [n.at - c.at, n.length, n.pitch]),
                c.dressed?.bends,
              ]);
            expect(laid(part)).toEqual(laid(first));
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('begins a section in root position', () => {
    for (const tonic of KEYS) {
      const song = inKey(under(['C', 'G', 'Am', 'F', 'F', 'C', 'G7', 'C']), tonic);
      const doc = {
        ...of(song),
        choices: { ...of(song).choices, parts: eachFour(song), sections: [{ at: 16 * Q, name: 'Chorus' }] },
      };
      const { parts } = arrange(doc);
      expect(parts.flatMap((p) => p.chords).find((c) => c.at === 16 * Q)?.inversion).toBe(0);
    }
  });
});

describe('comfort', () => {
  it.each(['child', 'small'] as const)(
    'goes before motion for a %s hand: nothing past it where the school has an easier shape',
    (profile) => {
      const { comfortable } = SPANS[profile];
      for (const school of ['close', 'root', 'two-note', 'shell', 'fifths'] as const)
        fc.assert(
          fc.property(
            fc.array(fc.constantFrom(...SYMBOLS.filter((s) => s !== 'N.C.')), { minLength: 2, maxLength: 8 }),
            (symbols) => {
              const doc = of(under(symbols), handsOf(profile));
              for (const chord of chordsOf({ ...doc, choices: { ...doc.choices, school } })) {
                const width = midiOf(chord.pitches[chord.pitches.length - 1]) - midiOf(chord.pitches[0]);
                if (width <= comfortable || chord.pitches.length < 2) continue;
                expect([chord.symbol, easier(chord, school, comfortable)]).toEqual([chord.symbol, []]);
              }
            },
          ),
          { numRuns: 25 },
        );
    },
  );
});

describe('low down and wide', () => {
  it('has no second as the lowest interval below E3, and no three notes side by side', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...SYMBOLS.filter((s) => s !== 'N.C.')), { minLength: 2, maxLength: 8 }),
        fc.constantFrom('child', 'small', 'medium', 'large'),
        (symbols, profile) => {
          for (const { pitches } of chordsOf(of(under(symbols), handsOf(profile)))) {
            const keys = pitches.map(midiOf);
            if (keys.length > 1 && keys[0] < midiOf('E3')) expect(keys[1] - keys[0]).toBeGreaterThan(2);
            for (let i = 2; i < keys.length; i++) expect(keys[i] - keys[i - 2]).toBeGreaterThan(4);
          }
        },
      ),
      { numRuns: 120 },
    );
  });

  it.each(KEYS)('spreads ninths and thirteenths without their root, in %s', (tonic) => {
    const song = inKey(under(['Dm9', 'G13', 'Cmaj9', 'A7b9', 'Dm9', 'G9', 'C6/9']), tonic);
    for (const chord of chordsOf(of(song))) expect(degreesOf(chord)).not.toContain(1);
  });
});

/** A phrase, another, and the phrase again, divided where they meet. */
function repeated(phrase: Song, other: Song): Document {
  // Both begin on a bar line, so that the same chords are struck again at the same places.
  const again = (length: number) => Math.ceil(length / (4 * Q)) * 4 * Q;
  const second = again(phrase.length);
  const opened = [{ at: 0, symbol: 'C' }, ...phrase.chords.filter((c) => c.at > 0)];
  const cut = second + again(other.length);
  const moved = <T extends { at: number }>(rows: readonly T[], by: number): T[] => rows.map((r) => ({ ...r, at: r.at + by }));
  const song: Song = {
    ...phrase,
    pickup: 0,
    meters: [{ at: 0, beats: 4, unit: 4 }],
    marks: [],
    length: cut + second,
    melody: [...phrase.melody, ...moved(other.melody, second), ...moved(phrase.melody, cut)],
    chords: [...opened, ...moved(other.chords, second), ...moved(opened, cut)],
  };
  const parts = [
    { start: 0, end: second },
    { start: second, end: cut },
    { start: cut, end: song.length },
  ];
  const doc = documentOf(song);
  return { ...doc, choices: { ...doc.choices, parts } };
}

function eachFour({ length }: Song): { start: number; end: number }[] {
  return Array.from({ length: Math.ceil(length / (16 * Q)) }, (_, i) => ({
    start: i * 16 * Q,
    end: Math.min(length, (i + 1) * 16 * Q),
  }));
}

/** Shapes of a chord in a school that lie within a span: found by trying every set of its notes on every key. */
function easier({ symbol }: PartChord, school: string, comfortable: number): number[][] {
  const chord = parseChord(symbol) as Chord;
  const bass = chord.bass === null ? null : pitchClass(chord.bass);
  const pcs = new Map(chord.tones.map((t) => [pitchClass(t.name), t.degree]));
  const found: number[][] = [];
  const third = chord.tones.find((t) => t.degree === 3);
  for (let bottom = 41; bottom <= 60; bottom++) {
    const pc = bottom % 12;
    if (bass !== null ? pc !== bass : !pcs.has(pc)) continue;
    if ((school === 'root' || school === 'fifths' || school === 'shell') && bass === null && pcs.get(pc) !== 1) continue;
    for (let top = bottom + 3; top <= bottom + comfortable; top++) {
      const degree = pcs.get(top % 12);
      if (degree === undefined || (top - bottom) % 12 === 0) continue;
      // Two notes that say which chord it is are the least that a school of chords would take; a shell or a fifth is its own.
      const pair = [degree, pcs.get(pc) ?? 0];
      const tells = school === 'fifths' ? degree === 5 : pair.includes(third ? 3 : 1) && pair.some((d) => d === 1 || d === 7);
      if (school === 'shell' && !pair.some((d) => d === 3 || d === 6 || d === 7)) continue;
      if (tells && top - bottom > 2) found.push([bottom, top]);
    }
  }
  return found;
}
