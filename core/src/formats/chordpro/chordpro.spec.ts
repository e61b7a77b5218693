import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsOf } from '../../../testing/playable.js';
import { demo, documentOf, DEMOS, songs } from '../../../testing/songs.js';
import { arrange } from '../../arrange/arrange.js';
import { ALL_KEYS } from '../../../testing/tunes.js';
import { HAND_PROFILES, handsOf } from '../../song/decisions.js';
import { applyEdit } from '../../song/edit.js';
import { TICKS_PER_QUARTER as Q } from '../../time/ticks.js';
import { wordLines } from '../../sheet/word-lines.js';
import { ENGLISH, refusalWords } from '../../words/index.js';
import { openFile } from '../open.js';
import { readLetters, readProject, writeLetters, writeProject } from '../index.js';
import { readChordPro } from './read.js';
import { writeChordPro, type WordLine } from './write.js';

const FOG = `{title: Fog Signal}
{artist: The ferry lounge}
{key: Am}
{time: 3/4}
{tempo: 96}
{soc: Refrain}
The [Am]lamp is [G]low, the [F]water [E7]slow, har[Am]bour
{eoc}

[Verse 2]
[Am]  [G]
No chord on this line
`;

const read = (text: string, answers = {}) => {
  const found = readChordPro(text, answers);
  if (!found.ok) throw new Error(refusalWords(found.refusal, ENGLISH));
  return found;
};
const bars = (text: string, answers = {}) => read(text, answers).song.chords.map((c) => [c.at / Q, c.symbol]);
const bytes = (text: string) => new TextEncoder().encode(text);
const trimmed = (lines: readonly WordLine[]) =>
  lines.map(({ section, under }) => ({ section, under: under.map(({ chord, text }) => [chord, text.trim()]) }));

describe('words with chords in brackets', () => {
  it('become a song without a tune: a bar for each chord, every line from a bar line on', () => {
    const { song } = read(FOG);
    expect(song).toMatchObject({ title: 'Fog Signal', composer: 'The ferry lounge', tempo: 96, pickup: Q, melody: [] });
    expect(song.key).toEqual({ tonic: 'A', mode: 'minor' });
    expect(bars(FOG)).toEqual([
      [1, 'Am'],
      [4, 'G'],
      [7, 'F'],
      [10, 'E7'],
      [13, 'Am'],
      [16, 'Am'],
      [19, 'G'],
    ]);
    expect(song.words?.map((w) => [w.at / Q, w.text, w.joins])).toEqual([
      [0, 'The', false],
      [1, 'lamp is', false],
      [4, 'low, the', false],
      [7, 'water', false],
      [10, 'slow, har', true],
      [13, 'bour', false],
      [22, 'No chord on this line', false],
    ]);
    expect(song.marks.filter((m) => m.kind === 'section').map((m) => m.text)).toEqual(['Refrain', 'Verse 2']);
  });

  it('are read in time that grows with the text, whatever stands in it', () => {
    for (const odd of [
      `{a${' '.repeat(200_000)}`,
      '['.repeat(200_000),
      `[C]one\n${' '.repeat(200_000)}:`,
      `{t:${' }'.repeat(100_000)}`,
    ])
      expect(typeof readChordPro(odd).ok).toBe('boolean');
  });

  it('know a hyphen between the syllables of a word from one of its own', () => {
    expect(read('[C]Sail-[F]ing and [G]ferry-[C]boat [C]-').song.words?.map((w) => [w.text, w.joins])).toEqual([
      ['Sail', true],
      ['ing and', false],
      ['ferry', true],
      ['boat', false],
      ['-', false],
    ]);
  });

  it('last as long as is answered; a line of an odd number of half bars is filled up', () => {
    const line = '[C]One [F]two [G7]three\n[C]four';
    expect(bars(line, { length: 'half' })).toEqual([
      [0, 'C'],
      [2, 'F'],
      [4, 'G7'],
      [8, 'C'],
    ]);
    expect(bars(line, { length: 'two-bars' }).map(([at]) => at)).toEqual([0, 8, 16, 24]);
  });

  it('are refused in a sentence where there are no chords, or no meter that can be counted', () => {
    const refused = (text: string) => {
      const found = readChordPro(text);
      return found.ok ? '' : refusalWords(found.refusal, ENGLISH);
    };
    expect(refused('Just some words\nand more of them')).toContain('no chords in it');
    expect(refused('{time: 5/0}\n[C]One')).toMatch(/^Line 1: .*5\/0 cannot be counted/);
  });
});

describe('chords on a line over their words', () => {
  const OVER = ['Refrain:', 'C      G/B   Am', 'Home   over  water', '| F | G7 |', 'F   C', 'No more'].join('\n');

  it('stand over the words at their columns, and alone where no words follow', () => {
    expect(read(OVER).song.words?.map((w) => [w.at / Q, w.text])).toEqual([
      [0, 'Home'],
      [4, 'over'],
      [8, 'water'],
      [20, 'No m'],
      [24, 'ore'],
    ]);
    expect(bars(OVER).map(([, symbol]) => symbol)).toEqual(['C', 'G/B', 'Am', 'F', 'G7', 'F', 'C']);
  });

  it('are known in a text file, where letter lines and ABC are known too', () => {
    const opened = (name: string, text: string) => {
      const found = openFile(name, bytes(text));
      return found.ok ? found.document.choices.playMode : ENGLISH.fact(found.fault);
    };
    expect(opened('song.txt', OVER)).toBe('sing-along');
    expect(opened('song.cho', FOG)).toBe('sing-along');
    expect(opened('song.txt', 'time: 4/4\ntune: C4 D E F\nchord: C - - -')).toBe('arranged');
    expect(opened('song.abc', 'X:1\nT:Bell\nM:4/4\nL:1/4\nK:C\n"C"[CE] D E F|')).toBe('arranged');
  });
});

