import type { OpenFault } from './open.js';
import { ENGLISH } from '../words/index.js';
import fc from 'fast-check';
import { deflateSync, strToU8, zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { damageBytes, damageJson, damageLines, damageXml, dice, type Damage as Hurt } from '../../testing/damage.js';
import { demo, DEMOS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { DocumentSchema } from '../song/decisions.js';
import { SongSchema } from '../song/song.js';
import { openFile, writeAbc, writeChordPro, writeLetters, writeMidi, writeMusicXml, writeProject, type Format } from './index.js';
import { wordLines } from '../sheet/word-lines.js';
import { writtenScore } from '../sheet/written.js';

const sentenceOf = ({ name, fault }: { name: string; fault: OpenFault }): string => `${name}: ${ENGLISH.fact(fault)}`;

const demoBytes = (name: string) => new Uint8Array(readFileSync(new URL(`../../../demo/${name}`, import.meta.url)));

/** Whole files of every format, to be damaged. */
const SEEDS: readonly (readonly [Format, Uint8Array])[] = (() => {
  const doc = demo(DEMOS[1]);
  const arrangement = arrange(doc);
  return [
    ['musicxml', demoBytes(DEMOS[2])],
    ['abc', demoBytes(DEMOS[1])],
    ['letters', demoBytes(DEMOS[0])],
    ['midi', writeMidi(arrangement.song, arrangement.score)],
    ['project', strToU8(writeProject(doc))],
    ['musicxml', zipSync({ 'a.musicxml': strToU8(writeMusicXml(writtenScore(arrangement))) })],
    ['abc', strToU8(writeAbc(doc.song))],
    ['letters', strToU8(writeLetters(doc.song))],
    ['chordpro', strToU8(writeChordPro(arrangement.song, wordLines(arrangement)))],
  ];
})();

type Damage = (data: Uint8Array) => Uint8Array;
const damage: fc.Arbitrary<Damage> = fc.oneof(
  fc.record({ at: fc.double({ min: 0, max: 1, noNaN: true }), byte: fc.nat(255) }).map(({ at, byte }): Damage => (data) => {
    const copy = data.slice();
    copy[Math.min(copy.length - 1, Math.floor(at * copy.length))] = byte;
    return copy;
  }),
  fc
    .record({ from: fc.double({ min: 0, max: 1, noNaN: true }), share: fc.double({ min: 0, max: 0.3, noNaN: true }) })
    .map(({ from, share }): Damage => (data) => {
      const a = Math.floor(from * data.length);
      const b = Math.min(data.length, a + Math.ceil(share * data.length));
      return new Uint8Array([...data.subarray(0, a), ...data.subarray(b)]);
    }),
  fc
    .record({ from: fc.double({ min: 0, max: 1, noNaN: true }), to: fc.double({ min: 0, max: 1, noNaN: true }) })
    .map(({ from, to }): Damage => (data) => {
      const [a, b] = [Math.floor(from * data.length), Math.floor(to * data.length)];
      const piece = data.subarray(a, Math.min(data.length, a + 60));
      return new Uint8Array([...data.subarray(0, b), ...piece, ...data.subarray(b)]);
    }),
  fc
    .record({
      at: fc.double({ min: 0, max: 1, noNaN: true }),
      word: fc.constantFrom('-1', '99999999', '0', '<', '&x;', '"', '|', ':|', '\u0000'),
    })
    .map(({ at, word }): Damage => (data) => {
      const a = Math.floor(at * data.length);
      return new Uint8Array([...data.subarray(0, a), ...strToU8(word), ...data.subarray(a)]);
    }),
);

/** Opens damaged bytes; anything but a valid song or a sentence throws. */
function open(format: Format, data: Uint8Array): void {
  const opened = openFile(`file.${format}`, data, format);
  if (!opened.ok) {
    expect(sentenceOf(opened).length).toBeGreaterThan(20);
    expect(sentenceOf(opened)).not.toMatch(/undefined|NaN|\[object/);
    return;
  }
  expect(SongSchema.safeParse(opened.document.song).success).toBe(true);
}

describe('damaged files', () => {
  it('give a song or a sentence, never anything else', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SEEDS), fc.array(damage, { minLength: 1, maxLength: 6 }), ([format, data], list) => {
        open(
          format,
          list.reduce((d, make) => (d.length > 0 ? make(d) : d), data),
        );
      }),
      { numRuns: Number(process.env['FUZZ_RUNS'] ?? 400) },
    );
  });

  it('of pure noise give a sentence', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<Format>('abc', 'musicxml', 'midi', 'letters', 'project', 'chordpro'),
        fc.uint8Array({ minLength: 1, maxLength: 600 }),
        (format, data) => open(format, data),
      ),
      { numRuns: 500 },
    );
  });
});

/** A short song with everything in it that a format can hold. */
const SHORT = (() => {
  const doc = demo(DEMOS[1]);
  const length = doc.song.pickup + 8 * 3 * 10_080;
  const inside = <T extends { readonly at: number }>(list: readonly T[]): T[] => list.filter((x) => x.at < length);
  const melody = inside(doc.song.melody).map((n) => ({ ...n, length: Math.min(n.length, length - n.at) }));
  const song = { ...doc.song, length, melody, chords: inside(doc.song.chords), marks: inside(doc.song.marks) };
  const choices = {
    ...doc.choices,
    texture: 'broken',
    parts: [{ start: 0, end: 60_480 }],
    names: [{ at: 0, name: 'Opening' }],
    chords: [{ at: 30_240, symbol: 'Gm7' }],
    pins: [{ at: 0, pitches: ['F3', 'A3', 'C4'] }],
    fingers: [{ at: 0, hand: 'right' as const, fingers: [3] }],
    fills: [{ at: 30_240, kind: 'echo' as const }],
    harmony: { density: 50, size: 'two' as const },
  };
  return DocumentSchema.parse({ ...doc, song, choices });
})();

