import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf } from '../../testing/songs.js';
import fc from 'fast-check';
import { arrange } from '../arrange/arrange.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { ChoicesSchema, type Document } from './decisions.js';
import {
  passageAt,
  removeChord,
  restoreChord,
  setChordSchool,
  setPassage,
  clearParts,
  isChordText,
  mergePart,
  moveCut,
  pinVoicing,
  renamePart,
  resolveChords,
  setChord,
  setPartSize,
  setSetting,
  splitPart,
  transposeSong,
  unpinVoicing,
} from './edits.js';
import { SongSchema } from './song.js';

const lamps = () => demo('lamps-across-the-sound.letters');
const partsOf = (document: Document) => arrange(document).parts;
const spansOf = (document: Document) => partsOf(document).map((p) => [p.start / Q, p.end / Q]);
const must = (document: Document | null): Document => {
  if (!document) throw new Error('the edit was refused');
  return document;
};

describe('a wish for a part', () => {
  it('that is the song’s own follows the song again, a density and size of harmony too', () => {
    const document = documentOf(songOf([['C5', 8]], [[0, 'C']]));
    const part = { start: 0, end: document.song.length / 2 };
    const harmony = { density: 50, size: 'two' as const };
    const whole = setSetting(document, null, 'harmony', harmony);
    expect(setSetting(whole, part, 'harmony', { ...harmony, density: 20 }).choices.passages).toHaveLength(1);
    expect(setSetting(whole, part, 'harmony', { ...harmony }).choices.passages).toEqual([]);
    expect(setSetting(document, part, 'octave', 0).choices.passages).toEqual([]);
  });
});

describe('edits on parts', () => {
  it('move a cut and leave every other part where it was', () => {
    const document = lamps();
    const before = spansOf(document);
    const moved = must(moveCut(document, partsOf(document), 2, 23 * Q));
    const after = spansOf(moved);
    expect(after).toEqual(before.map(([s, e], i) => [i === 2 ? 23 : s, i === 1 ? 23 : e]));
  });

  it('refuse a cut that would leave a part empty, and change nothing for one that stays', () => {
    const document = lamps();
    const parts = partsOf(document);
    expect(moveCut(document, parts, 1, 0)).toBeNull();
    expect(moveCut(document, parts, 1, parts[1].end)).toBeNull();
    expect(moveCut(document, parts, 0, Q)).toBeNull();
    expect(moveCut(document, parts, 1, parts[1].start)).toBe(document);
  });

  it('split and join', () => {
    const document = lamps();
    const split = must(splitPart(document, partsOf(document), 1, 18 * Q));
    expect(spansOf(split).slice(1, 3)).toEqual([
      [12, 18],
      [18, 24],
    ]);
    const joined = must(mergePart(split, partsOf(split), 2));
    expect(spansOf(joined)).toEqual(spansOf(document));
    expect(mergePart(document, partsOf(document), 0)).toBeNull();
    expect(splitPart(document, partsOf(document), 1, 12 * Q)).toBeNull();
  });

  it('carry a name along with its part, and drop it when it is emptied', () => {
    const document = renamePart(lamps(), 12 * Q, '  The rail ');
    const moved = must(moveCut(document, partsOf(document), 1, 13 * Q));
    expect(partsOf(moved)[1].name).toBe('The rail');
    expect(partsOf(renamePart(moved, 13 * Q, ' '))[1].name).toBeNull();
  });

  it('keep the pianist’s parts when the size changes, until they are let go', () => {
    const document = lamps();
    const split = must(splitPart(document, partsOf(document), 1, 18 * Q));
    const larger = setPartSize(split, 'larger');
    expect(spansOf(larger)).toContainEqual([12, 18]);
    expect(spansOf(clearParts(larger))).not.toContainEqual([12, 18]);
  });
});