describe('a song without a tune', () => {
  it('is played by the left hand and the right hand’s chords, whoever plays, and its words stay under their chords in every key', () => {
    for (const profile of HAND_PROFILES)
      for (const key of ALL_KEYS.filter((k) => k.mode === 'minor')) {
        const opened = openFile('fog.cho', bytes(FOG));
        if (!opened.ok) throw new Error('not read');
        const doc = applyEdit({ ...opened.document, hands: handsOf(profile, 61) }, { code: 'edit.key', key });
        const arrangement = arrange(doc);
        expect(faultsOf(doc, arrangement)).toEqual([]);
        expect(new Set(arrangement.score.map((n) => n.hand))).toEqual(new Set(['left', 'right']));
        const [refrain] = wordLines(arrangement);
        expect(refrain.section).toBe('Refrain');
        expect(refrain.under.map((u) => u.text)).toEqual(['The ', 'lamp is ', 'low, the ', 'water ', 'slow, har', 'bour ']);
      }
  });

  it('is given a tune later: it is played then, its words still stand under their chords, and it stays as long as it was', () => {
    const opened = openFile('fog.cho', bytes(FOG));
    if (!opened.ok) throw new Error('not read');
    const { document } = opened;
    const typed = readLetters(writeLetters(arrange(document).song).replace(/(tune *: *[^|]*\|) \. \. \./, '$1 A4 - C5'));
    if (!typed.ok) throw new Error(refusalWords(typed.refusal, ENGLISH));
    const tuned = applyEdit(document, {
      code: 'edit.tune',
      notes: [...typed.song.melody, { at: 1e6, length: 1, pitch: 'C4', lyric: null }],
    });
    expect(tuned.song.melody.map((n) => [n.at / Q, n.pitch])).toEqual([
      [4, 'A4'],
      [6, 'C5'],
    ]);
    expect(tuned.song.length).toBe(document.song.length);
    const arrangement = arrange(tuned);
    expect(faultsOf(tuned, arrangement)).toEqual([]);
    expect(arrangement.score.some((n) => n.role === 'melody')).toBe(true);
    expect(wordLines(arrangement).flatMap((l) => l.under.map((u) => u.text))).toContain('lamp is ');
  });

  it('is kept in a project', () => {
    const opened = openFile('fog.cho', bytes(FOG));
    if (!opened.ok) throw new Error('not read');
    const again = readProject(writeProject(opened.document));
    expect(again.ok && again.document).toEqual(opened.document);
  });
});

describe('ChordPro text', () => {
  it('has the words of a tune under its chords: each syllable at its own', () => {
    const { song, ...rest } = arrange(demo('lamps-across-the-sound.letters'));
    const text = writeChordPro(song, wordLines(rest));
    expect(text.split('\n').slice(0, 5)).toEqual([
      '{title: Lamps Across the Sound}',
      '{composer: The Harrow Sound lounge}',
      '{key: G minor}',
      '{time: 3/4}',
      '{tempo: 88}',
    ]);
    expect(text).toMatch(/\[Cm\]leaning on \[F\]the rail, and \[Bb\]counting them \[Gm\]home\./);
  });

  it('is read back line for line: random words, chords and sections, and the demo songs', () => {
    const word = fc.constantFrom('lamps', 'a-', 'over', 'water,', 'I');
    const line = fc.array(fc.tuple(fc.constantFrom('C', 'G7', 'F#m7b5', 'Bb/D', 'N.C.'), fc.array(word, { maxLength: 3 })), {
      minLength: 1,
      maxLength: 6,
    });
    const page = fc.array(fc.tuple(fc.constantFrom(null, 'Verse', 'Refrain'), line), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(page, (lines) => {
        const asked = lines.map(([section, under]): WordLine => ({
          section,
          under: under.map(([chord, words]) => ({ chord, text: words.map((w) => `${w} `).join('') })),
        }));
        const { song } = read(writeChordPro({ ...documentOf(demo(DEMOS[0]).song).song }, asked));
        expect(song.chords.map((c) => c.symbol)).toEqual(asked.flatMap((l) => l.under.map((u) => u.chord)));
        const sung = asked.flatMap((l) => l.under.map((u) => u.text.trim()).filter(Boolean));
        expect((song.words ?? []).map((w) => w.text)).toEqual(sung);
        expect(song.marks.flatMap((m) => (m.kind === 'section' ? [m.text] : []))).toEqual(
          asked.flatMap((l) => (l.section === null ? [] : [l.section])),
        );
      }),
    );
    for (const name of DEMOS) {
      const { song, parts, sections } = arrange(demo(name));
      const lines = wordLines({ parts, sections });
      const again = read(writeChordPro(song, lines)).song;
      expect(again.key).toEqual(song.key);
      expect(again.chords.map((c) => c.symbol)).toEqual(lines.flatMap((l) => l.under.flatMap((u) => u.chord ?? [])));
    }
  });

  it('keeps every syllable of random songs, and quotes nothing that would end a chord', () => {
    fc.assert(
      fc.property(songs(), (song) => {
        const arrangement = arrange(documentOf({ ...song, title: '[C] {x}' }));
        const text = writeChordPro(arrangement.song, wordLines(arrangement));
        expect(text.split('\n')[0]).toBe('{title: (C) (x)}');
        const sung = trimmed(wordLines(arrangement)).flatMap((l) => l.under.map(([, words]) => words));
        const syllables = arrangement.song.melody.flatMap((n) => n.lyric?.text ?? []);
        expect(sung.join('').replaceAll(' ', '')).toBe(syllables.join('').replaceAll(' ', ''));
      }),
    );
  });
});
