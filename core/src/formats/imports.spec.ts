import { ENGLISH, refusalWords } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { midiOf } from '../pitch/pitch.js';
import { writtenScore } from '../sheet/written.js';
import type { Document } from '../song/decisions.js';
import { setClose } from '../song/dressing.js';
import { setSetting } from '../song/edits.js';
import type { Song } from '../song/song.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { openFile, readAbc, readMidi, readMusicXml, writeAbc, writeMidi, writeMusicXml, type Reading } from './index.js';
import { likelyGrid, snap } from './midi/quantise.js';
import { Midi } from './midi/package.js';

const read = (reading: Reading) => {
  if (!reading.ok) throw new Error(refusalWords(reading.refusal, ENGLISH));
  return reading;
};
const tune = (s: Song) => s.melody.map((n) => n.pitch).join(' ');
const note = (step: string, octave: number, duration: number, more = '', front = '') =>
  `<note>${front}<pitch><step>${step}</step><octave>${octave}</octave></pitch><duration>${duration}</duration>${more}</note>`;
const bar = (n: number, inner: string) => `<measure number="${n}">${inner}</measure>`;
const START =
  '<attributes><divisions>1</divisions><key><fifths>0</fifths><mode>major</mode></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>';
const partList = (...names: string[]) =>
  `<part-list>${names.map((n, i) => `<score-part id="P${i + 1}"><part-name>${n}</part-name></score-part>`).join('')}</part-list>`;
const score = (names: string[], ...parts: string[]) =>
  `<score-partwise version="4.0">${partList(...names)}${parts.map((p, i) => `<part id="P${i + 1}">${p}</part>`).join('')}</score-partwise>`;
const whole = (step: string, octave = 4, more = '') => note(step, octave, 4, more);