/** A whole file of every format, and how it is damaged. */
const FRAGILE: readonly (readonly [string, Format, Uint8Array, Hurt])[] = (() => {
  const arrangement = arrange(SHORT);
  const xml = strToU8(writeMusicXml(writtenScore(arrangement)));
  return [
    ['MusicXML', 'musicxml', xml, damageXml],
    ['compressed MusicXML', 'musicxml', zipSync({ 'a.musicxml': xml }), damageBytes([[0x50, 0x4b]])],
    ['ABC', 'abc', strToU8(writeAbc(SHORT.song)), damageLines],
    ['letter lines', 'letters', strToU8(writeLetters(SHORT.song)), damageLines],
    ['words with chords', 'chordpro', strToU8(writeChordPro(arrangement.song, wordLines(arrangement))), damageLines],
    ['MIDI', 'midi', writeMidi(arrangement.song, arrangement.score), damageBytes([[0x4d, 0x54], [0xff], [0x90], [0x00, 0xff]])],
    ['project', 'project', strToU8(writeProject(SHORT)), damageJson],
  ];
})();

describe('files damaged where it hurts', () => {
  it.each(FRAGILE)('give a song that can be arranged, or a sentence: %s', (_, format, whole, hurt) => {
    fc.assert(
      fc.property(dice, fc.integer({ min: 1, max: 3 }), fc.integer({ min: 0, max: 9 }), (chance, times, tenth) => {
        let data = whole;
        for (let i = 0; i < times; i++) data = hurt(data, chance);
        const opened = openFile(`file.${format}`, data, format);
        if (opened.ok) {
          expect(SongSchema.safeParse(opened.document.song).success).toBe(true);
          if (tenth === 0) expect(arrange(opened.document).parts.length).toBeGreaterThan(0);
        } else {
          expect(sentenceOf(opened)).toMatch(/^file\..{20}/);
          expect(sentenceOf(opened)).not.toMatch(/undefined|NaN counts|\[object|\n/);
        }
      }),
      // The same files every time, unless many more are asked for.
      process.env['FUZZ_RUNS'] ? { numRuns: Number(process.env['FUZZ_RUNS']) } : { numRuns: 400, seed: 1127 },
    );
  });
});

describe('hostile files', () => {
  const refused = (name: string, data: Uint8Array) => {
    const opened = openFile(name, data);
    return opened.ok ? 'was read' : sentenceOf(opened);
  };

  it('that unpack to more than a score are refused before they are unpacked', () => {
    const bomb = zipSync({ 'a.musicxml': new Uint8Array(40_000_000) }, { level: 9 });
    expect(bomb.length).toBeLessThan(100_000);
    expect(refused('bomb.mxl', bomb)).toContain('unpacks to more than any score needs');
  });

  it('that lie about their size are refused', () => {
    const packed = zipSync({ 'a.musicxml': new Uint8Array(5_000_000) }, { level: 9 });
    // The sizes before and after packing stand in the file's own head and in the list at the end.
    const lying = packed.slice();
    for (let i = 0; i + 4 < lying.length; i++)
      if (lying[i] === 0x40 && lying[i + 1] === 0x4b && lying[i + 2] === 0x4c && lying[i + 3] === 0) lying.set([16, 0, 0, 0], i);
    expect(refused('lying.mxl', lying)).toMatch(/damaged|no score|empty|not MusicXML/);
    expect(deflateSync(new Uint8Array(8)).length).toBeGreaterThan(0);
  });

  it('that define entities, or nest without end, are refused', () => {
    const laughs = `<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;&a;">]><score-partwise><part id="P1"/></score-partwise>`;
    expect(refused('laughs.musicxml', strToU8(laughs))).toContain('defines entities of its own');
    const deep = `<score-partwise>${'<part>'.repeat(100_000)}`;
    expect(refused('deep.musicxml', strToU8(deep))).not.toBe('was read');
  });

  it('of attributes without end are refused before they are taken apart', () => {
    const swollen = `<score-partwise ${'a="" '.repeat(1_000_001)}/>`;
    expect(refused('swollen.musicxml', strToU8(swollen))).toContain('more than 1,000,000 attributes');
  });

  it('that are larger than any song are refused unread', () => {
    expect(refused('huge.musicxml', new Uint8Array(50_000_000).fill(60))).toContain('larger than 20 MB');
    expect(refused('huge.json', new Uint8Array(25_000_000).fill(32))).toContain('larger than 20 MB');
    expect(refused('long.abc', strToU8(`X:1\nM:4/4\nL:1/8\nK:C\n${'CDEF GABc|'.repeat(30_000)}`))).toContain(
      'longer than 200,000 letters',
    );
  });

  it('of too many bars or notes are refused with their limit', () => {
    const bar =
      '<measure number="1"><note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration></note></measure>';
    const long = `<score-partwise><part-list/><part id="P1">${bar.repeat(4100)}</part></score-partwise>`;
    expect(refused('long.musicxml', strToU8(long))).toContain('more than 4,000 bars');
    const repeats = `X:1\nM:4/4\nL:1/4\nK:C\n${'|: C4 :|\n'.repeat(2600)}\n`;
    expect(refused('again.abc', strToU8(repeats))).toContain('more than 4,000 bars');
  });
});
