import type { OpenFault } from './open.js';
import { ENGLISH, refusalWords } from '../words/index.js';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { handsOf } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { openFile, readAbc, readLetters, readMusicXml, type Reading } from './index.js';

const sentenceOf = ({ name, fault }: { name: string; fault: OpenFault }): string => `${name}: ${ENGLISH.fact(fault)}`;

const song = (reading: Reading): Song => {
  if (!reading.ok) throw new Error(refusalWords(reading.refusal, ENGLISH));
  return reading.song;
};
const tune = (s: Song) => s.melody.map((n) => n.pitch).join(' ');
const lengths = (s: Song) => s.melody.map((n) => n.length / Q);
const refused = (reading: Reading) => (reading.ok ? 'was read' : refusalWords(reading.refusal, ENGLISH));
const abc = (body: string, head = 'M:4/4\nL:1/4\nK:C') => readAbc(`X:1\nT:Test\n${head}\n${body}\n`);

describe('ABC', () => {
  it('plays out repeats and endings and marks where they are', () => {
    const s = song(abc('|: CDEF |1 G4 :|2 c4 || d4 |]'));
    expect(tune(s)).toBe('C4 D4 E4 F4 G4 C4 D4 E4 F4 C5 D5');
    expect(s.marks.some((m) => m.kind === 'repeat' && m.at === 8 * Q)).toBe(true);
  });

  it('repeats from the start where no sign opens the repeat, and counts the passes of endings', () => {
    expect(tune(song(abc('C4 | D4 :| E4 |]')))).toBe('C4 D4 C4 D4 E4');
    expect(tune(song(abc('|: C4 | D4 :||: E4 :| F4 |]')))).toBe('C4 D4 C4 D4 E4 E4 F4');
    expect(tune(song(abc('|: C4 |1 D4 :|2 E4 |: F4 :| G4 |]')))).toBe('C4 D4 C4 E4 F4 F4 G4');
  });

  it('reads key, accidentals of the bar, tuplets, ties and octaves', () => {
    const s = song(abc("F ^C C =F | (3ABc d2- | d c' C, z |", 'M:4/4\nL:1/4\nK:D'));
    expect(s.key).toEqual({ tonic: 'D', mode: 'major' });
    expect(tune(s)).toBe('F#4 C#4 C#4 F4 A4 B4 C#5 D5 C#6 C#3');
    expect(lengths(s).slice(4, 8)).toEqual([2 / 3, 2 / 3, 2 / 3, 3].map((x) => Math.round(x * Q) / Q));
  });

  it('reads a pick-up, chords, words and the tempo', () => {
    const s = song(abc('G | "Gm7" c2 "C7/E" d | "N.C." e3 |\nw: The ship is home', 'M:3/4\nL:1/4\nQ:3/8=60\nK:F'));
    expect(s.pickup).toBe(Q);
    expect(s.tempo).toBe(90);
    expect(s.chords.map((c) => [c.at / Q, c.symbol])).toEqual([
      [1, 'Gm7'],
      [3, 'C7/E'],
      [4, 'N.C.'],
    ]);
    expect(s.melody.map((n) => n.lyric?.text)).toEqual(['The', 'ship', 'is', 'home']);
  });

  it('keeps notes struck together, the top one as the tune, or one of them where that is asked for', () => {
    const tune = (answers = {}) => {
      const read = readAbc('X:1\nM:4/4\nL:1/4\nK:C\nC4 | D2 [CEG]2 |\n', answers);
      return read.ok ? read.song.melody.map((n) => [n.pitch, ...(n.with ?? [])].join('+')) : [];
    };
    expect(tune()).toEqual(['C4', 'D4', 'G4+C4+E4']);
    expect(tune({ stacks: 'top' })).toEqual(['C4', 'D4', 'G4']);
    expect(tune({ stacks: 'lowest' })).toEqual(['C4', 'D4', 'C4']);
  });

  it.each([
    ['C D E |', 'M:4/4', 'was read'],
    ['C D E F | C D E F G | C4 |', '', 'Measure 2: the bar has 5 counts where 4 are expected in 4/4.'],
    ['C D E F | C D E | C4 |', '', 'Measure 2: the bar has 3 counts'],
    ['C4 | "Gm7" D4 |\n"Gxy" E4 |', '', 'Line 7, measure 3: “Gxy” is not a chord symbol.'],
    ["C4 | c''''' D3 |", '', 'is off the keyboard'],
    ['z4 |', '', 'There is no melody in it.'],
  ])('answers %s with its place', (body, _, expected) => expect(refused(abc(body))).toContain(expected));
});

const measure = (inner: string, n = 1) => `<measure number="${n}">${inner}</measure>`;
const attributes =
  '<attributes><divisions>2</divisions><key><fifths>-1</fifths><mode>major</mode></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>';
const note = (step: string, octave: number, duration: number, more = '', front = '') =>
  `<note>${front}<pitch><step>${step}</step><octave>${octave}</octave></pitch><duration>${duration}</duration>${more}</note>`;
