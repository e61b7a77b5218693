import fc from 'fast-check';
import { Midi } from '@tonejs/midi';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, essence, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { midiOf } from '../pitch/pitch.js';
import { writtenScore } from '../sheet/written.js';
import { DocumentSchema, HAND_PROFILES, handsOf, SCHOOLS } from '../song/decisions.js';
import { setSchool } from '../song/edits.js';
import { besides, keysOf, SongSchema, type Song } from '../song/song.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import {
  readAbc,
  readLetters,
  readMidi,
  readMusicXml,
  readProject,
  writeAbc,
  writeLetters,
  writeMidi,
  asPage,
  writeMusicXml,
  writeProject,
  type Reading,
} from './index.js';
import { ORNAMENTS } from './ornaments.js';

const songFrom = (reading: Reading): Song => {
  if (!reading.ok) throw new Error(JSON.stringify(reading.refusal));
  return reading.song;
};
const throughAbc = (song: Song) => songFrom(readAbc(writeAbc(song)));
const throughLetters = (song: Song) => songFrom(readLetters(writeLetters(song)));
const throughMusicXml = (song: Song) => songFrom(readMusicXml(writeMusicXml(writtenScore(arrange(documentOf(song))))));

/** Titles and words that mean something to a format, or to none. */
const texts = fc.oneof(
  fc.string({ unit: 'grapheme', maxLength: 12 }),
  fc.string({ unit: 'binary', maxLength: 8 }),
  fc.constantFrom(
    '% tide',
    'two\nX:1\nK:G',
    'a\\b',
    '~',
    '-',
    '.',
    '_',
    '|',
    '*',
    'x-',
    '&#39;',
    '\\u0041',
    '"quay"',
    '<b>&amp;',
    '{',
    '[P:',
    'w:',
    '$$1',
    'K:C',
  ),
);

/** Songs with pick-ups and ends of any length, and texts of any kind. */
const oddSongs = (): fc.Arbitrary<Song> =>
  fc
    .record({
      song: songs(),
      lead: fc.constantFrom(0, Q, Q / 2, Q / 4, Q / 3, Q * 1.5, (Q * 2) / 3, (Q * 3) / 8),
      tail: fc.constantFrom(0, Q / 2, Q / 4, Q / 3, Q, Q * 1.25),
      title: texts,
      words: fc.array(texts, { minLength: 40, maxLength: 40 }),
      kept: fc.boolean(),
    })
    .map(({ song, lead, tail, title, words, kept }): Song => {
      const moved = <T extends { readonly at: number }>(list: readonly T[]): T[] =>
        list.filter((x) => x.at >= song.pickup).map((x) => ({ ...x, at: x.at - song.pickup + lead }));
      const length = song.length - song.pickup + lead - tail;
      const first = lead > 0 ? [{ at: 0, length: lead, pitch: 'C5', lyric: null }] : [];
      const found = [...first, ...moved(song.melody)].filter((n) => n.at < length);
      // There is always something to play.
      const tune = found.length > 0 ? found : [{ at: 0, length, pitch: 'C5', lyric: null }];
      return SongSchema.parse({
        ...song,
        title,
        composer: title,
        pickup: lead,
        length,
        melody: tune.map((n, i) => ({
          ...n,
          length: Math.min(n.length, length - n.at),
          lyric: n.lyric && { text: words[i % words.length], joins: n.lyric.joins },
        })),
        chords: moved(song.chords)
          .filter((c) => c.at < length)
          .map((c, i) => ({ at: c.at, symbol: kept && i % 3 === 0 ? 'C Neapolitan' : c.symbol })),
      });
    });

