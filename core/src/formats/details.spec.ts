import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { keyName } from '../harmony/key.js';
import type { Song } from '../song/song.js';
import { meterName } from '../time/meter.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { ENGLISH, partTitle, refusalWords } from '../words/index.js';
import { readAbc, readLetters, readMusicXml, writeAbc, writeLetters, writeMidi, type Reading } from './index.js';

const song = (reading: Reading): Song => {
  if (!reading.ok) throw new Error(refusalWords(reading.refusal, ENGLISH));
  return reading.song;
};
const notices = (reading: Reading) => (reading.ok ? reading.notices.map(ENGLISH.fact).join(' ') : 'refused');
const abc = (...lines: string[]) => readAbc(['X:1', 'T:Test', 'L:1/4', ...lines].join('\n'));

describe('ABC in the wild', () => {
  it.each([
    ['M:C', '4/4'],
    ['M:C|', '2/2'],
    ['M:6/8', '6/8'],
    ['M:2/4', '2/4'],
  ])('%s is %s', (meter, expected) => {
    const bar = expected === '6/8' ? 'C3' : expected === '2/4' ? 'C2' : 'C4';
    expect(meterName(song(abc(meter, 'K:C', `${bar}|${bar}|]`)).meters[0])).toBe(expected);
  });

  it.each([
    ['K:Gm', 'G minor'],
    ['K:Bbmaj', 'Bb major'],
    ['K:F#m', 'F# minor'],
    ['K:C', 'C major'],
  ])('%s is %s', (key, expected) => expect(keyName(song(abc('M:4/4', key, 'C4|]')).key)).toBe(expected));

  it('keeps a mode that is named, with its signature', () => {
    const dorian = song(abc('M:4/4', 'K:Ddor', 'D F A d | B A F D | D4 |]'));
    expect(dorian.melody[4].pitch).toBe('B4');
    expect(keyName(dorian.key)).toBe('D Dorian');
  });

  it('changes the meter inside the tune', () => {
    const s = song(abc('M:4/4', 'K:C', 'C4 | [M:3/4] D3 | E3 |]'));
    expect(s.meters.map((m) => [m.at / Q, m.beats])).toEqual([
      [0, 4],
      [4, 3],
    ]);
  });

  it('keeps section names, in every pass of a repeat', () => {
    const s = song(abc('M:4/4', 'K:C', 'P:Verse', '|: C4 | D4 :|', 'P:Bridge', 'E4 |]'));
    expect(s.marks.filter((m) => m.kind === 'section').map((m) => [m.at / Q, m.text])).toEqual([
      [0, 'Verse'],
      [8, 'Verse'],
      [16, 'Bridge'],
    ]);
  });

  it('takes the first of several voices and says so, and the first of several tunes', () => {
    const two = abc('M:4/4', 'V:1', 'V:2', 'K:C', '[V:1] c4 |', '[V:2] C4 |');
    expect(song(two).melody.map((n) => n.pitch)).toEqual(['C5']);
    expect(notices(two)).toContain('several voices');
    const book = readAbc('X:1\nT:One\nM:4/4\nL:1/4\nK:C\nC4|]\n\nX:2\nT:Two\nM:4/4\nL:1/4\nK:C\nD4|]\n');
    expect(song(book).title).toBe('One');
  });

  it('reads dotted pairs, grace notes, remarks and bars of rest without losing time', () => {
    const s = song(abc('M:4/4', 'K:C', '"^slowly" C>D {e}E F | Z2 | "fine" G4 |]'));
    expect(s.melody.map((n) => n.length / Q)).toEqual([1.5, 0.5, 1, 1, 4]);
    expect(s.melody[4].at / Q).toBe(12);
    expect(s.chords).toEqual([]);
  });

  it('keeps the words under their notes over rests, ties and blanks', () => {
    const s = song(abc('M:4/4', 'K:C', 'C2 z D | E2- E F |', 'w: one two three* four'));
    expect(s.melody.map((n) => n.lyric?.text ?? '')).toEqual(['one', 'two', 'three', 'four']);
  });
});

