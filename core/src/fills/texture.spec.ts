import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf, songs, SYMBOLS } from '../../testing/songs.js';
import { readMusicXml, writeMidi, writeMusicXml } from '../formats/index.js';
import {
  arrange,
  HAND_PROFILES,
  handsOf,
  isChordNote,
  KEYBOARDS,
  midiOf,
  parseChord,
  patternFor,
  setWish,
  spanOf,
  TEXTURES,
  TextureSchema,
  TICKS_PER_QUARTER as Q,
  writtenScore,
  type Document,
} from '../index.js';
import { proposeTextures } from './propose.js';

const METERS = ['2/4', '3/4', '4/4', '5/4', '6/8', '9/8', '12/8'].map((name) => {
  const [beats, unit] = name.split('/').map(Number);
  return { name, beats, unit };
});
const dressedIn = (doc: Document, texture: string) => arrange(setWish(doc, null, 'texture', texture));
/** Left-hand attacks as "quarters: pitches". */
const strikes = (doc: Document, texture: string) => {
  const left = dressedIn(doc, texture).score.filter((n) => n.hand === 'left');
  return [...new Set(left.map((n) => n.at))].map(
    (at) =>
      `${at / Q}: ${left
        .filter((n) => n.at === at)
        .map((n) => n.pitch)
        .join(' ')}`,
  );
};

/** What must hold of a song in any texture; answers what does not. */
function faults(doc: Document, texture: string): string[] {
  const { score, parts, song, findings } = dressedIn(doc, texture);
  const plain = arrange(doc);
  const found: string[] = [];
  const must = (holds: boolean, fault: string) => holds || found.push(`${texture}, ${doc.hands.profile}: ${fault}`);
  const left = score.filter((n) => n.hand === 'left');
  const right = score.filter((n) => n.hand === 'right');
  const { low, high } = KEYBOARDS[doc.hands.keys];
  const told = new Set(findings.filter((f) => f.rule.startsWith('collision')).map((f) => f.chordAt));
  must(
    JSON.stringify(right.map((n) => [n.at, n.length, n.pitch])) ===
      JSON.stringify(plain.score.filter((n) => n.hand === 'right').map((n) => [n.at, n.length, n.pitch])),
    'the tune changed',
  );
  for (const { at } of left) {
    const keys = left.filter((n) => n.at <= at && at < n.at + n.length).map((n) => midiOf(n.pitch));
    must(Math.max(...keys) - Math.min(...keys) <= spanOf(doc.hands, 'left').limit, `the hand spans too much at ${at}`);
    must(new Set(keys).size === keys.length && keys.length <= 5, `keys ${keys.join()} at ${at}`);
  }
  for (const n of left) {
    const chord = parts.flatMap((p) => p.chords).findLast((c) => c.at <= n.at);
    const parsed = chord && parseChord(chord.symbol);
    if (!chord || parsed?.kind !== 'chord') continue;
    must(n.role === 'fill' || isChordNote(parsed, n.pitch), `${n.pitch} is not in ${chord.symbol}`);
    must(midiOf(n.pitch) >= low && midiOf(n.pitch) <= high, `${n.pitch} is off the keyboard`);
    must(n.at + n.length <= chord.at + chord.length && n.length > 0, `${n.pitch} outlasts ${chord.symbol}`);
    must(n.finger !== null && n.finger >= 1 && n.finger <= 5, `${n.pitch} has no finger`);
    const meets = right.some((r) => r.at < n.at + n.length && n.at < r.at + r.length && midiOf(r.pitch) - midiOf(n.pitch) < 3);
    must(!meets || told.has(chord.at), `${n.pitch} meets the tune at ${n.at} and it is not said`);
  }
  must(
    left.every((n) => n.at < song.length),
    'a note lies past the end',
  );
  return found;
}