const score = (...measures: string[]) =>
  `<?xml version="1.0"?><score-partwise version="4.0"><work><work-title>Rope &amp; Tar</work-title></work><part-list><score-part id="P1"><part-name>V</part-name></score-part></part-list><part id="P1">${measures.join('')}</part></score-partwise>`;

describe('MusicXML', () => {
  it('takes the first voice of the first part, top notes, ties and words', () => {
    const s = song(
      readMusicXml(
        score(
          measure(
            attributes +
              '<direction><sound tempo="72"/></direction>' +
              note('C', 5, 4, '<voice>1</voice><lyric><syllabic>begin</syllabic><text>an</text></lyric>') +
              note('E', 5, 4, '<voice>1</voice>', '<chord/>') +
              note('D', 5, 4, '<tie type="start"/><voice>1</voice>') +
              '<backup><duration>8</duration></backup>' +
              note('C', 4, 8, '<voice>2</voice>'),
          ),
          measure(note('D', 5, 8, '<tie type="stop"/><voice>1</voice>'), 2),
        ),
      ),
    );
    expect(tune(s)).toBe('E5 D5');
    expect(lengths(s)).toEqual([2, 6]);
    expect(s.melody[0].lyric).toEqual({ text: 'an', joins: true });
    expect([s.title, s.tempo, s.key.tonic]).toEqual(['Rope & Tar', 72, 'F']);
  });

  it('says that notes struck together are kept, or where they were reduced to the top one', () => {
    const said = (answers: Record<string, string>) => {
      const read = readMusicXml(score(measure(attributes + note('C', 5, 8) + note('E', 5, 8, '', '<chord/>'))), answers);
      return read.ok ? read.notices.map(ENGLISH.fact).join(' ') : '';
    };
    expect(said({})).toContain('Measure 1 has 2 notes at once in the melody: all are kept');
    expect(said({ stacks: 'top' })).toContain('Measure 1 has 2 notes at once in the melody: the top one, E5, is kept');
  });

  it('reads chord symbols by kind, by text and with a bass', () => {
    const harmony = (root: string, kind: string, more = '') =>
      `<harmony><root><root-step>${root}</root-step></root>${kind}${more}</harmony>`;
    const s = song(
      readMusicXml(
        score(
          measure(
            attributes +
              harmony('G', '<kind>minor-seventh</kind>') +
              note('C', 5, 2) +
              harmony('C', '<kind text="7">dominant</kind>', '<bass><bass-step>E</bass-step></bass>') +
              note('C', 5, 2) +
              harmony('F', '<kind text="7(b9)">other</kind>') +
              note('C', 5, 2) +
              harmony('A', '<kind>Neapolitan</kind>') +
              note('C', 5, 2),
          ),
        ),
      ),
    );
    expect(s.chords.map((c) => c.symbol)).toEqual(['Gm7', 'C7/E', 'F7(b9)', 'A Neapolitan']);
  });

  it('plays out repeats and endings', () => {
    const barline = (inner: string, place = 'right') => `<barline location="${place}">${inner}</barline>`;
    const s = song(
      readMusicXml(
        score(
          measure(attributes + barline('<repeat direction="forward"/>', 'left') + note('C', 5, 8)),
          measure(
            barline('<ending number="1" type="start"/>', 'left') +
              note('D', 5, 8) +
              barline('<ending number="1" type="stop"/><repeat direction="backward"/>'),
            2,
          ),
          measure(
            barline('<ending number="2" type="start"/>', 'left') + note('E', 5, 8) + barline('<ending number="2" type="stop"/>'),
            3,
          ),
          measure(note('F', 5, 8), 4),
        ),
      ),
    );
    expect(tune(s)).toBe('C5 D5 C5 E5 F5');
  });

  it('unpacks a compressed score', () => {
    const xml = score(measure(attributes + note('C', 5, 8)));
    const container = '<container><rootfiles><rootfile full-path="a/tune.xml"/></rootfiles></container>';
    const zip = zipSync({ 'META-INF/container.xml': strToU8(container), 'a/tune.xml': strToU8(xml) });
    expect(tune(song(readMusicXml(zip)))).toBe('C5');
    expect(refused(readMusicXml(zip.subarray(0, 60)))).toContain('damaged');
  });

  it.each([
    ['', 'empty'],
    ['<html><body/></html>', 'not a MusicXML score'],
    ['<score-timewise/>', 'The score has no part.'],
    ['X:1', 'does not begin with an XML tag'],
    [score(measure(attributes + note('C', 5, 10)), measure(note('C', 5, 8), 2)), 'Measure 1: the bar has 5 counts'],
    [score(measure(attributes + note('C', 9, 8))), 'off the keyboard'],
  ])('refuses %#', (xml, expected) => expect(refused(readMusicXml(xml))).toContain(expected));
});