describe('a score of several lines', () => {
  const two = score(
    ['Piano', 'Voice'],
    bar(1, START + whole('C') + '<backup><duration>4</duration></backup>' + note('C', 3, 4, '<voice>2</voice>')) +
      bar(2, whole('D') + '<direction><direction-type><dynamics><f/></dynamics></direction-type></direction>'),
    bar(1, START + whole('G', 4, '<lyric><text>sea</text></lyric>')) + bar(2, whole('A', 4, '<lyric><text>air</text></lyric>')),
  );

  it('gives the line that is sung, asks for it, and takes another when told', () => {
    const first = read(readMusicXml(two));
    expect(tune(first.song)).toBe('G4 A4');
    const [question] = first.questions;
    expect(question).toMatchObject({ id: 'line', value: '2/1/1' });
    expect(question.entries.map((e) => ENGLISH.fact(e.fact))).toEqual([
      'Piano, voice 1: 2 notes',
      'Piano, voice 2: 1 note',
      'Voice: 2 notes, sung',
    ]);
    expect(tune(read(readMusicXml(two, { line: '1/1/1' })).song)).toBe('C4 D4');
  });

  it('counts what it has no place for', () => {
    const { counted } = read(readMusicXml(two, { line: '1/1/1' }));
    expect(counted).toContainEqual({ what: 'dynamics', count: 1, became: 'left out' });
    expect(counted).toContainEqual({ what: 'second-voice', count: 1, became: 'kept' });
    expect(counted).toContainEqual({ what: 'other-parts', count: 2, became: 'left out' });
    expect(counted).toContainEqual({ what: 'melody-notes', count: 2, became: 'used' });
  });

  it('keeps the lowest of stacked notes where that is asked for', () => {
    const stacked = score(['Voice'], bar(1, START + whole('C') + note('E', 4, 4, '', '<chord/>')));
    expect(tune(read(readMusicXml(stacked)).song)).toBe('E4');
    expect(tune(read(readMusicXml(stacked, { stacks: 'lowest' })).song)).toBe('C4');
  });

  it('is read timewise and in UTF-16 as well', () => {
    const timewise = `<?xml version="1.0" encoding="UTF-16"?><score-timewise version="4.0">${partList('Voice')}${bar(1, `<part id="P1">${START}${whole('G')}</part>`)}${bar(2, `<part id="P1">${whole('F')}</part>`)}</score-timewise>`;
    const bytes = new Uint8Array([0xff, 0xfe, ...[...timewise].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8])]);
    const opened = openFile('pier.musicxml', bytes);
    expect(opened.ok && tune(opened.document.song)).toBe('G4 F4');
  });

  it('keeps grace notes as ornaments, fermatas and words', () => {
    const ornate = score(
      ['Voice'],
      bar(
        1,
        START +
          note('D', 4, 0, '', '<grace/>') +
          whole('C', 4, '<notations><ornaments><turn/><shake/></ornaments><fermata/></notations>'),
      ) + bar(2, '<direction><direction-type><words>gently</words></direction-type></direction>' + whole('E')),
    );
    const { song, counted } = read(readMusicXml(ornate));
    expect(song.melody[0].graces).toEqual(['D4']);
    expect(song.marks.map((m) => [m.kind, m.text])).toContainEqual(['words', 'gently']);
    expect(counted).toContainEqual({ what: 'grace-notes', count: 1, became: 'kept' });
    expect(song.marks.map((m) => [m.kind, m.text])).toContainEqual(['ornament', 'turn']);
    expect(counted).toContainEqual({ what: 'fermatas', count: 1, became: 'kept' });
    expect(counted).toContainEqual({ what: 'ornaments', count: 1, became: 'kept' });
    expect(counted).toContainEqual({ what: 'rare-ornaments', count: 1, became: 'left out' });
  });

  it('of a transposing instrument sounds where it sounds, chords and key with it', () => {
    const clarinet = score(
      ['Clarinet'],
      bar(
        1,
        START.replace('</attributes>', '<transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose></attributes>') +
          '<harmony><root><root-step>D</root-step></root><kind>minor</kind></harmony>' +
          whole('D', 5),
      ),
    );
    const { song } = read(readMusicXml(clarinet));
    expect([tune(song), song.chords[0].symbol, song.key.tonic]).toEqual(['C5', 'Cm', 'Bb']);
  });
});

describe('signs that send the player back', () => {
  const words = (text: string) => `<direction><direction-type><words>${text}</words></direction-type></direction>`;
  const sign = (tag: string) => `<direction><direction-type><${tag}/></direction-type></direction>`;

  it.each([
    ['da capo al fine', [START + whole('C'), whole('D') + words('Fine'), whole('E') + words('D.C. al Fine')], 'C4 D4 E4 C4 D4'],
    [
      'dal segno al coda',
      [
        START + whole('C'),
        sign('segno') + whole('D'),
        whole('E') + words('To Coda'),
        whole('F') + words('D.S. al Coda'),
        words('Coda') + whole('G'),
      ],
      'C4 D4 E4 F4 D4 E4 G4',
    ],
    [
      'repeats once more on the way back',
      [START + whole('C') + '<barline><repeat direction="backward"/></barline>', whole('D') + '<sound dacapo="yes"/>'],
      'C4 C4 D4 C4 D4',
    ],
  ])('play out: %s', (_, measures, expected) => {
    const reading = read(readMusicXml(score(['Voice'], measures.map((m, i) => bar(i + 1, m)).join(''))));
    expect(tune(reading.song)).toBe(expected);
    expect(reading.notices.map((n) => n.code)).toContain('notice.order');
    expect(reading.song.order).toMatch(/^1–?/);
  });

  it('sing the next verse when a measure comes again', () => {
    const verse = (n: number, t: string) => `<lyric number="${n}"><text>${t}</text></lyric>`;
    const twice = score(
      ['Voice'],
      bar(1, START + whole('C', 4, verse(1, 'ebb') + verse(2, 'flow')) + '<barline><repeat direction="backward"/></barline>'),
    );
    expect(read(readMusicXml(twice)).song.melody.map((n) => n.lyric?.text)).toEqual(['ebb', 'flow']);
  });
});