describe('textures', () => {
  it('are valid data, each with an energy, and fill their meters', () => {
    expect(new Set(TEXTURES.map((t) => t.id)).size).toBe(TEXTURES.length);
    expect(TEXTURES.length).toBeGreaterThanOrEqual(15);
    for (const t of TEXTURES) {
      expect(TextureSchema.safeParse(t).success).toBe(true);
      expect(t.patterns.some((p) => ['3/4', '4/4'].includes(p.meter))).toBe(true);
    }
    for (const energy of [1, 2, 3, 4, 5]) expect(TEXTURES.some((t) => t.energy === energy)).toBe(true);
    for (const meter of METERS)
      expect(TEXTURES.filter((t) => patternFor(t, meter)).length).toBeGreaterThanOrEqual(meter.name === '5/4' ? 5 : 6);
  });

  it.each([
    ['a degree that is none', '1 4 5'],
    ['bars of different lengths', '1 u u | 1 u'],
    ['nothing', ''],
  ])('with %s are refused', (_, steps) => {
    const texture = { id: 'own', title: 'Own', energy: 3, patterns: [{ meter: '3/4', steps }] };
    expect(TextureSchema.safeParse(texture).success).toBe(false);
  });

  const waltz = documentOf(
    songOf(
      [
        ['C6', 3],
        ['D6', 3],
      ],
      [
        [0, 'C'],
        [3, 'G7'],
      ],
      { meters: [{ at: 0, beats: 3, unit: 4 }] },
    ),
  );
  const four = documentOf(
    songOf(
      [
        ['C6', 4],
        ['D6', 4],
      ],
      [
        [0, 'C'],
        [4, 'G'],
        [6, 'Am'],
      ],
    ),
  );

  it('sound as they are written: degrees on their counts, four-note chords as the lowest and the other three', () => {
    expect(strikes(waltz, 'bass-chord-chord')).toEqual(['0: C3', '1: E3 G3', '2: E3 G3', '3: B2', '4: D3 F3 G3', '5: D3 F3 G3']);
    expect(strikes(four, 'one-five-eight').slice(0, 8)).toEqual([
      '0: C3',
      '0.5: G3',
      '1: C4',
      '1.5: G3',
      '2: C3',
      '2.5: G3',
      '3: C4',
      '3.5: G3',
    ]);
  });

  it('lie low to high under the left hand’s fingers, four-note chords too', () => {
    const glass = dressedIn(demo('harbour-glass.abc'), 'broken-triad')
      .score.filter((n) => n.hand === 'left')
      .slice(0, 4);
    expect(glass.map((n) => n.pitch)).toEqual(['F2', 'C3', 'A2', 'C3']);
    expect(glass[0].finger).toBeGreaterThan(glass[2].finger ?? 5);
    expect(glass[2].finger).toBeGreaterThan(glass[1].finger ?? 5);
  });

  it('begin anew with a chord inside the bar and stop where it ends', () => {
    expect(strikes(four, 'octave-bass')).toEqual(['0: C3', '1: C4', '2: C3', '3: C4', '4: G2', '5: G3', '6: A2', '7: A3']);
  });

  it('walk to the next chord by a step that is marked as one', () => {
    const { score } = dressedIn(four, 'step-line');
    const walks = score.filter((n) => n.role === 'fill');
    expect(walks.map((n) => [n.at / Q, n.pitch])).toEqual([[3, 'A2']]);
  });

  it('go by two bars where they are two bars long', () => {
    const long = documentOf(
      songOf(
        [['C6', 12]],
        [
          [0, 'C'],
          [3, 'C'],
          [6, 'C'],
          [9, 'C'],
        ],
        { meters: [{ at: 0, beats: 3, unit: 4 }] },
      ),
    );
    const bass = strikes(long, 'alternating-bass').filter((s) => !s.includes('E'));
    expect(bass).toEqual(['0: C3', '3: G2', '6: C3', '9: G2']);
  });

  it('bend under a low tune and say how', () => {
    const low = documentOf(songOf([['D4', 4]], [[0, 'C']]));
    const arrangement = dressedIn(low, 'rise-and-fall');
    const [chord] = arrangement.parts[0].chords;
    expect(chord.dressed?.bends).toContain('C goes down an octave to stay under the tune.');
    expect(faults(low, 'rise-and-fall')).toEqual([]);
  });

  it('hold for a part alone, leave simpler versions alone, and are heard in the exports', () => {
    const glass = demo('harbour-glass.abc');
    const { parts } = arrange(glass);
    const one = setWish(glass, parts[1], 'texture', 'broken-triad');
    const arrangement = arrange(one);
    expect(arrangement.parts.map((p) => p.chords.some((c) => c.dressed))).toEqual(parts.map((p) => p.number === 2));
    expect(arrange(setWish(one, null, 'level', 'bass')).parts.every((p) => p.chords.every((c) => !c.dressed))).toBe(true);
    const xml = writeMusicXml(writtenScore(arrangement));
    expect(xml.length).toBeGreaterThan(writeMusicXml(writtenScore(arrange(glass))).length);
    expect(readMusicXml(xml).ok).toBe(true);
    expect(writeMidi(arrangement.song, arrangement.score).length).toBeGreaterThan(500);
    expect(arrangement.parts[1].difficulty.score).toBeGreaterThan(parts[1].difficulty.score);
    expect(arrangement.parts[1].together.length).toBeGreaterThan(parts[1].together.length);
  });

  it.each(DEMOS)('keep hand, keyboard, chord, tune and time in %s, whoever plays', (name) => {
    const found = HAND_PROFILES.flatMap((profile) =>
      TEXTURES.flatMap((t) => faults({ ...demo(name), hands: handsOf(profile) }, t.id)),
    );
    expect(found).toEqual([]);
  });

  it('keep them in random songs with every kind of chord', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 4, symbols: SYMBOLS }),
        fc.constantFrom(...HAND_PROFILES),
        fc.constantFrom(49 as const, 61 as const, 88 as const),
        fc.constantFrom(...TEXTURES.map((t) => t.id)),
        (song, profile, keys, texture) => {
          expect(faults({ ...documentOf(song), hands: handsOf(profile, keys) }, texture)).toEqual([]);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('a proposed plan', () => {
  const three = { beats: 3, unit: 4 };
  const planned = (labels: string, meter = three) =>
    proposeTextures(labels.split(' ').map((label) => ({ label, meter }))).map((t) => t?.energy);

  it('opens quietly, grows as letters are new or return, and closes more quietly', () => {
    expect(planned('A A B A')).toEqual([2, 3, 3, 2]);
    expect(planned('A B A′ B′ C')).toEqual([2, 3, 3, 4, 2]);
    expect(planned('A')).toEqual([2]);
  });

  it('has only textures with a pattern for the meter, and none where there is none', () => {
    for (const t of proposeTextures([
      { label: 'A', meter: three },
      { label: 'B', meter: three },
    ]))
      expect(t && patternFor(t, three)).not.toBeNull();
    expect(planned('A B', { beats: 7, unit: 8 })).toEqual([undefined, undefined]);
  });
});