describe('a round trip keeps every note, syllable and chord', () => {
  it.each([
    ['ABC', throughAbc],
    ['letter lines', throughLetters],
    ['MusicXML', throughMusicXml],
  ])('through %s', (_, through) => {
    fc.assert(
      fc.property(songs(), (song) => {
        expect(essence(through(song))).toEqual(essence(song));
      }),
      { numRuns: 80 },
    );
    for (const name of DEMOS) expect(essence(through(demo(name).song))).toEqual(essence(demo(name).song));
  });

  it.each([
    ['ABC', throughAbc],
    ['letter lines', throughLetters],
    ['MusicXML', throughMusicXml],
  ])('keeps title, tempo and key through %s', (_, through) => {
    for (const name of DEMOS) {
      const { song } = demo(name);
      const back = through(song);
      expect([back.title, back.tempo, back.key]).toEqual([song.title, song.tempo, song.key]);
    }
  });

  it.each([
    ['ABC', throughAbc],
    ['MusicXML', throughMusicXml],
  ])('keeps ornaments, fermatas and slurs through %s', (_, through) => {
    const { song } = demo(DEMOS[1]);
    const places = song.melody.map((n) => n.at);
    const marks: Song['marks'] = [
      ...ORNAMENTS.map((o, i) => ({ at: places[2 * i], kind: 'ornament' as const, text: o.name })),
      { at: places[3], kind: 'fermata', text: null },
      { at: places[5], kind: 'slur-start', text: null },
      { at: places[8], kind: 'slur-end', text: null },
    ];
    const signs = (s: Song) => s.marks.filter((m) => marks.some((w) => w.kind === m.kind));
    const back = signs(through({ ...song, marks }));
    expect(new Set(back.map((m) => JSON.stringify(m)))).toEqual(new Set(marks.map((m) => JSON.stringify(m))));
  });

  it.each([
    ['ABC', throughAbc],
    ['letter lines', throughLetters],
    ['MusicXML', throughMusicXml],
  ])('with any pick-up, any end and any text through %s', (_, through) => {
    const all = (song: Song) => ({
      ...essence(song),
      title: song.title,
      composer: song.composer,
      sung: song.melody.map((n) => n.lyric),
    });
    fc.assert(
      fc.property(oddSongs(), (song) => {
        expect(all(through(song))).toEqual(all(song));
      }),
      { numRuns: 150, seed: 1127 },
    );
  });

  it('through MIDI with its title and words', () => {
    const sounding = (song: Song) =>
      song.melody.map((n) => `${n.at} ${n.length} ${keysOf(n).map(midiOf).join('+')} ${n.lyric?.text} ${n.lyric?.joins}`);
    fc.assert(
      fc.property(songs(), texts, (song, title) => {
        const named = SongSchema.parse({ ...song, title });
        const back = songFrom(readMidi(writeMidi(named, arrange(documentOf(named)).score)));
        expect([back.title, sounding(back)]).toEqual([named.title, sounding(named)]);
      }),
      { numRuns: 80, seed: 1127 },
    );
  });

  it('through MusicXML whatever the school: the right hand note for note, or its tune alone where that is asked for', () => {
    fc.assert(
      fc.property(songs(), fc.constantFrom(...SCHOOLS), fc.constantFrom(...HAND_PROFILES), (song, school, profile) => {
        const document = { ...setSchool(documentOf(song), school), hands: handsOf(profile) };
        const arrangement = arrange(document);
        const xml = writeMusicXml(writtenScore(arrangement));
        const alone = arrangement.song.melody.map((n) => besides(n, []));
        expect(essence(songFrom(readMusicXml(xml, { stacks: 'top' })))).toEqual(essence({ ...song, melody: alone }));
        const { melody, inner = [] } = songFrom(readMusicXml(xml));
        const read = [...melody.flatMap((n) => keysOf(n).map((pitch) => ({ at: n.at, pitch }))), ...inner];
        const keys = (notes: readonly { at: number; pitch: string }[]) => notes.map((n) => `${n.at} ${midiOf(n.pitch)}`).sort();
        expect(keys(read)).toEqual(keys(arrangement.score.filter((n) => n.hand === 'right')));
      }),
      { numRuns: 50 },
    );
  });

  it('a broken chord is written low note first, a rolled one with its sign, and both fill the bar', () => {
    const document = { ...setSchool(demo('harbour-glass.abc'), 'open'), hands: handsOf('small') };
    const xml = writeMusicXml(writtenScore(arrange(document)));
    expect(xml.match(/<arpeggiate\/>/g)).toBeNull();
    const [, left] = /<backup>[\s\S]*?<\/backup>([\s\S]*?)<\/measure>/.exec(xml) ?? [];
    const lengths = [...left.matchAll(/<note>(<chord\/>)?.*?<duration>(\d+)/g)].filter((m) => !m[1]).map((m) => Number(m[2]));
    expect(lengths).toEqual([Q, 3 * Q]);
    const chords = document.song.chords.flatMap((c) => [c, { at: c.at + Q, symbol: 'G7' }]);
    const quick = { ...document, song: { ...document.song, chords } };
    expect(writeMusicXml(writtenScore(arrange(quick)))).toContain('<arpeggiate/>');
  });

  it('through a project file, choices and hands too', () => {
    const document = { ...documentOf(demo(DEMOS[0]).song), hands: handsOf('small', 61) };
    document.choices.names.push({ at: 0, name: 'Opening' });
    const back = readProject(writeProject(document));
    expect(back).toEqual({ ok: true, document });
  });

  it.each([1, 2, 3])('a document saved by version %i is brought forward with nothing lost', (version) => {
    const { song } = demo(DEMOS[0]);
    const choices = {
      partSize: 'smaller',
      parts: [],
      names: [{ at: 0, name: 'Opening' }],
      chords: [{ at: song.chords[0].at, symbol: 'Gm7' }],
      pins: [{ at: song.chords[0].at, pitches: ['G3', 'Bb3', 'D4'] }],
    };
    const old = { version, song, choices, hands: { profile: 'small', keys: 61 } };
    const brought = DocumentSchema.parse(old);
    expect(brought).toMatchObject({ ...old, version: 5 });
    expect(brought.hands).toEqual(handsOf('small', 61));
    expect(brought.choices).toMatchObject({ school: null, bass: 'free', suggest: null, passages: [], chordSchools: [] });
    expect(brought.choices).toMatchObject({
      level: 'full',
      octave: 0,
      rhythm: 'sung',
      timing: 'written',
      fingers: [],
      sections: [],
    });
  });

  it('a document of version 4 is brought forward with its play mode, the wishes of its stretches and its kept versions', () => {
    const { song } = demo(DEMOS[0]);
    const none = { bass: null, suggest: null, stay: null, timing: null, rhythm: null, octave: null, level: null, walk: null };
    const wished = { start: 0, end: song.length, school: 'root', loudness: 'ff', texture: null, pedal: false };
    const choices = { way: 'outline', passages: [{ ...none, ...wished }], textures: [], muted: ['fills'] };
    const hands = handsOf('small', 61);
    const version = { name: 'Evening', kept: '2026-01-02T03:04:05.000Z', song, choices: { way: 'sing-along' }, hands };
    const brought = DocumentSchema.parse({ version: 4, song, choices, hands, versions: [version] });
    const { texture: _texture, ...kept } = wished;
    expect(brought.choices).toMatchObject({ playMode: 'outline', muted: ['fills'] });
    expect(brought.choices.passages).toEqual([kept]);
    expect(brought.versions.map((v) => [v.name, v.choices.playMode])).toEqual([['Evening', 'sing-along']]);
    expect(DocumentSchema.parse(JSON.parse(JSON.stringify(brought)))).toEqual(brought);
    expect(DocumentSchema.safeParse({ version: 4, song, choices: { way: 'sideways' }, hands }).success).toBe(false);
  });
});