describe('an ABC book', () => {
  const book = '%%pagewidth 20\nX:1\nT:Rope\nM:4/4\nL:1/4\nK:C\nCDEF|\n\nX:2\nT:Tar\nM:4/4\nL:1/4\nK:G\n{a}G2 !trill!.A2|\n';

  it('asks which tune, keeps grace notes and counts the signs that it leaves out', () => {
    const first = read(readAbc(book));
    expect(first.questions[0]).toMatchObject({
      id: 'tune',
      value: '1',
      entries: [{ fact: { text: 'Rope' } }, { fact: { text: 'Tar' } }],
    });
    const second = read(readAbc(book, { tune: '2' }));
    expect([second.song.title, tune(second.song), second.song.melody[0].graces]).toEqual(['Tar', 'G4 A4', ['A5']]);
    expect(second.counted).toContainEqual({ what: 'ornaments', count: 1, became: 'kept' });
    expect(second.counted).toContainEqual({ what: 'playing-signs', count: 1, became: 'left out' });
  });

  it('reads broken rhythm and a change of meter and key inside the line', () => {
    const { song } = read(readAbc('X:1\nM:4/4\nL:1/4\nK:C\nC>D E2|[M:3/4]E2 F|[K:G]F3|\n'));
    expect(song.melody.map((n) => n.length / Q)).toEqual([1.5, 0.5, 2, 2, 1, 3]);
    expect(song.meters.map((m) => m.beats)).toEqual([4, 3]);
    expect(song.melody.at(-1)?.pitch).toBe('F#4');
  });
});

