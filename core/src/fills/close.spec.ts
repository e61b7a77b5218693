import { ENGLISH } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf } from '../../testing/songs.js';
import { readMusicXml, writeMidi, writeMusicXml } from '../formats/index.js';
import { firstAndSecondEndings, louderEachTime, timeOf } from '../arrange/across-repeats.js';
import { arrange } from '../arrange/arrange.js';
import { writtenScore } from '../sheet/written.js';
import { handsOf, type Document, type Ending } from '../song/decisions.js';
import { setBalance, setClose } from '../song/dressing.js';
import { applyEdit } from '../song/edit.js';
import { setSetting, settingAt } from '../song/edits.js';
import { placeAfter, secondsTo } from '../time/tempo.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { Midi } from '../formats/midi/package.js';

const four = (last: string, symbol = 'C') =>
  documentOf(
    songOf(
      [
        ['E5', 4],
        ['D5', 4],
        [last, 8],
      ],
      [
        [0, 'Am'],
        [4, 'G'],
        [8, symbol],
      ],
    ),
  );
const ending = (doc: Document, wish: Ending) => arrange(setSetting(doc, null, 'ending', wish));
const symbols = (doc: Document, wish: Ending) =>
  ending(doc, wish)
    .parts.flatMap((p) => p.chords)
    .filter((c) => !c.restruck)
    .map((c) => `${c.at / Q} ${c.symbol}`);

describe('an ending', () => {
  it('holds the third of the last chord back by fourth and second', () => {
    expect(symbols(four('C5'), 'suspended')).toEqual(['0 Am', '4 G', '8 Csus4', '9 Csus2', '10 C']);
  });

  it('is left out with a reason where the tune sings the third, or where there is no third', () => {
    for (const doc of [four('E5'), four('C5', 'C5')]) {
      const { findings } = ending(doc, 'suspended');
      expect(findings.filter((f) => f.rule === 'ending-left-out').map((f) => ENGLISH.fact(f.fact))).toEqual([
        expect.stringMatching(/^The ending you asked for at bar 3, count 1 is left out: .+(the third|no third)/),
      ]);
    }
  });

  it('turns back to the start by the dominant or by the half step above', () => {
    expect(symbols(four('C5'), 'dominant').at(-1)).toBe('14 E7');
    expect(symbols(four('C5'), 'flat-second').at(-1)).toBe('14 Bb7');
  });

  it('leads to the chord that the next part begins with, and lets one that goes on come back', () => {
    const glass = demo('harbour-glass.abc');
    const { parts } = arrange(glass);
    const one = arrange(setSetting(glass, parts[0], 'ending', 'dominant'));
    const chords = one.parts.flatMap((p) => p.chords);
    const next = chords.findIndex((c) => c.at >= parts[1].start);
    expect(chords[next - 1].chordWhy.map((f) => f.code)).toEqual(['chord.turns-back']);
    expect(chords[next].symbol).toBe(parts[1].chords[0].symbol);
  });

  it('differs from the first time to the second where a part comes again', () => {
    const glass = demo('harbour-glass.abc');
    const { parts } = arrange(glass);
    const endings = firstAndSecondEndings(parts);
    const doc = endings && applyEdit(glass, endings);
    // A B A B′ C D A B′: what comes again ends with its second part.
    expect(parts.map((p) => doc && settingAt(doc, p.start, 'ending'))).toEqual([
      'plain',
      'dominant',
      'plain',
      'dominant',
      'plain',
      'plain',
      'plain',
      'suspended',
    ]);
    expect(firstAndSecondEndings(arrange(four('C5')).parts)).toBeNull();
  });
});

