import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, documentOf, DEMOS, songOf, songs } from '../../testing/songs.js';
import { handsOf, HAND_PROFILES, KEYBOARD_SIZES, LEVELS, type Document, type Hands } from '../song/decisions.js';
import { ENGLISH } from '../words/index.js';
import { adaptations, type AdaptationFact } from './adapted.js';
import { arrange } from './arrange.js';
import type { Arrangement } from './arrangement.js';
import { levelOptions } from './ease.js';

const played = (doc: Document, hands: Partial<Hands>): Arrangement => arrange({ ...doc, hands: { ...handsOf(), ...hands } });
const anyHands = fc.record({
  profile: fc.constantFrom(...HAND_PROFILES),
  keys: fc.constantFrom(...KEYBOARD_SIZES),
  firstYear: fc.boolean(),
  most: fc.constantFrom(...LEVELS),
});

/** The keys of each hand, bar by bar. */
const keysOf = ({ bars, score }: Arrangement, hand: string, number: number): string => {
  const bar = bars.find((b) => b.number === number);
  if (!bar) throw new Error(`no bar ${number}`);
  const own = score.filter((n) => n.hand === hand && n.at >= bar.start && n.at < bar.end);
  return own
    .map((n) => `${n.at} ${n.pitch}`)
    .sort()
    .join(', ');
};
const told = (facts: readonly AdaptationFact[], hand: string): Set<number> =>
  new Set(facts.flatMap((f) => (f.code === 'adapted.hand' && f.hand === hand ? f.bars : [])));

describe('what had to change for a player', () => {
  it('is told of the bars in which a hand plays other keys, and of no others', () => {
    fc.assert(
      fc.property(songs(), anyHands, anyHands, (song, one, other) => {
        const doc = documentOf(song);
        const [usual, theirs] = [played(doc, one), played(doc, other)];
        const facts = adaptations(usual, theirs);
        for (const hand of ['left', 'right']) {
          const bars = told(facts, hand);
          for (const { number } of usual.bars)
            expect([hand, number, bars.has(number)]).toEqual([
              hand,
              number,
              keysOf(usual, hand, number) !== keysOf(theirs, hand, number),
            ]);
        }
      }),
      { numRuns: 40 },
    );
  });

  it.each(DEMOS)('is nothing for the same hands: %s', (name) => {
    expect(adaptations(arrange(demo(name)), arrange(demo(name)))).toEqual([{ code: 'adapted.nothing' }]);
  });

  it('counts notes that have another finger', () => {
    const doc = demo(DEMOS[1]);
    const [usual, theirs] = [played(doc, { profile: 'large' }), played(doc, { profile: 'child' })];
    const fingers = adaptations(usual, theirs).find((f) => f.code === 'adapted.fingers' && f.hand === 'right');
    const before = new Map(usual.score.map((n) => [`${n.hand} ${n.at} ${n.pitch}`, n.finger]));
    const other = theirs.score.filter(
      (n) => n.hand === 'right' && (before.get(`right ${n.at} ${n.pitch}`) ?? n.finger) !== n.finger,
    );
    expect(fingers?.code === 'adapted.fingers' ? fingers.notes : 0).toBe(other.length);
  });
});

describe('a level that a player does not go past', () => {
  const doc = documentOf(
    songOf(
      [
        ['E5', 4],
        ['F5', 4],
        ['D5', 4],
        ['C5', 4],
      ],
      [
        [0, 'C'],
        [4, 'Dm'],
        [8, 'G7'],
        [12, 'C'],
      ],
    ),
  );
  const sentences = (most: Hands['most']) =>
    adaptations(played(doc, {}), played(doc, { most })).map((fact) => ENGLISH.fact(fact));

  it('is said in words, with the bars and an example', () => {
    expect(sentences('two-note')[0]).toMatch(/^Left hand throughout: fewer keys at once, .+ instead of .+ in bar 1\.$/);
    expect(sentences('tune')).toEqual(['Left hand throughout: rests.']);
    expect(sentences('full')).toEqual(['Nothing changes.']);
  });

  it('is the fullest that is offered for a part or the song', () => {
    for (const most of LEVELS) {
      const offered = levelOptions({ ...doc, hands: { ...handsOf(), most } }, null);
      expect(offered.map((o) => o.level)).toEqual(LEVELS.slice(0, LEVELS.indexOf(most) + 1));
      expect(offered.filter((o) => o.current).map((o) => o.level)).toEqual([most]);
    }
  });

  it('never makes a simpler part fuller', () => {
    fc.assert(
      fc.property(songs(), fc.constantFrom(...LEVELS), fc.constantFrom(...LEVELS), (song, level, most) => {
        const simple = { ...documentOf(song), choices: { ...documentOf(song).choices, level } };
        const least = LEVELS[Math.min(LEVELS.indexOf(level), LEVELS.indexOf(most))];
        const same = { ...simple, choices: { ...simple.choices, level: least } };
        expect(played(simple, { most }).score).toEqual(played(same, {}).score);
      }),
      { numRuns: 30 },
    );
  });
});
