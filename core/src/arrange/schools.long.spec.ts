import { ENGLISH, sentences } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf, songs, TWO_FIVE_ONE } from '../../testing/songs.js';
import { isMuddy } from '../left-hand/costs.js';
import { parseChord } from '../harmony/symbol.js';
import { shapeOf, shapesOf } from '../left-hand/shapes.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { HAND_PROFILES, handsOf, KEYBOARDS, SCHOOLS, spanOf, type Document, type School } from '../song/decisions.js';
import { pinVoicing, setChordSchool, setPassage, setSchool } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { arrange } from './arrange.js';
import type { Arrangement, ScoreNote } from './arrangement.js';
import { schoolPrices } from './prices.js';

const chordsOf = (arrangement: Arrangement) => arrangement.parts.flatMap((p) => p.chords);

/** The widest that one hand ever is: all its keys that sound together, at every place where one is struck. */
function widest(notes: readonly ScoreNote[]): number {
  return Math.max(
    0,
    ...notes.map(({ at }) => {
      const keys = notes.filter((n) => n.at <= at && at < n.at + n.length).map((n) => midiOf(n.pitch));
      return Math.max(...keys) - Math.min(...keys);
    }),
  );
}

/** What must hold of any arrangement, whoever plays it and however it is voiced; answers what does not. */
function faults(doc: Document): string[] {
  const arrangement = arrange(doc);
  const { score, findings, totals } = arrangement;
  const found: string[] = [];
  const must = (holds: boolean, fault: string) => holds || found.push(`${doc.choices.school} ${doc.hands.profile}: ${fault}`);
  const said = (rule: string) => new Set(findings.filter((f) => f.rule.startsWith(rule)).map((f) => f.chordAt));
  const [left, right] = (['left', 'right'] as const).map((hand) => score.filter((n) => n.hand === hand));
  must(widest(left) <= spanOf(doc.hands, 'left').limit, `the left hand spans ${widest(left)}`);
  must(widest(right) <= spanOf(doc.hands, 'right').limit, `the right hand spans ${widest(right)}`);
  const { low, high } = KEYBOARDS[doc.hands.keys];
  for (const n of score) must(midiOf(n.pitch) >= low && midiOf(n.pitch) <= high, `${n.pitch} is off the keyboard`);
  const collisions = said('collision');
  // What is low is said once for a shape, where it comes first.
  const growls = said('low');
  const muddy = new Set(chordsOf(arrangement).flatMap((c) => (growls.has(c.at) ? [c.pitches.join(' ')] : [])));
  for (const chord of chordsOf(arrangement)) {
    const parsed = parseChord(chord.symbol);
    const names = parsed.kind === 'chord' ? [...parsed.tones.map((t) => t.name), parsed.bass ?? parsed.root] : [];
    for (const pitch of chord.pitches) must(names.includes(nameOf(pitch)), `${pitch} is not spelled from ${chord.symbol}`);
    must(
      !isMuddy(chord.pitches.map(midiOf)) || muddy.has(chord.pitches.join(' ')),
      `${chord.pitches.join(' ')} is low and not marked`,
    );
    const meets = chord.struck.some((l) =>
      right.some((r) => r.at < l.at + l.length && l.at < r.at + r.length && midiOf(r.pitch) - midiOf(l.pitch) < 3),
    );
    must(meets === collisions.has(chord.at), `the hands ${meets ? 'meet unsaid' : 'are said to meet'} at ${chord.at}`);
  }
  if (doc.choices.school === 'close')
    must(totals.leftTravel <= totals.leftTravelRoot, 'nearest inversions travel more than roots');
  const struck = new Set(chordsOf(arrangement).map((c) => c.at));
  for (const { at, symbol } of arrangement.song.chords) must(symbol === 'N.C.' || struck.has(at), `${symbol} at ${at} is lost`);
  return found;
}

const everySchool = (doc: Document): Document[] => SCHOOLS.map((school) => setSchool(doc, school));
const everyHand = (doc: Document): Document[] =>
  HAND_PROFILES.map((profile) => ({ ...doc, hands: handsOf(profile, doc.hands.keys) }));

describe('every school in every hand', () => {
  it.each(DEMOS)('keeps span, keyboard, tune and spelling in %s', (name) => {
    const ways = everyHand(demo(name)).flatMap(everySchool);
    const firstYear = ways.map((doc): Document => ({ ...doc, hands: { ...doc.hands, keys: 49, firstYear: true } }));
    expect([...ways, ...firstYear].flatMap(faults)).toEqual([]);
  });

  it('keeps span, keyboard, tune and spelling in 500 random songs', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 3 }),
        fc.constantFrom(...HAND_PROFILES),
        fc.constantFrom(49, 61, 76, 88),
        fc.constantFrom(...SCHOOLS),
        (song, profile, keys, school) => {
          expect(faults(setSchool({ ...documentOf(song), hands: handsOf(profile, keys) }, school))).toEqual([]);
        },
      ),
      { numRuns: 500 },
    );
  });
});

