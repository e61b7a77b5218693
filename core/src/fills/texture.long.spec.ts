import { ENGLISH } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsOf } from '../../testing/playable.js';
import { demo, DEMOS, documentOf, songOf, songs, SYMBOLS } from '../../testing/songs.js';
import { readMusicXml, writeMidi, writeMusicXml } from '../formats/index.js';
import { arrange } from '../arrange/arrange.js';
import { writtenScore } from '../sheet/written.js';
import { HAND_PROFILES, handsOf, type Document, type Walk } from '../song/decisions.js';
import { alternateTextures } from '../song/alternate.js';
import { removeTexture, saveTexture } from '../song/dressing.js';
import { applyEdit } from '../song/edit.js';
import { setSetting } from '../song/edits.js';
import { TextureSchema, type Texture } from '../song/texture-data.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { TEXTURES } from '../catalogue/textures/list.js';
import { patternFor } from './texture.js';
import { nearestTo, proposeTextures } from './propose.js';
import { isBroken } from './tokens.js';

const METERS = ['2/4', '3/4', '4/4', '5/4', '6/8', '9/8', '12/8'].map((name) => {
  const [beats, unit] = name.split('/').map(Number);
  return { name, beats, unit };
});
const dressedIn = (doc: Document, texture: string) => arrange(setSetting(doc, null, 'texture', texture));
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

