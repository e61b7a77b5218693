import type { OpenFault } from './open.js';
import { ENGLISH } from '../words/index.js';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { writtenScore } from '../sheet/written.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { openFile, readArchive, writeAbc, writeLetters, writeMidi, writeMusicXml, writeProject } from './index.js';

const sentenceOf = ({ name, fault }: { name: string; fault: OpenFault }): string => `${name}: ${ENGLISH.fact(fault)}`;

/** A score of one part with the given measures. */
const score = (measures: string, head = '', encoding = 'UTF-8') =>
  `<?xml version="1.0" encoding="${encoding}"?><score-partwise version="4.0">${head}<part-list><score-part id="P1"><part-name>Voice</part-name></score-part></part-list><part id="P1">${measures}</part></score-partwise>`;
const note = (pitch: string, duration: number, more = '') =>
  `<note><pitch><step>${pitch[0]}</step>${more}<octave>${pitch.slice(1)}</octave></pitch><duration>${duration}</duration></note>`;
const four = '<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>';

const sentence = (name: string, text: string | Uint8Array): string => {
  const opened = openFile(name, typeof text === 'string' ? strToU8(text) : text);
  return opened.ok ? 'was read' : sentenceOf(opened);
};
const songIn = (name: string, text: string | Uint8Array) => {
  const opened = openFile(name, typeof text === 'string' ? strToU8(text) : text);
  if (!opened.ok) throw new Error(sentenceOf(opened));
  return opened.document.song;
};

describe('what no pianist can play is refused with its place', () => {
  it.each([
    [
      'an alteration of four half steps',
      `<measure number="7">${four}${note('C5', 4, '<alter>4</alter>')}</measure>`,
      /measure 7: a note is raised or lowered by 4 half steps/i,
    ],
    ['half an octave', `<measure number="1">${four}${note('C5.5', 4)}</measure>`, /measure 1: a note is in octave 5\.5/i],
    [
      'no letter',
      `<measure number="2">${four}<note><pitch><step>H</step><octave>4</octave></pitch><duration>4</duration></note></measure>`,
      /measure 2: a note has no letter from A to G, but “H”/i,
    ],
    [
      'an instrument between two keys',
      `<measure number="1"><attributes><divisions>1</divisions><transpose><chromatic>1.5</chromatic></transpose></attributes>${note('C5', 4)}</measure>`,
      /measure 1: the part is transposed by 1\.5 half steps/i,
    ],
    [
      'a chord a thousand million half steps off',
      `<measure number="3">${four}<harmony><root><root-step>C</root-step><root-alter>1e9</root-alter></root><kind>major</kind></harmony>${note('C5', 4)}</measure>`,
      /measure 3: the root of a chord is raised or lowered/i,
    ],
  ])('%s', (_, measures, refused) => {
    expect(sentence('a.musicxml', score(measures))).toMatch(refused);
  });

  it.each([1e10, 1.5e12, 2e8 * 3])('a project of %d ticks, before its bars are laid', (length) => {
    const project = JSON.parse(writeProject(documentOf(songOf([['C5', 4]]))));
    project.song.length = length;
    expect(sentence('long.json', JSON.stringify(project))).toMatch(/song › length: it is larger or longer than any song needs/);
  });

  it('a project of more bars than a song may have', () => {
    const project = JSON.parse(writeProject(documentOf(songOf([['C5', 4]]))));
    project.song.length = 4001 * 4 * Q;
    expect(sentence('bars.json', JSON.stringify(project))).toContain('more than 4,000 bars');
    project.song.length = 4000 * 4 * Q;
    expect(sentence('bars.json', JSON.stringify(project))).toBe('was read');
  });
});