const voicedIn = (school: School, hands = handsOf('large')) =>
  chordsOf(arrange({ ...setSchool(documentOf(TWO_FIVE_ONE), school), hands }));

describe('the shape of each school', () => {
  it.each([
    ['root', ['D3 F3 A3 C4', 'G3 B3 D4 F4', 'C3 E3 G3 B3']],
    ['shell', ['D3 C4', 'G3 B3', 'C3 B3']],
    ['octave', ['D2 D3', 'G2 G3', 'C2 C3']],
    ['single-bass', ['D3', 'G2', 'C3']],
  ] as const)('%s', (school, expected) => {
    const shapes = voicedIn(school).map((c) => c.pitches.join(' '));
    // The register may move by an octave with the costs; the names and their order are the school's.
    expect(shapes.map((s) => s.replaceAll(/\d/g, ''))).toEqual(expected.map((s) => s.replaceAll(/\d/g, '')));
  });

  it('is two notes of the chord, near to each other and to what follows', () => {
    const chords = voicedIn('two-note', handsOf('small'));
    expect(chords.map((c) => c.pitches.length)).toEqual([2, 2, 2]);
    expect(chords.reduce((sum, c) => sum + c.motion, 0)).toBeLessThanOrEqual(6);
  });

  it('is a fifth or a tenth where the school says so', () => {
    expect(voicedIn('fifths').map((c) => shapeOf(c.pitches))).toEqual(['7', '7', '7']);
    for (const chord of voicedIn('open')) {
      const [low, , top] = chord.pitches.map(midiOf);
      expect([15, 16]).toContain(top - low);
    }
  });

  it('breaks a tenth that the hand does not reach: low note first, let go before the rest', () => {
    const small = voicedIn('open', handsOf('small'));
    expect(small.map((c) => c.spread)).toEqual(['broken', 'broken', 'broken']);
    const [low, fifth, tenth] = small[0].struck;
    expect([low.at, fifth.at, tenth.at]).toEqual([0, Q, Q]);
    expect(low.at + low.length).toBe(Q);
    expect(sentences(small[0].why, ENGLISH)).toContain('it is broken: the low note first');
    expect(voicedIn('open', handsOf('large')).map((c) => c.spread)).toEqual(['together', 'together', 'together']);
  });

  it('rolls it where there is no time to break it', () => {
    const quick = songOf(
      [
        ['A5', 1],
        ['B5', 1],
      ],
      [
        [0, 'Dm7'],
        [1, 'G7'],
      ],
    );
    const [chord] = chordsOf(arrange({ ...setSchool(documentOf(quick), 'open'), hands: handsOf('child') }));
    expect(chord.spread).toBe('rolled');
    expect(chord.struck[1].at).toBeGreaterThan(0);
    expect(chord.struck[1].at).toBeLessThan(Q / 4);
  });

  it('puts the chord under the tune in the right hand, and the bass in the left', () => {
    const under = arrange(setSchool(documentOf(TWO_FIVE_ONE), 'under-melody'));
    expect(under.score.filter((n) => n.role === 'harmony' && n.at === 0).map((n) => n.pitch)).toEqual(['C5', 'F5']);
    expect(chordsOf(under).every((c) => c.pitches.every((p) => nameOf(p) === nameOf(c.pitches[0])))).toBe(true);
    const quick = songOf(
      Array.from({ length: 8 }, (_, i) => [i % 2 ? 'B5' : 'A5', 0.5] as const),
      [[0, 'Dm7']],
    );
    const struck = arrange(setSchool(documentOf(quick), 'under-melody')).score.filter((n) => n.role === 'harmony');
    expect(new Set(struck.map((n) => n.at))).toEqual(new Set([0]));
  });
});

describe('schools by song, part and chord', () => {
  it('let the chord speak before the part and the part before the song', () => {
    const whole = setSchool(documentOf(TWO_FIVE_ONE), 'fifths');
    const part = setPassage(whole, { start: 4 * Q, end: 12 * Q }, { school: 'octave' });
    const chord = setChordSchool(part, 8 * Q, 'single-bass');
    expect(chordsOf(arrange(chord)).map((c) => c.school)).toEqual(['fifths', 'octave', 'single-bass']);
    expect(chordsOf(arrange(setChordSchool(chord, 8 * Q, null))).map((c) => c.school)).toEqual(['fifths', 'octave', 'octave']);
  });

  it('give a first-year player two notes within the comfortable span', () => {
    const chords = chordsOf(arrange({ ...documentOf(TWO_FIVE_ONE), hands: { ...handsOf('small'), firstYear: true } }));
    expect(chords.map((c) => c.school)).toEqual(['two-note', 'two-note', 'two-note']);
    for (const c of chords) expect(midiOf(c.pitches[1]) - midiOf(c.pitches[0])).toBeLessThanOrEqual(10);
  });

  it('follow a measured span instead of the profile', () => {
    const measured = { ...handsOf('large'), left: { comfortable: 5, limit: 7 } };
    for (const c of chordsOf(arrange({ ...documentOf(TWO_FIVE_ONE), hands: measured }))) {
      const midis = c.pitches.map(midiOf);
      expect(midis[midis.length - 1] - midis[0]).toBeLessThanOrEqual(7);
    }
  });
});