const faults = (doc: Document, texture: string): string[] =>
  faultsOf(setSetting(doc, null, 'texture', texture)).map((fault) => `${texture}, ${fault}`);

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

  it('sound as they are written: degrees on their counts, the root under its chord', () => {
    expect(strikes(waltz, 'bass-chord-chord')).toEqual(['0: C3', '1: E3 G3', '2: E3 G3', '3: G2', '4: B2 F3 G3', '5: B2 F3 G3']);
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

  it('walk on request, by the scale or by half steps, from below or above, two steps where there is time', () => {
    const walking = (walk: Walk) =>
      arrange(setSetting(setSetting(four, null, 'texture', 'octave-bass'), null, 'walk', walk))
        .score.filter((n) => n.role === 'fill')
        .map((n) => [n.at / Q, n.pitch]);
    expect(walking('none')).toEqual([]);
    expect(walking('scale-below')).toEqual([
      [2, 'E2'],
      [3, 'F2'],
      [5, 'G2'],
    ]);
    expect(walking('half-above')).toEqual([
      [2, 'A2'],
      [3, 'Ab2'],
      [5, 'Bb2'],
    ]);
  });

  it('keep a pedal note under changing chords and mark it where it is foreign', () => {
    const { parts, score } = dressedIn(waltz, 'pedal-note');
    expect(score.filter((n) => n.hand === 'left' && n.pitch === 'C3').map((n) => [n.at / Q, n.role])).toEqual([
      [0, 'bass'],
      [3, 'fill'],
    ]);
    expect(parts.flatMap((p) => p.chords)[1].dressed?.bends).toContainEqual({
      code: 'bend.pedal-note',
      pitch: expect.stringMatching(/^C/) as string,
      symbol: 'G7',
    });
  });

  it('hold block chords over the bar lines, striking again where a part begins', () => {
    const long = documentOf(songOf([['C6', 16]], [[0, 'C']]));
    expect(strikes(long, 'block').length).toBe(4);
    const held = dressedIn(long, 'held-block');
    expect(strikes(long, 'held-block').length).toBe(held.parts.length);
    expect(readMusicXml(writeMusicXml(writtenScore(held))).ok).toBe(true);
  });

  it('of one’s own are realised like the others, and two of them take turns every two bars', () => {
    const own = (id: string, steps: string): Texture => ({ id, title: id, energy: 3, patterns: [{ meter: '4/4', steps }] });
    const eight = documentOf(songOf([['C6', 32]], [[0, 'C']]));
    const written = saveTexture(saveTexture(eight, own('figure-a', '1 5 8 5 | 1 - - -')), own('figure-b', '8 5 1 5 | 8 - - -'));
    const { bars } = arrange(eight);
    const turns = applyEdit(written, alternateTextures({ start: 0, end: eight.song.length }, ['figure-a', 'figure-b'], bars));
    const first = arrange(turns)
      .score.filter((n) => n.hand === 'left' && (n.at / Q) % 4 === 0)
      .map((n) => n.pitch);
    expect(first).toEqual(['C3', 'C3', 'C4', 'C4', 'C3', 'C3', 'C4', 'C4']);
    const without = arrange(removeTexture(turns, 'figure-b'));
    expect(without.parts.flatMap((p) => p.chords).filter((c) => c.dressed).length).toBe(4);
  });

  it('may be left to the player, in plain chords', () => {
    expect(dressedIn(four, 'free').score).toEqual(arrange(four).score);
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

  it('bend for the whole chord where the tune comes down, and say how', () => {
    const under = (tune: readonly (readonly [string, number])[], symbol: string, texture: string) => {
      const doc = documentOf(songOf(tune, [[0, symbol]]));
      expect(faults(doc, texture)).toEqual([]);
      const { dressed } = dressedIn(doc, texture).parts[0].chords[0];
      return { told: dressed?.bends.map(ENGLISH.fact), keys: dressed?.notes.map((n) => `${n.at / Q}: ${n.pitch}`) };
    };
    // An octave lower where the pattern does not growl there; all of it, also where the tune is out of the way.
    const lower = under([['F3', 1], ['C6', 3]], 'A', 'one-five-eight'); // prettier-ignore
    expect(lower.told).toEqual(['The melody comes down here, so the pattern over A is played an octave lower.']);
    expect(new Set(lower.keys?.map((k) => k.slice(-2)))).toEqual(new Set(['A1', 'E2', 'A2']));
    // Its first half held where that is clear.
    const half = under([['C6', 2], ['F#3', 2]], 'D', 'leaping-tenth'); // prettier-ignore
    expect(half.told).toEqual(['The melody comes down here, so the pattern over D is cut to its first half and held.']);
    expect(half.keys).toEqual(['0: D2', '0.5: A2', '1: F#3', '1: A3', '1.5: D3']);
    // Else without what is in the way, in every beat of the bar.
    const thin = under([['E3', 2], ['C6', 2]], 'D', 'one-five-eight'); // prettier-ignore
    expect(thin.told).toEqual(['D3 is left out: the melody needs the room.']);
    expect(thin.keys?.every((k) => !k.endsWith('D3'))).toBe(true);
  });

  it('hold for a part alone, leave simpler versions alone, and are heard in the exports', () => {
    const glass = demo('harbour-glass.abc');
    const { parts } = arrange(glass);
    const one = setSetting(glass, parts[1], 'texture', 'broken-triad');
    const arrangement = arrange(one);
    expect(arrangement.parts.map((p) => p.chords.some((c) => c.dressed))).toEqual(parts.map((p) => p.number === 2));
    expect(arrange(setSetting(one, null, 'level', 'bass')).parts.every((p) => p.chords.every((c) => !c.dressed))).toBe(true);
    const xml = writeMusicXml(writtenScore(arrangement));
    expect(xml.length).toBeGreaterThan(writeMusicXml(writtenScore(arrange(glass))).length);
    expect(readMusicXml(xml).ok).toBe(true);
    expect(writeMidi(arrangement.song, arrangement.score).length).toBeGreaterThan(500);
    expect(arrangement.parts[1].difficulty.score).toBeGreaterThan(parts[1].difficulty.score);
    expect(arrangement.parts[1].together.length).toBeGreaterThan(parts[1].together.length);
  });

  it.each(DEMOS)('keep hand, keyboard, chord, tune and time in %s, whoever plays', (name) => {
    const song = demo(name);
    const found = HAND_PROFILES.flatMap((profile) => TEXTURES.flatMap((t) => faults({ ...song, hands: handsOf(profile) }, t.id)));
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
    proposeTextures(
      labels.split(' ').map((label) => ({ label, meter })),
      100,
    ).map((t) => t?.energy);
  const inSections = (...names: string[]) =>
    proposeTextures(
      names.map((section, i) => ({ label: String.fromCharCode(65 + i), meter: { beats: 4, unit: 4 }, section })),
      100,
    ).map((t) => t?.energy ?? 0);

  it('opens quietly, grows as letters are new or return, and never plays what returns more quietly', () => {
    expect(planned('A A B A')).toEqual([2, 3, 3, 4]);
    expect(planned('A B A′ B′ C')).toEqual([2, 3, 3, 4, 4]);
    expect(planned('A')).toEqual([2]);
  });

  it('reads the names of sections: the chorus is the liveliest, only an outro is made quiet', () => {
    const [intro, verse, chorus, again, bridge, last, outro] = inSections(
      'Intro', 'Verse 1', 'Chorus', 'Verse 2', 'Bridge', 'Chorus', 'Outro'); // prettier-ignore
    expect(chorus).toBeGreaterThan(Math.max(intro, verse, again, bridge));
    expect(last).toBeGreaterThanOrEqual(chorus);
    expect(outro).toBeLessThan(last);
    expect(inSections('Verse', 'Pre-chorus', 'Chorus')[1]).toBeLessThan(inSections('Verse', 'Pre-chorus', 'Chorus')[2]);
    expect(inSections('Verse', 'Refrain')).toEqual(inSections('Verse', 'Chorus'));
  });

  it('takes broken patterns for slow songs and the shape taken apart first for others', () => {
    const of = (tempo: number, energy: number) => nearestTo(energy, { beats: 4, unit: 4 }, tempo);
    for (const energy of [2, 3, 4]) {
      const texture = of(66, energy);
      expect(texture && isBroken(texture)).toBe(true);
    }
    expect(of(100, 2)?.id).toBe('shape-apart');
    expect(of(80, 2)?.id).toBe('shape-apart');
  });

  it('has only textures with a pattern for the meter, and none where there is none', () => {
    const parts = ['A', 'B'].map((label) => ({ label, meter: three }));
    for (const t of proposeTextures(parts, 60)) expect(t && patternFor(t, three)).not.toBeNull();
    expect(planned('A B', { beats: 7, unit: 8 })).toEqual([undefined, undefined]);
  });
});