describe('MIDI', () => {
  it('holds two tracks that sound every note of the arrangement at its place', () => {
    fc.assert(
      fc.property(songs(), (song) => {
        const { score } = arrange(documentOf(song));
        const midi = new Midi(writeMidi(song, score));
        const { ppq } = midi.header;
        const heard = midi.tracks.flatMap((t) =>
          t.notes.map((n) => `${t.name} ${(n.ticks * Q) / ppq} ${(n.durationTicks * Q) / ppq} ${n.midi}`),
        );
        const played = score.map((n) => `${n.hand === 'right' ? 'Right' : 'Left'} hand ${n.at} ${n.length} ${midiOf(n.pitch)}`);
        expect(heard.sort()).toEqual([...new Set(played)].sort());
        expect(midi.header.tempos[0].bpm).toBeCloseTo(song.tempo, 1);
        // A pick-up is a first bar of a meter of its own.
        const meter = midi.header.timeSignatures[song.pickup > 0 ? 1 : 0];
        expect(meter.timeSignature).toEqual([song.meters[0].beats, song.meters[0].unit]);
      }),
      { numRuns: 40 },
    );
  });

  it('names the key', () => {
    const { song } = demo(DEMOS[0]);
    const [key] = new Midi(writeMidi(song, [])).header.keySignatures;
    expect([key.key, key.scale]).toEqual(['Bb', 'minor']);
  });
});

describe('letter lines in do-re-mi and the German way', () => {
  it.each(['solfege', 'german'] as const)('are read back as they were written: %s', (names) => {
    fc.assert(
      fc.property(songs(), (song) => {
        const back = songFrom(readLetters(writeLetters(song, names)));
        expect(essence(back)).toEqual(essence(throughLetters(song)));
        expect(back.key).toEqual(song.key);
      }),
      { numRuns: 60 },
    );
  });

  it('name the notes so', () => {
    const song = songOf([['B4', 1], ['Bb4', 1], ['F#4', 1], ['Eb4', 1]], [[0, 'B7'], [2, 'Bb/D']]); // prettier-ignore
    expect(writeLetters(song, 'german')).toMatch(/tune : H4 +B +Fis +Es/);
    expect(writeLetters(song, 'german')).toMatch(/chord: H7 +- +B\/D/);
    expect(writeLetters(song, 'solfege')).toMatch(/tune : si4 +si♭ +fa♯ +mi♭/);
  });
});