describe('the bass line asked for', () => {
  const scale = songOf(
    ['E6', 'E6', 'E6', 'E6', 'E6', 'E6'].map((p) => [p, 4] as const),
    ['C', 'G', 'Am', 'Em', 'F', 'C'].map((s, i) => [i * 4, s] as const),
  );
  const basses = (bass: Document['choices']['bass']) => {
    const doc = documentOf(scale);
    return chordsOf(arrange({ ...doc, choices: { ...doc.choices, bass } })).map((c) => midiOf(c.pitches[0]));
  };
  const steps = (line: number[]) => line.slice(1).map((m, i) => m - line[i]);

  it('falls, or rises, all the way where the chords let it', () => {
    const against = (line: number[], way: 1 | -1) => steps(line).filter((s) => s * way < 0).length;
    expect(against(basses('falling'), -1)).toBe(0);
    expect(against(basses('rising'), 1)).toBeLessThan(against(basses('falling'), 1));
    expect(basses('falling').at(-1)).toBeLessThan(basses('falling')[0]);
  });

  it('is held where a chord can keep it', () => {
    const still = (line: number[]) => steps(line).filter((s) => s === 0).length;
    expect(still(basses('held'))).toBeGreaterThan(still(basses('free')) - 1);
    expect(Math.max(...steps(basses('held')).map(Math.abs))).toBeLessThanOrEqual(3);
  });
});

describe('what a school costs', () => {
  const doc = demo('harbour-glass.abc');
  const arrangement = arrange(doc);

  it('is what the arrangement in that school has', () => {
    const prices = schoolPrices(doc, arrangement, { start: 0, end: doc.song.length });
    const now = prices.find((p) => p.current);
    expect(now?.shape).toEqual(arrangement.parts[0].chords[0].pitches);
    const [, second] = arrangement.parts[0].chords;
    const ofSecond = schoolPrices(doc, arrangement, { start: 0, end: doc.song.length }, second.at);
    expect(ofSecond.find((p) => p.current)?.shape).toEqual(second.pitches);
    for (const price of prices) {
      const changed = arrange(setSchool(doc, price.school));
      expect(price.travel).toBe(changed.totals.leftTravel);
      expect(price.shapes).toBe(shapesOf(chordsOf(changed)).length);
      const grips = new Set([
        ...chordsOf(changed).map((c) => c.pitches.join(' ')),
        ...changed.parts.flatMap((p) => p.under.map((u) => [...u.pitches, u.tune].join(' '))),
      ]);
      expect(price.notes).toBe([...grips].reduce((sum, g) => sum + g.split(' ').length, 0));
    }
    expect(prices.filter((p) => p.current).map((p) => p.school)).toEqual(['close']);
  });

  it('is counted within one part, the rest as it stands', () => {
    const [, part] = arrangement.parts;
    const close = schoolPrices(doc, arrangement, part).find((p) => p.school === 'close');
    const travel = part.chords.reduce((sum, c) => sum + c.motion, 0);
    expect(close?.travel).toBe(travel);
  });

  it('sees the same shape in every place as one', () => {
    const shapes = shapesOf([{ pitches: ['C3', 'E3', 'G3'] }, { pitches: ['F3', 'A3', 'C4'] }, { pitches: ['F3', 'Ab3', 'C4'] }]);
    expect(shapes.map((s) => [s.form, s.number, s.times, s.places])).toEqual([
      ['4-3', 1, 2, 2],
      ['3-4', 2, 1, 1],
    ]);
  });
});

describe('a pin', () => {
  it('holds in another school, and is reported where the chord under it changed', () => {
    const pinned = pinVoicing(documentOf(TWO_FIVE_ONE), 4 * Q, ['G3', 'B3', 'D4', 'F4']);
    for (const school of SCHOOLS)
      expect(chordsOf(arrange(setSchool(pinned, school)))[1].pitches).toEqual(['G3', 'B3', 'D4', 'F4']);
    const changed = { ...pinned, choices: { ...pinned.choices, chords: [{ at: 4 * Q, symbol: 'Db7' }] } };
    const found = arrange(changed).findings.find((f) => f.rule === 'pin-foreign');
    expect(found && ENGLISH.fact(found.fact)).toBe('G and D, which you kept at bar 2, count 1, are not in Db7.');
    expect(found?.fixes[0].action).toEqual({ code: 'edit.free-voicing', at: 4 * Q });
  });

  it('is reported where no chord is struck any more', () => {
    const lost = pinVoicing(documentOf(TWO_FIVE_ONE), 5 * Q, ['G3']);
    expect(arrange(lost).findings.map((f) => f.rule)).toContain('pin-lost');
  });
});