describe('the close', () => {
  const lastLeft = (doc: Document) => {
    const left = arrange(doc).score.filter((n) => n.hand === 'left');
    return left.filter((n) => n.at >= 12 * Q);
  };

  it('can be rolled from the bottom, every key held, with its sign on the sheet', () => {
    const rolled = setClose(four('C5'), { touch: 'rolled' });
    const notes = lastLeft(rolled);
    expect(new Set(notes.map((n) => n.at)).size).toBe(notes.length);
    expect(notes.every((n) => n.at + n.length === 16 * Q)).toBe(true);
    expect(writeMusicXml(writtenScore(arrange(rolled)))).toContain('<arpeggiate/>');
  });

  it('can be a low octave, or its root alone in a small hand', () => {
    const low = setClose(four('C5'), { touch: 'octave' });
    expect(lastLeft(low).map((n) => n.pitch)).toEqual(['C2', 'C3']);
    expect(lastLeft({ ...low, hands: handsOf('child') }).map((n) => n.pitch)).toEqual(['C2']);
  });

  it('slows down over the last two bars in sound, on the sheet and in MIDI', () => {
    const arrangement = arrange(setClose(four('C5'), { slower: 40 }));
    expect(arrangement.tempo.map((p) => [p.at / Q, p.percent])).toEqual([
      [0, 100],
      ...[8, 9, 10, 11, 12, 13, 14, 15].map((at, k) => [at, 95 - 5 * k]),
    ]);
    const xml = writeMusicXml(writtenScore(arrangement));
    expect(xml.match(/>rit\.</g)?.length).toBe(1);
    expect(xml.match(/<sound tempo=/g)?.length).toBe(9);
    const { tempos } = new Midi(writeMidi(arrangement.song, arrangement.score, [], arrangement.tempo)).header;
    expect(tempos.length).toBe(9);
    expect(tempos.at(-1)?.bpm).toBeCloseTo(0.6 * arrangement.song.tempo, 0);
  });

  it('leads from places to seconds and back', () => {
    const points = fc
      .array(fc.record({ gap: fc.integer({ min: 1, max: 40_000 }), percent: fc.integer({ min: 30, max: 100 }) }), {
        maxLength: 8,
      })
      .map((row) => {
        let at = 0;
        return [{ at: 0, percent: 100 }, ...row.map(({ gap, percent }) => ({ at: (at += gap), percent }))];
      });
    fc.assert(
      fc.property(points, fc.integer({ min: 0, max: 400_000 }), fc.integer({ min: 20, max: 400 }), (row, at, tempo) => {
        expect(placeAfter(secondsTo(at, row, tempo), row, tempo)).toBeCloseTo(at, 3);
      }),
    );
  });
});

describe('dynamics', () => {
  const glass = demo('harbour-glass.abc');
  const { parts } = arrange(glass);
  const loudness = (doc: Document, role: string) =>
    arrange(doc)
      .score.filter((n) => n.role === role && n.part === 2)
      .map((n) => n.loudness);

  it('keep the accompaniment under the tune by the balance', () => {
    expect(loudness(glass, 'melody')[0]).toBeGreaterThan(loudness(glass, 'chord')[0]);
    expect(loudness(setBalance(glass, 0), 'chord')[0]).toBe(loudness(glass, 'melody')[0]);
    expect(loudness(setBalance(glass, 80), 'chord')[0]).toBeLessThan(0.2);
  });

  it('are no signs at all where everything is as usual', () => {
    expect(arrange(glass).dynamics).toEqual([]);
  });

  it('are signs where they change, swells where they move, and velocities', () => {
    const soft = setSetting(glass, parts[0], 'loudness', 'p');
    const doc = setSetting(setSetting(soft, parts[1], 'swell', 'rise'), parts[2], 'swell', 'arch');
    const arrangement = arrange(doc);
    expect(arrangement.dynamics.slice(0, 4)).toEqual([
      { kind: 'level', at: 0, level: 'p' },
      { kind: 'level', at: parts[1].start, level: 'mf' },
      { kind: 'swell', at: parts[1].start, until: parts[1].end, way: 'louder' },
      { kind: 'level', at: parts[2].start, level: 'mf' },
    ]);
    const rising = loudness(doc, 'melody');
    expect(rising.at(-1)).toBeGreaterThan(rising[0]);
    const xml = writeMusicXml(writtenScore(arrangement));
    expect(xml).toContain('<dynamics><p/></dynamics>');
    expect(xml.match(/wedge type="(crescendo|diminuendo)"/g)?.length).toBe(3);
    expect(xml.match(/wedge type="stop"/g)?.length).toBe(3);
    expect(readMusicXml(xml).ok).toBe(true);
    const [right] = new Midi(writeMidi(arrangement.song, arrangement.score)).tracks;
    expect(right.notes[0].velocity).toBeCloseTo(0.46, 1);
  });

  it('grow each time a part comes again', () => {
    const louder = louderEachTime(glass, parts);
    const doc = louder && applyEdit(glass, louder);
    const again = parts.filter((p) => (timeOf(p.number, parts)?.time ?? 1) > 1);
    expect(again.length).toBeGreaterThan(0);
    for (const part of again) expect(doc && settingAt(doc, part.start, 'loudness')).toMatch(/^ff?$/);
  });
});

describe('a tune far above its staff', () => {
  it('is written an octave nearer, bar by bar, and read as it sounds', () => {
    const high = songOf(
      [
        ['C5', 4],
        ['E6', 2],
        ['G6', 2],
        ['A6', 4],
        ['C5', 4],
      ],
      [[0, 'C']],
    );
    const xml = writeMusicXml(writtenScore(arrange(documentOf(high))));
    expect(xml.match(/octave-shift type="(down|stop)"/g)).toEqual(['octave-shift type="down"', 'octave-shift type="stop"']);
    const read = readMusicXml(xml);
    expect(read.ok && read.song.melody.map((n) => n.pitch)).toEqual(['C5', 'E6', 'G6', 'A6', 'C5']);
  });
});