describe('valid files are read as they were meant', () => {
  it('a song that rests at first comes back from its own score', () => {
    const song = songOf(
      [
        [null, 4],
        ['C5', 2],
        ['D5', 2],
        ['E5', 4],
      ],
      [
        [0, 'C'],
        [4, 'F'],
        [8, 'G7'],
      ],
    );
    const back = songIn('intro.musicxml', writeMusicXml(writtenScore(arrange(documentOf(song)))));
    expect(back.melody.map((n) => n.pitch)).toEqual(['C5', 'D5', 'E5']);
  });

  it('lengths of 341, 341 and 342 parts of 1,024 are a triplet, and three of 341 fill the bar too', () => {
    for (const third of [342, 341]) {
      const measures = `<measure number="1"><attributes><divisions>1024</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>${note('C5', 341)}${note('D5', 341)}${note('E5', third)}${note('F5', 3072)}</measure>`;
      const { melody, length } = songIn('t.musicxml', score(measures));
      expect([melody.map((n) => [n.at, n.length]), length]).toEqual([
        [
          [0, Q / 3],
          [Q / 3, Q / 3],
          [(2 * Q) / 3, Q / 3],
          [Q, 3 * Q],
        ],
        4 * Q,
      ]);
    }
  });

  it('bars under no time signature are as long as they are written', () => {
    const divisions = '<attributes><divisions>2</divisions></attributes>';
    const measures = `<measure number="1">${divisions}${note('C5', 14)}</measure><measure number="2">${note('D5', 5)}</measure><measure number="3">${note('E5', 8)}</measure>`;
    const song = songIn('chant.musicxml', score(measures));
    expect(song.meters.map((m) => `${m.at / Q} ${m.beats}/${m.unit}`)).toEqual(['0 7/4', '7 5/8', '9.5 4/4']);
    expect(song.length).toBe(13.5 * Q);
  });

  it.each([
    [
      'letters by number',
      strToU8(
        score(
          `<measure>${four}${note('C5', 4)}</measure>`,
          '<work><work-title>Don&#39;t go, Caf&#233; &amp;#39;</work-title></work>',
        ),
      ),
      'a.musicxml',
      "Don't go, Café &#39;",
    ],
    [
      'Latin-1 in XML',
      Uint8Array.from(
        score(`<measure>${four}${note('C5', 4)}</measure>`, '<work><work-title>Señora Müller</work-title></work>', 'ISO-8859-1'),
        (c) => c.charCodeAt(0),
      ),
      'a.musicxml',
      'Señora Müller',
    ],
    [
      'Latin-1 in ABC',
      Uint8Array.from('X:1\nT:Señora Müller\nL:1/4\nK:C\nCDEF|\n', (c) => c.charCodeAt(0)),
      'a.abc',
      'Señora Müller',
    ],
    [
      'UTF-8 in MIDI',
      writeMidi({ ...songOf([['C5', 4]]), title: 'Señora Müller 港' }, [
        { hand: 'right', at: 0, length: Q, pitch: 'C5', loudness: 0.5 },
      ]),
      'a.mid',
      'Señora Müller 港',
    ],
  ])('keeps a title: %s', (_, data, name, title) => {
    expect(songIn(name, data).title).toBe(title);
  });

  it('titles of two lines, with percent signs and control characters, stay one line and inject nothing', () => {
    const song = songOf([['C5', 4]], [[0, 'C']], { title: '% Tide\nK:F#\u0000tempo: 20' });
    const document = { ...documentOf(song) };
    const opened = openFile('p.json', strToU8(writeProject(document)));
    if (!opened.ok) throw new Error(sentenceOf(opened));
    const clean = opened.document.song;
    expect(clean.title).toBe('% Tide K:F# tempo: 20');
    const score = writeMusicXml(writtenScore(arrange(opened.document)));
    for (const [name, text] of [
      ['a.abc', writeAbc(clean)],
      ['a.letters', writeLetters(clean)],
      ['a.musicxml', score],
    ]) {
      const back = songIn(name, text);
      expect([name, back.title, back.key.tonic, back.tempo]).toEqual([name, clean.title, 'C', 96]);
    }
  });
});

describe('ZIP archives', () => {
  const project = (title: string) => strToU8(writeProject(documentOf(songOf([['C5', 4]], [], { title }))));

  it('with a byte changed in the middle are damaged, not read as another song', () => {
    const packed = zipSync({ 'a.json': project('One') }, { level: 0 });
    const at = packed.findIndex((b, i) => b === 0x43 && packed[i + 1] === 0x35);
    packed[at + 1] = 0x36;
    expect(readArchive(packed)).toEqual({ ok: false, fault: { code: 'archive.damaged' } });
  });

  it('with two files of one name give both songs', () => {
    const packed = zipSync({ 'aa.json': project('One'), 'bb.json': project('Two') }, { level: 0 });
    for (let i = 0; i + 2 <= packed.length; i++) if (packed[i] === 0x62 && packed[i + 1] === 0x62) packed.set([0x61, 0x61], i);
    const read = readArchive(packed);
    expect(read.ok && read.documents.map((d) => d.song.title)).toEqual(['One', 'Two']);
  });

  it('that unpack to four hundred times what they state are stopped early', () => {
    const bomb = zipSync({ 'a.json': new Uint8Array(60_000_000) }, { level: 9 });
    const view = new DataView(bomb.buffer);
    for (let i = 0; i + 4 <= bomb.length; i++) if (view.getUint32(i, true) === 60_000_000) view.setUint32(i, 1000, true);
    expect(readArchive(bomb)).toEqual({ ok: false, fault: { code: 'archive.damaged' } });
  });
});

describe('texts that would keep a parser busy are refused with the place', () => {
  const head = 'X:1\nM:4/4\nL:1/8\nK:C\n';
  it.each([
    ['grace notes that are never closed', `${head}CDEF|${'{'.repeat(4000)}`, /line 5: the grace notes are not closed/i],
    ['voices without end', head + Array.from({ length: 12_000 }, (_, i) => `V:${i}\nCDEF|`).join('\n'), /more than 64 voices/],
    ['one endless line', `${head}${'C'.repeat(100_000)}`, /line 5: the line is longer than 5,000 letters/i],
    ['voices laid over each other without end', `${head}${'C&C|\n'.repeat(2000)}`, /more than 1,000 “&” signs/],
  ])('%s', (_, abc, refused) => {
    expect(sentence('a.abc', abc)).toMatch(refused);
  });

  it('two million tags', () => {
    expect(sentence('a.musicxml', score('<a/>'.repeat(2_000_000)))).toContain('more than 1,200,000 tags');
  });

  it('ten thousand voices of a note each are read, with a hundred of them to choose from', () => {
    const notes = Array.from(
      { length: 10_000 },
      (_, i) =>
        `<note><pitch><step>C</step><octave>5</octave></pitch><duration>4</duration><voice>${i + 1}</voice></note><backup><duration>4</duration></backup>`,
    );
    const opened = openFile('a.musicxml', strToU8(score(`<measure number="1">${four}${notes.join('')}</measure>`)));
    expect(opened.ok && opened.questions[0].entries.length).toBe(100);
  });
});