describe('the engraved score', () => {
  const xml = writeMusicXml(writtenScore(arrange(demo(DEMOS[2]))));

  it('has the right hand’s fingers over the tune', () => {
    const upper = [...xml.matchAll(/<note>(.*?)<\/note>/g)].filter(
      ([, n]) => n.includes('<voice>1</voice>') && n.includes('<pitch>'),
    );
    const tied = upper.filter(([, n]) => n.includes('<tie type="stop"/>')).length;
    expect(upper.filter(([, n]) => /<fingering placement="above">[1-5]</.test(n))).toHaveLength(upper.length - tied);
  });

  it('begins with the very bars of the whole where only its first are written, whatever ties, slurs and signs cross the end', () => {
    const barsIn = (text: string) => text.match(/<measure [\s\S]*?<\/measure>/g) ?? [];
    fc.assert(
      fc.property(songs(), fc.integer({ min: 1, max: 20 }), (song, most) => {
        const score = asPage(writtenScore(arrange(documentOf(song))));
        const [whole, start] = [writeMusicXml(score), writeMusicXml(score, most)];
        expect(barsIn(start)).toEqual(barsIn(whole).slice(0, most));
        expect(start.split('<measure')[0]).toBe(whole.split('<measure')[0]);
      }),
      { numRuns: 60 },
    );
  });

  it('has two staves, fingers, chord symbols, words and part numbers', () => {
    for (const piece of [
      '<staves>2</staves>',
      '<fingering placement="below">5</fingering>',
      '<kind text="7">dominant</kind>',
      '<rehearsal>2</rehearsal>',
      '<syllabic>end</syllabic><text>tle</text>',
    ])
      expect(xml).toContain(piece);
  });

  it('names a chord once while it stays, and stacks its fingers from the thumb down, on the page alone', () => {
    const song = songOf(
      [1, 2, 3, 4].map(() => ['C5', 4] as const),
      [[0, 'C'], [4, 'C'], [8, 'G7'], [12, 'C']], // prettier-ignore
    );
    const score = writtenScore(arrange(documentOf({ ...song, composer: 'A ferry pianist' })));
    const [file, page] = [writeMusicXml(score), writeMusicXml(asPage(score))];
    expect(file.match(/<harmony/g)).toHaveLength(4);
    expect(page.match(/<harmony/g)).toHaveLength(3);
    expect(file).toContain('<technical><fingering placement="below">5</fingering></technical>');
    expect(page.match(/<technical>(?:<fingering placement="below">\d<\/fingering>){3,4}<\/technical>/g)).toHaveLength(4);
    for (const [, column] of page.matchAll(/<technical>((?:<fingering placement="below">\d<\/fingering>)+)/g)) {
      const fingers = [...column.matchAll(/>(\d)</g)].map(([, f]) => Number(f));
      expect(fingers).toEqual([...fingers].sort((a, b) => a - b));
    }
    expect(page).toContain('A ferry pianist</credit-words>');
    expect(file).not.toContain('<credit');
  });

  it('joins eighth notes within a beat', () => {
    expect(xml.match(/<beam number="1">begin/g)?.length).toBe(xml.match(/<beam number="1">end/g)?.length);
    expect(xml).toContain('<beam number="1">begin');
  });

  it('fills every bar of both staves exactly', () => {
    fc.assert(
      fc.property(songs({ triplets: true }), (song) => {
        const written = writeMusicXml(writtenScore(arrange(documentOf(song))));
        for (const [, measure] of written.matchAll(/<measure [^>]*>([\s\S]*?)<\/measure>/g)) {
          const staff = (n: number) =>
            [...measure.matchAll(/<note>(.*?)<\/note>/g)]
              .filter(([, note]) => note.includes(`<staff>${n}</staff>`) && !note.includes('<chord/>'))
              .reduce((sum, [, note]) => sum + Number(/<duration>(\d+)/.exec(note)?.[1]), 0);
          expect(staff(1)).toBe(staff(2));
        }
      }),
      { numRuns: 30 },
    );
  });
});