describe('edits on chords', () => {
  const document = documentOf(
    songOf(
      [
        ['C5', 4],
        ['D5', 4],
      ],
      [
        [0, 'C'],
        [4, 'G'],
      ],
    ),
  );

  it('write another chord, write the old one back, and add one between', () => {
    const am = setChord(document, 0, 'Am');
    expect(resolveChords(am).map((c) => c.symbol)).toEqual(['Am', 'G']);
    expect(setChord(am, 0, 'C').choices).toEqual(document.choices);
    expect(resolveChords(setChord(document, 2 * Q, 'F')).map((c) => [c.at / Q, c.symbol])).toEqual([
      [0, 'C'],
      [2, 'F'],
      [4, 'G'],
    ]);
    expect(document.song.chords.map((c) => c.symbol)).toEqual(['C', 'G']);
  });

  it('let go of a pin whose chord is no longer there, and of no other', () => {
    const pinned = pinVoicing(pinVoicing(document, 0, ['C3', 'E3', 'G3']), 4 * Q, ['G2', 'B2', 'D3']);
    expect(setChord(pinned, 0, 'Am').choices.pins.map((p) => p.at)).toEqual([4 * Q]);
    expect(unpinVoicing(pinned, 4 * Q).choices.pins.map((p) => p.at)).toEqual([0]);
  });

  it('know chord text from other text', () => {
    expect(['Gm7', 'N.C.', 'D/F#'].map(isChordText)).toEqual([true, true, true]);
    expect(['', 'H', 'Gmx'].map(isChordText)).toEqual([false, false, false]);
  });
});

describe('the song', () => {
  it('is refused when notes overlap, chords are out of order or anything lies outside', () => {
    const song = songOf(
      [
        ['C5', 2],
        ['D5', 2],
      ],
      [
        [0, 'C'],
        [2, 'G'],
      ],
    );
    const fault = (change: object) => SongSchema.safeParse({ ...song, ...change }).error?.issues[0].message;
    expect(fault({})).toBeUndefined();
    expect(fault({ melody: [song.melody[0], { ...song.melody[1], at: Q }] })).toBe('song.overlap');
    expect(fault({ chords: [song.chords[1], song.chords[0]] })).toBe('song.chords-out-of-order');
    expect(fault({ chords: [{ at: 9 * Q, symbol: 'C' }] })).toBe('song.chord-past-end');
    expect(fault({ length: 3 * Q })).toBe('song.note-past-end');
    expect(fault({ meters: [{ at: Q, beats: 4, unit: 4 }] })).toBe('song.no-meter');
    expect(fault({ melody: [{ ...song.melody[0], pitch: 'C9' }] })).toBe('off-keyboard');
  });

  it('comes back to itself through a transposition and back', () => {
    const { song } = lamps();
    const there = transposeSong(song, { tonic: 'E', mode: 'minor' });
    expect(there.melody[1].pitch).toBe('E4');
    expect(transposeSong(there, song.key)).toEqual(song);
  });
});

describe('wishes for stretches', () => {
  const SCHOOL = ['root', 'octave', null] as const;
  const BASS = ['falling', 'held', null] as const;

  it('never overlap, and every place has what was wished for it last', () => {
    const wish = fc.record({
      start: fc.integer({ min: 0, max: 20 }),
      length: fc.integer({ min: 1, max: 12 }),
      school: fc.option(fc.constantFrom(...SCHOOL), { nil: undefined }),
      bass: fc.option(fc.constantFrom(...BASS), { nil: undefined }),
    });
    fc.assert(
      fc.property(fc.array(wish, { maxLength: 8 }), (wishes) => {
        let doc = lamps();
        const wanted = Array.from({ length: 40 }, () => ({ school: null as string | null, bass: null as string | null }));
        for (const { start, length, school, bass } of wishes) {
          doc = setPassage(
            doc,
            { start, end: start + length },
            { ...(school === undefined ? {} : { school }), ...(bass === undefined ? {} : { bass }) },
          );
          for (let at = start; at < start + length; at++) {
            if (school !== undefined) wanted[at].school = school;
            if (bass !== undefined) wanted[at].bass = bass;
          }
        }
        const { passages } = ChoicesSchema.parse(doc.choices);
        passages.forEach((p, i) => expect(i === 0 || passages[i - 1].end <= p.start).toBe(true));
        wanted.forEach((want, at) => {
          const found = passageAt(passages, at);
          expect({ school: found?.school ?? null, bass: found?.bass ?? null }).toEqual(want);
        });
      }),
    );
  });

  it('leave a chord out, bring it back, and let go of what belonged to it', () => {
    const doc = lamps();
    const second = doc.song.chords[2];
    const kept = setChordSchool(pinVoicing(doc, second.at, ['C3', 'Eb3', 'G3']), second.at, 'root');
    const without = removeChord(kept, second.at);
    expect(resolveChords(without)).toHaveLength(doc.song.chords.length - 1);
    expect([without.choices.pins, without.choices.chordSchools]).toEqual([[], []]);
    expect(resolveChords(restoreChord(without, second.at))).toEqual(doc.song.chords);
    const added = setChord(doc, second.at + Q, 'F');
    expect(removeChord(added, second.at + Q).choices.chords).toEqual([]);
  });
});
