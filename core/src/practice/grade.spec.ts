import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { besideOffers } from '../right-hand/beside.js';
import type { Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { grade, type ExpectedNote, type HeardNote } from './grade.js';
import { playStandIn } from './stand-in-player.js';
import { ENGLISH } from '../words/index.js';
import { figuresOf, isClean, verdictsOf } from './verdict.js';

const words = (graded: Parameters<typeof verdictsOf>[0]) => verdictsOf(graded).map(ENGLISH.fact);

/** Shares of notes that are planted as slips, and how far the tempo drifts. */
type Slips = Readonly<Record<'wrong' | 'missed' | 'extra' | 'drift', number>>;

const OPTIONS = { tempo: 90, octavesForgiven: false };
const expectedOf = (name: string): ExpectedNote[] => expectedIn(demo(name));
const expectedIn = (doc: Document): ExpectedNote[] => {
  const arrangement = arrange(doc);
  const chords = arrangement.parts.flatMap((p) => p.chords);
  return arrangement.score.map((n) => ({
    midi: midi(n.pitch),
    at: n.at / Q,
    hand: n.hand,
    chord: n.hand === 'left' ? (chords.findLast((c) => c.at <= n.at)?.symbol ?? null) : null,
  }));
};
/** A demo song with a third or a sixth struck with every other note of its tune. */
const inThirds = (name: string): Document =>
  demo(name).song.melody.reduce((doc, { at, pitch }, i) => {
    const [third] = besideOffers(pitch, doc.song.key, doc.hands);
    return i % 2 === 0 && third ? applyEdit(doc, { code: 'edit.strike-with', at, below: [third.below] }) : doc;
  }, demo(name));
const midi = (pitch: string) => {
  const [, letter, sign, octave] = /^([A-G])(b*|#*)(\d)$/.exec(pitch) as RegExpExecArray;
  return (
    [9, 11, 0, 2, 4, 5, 7]['ABCDEFG'.indexOf(letter)] + (sign.startsWith('b') ? -1 : 1) * sign.length + 12 * (Number(octave) + 1)
  );
};
const row = (...midis: number[]): ExpectedNote[] => midis.map((m, i) => ({ midi: m, at: i, hand: 'right', chord: null }));
const keys = (...list: (readonly [midi: number, quarter: number])[]): HeardNote[] =>
  list.map(([m, q]) => ({ midi: m, time: q * (60 / 90) }));
const verdicts = (notes: ExpectedNote[], heard: HeardNote[], options = OPTIONS) =>
  grade(notes, heard, options).notes.map((n) => n.verdict);

describe('grading', () => {
  it('finds wrong, missed and extra notes at their places', () => {
    const g = grade(row(60, 62, 64, 65), keys([60, 0], [61, 1], [66, 2.5], [65, 3]), OPTIONS);
    expect(g.notes.map((n) => n.verdict)).toEqual(['right', 'wrong', 'missed', 'right']);
    expect(g.extra.map((e) => e.midi)).toEqual([66]);
  });

  it('knows by time which of several same notes was left out', () => {
    const notes = row(60, 60, 60, 60, 67);
    expect(verdicts(notes, keys([60, 0], [60, 1], [60, 3], [67, 4]))).toEqual(['right', 'right', 'missed', 'right', 'right']);
  });

  it('goes on after a stop and through a slower tempo', () => {
    const notes = row(60, 62, 64, 65, 67, 69);
    expect(verdicts(notes, keys([60, 0], [62, 1.2], [64, 2.4], [65, 9], [67, 10.2], [69, 11.4]))).toEqual(
      new Array(6).fill('right'),
    );
  });

  it('forgives the octave where that is asked for', () => {
    const heard = keys([72, 0], [74, 1]);
    expect(verdicts(row(60, 62), heard)).toEqual(['wrong', 'wrong']);
    expect(verdicts(row(60, 62), heard, { ...OPTIONS, octavesForgiven: true })).toEqual(['right', 'right']);
  });

  it('takes the keys of a chord in any order', () => {
    const chord: ExpectedNote[] = [48, 52, 55].map((m) => ({ midi: m, at: 0, hand: 'left', chord: 'C' }));
    expect(
      verdicts(
        chord,
        [55, 48, 52].map((m, i) => ({ midi: m, time: 1 + i * 0.01 })),
      ),
    ).toEqual(['right', 'right', 'right']);
  });

  it('hears early and late notes against the tempo as it is played', () => {
    const g = grade(
      row(60, 62, 64, 65, 67, 69, 71),
      keys([60, 0], [62, 1], [64, 2], [65, 3.4], [67, 4], [69, 5], [71, 6]),
      OPTIONS,
    );
    expect(g.notes.map((n) => n.timing)).toEqual(['on', 'on', 'on', 'late', 'on', 'on', 'on']);
  });

  it('does not call a note early or late that stands alone, where the tempo is a guess', () => {
    const notes = row(60, 62, 64, 65, 67, 69, 71, 72, 74);
    const slower = 1.08;
    const heard = keys([60, 0], ...[5, 6, 7, 8].map((i): [number, number] => [notes[i].midi, 0.3 + i * slower]));
    expect(grade(notes, heard, OPTIONS).notes[0]).toMatchObject({ verdict: 'right', timing: 'on' });
  });

  it('finds every planted mistake and calls no right note wrong, through any drift', () => {
    const songs = DEMOS.map(expectedOf);
    findsAll(songs, [
      // The first of two like notes before a chord, and the second of them left out, at a pace far from the one asked for.
      [songs[2], 51_080, { wrong: 0, missed: 0.036642085528001196, extra: 0, drift: 0.17172712583129626 }],
    ]);
  });

  it('does so where notes are struck together in the right hand', () => {
    const songs = DEMOS.map((name) => expectedIn(inThirds(name)));
    for (const notes of songs) expect(notes.some((n, i) => n.hand === 'right' && notes[i + 1]?.at === n.at)).toBe(true);
    // The second of two like notes left out, with the note beside the first: the rest of the bar tells which it was.
    const slips = { wrong: 0.05562094307079764, missed: 0.027817638949082787, extra: 0.0499583138152957, drift: 0 };
    findsAll(songs, [[songs[1], 342_237, slips]]);
  });

  function findsAll(songs: ExpectedNote[][], examples: [ExpectedNote[], number, Slips][] = []): void {
    fc.assert(
      fc.property(
        fc.constantFrom(...songs),
        fc.integer({ min: 0, max: 1_000_000 }),
        fc.record({
          wrong: fc.double({ min: 0, max: 0.06, noNaN: true }),
          missed: fc.double({ min: 0, max: 0.05, noNaN: true }),
          extra: fc.double({ min: 0, max: 0.05, noNaN: true }),
          drift: fc.double({ min: 0, max: 0.2, noNaN: true }),
        }),
        (notes, seed, manner) => {
          const pass = playStandIn(notes, { ...manner, uneven: 0.012, tempo: 84 }, seed);
          const graded = grade(notes, pass.heard, { tempo: 90, octavesForgiven: false });
          const found = (verdict: string) =>
            graded.notes.flatMap((g) => (g.verdict === verdict ? [notes.indexOf(g.note)] : [])).sort((a, b) => a - b);
          const sorted = (list: readonly number[]) => [...list].sort((a, b) => a - b);
          expect(found('wrong')).toEqual(sorted(pass.wrong));
          expect(found('missed')).toEqual(sorted(pass.missed));
          expect(graded.extra.map((e) => e.time).sort()).toEqual(pass.extra.map((e) => e.time).sort());
        },
      ),
      { numRuns: 120, examples },
    );
  }
});

describe('a hand behind the other', () => {
  it('is late and not wrong, at whichever changes it comes late', () => {
    const songs = DEMOS.map(expectedOf);
    const delay = fc.double({ min: 0.05, max: 0.35, noNaN: true });
    fc.assert(
      fc.property(
        fc.constantFrom(...songs),
        fc.constantFrom('left', 'right'),
        fc.array(fc.boolean()),
        delay,
        (notes, hand, when, by) => {
          const places = [...new Set(notes.filter((n) => n.hand === hand).map((n) => n.at))];
          const late = (n: ExpectedNote) => n.hand === hand && (when[places.indexOf(n.at) % Math.max(1, when.length)] ?? false);
          const heard = notes.map((n) => ({ midi: n.midi, time: (n.at + (late(n) ? by : 0)) * (60 / 90) }));
          const graded = grade(notes, heard, OPTIONS);
          expect(graded.notes.filter((g) => g.verdict !== 'right').map((g) => g.note)).toEqual([]);
          expect(graded.extra).toEqual([]);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('the words of a pass', () => {
  const change = (at: number, chord: string, m: number): ExpectedNote => ({ midi: m, at, hand: 'left', chord });
  const notes = [change(0, 'C', 48), change(2, 'G7', 47), change(4, 'C', 48), change(6, 'G7', 47), change(8, 'C', 48)];

  it('say first what comes again', () => {
    const late = keys([48, 0], [47, 2.5], [48, 4], [47, 6.5], [48, 8]);
    expect(words(grade(notes, late, OPTIONS))[0]).toBe('Left hand late at each change to G7.');
  });

  it('praise what was clean and count the rest', () => {
    const clean = grade(notes, keys([48, 0], [47, 2], [48, 4], [47, 6], [48, 8]), OPTIONS);
    expect([isClean(clean), words(clean)]).toEqual([true, ['Clean: every note in its place.']]);
    const poor = grade(notes, keys([48, 0], [46, 2], [48, 4], [48, 8]), OPTIONS);
    expect(words(poor)).toEqual(['Left hand: one wrong note.', 'Left hand: one note missing.']);
    expect(figuresOf(poor)).toMatchObject({ notes: 5, right: 3, wrong: 1, missed: 1, extra: 0, accuracy: 60 });
  });
});