describe('MIDI', () => {
  const sounding = (s: Song) => s.melody.map((n) => [n.at, n.length, midiOf(n.pitch)]);

  it.each(DEMOS)('that was written here comes back with the same tune, bars and key: %s', (name) => {
    const { song } = demo(name);
    const { score: notes } = arrange(documentOf(song));
    const back = read(readMidi(writeMidi(song, notes))).song;
    expect(sounding(back)).toEqual(sounding(song));
    expect([back.pickup, back.length, back.key, back.tempo]).toEqual([song.pickup, song.length, song.key, song.tempo]);
  });

  it('keeps the sounding tune of random songs without triplets', () => {
    fc.assert(
      fc.property(songs({ triplets: false, maxBars: 6 }), (song) => {
        if (song.melody.length < 2) return;
        const { score: notes } = arrange(documentOf({ ...song, chords: [] }));
        const right = notes.filter((n) => n.hand === 'right');
        const back = read(readMidi(writeMidi(song, right), { grid: 'sixteenths' })).song;
        expect(back.melody.map((n) => [n.at, midiOf(n.pitch)])).toEqual(song.melody.map((n) => [n.at, midiOf(n.pitch)]));
      }),
      { numRuns: 60 },
    );
  });

  it('names the chords of an accompaniment', () => {
    const doc = setSetting(demo('harbour-glass.abc'), null, 'texture', 'broken-triad');
    const { song, score: notes } = arrange(doc);
    const back = read(readMidi(writeMidi(song, notes)));
    expect(back.questions.find((q) => q.id === 'chords')?.value).toBe('named');
    const roots = (s: Song) => new Map(s.chords.map((c) => [c.at, /^[A-G][b#]?/.exec(c.symbol)?.[0]]));
    const [given, heard] = [roots(song), roots(back.song)];
    const right = [...given].filter(([at, root]) => heard.get(at) === root).length;
    expect(right / given.size).toBeGreaterThan(0.7);
    expect(read(readMidi(writeMidi(song, notes), { chords: 'none' })).song.chords).toEqual([]);
  });

  it('finds the tune of two hands on one track', () => {
    const { song } = demo('lamps-across-the-sound.letters');
    const { score: notes } = arrange(documentOf(song));
    const one = notes.map((n) => ({ ...n, hand: 'right' as const }));
    const back = read(readMidi(writeMidi(song, one))).song;
    const same = back.melody.filter((n) => song.melody.some((m) => m.at === n.at && midiOf(m.pitch) === midiOf(n.pitch)));
    expect(same.length / song.melody.length).toBeGreaterThan(0.9);
    // The three low notes that lead into a part lie within a fourth of the chords, and go with them.
    expect(song.melody.length - back.melody.length).toBeLessThanOrEqual(3);
  });

  it('puts played notes on a grid and says how far they were off', () => {
    const midi = new Midi();
    midi.header.setTempo(60);
    const track = midi.addTrack();
    [0.02, 0.51, 0.98, 1.53, 2.04, 3.01].forEach((at, i) => track.addNote({ midi: 60 + i, time: at, duration: 0.45 }));
    const reading = read(readMidi(midi.toArray()));
    expect(reading.song.melody.map((n) => n.at / Q)).toEqual([0, 0.5, 1, 1.5, 2, 3]);
    const grid = reading.questions.find((q) => q.id === 'grid');
    expect(grid?.value).toBe('eighths');
    expect(grid && ENGLISH.fact(grid.entries[0].fact)).toMatch(/^eighths \(\d+ ms off on average\)$/);
    // Notes that lie on it as they are leave nothing to ask.
    const written = writeMidi(reading.song, arrange(documentOf(reading.song)).score);
    expect(read(readMidi(written)).questions.map((q) => q.id)).not.toContain('grid');
  });

  it('takes triplets for triplets', () => {
    const places = [0, 1 / 3, 2 / 3, 1, 1.5, 2].map((p, i) => p + (i % 2 ? 0.01 : -0.005));
    expect(likelyGrid(places)).toBe('mixed');
    expect(snap(places, 'mixed').map((p) => Math.round(p * 12))).toEqual([0, 4, 8, 12, 18, 24]);
  });

  it.each([
    [new Uint8Array([1, 2, 3]), 'This is not a MIDI file'],
    [new Uint8Array([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 2, 0, 1, 0, 96]), 'type 2'],
    [new Uint8Array([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1, 0, 1, 0xe7, 40]), 'film frames'],
    [new Uint8Array([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1, 0, 1, 0, 96]), /damaged|no notes/],
  ])('is refused with the cause %#', (data, cause) => {
    const reading = readMidi(data);
    expect(reading.ok ? 'was read' : refusalWords(reading.refusal, ENGLISH)).toMatch(cause);
  });
});

describe('what is written out', () => {
  it('keeps grace notes, fermatas and words in MusicXML', () => {
    const { song } = demo(DEMOS[1]);
    const [first, ...rest] = song.melody;
    const ornate: Song = {
      ...song,
      melody: [{ ...first, graces: ['A4', 'Bb4'] }, ...rest],
      marks: [
        ...song.marks,
        { at: rest[3].at, kind: 'fermata', text: null },
        { at: rest[5].at, kind: 'words', text: 'held back' },
      ],
    };
    const back = read(readMusicXml(writeMusicXml(writtenScore(arrange(documentOf(ornate)))))).song;
    expect(back.melody[0].graces).toEqual(['A4', 'Bb4']);
    expect(back.marks).toContainEqual({ at: rest[3].at, kind: 'fermata', text: null });
    expect(back.marks).toContainEqual({ at: rest[5].at, kind: 'words', text: 'held back' });
    expect(read(readAbc(writeAbc(ornate))).song.melody[0].graces).toEqual(['A4', 'Bb4']);
  });

  it('keeps slurs and changes of tempo', () => {
    const { song } = demo(DEMOS[1]);
    const [a, b, c, d] = song.melody;
    const marks: Song['marks'] = [
      { at: a.at, kind: 'slur-start', text: null },
      { at: c.at + c.length, kind: 'slur-end', text: null },
      ...song.marks,
    ];
    const lively: Song = { ...song, marks, tempos: [{ at: d.at, tempo: 112 }] };
    const { score: notes, tempo, ...arrangement } = arrange(documentOf(lively));
    expect(tempo.map((p) => [p.at, Math.round(p.percent)])).toEqual([
      [0, 100],
      [d.at, 147],
    ]);
    const xml = writeMusicXml(writtenScore({ ...arrangement, score: notes, tempo }));
    expect(xml.match(/<slur type="(start|stop)"/g)).toHaveLength(2);
    for (const back of [read(readMusicXml(xml)).song, read(readAbc(writeAbc(lively))).song])
      expect(back.marks.filter((m) => m.kind.startsWith('slur')).map((m) => [m.kind, m.at])).toEqual([
        ['slur-start', a.at],
        ['slur-end', c.at + c.length],
      ]);
    expect(read(readMusicXml(xml)).song.tempos).toEqual([{ at: d.at, tempo: 112 }]);
    expect(read(readMidi(writeMidi(song, notes, [], tempo))).song.tempos).toEqual([
      { at: d.at, tempo: expect.closeTo(112, 0) as number },
    ]);
    expect(b.at).toBeGreaterThan(a.at);
  });

  it('has the elements of MusicXML 4.0 in the order that its schema asks for', () => {
    const doc = demo(DEMOS[1]);
    const { parts } = arrange(doc);
    const full = [
      (d: Document) => setSetting(d, null, 'texture', 'rise-and-fall'),
      (d: Document) => setSetting(d, null, 'pedal', true),
      (d: Document) => setSetting(d, parts[0], 'swell', 'arch'),
      (d: Document) => setSetting(d, parts[1], 'loudness', 'p'),
      (d: Document) => setClose(d, { slower: 30, touch: 'rolled' }),
    ].reduce((d, make) => make(d), doc);
    const xml = writeMusicXml(writtenScore(arrange(full)));
    const checked = new Map<string, number>();
    for (const [name, order] of Object.entries(SCHEMA_ORDER))
      for (const [, inner] of xml.matchAll(new RegExp(`<${name}(?: [^>]*)?>(.*?)</${name}>`, 'gs'))) {
        const tags = childTags(inner).map((tag) => order.indexOf(tag));
        expect(tags, `${name}: ${childTags(inner).join(' ')}`).not.toContain(-1);
        expect(
          [...tags].sort((a, b) => a - b),
          `${name}: ${childTags(inner).join(' ')}`,
        ).toEqual(tags);
        checked.set(name, (checked.get(name) ?? 0) + 1);
      }
    expect([...checked.keys()].sort()).toEqual(Object.keys(SCHEMA_ORDER).sort());
  });
});

/** Children in the order of the schema, for the elements that are written. */
const SCHEMA_ORDER: Readonly<Record<string, readonly string[]>> = {
  note: [
    'grace',
    'chord',
    'pitch',
    'rest',
    'duration',
    'tie',
    'voice',
    'type',
    'dot',
    'time-modification',
    'staff',
    'beam',
    'notations',
    'lyric',
  ],
  direction: ['direction-type', 'offset', 'staff', 'sound'],
  harmony: ['root', 'kind', 'inversion', 'bass', 'degree', 'offset', 'staff'],
  attributes: ['divisions', 'key', 'time', 'staves', 'clef'],
  identification: ['creator', 'rights', 'encoding'],
  barline: ['bar-style', 'ending', 'repeat'],
};

/** The tags of the direct children in a piece of XML. */
function childTags(xml: string): string[] {
  const tags: string[] = [];
  let depth = 0;
  for (const [, close, tag, , alone] of xml.matchAll(/<(\/?)([\w-]+)([^>]*?)(\/?)>/g)) {
    if (close) depth--;
    else {
      if (depth === 0) tags.push(tag);
      if (!alone) depth++;
    }
  }
  return tags;
}
