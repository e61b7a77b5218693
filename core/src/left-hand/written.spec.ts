import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import {
  readLetters,
  readMidi,
  readMusicXml,
  readProject,
  writeLetters,
  writeMidi,
  writeMusicXml,
  writeProject,
} from '../formats/index.js';
import { midiOf } from '../pitch/pitch.js';
import { writtenScore } from '../sheet/written.js';
import { HAND_PROFILES, handsOf, KEYBOARDS, spanOf, type Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { setSetting } from '../song/edits.js';
import type { KeyNote, Song } from '../song/song.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { ENGLISH, refusalWords } from '../words/index.js';
import { playedAsWritten } from './written.js';

const asWritten = (doc: Document): Document => setSetting(doc, null, 'texture', 'written');
const leftOf = (doc: Document) => arrange(doc).score.filter((n) => n.hand === 'left');
/** Notes as "place length key", in order. */
const printed = (notes: readonly Pick<KeyNote, 'at' | 'length' | 'pitch'>[]): string[] =>
  notes
    .map((n) => [n.at, n.length, midiOf(n.pitch)])
    .sort((a, b) => a[0] - b[0] || a[2] - b[2])
    .map((n) => n.join(' '));

/** A song with a left hand of held basses under moving notes, in quarters. */
const HARBOUR: Song = {
  ...songOf([['C5', 4], ['D5', 4]], [[0, 'C'], [4, 'G7']]), // prettier-ignore
  left: [
    [0, 4, 'C3'],
    [1, 1, 'G3'],
    [2, 1, 'E3'],
    [4, 2, 'G2'],
    [4, 2, 'D3'],
    [6, 1, 'F3'],
    [7, 1, 'B2'],
  ].map(([at, length, pitch]) => ({ at: Number(at) * Q, length: Number(length) * Q, pitch: String(pitch) })),
};

const anyLeft = (length: number): fc.Arbitrary<KeyNote[]> =>
  fc
    .array(
      fc.record({
        at: fc.nat({ max: Math.max(0, 4 * Math.floor(length / Q) - 1) }).map((n) => (n * Q) / 4),
        length: fc.constantFrom(Q / 2, Q, 2 * Q),
        pitch: fc.constantFrom('G1', 'C2', 'E2', 'A2', 'C3', 'Eb3', 'F#3', 'A3', 'C4', 'F4'),
      }),
      { maxLength: 30 },
    )
    .map((notes) =>
      notes
        .map((n) => ({ ...n, length: Math.min(n.length, length - n.at) }))
        .filter((n, i, all) => n.length > 0 && all.findIndex((m) => m.at === n.at && m.pitch === n.pitch) === i)
        .sort((a, b) => a.at - b.at || midiOf(a.pitch) - midiOf(b.pitch)),
    );

describe('a left hand that was written', () => {
  it('is played note for note where that is asked for, each note by a finger, and the computed chords elsewhere', () => {
    const doc = documentOf(HARBOUR);
    expect(printed(leftOf(asWritten(doc)))).toEqual(printed(HARBOUR.left ?? []));
    expect(leftOf(asWritten(doc)).every((n) => n.finger !== null && n.finger >= 1 && n.finger <= 5)).toBe(true);
    expect(leftOf(doc)).toEqual(leftOf(documentOf({ ...HARBOUR, left: undefined })));
    const first = setSetting(doc, { start: 0, end: 4 * Q }, 'texture', 'written');
    const [here, there] = [0, 4 * Q].map((from) => leftOf(first).filter((n) => n.at >= from && n.at < from + 4 * Q));
    expect(printed(here)).toEqual(printed((HARBOUR.left ?? []).filter((n) => n.at < 4 * Q)));
    expect(there).toEqual(leftOf(doc).filter((n) => n.at >= 4 * Q));
  });

  it('leaves a part for which nothing was written to the chords as they are voiced, and rests where the music rests', () => {
    const glass = demo('harbour-glass.abc');
    const [first, second] = arrange(glass).parts;
    const notes = [{ at: first.start, length: Q, pitch: 'F2' }];
    const doc = asWritten(applyEdit(glass, { code: 'edit.keys', hand: 'left', at: first.start, length: Q, notes }));
    const { parts, score } = arrange(doc);
    const left = score.filter((n) => n.hand === 'left');
    expect(left.filter((n) => n.at < first.end).map((n) => n.pitch)).toEqual(['F2']);
    expect(parts[1].chords.map((c) => c.pitches)).toEqual(second.chords.map((c) => c.pitches));
    expect(left.filter((n) => n.at >= second.start && n.at < second.end).length).toBeGreaterThan(second.chords.length);
  });

  it('stays within any hand and keyboard, whatever was written, and what cannot be played is told with its place', () => {
    const given = songs({ maxBars: 3 }).chain((song) => anyLeft(song.length).map((left): Song => ({ ...song, left })));
    fc.assert(
      fc.property(given, fc.constantFrom(...HAND_PROFILES), fc.constantFrom(49, 61, 88), (song, profile, keys) => {
        const doc = asWritten({ ...documentOf(song), hands: handsOf(profile, keys) });
        const arrangement = arrange(doc);
        const left = arrangement.score.filter((n) => n.hand === 'left');
        const { low, high } = KEYBOARDS[doc.hands.keys];
        for (const { at } of left) {
          const down = left.filter((n) => n.at <= at && at < n.at + n.length).map((n) => midiOf(n.pitch));
          expect(Math.max(...down) - Math.min(...down)).toBeLessThanOrEqual(spanOf(doc.hands, 'left').limit);
          expect(down.length).toBeLessThanOrEqual(5);
          expect(new Set(down).size).toBe(down.length);
          expect(Math.min(...down) >= low && Math.max(...down) <= high).toBe(true);
        }
        const told = arrangement.findings.filter((f) => f.rule === 'left-bent').flatMap((f) => [f.at]);
        const missing = (song.left ?? []).filter((n) => !left.some((m) => m.at === n.at && m.pitch === n.pitch));
        if (song.chords.every((c) => c.symbol !== 'N.C.')) for (const n of missing) expect(told).toContain(n.at);
        const right = arrangement.score.filter((n) => n.hand === 'right');
        const said = new Set(arrangement.findings.filter((f) => f.rule.startsWith('collision')).map((f) => f.chordAt));
        const chords = arrangement.parts.flatMap((p) => p.chords);
        for (const l of left) {
          const meets = right.some(
            (r) => r.at < l.at + l.length && l.at < r.at + r.length && midiOf(r.pitch) - midiOf(l.pitch) < 3,
          );
          if (meets) expect(said).toContain((chords.findLast((c) => c.at <= l.at) ?? chords[0]).at);
        }
      }),
      { numRuns: 120 },
    );
  });

  it('says what a hand leaves out, and why', () => {
    const wide: Song = { ...HARBOUR, left: ['C2', 'C3', 'G3'].map((pitch) => ({ at: 0, length: 4 * Q, pitch })) };
    const said = arrange(asWritten(documentOf(wide))).findings.map((f) => ENGLISH.fact(f.fact));
    expect(said.join(' ')).toContain('The left hand’s G3 at bar 1, count 1 is left out: this hand does not reach so far.');
    const short = arrange(asWritten({ ...documentOf({ ...wide, left: wide.left?.slice(0, 1) }), hands: handsOf('medium', 49) }));
    expect(short.findings.map((f) => ENGLISH.fact(f.fact)).join(' ')).not.toContain('off the keyboard');
    const low: KeyNote[] = [{ at: 0, length: Q, pitch: 'A1' }];
    expect(playedAsWritten(low, handsOf('medium', 49))).toMatchObject({
      notes: [{ pitch: 'A2' }],
      bent: [{ at: 0, pitches: ['A1'], why: 'keyboard' }],
    });
  });

  it('goes into other keys with the song', () => {
    const inD = applyEdit(documentOf(HARBOUR), { code: 'edit.key', key: { tonic: 'D', mode: 'major' } });
    expect(inD.song.left?.slice(0, 3).map((n) => n.pitch)).toEqual(['D3', 'A3', 'F#3']);
  });
});

describe('two hands in files', () => {
  const textures = ['block', 'bass-chord-chord', 'rise-and-fall', 'alternating-bass'];
  const cases = DEMOS.flatMap((name) => textures.map((texture) => [name, texture] as const));

  it.each(cases)('%s in %s comes back from a score and from MIDI as it was played, note for note', (name, texture) => {
    const arrangement = arrange(setSetting(demo(name), null, 'texture', texture));
    const played = printed(arrangement.score.filter((n) => n.hand === 'left'));
    const score = readMusicXml(writeMusicXml(writtenScore(arrangement)));
    const midi = readMidi(writeMidi(arrangement.song, arrangement.score));
    for (const back of [score, midi]) {
      if (!back.ok) throw new Error(JSON.stringify(back.refusal));
      expect(printed(back.song.left ?? [])).toEqual(played);
      expect(back.notices.map((n) => n.code)).toContain('notice.left-kept');
    }
  });

  it('are typed in letter lines, as far as nothing is held under other notes', () => {
    const read = readLetters('time: 3/4\ntune : E4 - G | C5 - - |\nchord: C - - | C - - |\nleft : C3 E+G E+G | C+G - . |\n');
    if (!read.ok) throw new Error(JSON.stringify(read.refusal));
    expect(printed(read.song.left ?? [])).toEqual(
      printed([
        ...[['C3', 0], ['E3', 1], ['G3', 1], ['E3', 2], ['G3', 2]].map(([pitch, at]) => ({ pitch: `${pitch}`, at: Number(at) * Q, length: Q })), // prettier-ignore
        ...['C3', 'G3'].map((pitch) => ({ pitch, at: 3 * Q, length: 2 * Q })),
      ]),
    );
    for (const name of DEMOS) {
      const song = { ...demo(name).song, left: arrange(demo(name)).score.filter((n) => n.hand === 'left') };
      const left = song.left.map(({ at, length, pitch }) => ({ at, length, pitch }));
      const back = readLetters(writeLetters({ ...song, left }));
      expect(back.ok && printed(back.song.left ?? [])).toEqual(printed(left));
    }
  });

  it.each([
    ['left : C3 x - | - - -', 'Line 3, bar 1: “x” is not a note.'],
    ['left : C3 - - | E G3+G3 -', 'Line 3, bar 2: “G3+G3” has a key twice.'],
    ['left : C3 - - | E G A B', 'Line 3, bar 2: the bar has 4 counts where 3 are expected.'],
    ['left : C3 - - | - - - | C', 'Line 3: there are 3 bars where the tune has 2.'],
  ])('are refused with their place: %s', (row, said) => {
    const read = readLetters(`time: 3/4\ntune : E4 - G | C5 - - |\n${row} |\n`);
    expect(read.ok ? 'was read' : refusalWords(read.refusal, ENGLISH)).toContain(said);
  });

  it('is none where its line has only rests', () => {
    const read = readLetters('time: 3/4\ntune : E4 - G |\nleft : . . . |\n');
    expect(read.ok && read.song.left).toBeUndefined();
  });

  it('keep held notes under moving ones, ties and repeats through a score and a project', () => {
    const arrangement = arrange(asWritten(documentOf(HARBOUR)));
    const xml = writeMusicXml(writtenScore(arrangement));
    const back = readMusicXml(xml);
    expect(back.ok && printed(back.song.left ?? [])).toEqual(printed(HARBOUR.left ?? []));
    const again = readMusicXml(
      xml
        .replace('<measure number="1">', '<measure number="1"><barline location="left"><repeat direction="forward"/></barline>')
        .replace(
          '<barline location="right"><bar-style>light-heavy</bar-style></barline>',
          '<barline location="right"><bar-style>light-heavy</bar-style><repeat direction="backward"/></barline>',
        ),
    );
    expect(again.ok && again.song.left?.length).toBe(2 * (HARBOUR.left?.length ?? 0));
    const kept = readProject(writeProject(asWritten(documentOf(HARBOUR))));
    expect(kept.ok && kept.document.song.left).toEqual(HARBOUR.left);
  });
});