describe('letter lines', () => {
  const lines = (...rows: string[]) => readLetters(['title: Test', 'time: 3/4', ...rows].join('\n'));

  it('take the nearest octave after the first', () => {
    expect(tune(song(lines('tune: G4 B D | C B3 G | F#5 - . |')))).toBe('G4 B4 D5 C5 B3 G3 F#5');
  });

  it('share a count, hold over the bar line, rest and shift to another meter', () => {
    const s = song(lines('tune: C4_D E_F_G - | - . A |', 'time: 2/4', 'tune: B - |'));
    expect(lengths(s)).toEqual([0.5, 0.5, 1 / 3, 1 / 3, 1 / 3 + 2, 1, 2].map((x) => Math.round(x * Q) / Q));
    expect(s.meters.map((m) => m.beats)).toEqual([3, 2]);
  });

  it('put chords and words on the same grid', () => {
    const s = song(lines('pickup: 1', 'tune : D4 | G - A_B |', 'chord:    | Gm - -_D7 |', 'words: O | sail - ing_on, |'));
    expect(s.pickup).toBe(Q);
    expect(s.chords).toEqual([
      { at: Q, symbol: 'Gm' },
      { at: 3.5 * Q, symbol: 'D7' },
    ]);
    expect(s.melody.map((n) => n.lyric?.text)).toEqual(['O', 'sail', 'ing', 'on,']);
  });

  it.each([
    [['tune: C4 D | E F G |'], 'was read'],
    [['pickup: 0', 'tune: C4 D | E F G |'], 'Line 4, bar 1: the bar has 2 counts where 3 are expected.'],
    [['tune: C4 D E | E F G A | C D E |'], 'Line 3, bar 2: the bar has 4 counts where 3 are expected.'],
    [['tune: C4 D E | E F | C D E |'], 'Line 3, bar 2: the bar has 2 counts'],
    [['tune: C4 J E |'], 'Line 3, bar 1: “J” is not a note.'],
    [['tune: - D E |'], 'there is no note before this hold (-)'],
    [['tune: C4 D E |', 'chord: Gm7x - - |'], 'Line 4, bar 1: “Gm7x” is not a chord symbol.'],
    [['chord: C |'], 'there is no tune line above'],
    [['tune: C4 D E |', 'words: a b c d |'], 'there is no note for “d”'],
    [['tune: C4 D E |', 'words: a b c | d |'], 'there are 2 bars where the tune has 1'],
    [['tune: C9 D E |'], 'off the keyboard'],
    [['tempo: fast'], '“fast” is not a tempo'],
    [['key: -minor'], '“-minor” is not a key'],
    [['names: runes'], '“runes” is not a way to name notes'],
    [['\n'.repeat(900_000), 'C D E'], 'the line does not say what it is'],
    [['C D E'], 'the line does not say what it is'],
    [['tune:'], 'There is no tune yet.'],
  ])('answer %j with the place', (rows, expected) => expect(refused(lines(...rows))).toContain(expected));

  it('mark the very letters of a slip', () => {
    const read = lines('tune: C4 D E | F J G |');
    expect(read.ok ? null : [read.refusal.line, read.refusal.columns]).toEqual([3, [17, 18]]);
  });
});

describe('opening a file', () => {
  const open = (name: string, text: string | Uint8Array) => {
    const opened = openFile(name, typeof text === 'string' ? strToU8(text) : text);
    return opened.ok ? 'was read' : sentenceOf(opened);
  };

  it('refuses what it cannot use in one sentence with a way out', () => {
    const noise = new Uint8Array(5_000_000).map((_, i) => (i * 7919 + (i >> 3)) % 256);
    expect(open('a.abc', '')).toBe('a.abc: The file is empty. Choose a file with a song in it.');
    expect(open('a.musicxml', 'X:1\nK:C\nC4|')).toContain('a.musicxml: The file is not MusicXML: it looks like ABC.');
    expect(open('a.abc', score(measure(attributes + note('C', 5, 8))))).toContain('it looks like MusicXML');
    for (const name of ['a.abc', 'a.musicxml', 'a.letters', 'a.json']) expect(open(name, noise)).toMatch(/^a\.\w+: .*\. Choose/);
    expect(open('a.pdf', '%PDF')).toContain('cannot be opened');
    expect(open('a.json', '{"kind":"other"}')).toContain('not a project');
    expect(open('a.json', '{"kind":"joined-hands","version":1}')).toContain('damaged at song');
    expect(open('a.json', '{"kind":"joined-hands","version":9}')).toContain('newer version');
  });

  it('refuses a project whose tune overlaps itself', () => {
    const two = { at: 0, length: 2 * Q, pitch: 'C5', lyric: null };
    const bad = { kind: 'joined-hands', version: 1, hands: handsOf(), choices: {} };
    const body = {
      title: 'T',
      composer: null,
      key: { tonic: 'C', mode: 'major' },
      tempo: 90,
      pickup: 0,
      length: 4 * Q,
      meters: [{ at: 0, beats: 4, unit: 4 }],
      melody: [two, { ...two, at: Q }],
      chords: [],
      marks: [],
    };
    expect(open('a.json', JSON.stringify({ ...bad, song: body }))).toContain('two melody notes sound at once at bar 1, count 2.');
  });
});