describe('MusicXML in the wild', () => {
  const score = (...measures: string[]) =>
    `<score-partwise><movement-title>Quay</movement-title><part id="P1">${measures.map((m, i) => `<measure number="${i + 1}">${m}</measure>`).join('')}</part></score-partwise>`;
  const head = (more = '') =>
    `<attributes><divisions>1</divisions><key><fifths>1</fifths></key><time><beats>2</beats><beat-type>4</beat-type></time>${more}</attributes>`;
  const note = (step: string, duration = 2, more = '') =>
    `<note><pitch><step>${step}</step><octave>5</octave></pitch><duration>${duration}</duration>${more}</note>`;
  const xml = (text: string) => `<?xml version="1.0"?>${text}`;

  it('says what it keeps as written', () => {
    const key = '<attributes><key><fifths>3</fifths></key></attributes>';
    const read = readMusicXml(xml(score(head('<transpose><chromatic>-2</chromatic></transpose>') + note('G'), key + note('A'))));
    expect(notices(read)).toContain('transposing instrument');
    expect(notices(read)).toContain('The key changes at measure 2');
  });

  it('takes rehearsal marks, double bars and slurs as signs of phrases', () => {
    const rehearsal = '<direction><direction-type><rehearsal>B</rehearsal></direction-type></direction>';
    const slur = '<notations><slur type="stop"/></notations>';
    const double = '<barline location="right"><bar-style>light-light</bar-style></barline>';
    const s = song(readMusicXml(xml(score(head() + note('G', 2, slur) + double, rehearsal + note('A')))));
    expect(s.marks.map((m) => `${m.kind} ${m.at / Q}`).sort()).toEqual(['double-bar 2', 'section 2', 'slur-end 2']);
  });

  it('lets a tempo be written as a dotted or halved beat', () => {
    const metronome =
      '<direction><direction-type><metronome><beat-unit>half</beat-unit><per-minute>50</per-minute></metronome></direction-type></direction>';
    expect(song(readMusicXml(xml(score(head() + metronome + note('G'))))).tempo).toBe(100);
  });

  it('ignores grace and cue notes, and the lower staff', () => {
    const grace = '<note><grace/><pitch><step>F</step><octave>5</octave></pitch></note>';
    const low = '<backup><duration>2</duration></backup>' + note('C', 2, '<staff>2</staff>');
    expect(
      song(readMusicXml(xml(score(head() + grace + note('G', 2, '<staff>1</staff>') + low)))).melody.map((n) => n.pitch),
    ).toEqual(['G5']);
  });
});

describe('written files', () => {
  it('line up letter lines, name octaves only where they are needed, and keep sections and meters', () => {
    const melody = songOf(
      [
        ['C5', 1],
        ['D5', 1],
        ['C4', 1],
        ['E4', 1],
        ['F4', 3],
      ],
      [[0, 'C']],
      {
        meters: [
          { at: 0, beats: 4, unit: 4 },
          { at: 4 * Q, beats: 3, unit: 4 },
        ],
        marks: [{ at: 4 * Q, kind: 'section', text: 'Bridge' }],
      },
    );
    const lines = writeLetters(melody).split('\n');
    expect(lines).toContain('tune : C5 D C4 E |');
    expect(lines).toContain('chord: C  - -  - |');
    expect(lines).toContain('section: Bridge');
    expect(lines).toContain('time: 3/4');
    expect(song(readLetters(lines.join('\n'))).marks.some((m) => m.kind === 'section' && m.at === 4 * Q)).toBe(true);
  });

  it('write accidentals in ABC only where the key and the bar do not say them', () => {
    const melody = songOf(
      [
        ['F#4', 1],
        ['F#4', 1],
        ['F4', 1],
        ['Bb4', 1],
        ['F#5', 4],
      ],
      [],
      { key: { tonic: 'G', mode: 'major' } },
    );
    expect(writeAbc(melody)).toContain('F2 F2 =F2 _B2|f8|]');
  });

  it('keep odd tuplets exact in MIDI by a finer resolution', () => {
    const seven = (1 / 7) * 4;
    const odd = songOf([
      ['C5', seven],
      ['D5', seven],
      ['E5', seven],
    ]);
    const division = (s: Song) => {
      const bytes = writeMidi(s, arrange(documentOf(s)).score);
      return bytes[12] * 256 + bytes[13];
    };
    expect(division(odd)).toBe(3360);
    expect(division(songOf([['C5', 1 / 3]]))).toBe(480);
  });

  it('title a part by its own name and bars', () => {
    const [part] = arrange(documentOf(songOf([['C5', 8]]))).parts;
    expect(partTitle(part)).toBe('Bars 1–2');
    expect(partTitle({ ...part, name: 'Rope', bars: { from: 2, to: 2 } })).toBe('Rope · bar 2');
  });
});
