import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsOf } from '../../testing/playable.js';
import { demo, documentOf, songOf, songs } from '../../testing/songs.js';
import { TEXTURES } from '../catalogue/textures/list.js';
import { readAbc, readMidi, readMusicXml, writeAbc, writeMidi, writeMusicXml } from '../formats/index.js';
import { grade } from '../practice/grade.js';
import { isClean } from '../practice/verdict.js';
import { notesOf } from '../practice/score.js';
import { writtenScore } from '../sheet/written.js';
import { HAND_PROFILES, handsOf, TOUCHES, type Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { setSetting } from '../song/edits.js';
import { heldFor } from '../song/touch.js';
import { barAt, offsetInBar } from '../time/bars.js';
import { metricStrength } from '../time/meter.js';
import { secondsTo } from '../time/tempo.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { arrange } from './arrange.js';
import { louderEachTime } from './across-repeats.js';

const bytes = (text: string) => new TextEncoder().encode(text);
const waltz = setSetting(demo('lamps-across-the-sound.letters'), null, 'texture', 'bass-chord-chord');

describe('the touch of an accompaniment', () => {
  it('lets chords go before their time, and holds basses and the tune', () => {
    const held = arrange(waltz).score;
    const short = arrange(setSetting(waltz, null, 'touch', 'short')).score;
    expect(short.map((n) => [n.at, n.pitch, n.length])).toEqual(held.map((n) => [n.at, n.pitch, n.length]));
    expect(new Set(short.filter((n) => n.touch).map((n) => `${n.hand} ${n.role}`))).toEqual(new Set(['left chord']));
    expect(short.filter((n) => n.hand === 'left' && n.role === 'chord').every((n) => heldFor(n) < n.length / 2)).toBe(true);
  });

  it('is for a part, or for the song, and no one plays a shorter chord louder', () => {
    const [, second] = arrange(waltz).parts;
    const light = arrange(setSetting(waltz, { start: second.start, end: second.end }, 'touch', 'light'));
    const touched = light.score.filter((n) => n.touch);
    expect(new Set(touched.map((n) => n.part))).toEqual(new Set([2]));
    const plain = arrange(waltz).score;
    for (const n of touched) {
      const before = plain.find((p) => p.at === n.at && p.pitch === n.pitch);
      expect(n.loudness).toBeLessThan(before?.loudness ?? 0);
    }
  });

  it('is a dot on the staff, and a shorter note in a MIDI file', () => {
    const counts = TOUCHES.map((touch) => {
      const arrangement = arrange(setSetting(waltz, null, 'touch', touch));
      const xml = writeMusicXml(writtenScore(arrangement));
      const midi = readMidi(writeMidi(arrangement.song, arrangement.score));
      const left = midi.ok ? (midi.song.left ?? []) : [];
      return {
        dots: xml.match(/<staccato\/>/g)?.length ?? 0,
        lines: xml.match(/<detached-legato\/>/g)?.length ?? 0,
        sounding: left.reduce((sum, n) => sum + n.length, 0),
      };
    });
    const chords = new Set(arrange(waltz).score.flatMap((n) => (n.hand === 'left' && n.role === 'chord' ? [n.at] : []))).size;
    expect(counts.map((c) => [c.dots, c.lines])).toEqual([
      [0, 0],
      [0, chords],
      [chords, 0],
    ]);
    expect(counts[2].sounding).toBeLessThan(counts[0].sounding);
  });
});

/** Chords on each half of four bars, over a tune in halves. */
const HALVES = songOf(
  Array.from({ length: 8 }, (_, i) => [i % 2 ? 'E5' : 'G5', 2] as const),
  ['C', 'F', 'G7', 'C', 'F', 'G7', 'C', 'C'].map((symbol, i) => [2 * i, symbol] as const),
);

describe('a chord an eighth before its beat', () => {
  it('comes before every beat but the one that begins a part, and is counted there', () => {
    const early = arrange(setSetting(documentOf(HALVES), null, 'timing', 'eighth-early'));
    const places = early.parts.flatMap((p) => p.chords.filter((c) => !c.restruck).map((c) => c.at / Q));
    expect(places).toEqual([0, 1.5, 3.5, 5.5, 7.5, 9.5, 11.5]);
    const left = early.score.filter((n) => n.hand === 'left');
    expect(Math.max(...left.map((n) => n.at + n.length))).toBe(16 * Q);
    const [part] = early.parts;
    expect(part.together.find((t) => t.at === 1.5 * Q)?.melody).toBeNull();
  });

  it('brings the first note of its pattern early, and leaves the rest on its counts', () => {
    for (const texture of ['bass-chord', 'one-five-eight', 'broken-triad'] as const) {
      const plain = setSetting(documentOf(HALVES), null, 'texture', texture);
      const attacks = (doc: Document) => [...new Set(arrange(doc).score.flatMap((n) => (n.hand === 'left' ? [n.at / Q] : [])))];
      const [on, early] = [attacks(plain), attacks(setSetting(plain, null, 'timing', 'eighth-early'))];
      const before = [2, 4, 6, 8, 10, 12, 14];
      expect(early).toEqual([...new Set(on.map((at) => (before.includes(at) ? at - 0.5 : at)))].sort((a, b) => a - b));
    }
  });

  it('can be played by every hand in every texture', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 6 }),
        fc.constantFrom(...HAND_PROFILES),
        fc.constantFrom('block', ...TEXTURES.map((t) => t.id)),
        (song, profile, texture) => {
          const dressed = setSetting({ ...documentOf(song), hands: handsOf(profile, 61) }, null, 'texture', texture);
          const doc = setSetting(dressed, null, 'timing', 'eighth-early');
          const arrangement = arrange(doc);
          expect(faultsOf(doc, arrangement)).toEqual([]);
          const starts = new Set(arrangement.parts.map((p) => p.start));
          for (const { at, writtenAt, restruck } of arrangement.parts.flatMap((p) => p.chords)) {
            const bar = barAt(arrangement.bars, writtenAt);
            const onBeat = metricStrength(offsetInBar(bar, writtenAt), bar.meter) > 0;
            if (!starts.has(writtenAt) && onBeat) expect([writtenAt - Q / 2, writtenAt]).toContain(at);
            else if (!restruck) expect(at).toBe(writtenAt);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('fermatas and breaths', () => {
  const held = applyEdit(documentOf(HALVES), { code: 'edit.stop', at: 6 * Q, stop: 'fermata', there: true });
  const stopped = applyEdit(held, { code: 'edit.stop', at: 12 * Q, stop: 'breath', there: true });
  const seconds = (doc: Document, at: number) => secondsTo(at * Q, arrange(doc).tempo, 60);

  it('stop time: the last beat of a note takes twice as long, and the music breathes before what follows', () => {
    expect([2, 6, 7, 8, 9].map((at) => seconds(held, at))).toEqual([2, 6, 7, 9, 10]);
    expect(seconds(stopped, 12)).toBe(13.25);
    expect(arrange(stopped).score).toEqual(arrange(documentOf(HALVES)).score);
  });

  it('stop where the end slows down too, and leave how the song is divided', () => {
    const slowing = applyEdit(held, { code: 'edit.close', change: { slower: 40 } });
    const last = applyEdit(slowing, { code: 'edit.stop', at: 14 * Q, stop: 'fermata', there: true });
    const gained = seconds(last, 16) - seconds(slowing, 16);
    expect(gained).toBeCloseTo(seconds(slowing, 16) - seconds(slowing, 15), 6);
    expect(arrange(last).parts.map((p) => p.start)).toEqual(arrange(documentOf(HALVES)).parts.map((p) => p.start));
  });

  it('are read back from MusicXML, and give no new tempo there', () => {
    const read = readMusicXml(bytes(writeMusicXml(writtenScore(arrange(stopped)))));
    const marks = read.ok ? read.song.marks.filter((m) => m.kind !== 'section') : [];
    expect(marks.map((m) => [m.at / Q, m.kind])).toEqual([
      [6, 'fermata'],
      [12, 'breath'],
    ]);
    expect(read.ok && read.song.tempos).toBeUndefined();
  });

  it('are read back from ABC', () => {
    const read = readAbc(writeAbc(arrange(stopped).song));
    const marks = read.ok ? read.song.marks.filter((m) => m.kind === 'fermata' || m.kind === 'breath') : [];
    expect(marks.map((m) => [m.at / Q, m.kind])).toEqual([
      [6, 'fermata'],
      [12, 'breath'],
    ]);
  });

  it('are waited for: who plays them as they sound is right', () => {
    const range = { from: 0, to: 16 * Q, hands: 'right', plain: false } as const;
    const asked = notesOf(arrange(held), range);
    const heard = asked.map((n) => ({ midi: n.midi, time: n.at, velocity: 0.7 }));
    const options = { tempo: 60, octavesForgiven: false };
    expect(asked.map((n) => n.at)).toEqual([0, 2, 4, 6, 9, 11, 13, 15]);
    expect(isClean(grade(asked, heard, options))).toBe(true);
  });

  it('are taken away again', () => {
    const gone = applyEdit(held, { code: 'edit.stop', at: 6 * Q, stop: 'fermata', there: false });
    expect(gone).toEqual(documentOf(HALVES));
  });
});

it('each time a part comes again it can be softer than before, down to the softest', () => {
  const glass = demo('harbour-glass.abc');
  const { parts } = arrange(glass);
  const edit = louderEachTime(glass, parts, 'softer');
  const softer = arrange(edit ? applyEdit(glass, edit) : glass);
  const loudest = (number: number) => Math.max(...softer.score.filter((n) => n.part === number).map((n) => n.loudness));
  const again = parts.find((p) => p.repeats?.kind === 'exact');
  expect(loudest(again?.number ?? 0)).toBeLessThan(loudest(again?.repeats?.part ?? 0));
});

it('small notes move with the song into another key', () => {
  const graced = songOf([['E5', 4]], [[0, 'C']]);
  const doc = documentOf({ ...graced, melody: [{ ...graced.melody[0], graces: ['D5', 'D#5'] }] });
  const moved = applyEdit(doc, { code: 'edit.key', key: { tonic: 'D', mode: 'major' } });
  expect(moved.song.melody[0]).toMatchObject({ pitch: 'F#5', graces: ['E5', 'E#5'] });
});
