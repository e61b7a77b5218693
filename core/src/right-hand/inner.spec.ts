import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsOf } from '../../testing/playable.js';
import { documentOf, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { reachableBy } from '../fingers/chords.js';
import {
  openFile,
  readLetters,
  readMidi,
  readMusicXml,
  readRecording,
  writeLetters,
  writeMidi,
  writeMusicXml,
  writeProject,
} from '../formats/index.js';
import { midiOf } from '../pitch/pitch.js';
import { notesOf } from '../practice/score.js';
import { writtenScore } from '../sheet/written.js';
import { HAND_PROFILES, handsOf, KEYBOARDS, type Document } from '../song/decisions.js';
import { applyEdit } from '../song/edit.js';
import { SongSchema, type KeyNote, type Song } from '../song/song.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { ENGLISH } from '../words/index.js';
import { chartText } from '../words/texts/index.js';

const key = (at: number, length: number, pitch: string): KeyNote => ({ at: at * Q, length: length * Q, pitch });

/** Two notes that are held while one between them moves, and then a tune that moves over a held note. */
const OSTINATO: Song = songOf(
  [
    ['G4+C4', 4],
    ['A4', 1],
    ['B4', 1],
    ['C5', 2],
  ],
  [
    [0, 'C'],
    [4, 'F'],
  ],
  { inner: [key(0, 1, 'E4'), key(1, 1, 'F4'), key(2, 2, 'D4'), key(4, 4, 'F4')] },
);

const rightOf = (doc: Document) => arrange(doc).score.filter((n) => n.hand === 'right');
const keysOf = (song: Song) => (song.inner ?? []).map((n) => `${n.at / Q}:${n.pitch}:${n.length / Q}`);

/** Songs with keys of the right hand that are struck and let go anywhere beside the tune. */
const voiced = fc
  .tuple(
    songs({ maxBars: 4 }),
    fc.array(fc.tuple(fc.nat(15), fc.integer({ min: 1, max: 6 }), fc.constantFrom(3, 5, 7, 9)), { maxLength: 8 }),
  )
  .map(([song, wishes]): Song => {
    const tune = song.melody.map(({ with: _, ...n }) => n);
    const inner = wishes.flatMap(([place, eighths, below]): KeyNote[] => {
      const at = (place * Q) / 2;
      const note = tune.findLast((n) => n.at <= at);
      const length = Math.min((eighths * Q) / 2, song.length - at);
      if (!note || length <= 0 || at >= song.length) return [];
      const pitch = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'][(midiOf(note.pitch) - below) % 12];
      return [{ at, length, pitch: `${pitch}${Math.floor((midiOf(note.pitch) - below) / 12) - 1}` }];
    });
    const alone = inner.filter(
      (n, i) => !inner.some((m, k) => k < i && m.pitch === n.pitch && m.at < n.at + n.length && n.at < m.at + m.length),
    );
    return SongSchema.parse({ ...song, melody: tune, ...(alone.length > 0 ? { inner: alone } : {}) });
  });

describe('a second voice in the right hand', () => {
  it('holds keys while others move: each is struck once, for as long as it is written, and its finger stays', () => {
    const arrangement = arrange(documentOf(OSTINATO));
    const right = arrangement.score.filter((n) => n.hand === 'right').map((n) => [n.pitch, n.at / Q, n.length / Q]);
    expect(right).toHaveLength(9);
    expect(right).toEqual(expect.arrayContaining([['C4', 0, 4], ['G4', 0, 4], ['E4', 0, 1], ['F4', 1, 1], ['D4', 2, 2], ['F4', 4, 4]])); // prettier-ignore
    const under = arrangement.score.filter((n) => n.hand === 'right' && n.at < 4 * Q).map((n) => [n.pitch, n.finger]);
    const finger = new Map(under as [string, number][]);
    expect(finger.get('C4')).toBe(1);
    expect(finger.get('G4')).toBe(5);
    // Between two held keys each of the moving ones has a finger of its own, in their order.
    const between = [finger.get('D4'), finger.get('E4'), finger.get('F4')] as number[];
    expect(between).toEqual([2, 3, 4]);
  });

  it('can be played by any hand on any keyboard: what is kept is in reach whatever is held, the rest is told', () => {
    fc.assert(
      fc.property(voiced, fc.constantFrom(...HAND_PROFILES), fc.constantFrom(49, 61, 88), (song, profile, keys) => {
        const doc = { ...documentOf(song), hands: handsOf(profile, keys) };
        const arrangement = arrange(doc);
        expect(faultsOf(doc, arrangement)).toEqual([]);
        const right = arrangement.score.filter((n) => n.hand === 'right' && n.role !== 'fill');
        const reachable = reachableBy(doc.hands, 'right');
        const { low, high } = KEYBOARDS[doc.hands.keys];
        for (const { at } of right) {
          const down = [...new Set(right.filter((n) => n.at <= at && at < n.at + n.length).map((n) => midiOf(n.pitch)))].sort(
            (a, b) => a - b,
          );
          const kept = song.inner?.some((n) => n.at <= at && at < n.at + n.length);
          if (kept && down.length > 1) expect(down.length <= 5 && reachable(down)).toBe(true);
          for (const midi of down) expect(midi >= low && midi <= high).toBe(true);
        }
        const told = arrangement.findings.filter((f) => f.fact.code === 'finding.wide-inner').length;
        const played = arrangement.parts.flatMap((p) => p.under.filter((u) => u.inner).flatMap((u) => u.pitches)).length;
        const doubled = (song.inner ?? []).filter((n) =>
          song.melody.some((m) => m.at <= n.at && n.at < m.at + m.length && midiOf(m.pitch) === midiOf(n.pitch)),
        );
        expect(played + told).toBeGreaterThanOrEqual((song.inner?.length ?? 0) - doubled.length);
      }),
      { numRuns: 120 },
    );
  });

  it('comes back from a project, MusicXML and letter lines as it was', () => {
    fc.assert(
      fc.property(voiced, (song) => {
        const doc = documentOf(song);
        const project = openFile('song.hands', new TextEncoder().encode(writeProject(doc)), 'project');
        expect(project.ok && keysOf(project.document.song)).toEqual(keysOf(song));
        const big: Document = { ...doc, hands: handsOf('large', 88) };
        const arrangement = arrange(big);
        if (arrangement.findings.some((f) => f.fact.code === 'finding.wide-inner')) return;
        const xml = readMusicXml(writeMusicXml(writtenScore(arrangement)));
        const lasting = (s: Song) =>
          [
            ...s.melody.flatMap((n) => [n.pitch, ...(n.with ?? [])].map((p) => `${n.at}:${midiOf(p)}`)),
            ...(s.inner ?? []).map((n) => `${n.at}:${midiOf(n.pitch)}`),
          ].sort();
        const struck = arrangement.score
          .filter((n) => n.hand === 'right')
          .map((n) => `${n.at}:${midiOf(n.pitch)}`)
          .sort();
        expect(xml.ok && lasting(xml.song)).toEqual(struck);
      }),
      { numRuns: 80 },
    );
    const letters = writeLetters({ ...OSTINATO, inner: OSTINATO.inner?.slice(0, 3) });
    expect(letters).toMatch(/inner: +E +F +D +-/);
    const back = readLetters(letters);
    expect(back.ok && keysOf(back.song)).toEqual(keysOf(OSTINATO).slice(0, 3));
  });

  it('goes on over a bar line though another voice strikes its key later in that bar', () => {
    const over = songOf([['C5', 1]], [[0, 'C']], {
      length: 4 * Q,
      meters: [{ at: 0, beats: 2, unit: 4 }],
      inner: [key(0, 1, 'A4'), key(0.5, 2, 'Eb4'), key(2.5, 0.5, 'Eb4')],
    });
    const read = readMusicXml(writeMusicXml(writtenScore(arrange({ ...documentOf(over), hands: handsOf('large', 88) }))));
    expect(read.ok && keysOf(read.song)).toEqual(['0.5:Eb4:2', '2.5:Eb4:0.5']);
  });

  it('is kept from MIDI, and from the keys as they are played in', () => {
    const arrangement = arrange(documentOf(OSTINATO));
    const back = readMidi(writeMidi(arrangement.song, arrangement.score));
    expect(back.ok && keysOf(back.song)).toEqual(keysOf(OSTINATO));
    const top = readMidi(writeMidi(arrangement.song, arrangement.score), { stacks: 'top' });
    expect(top.ok && top.song.inner).toBeUndefined();
    const notes = rightOf(documentOf(OSTINATO)).map((n) => ({
      at: n.at / Q,
      until: (n.at + n.length) / Q,
      midi: midiOf(n.pitch),
    }));
    const played = readRecording({ title: 'Played', tempo: 90, meter: { beats: 4, unit: 4 }, notes });
    expect(played.ok && keysOf(played.song)).toEqual(keysOf(OSTINATO));
  });

  it('moves with the tune into other keys and octaves, and rests in an outline', () => {
    const inD = applyEdit(documentOf(OSTINATO), { code: 'edit.key', key: { tonic: 'D', mode: 'major' } });
    expect(keysOf(inD.song)[0]).toBe('0:F#4:1');
    const up = applyEdit(documentOf(OSTINATO), { code: 'edit.setting', range: null, setting: 'octave', value: 1 });
    expect(rightOf(up).map((n) => n.pitch)).toEqual(expect.arrayContaining(['E5', 'F5', 'D5']));
    const outline = applyEdit(documentOf(OSTINATO), { code: 'edit.play-mode', mode: 'outline' });
    expect(rightOf(outline).map((n) => n.pitch)).toEqual(['G4', 'A4', 'B4', 'C5']);
  });

  it('is asked for in rehearsal, and stands on the chart where the tune is held', () => {
    const arrangement = arrange(documentOf(OSTINATO));
    const asked = notesOf(arrangement, { from: 0, to: OSTINATO.length, hands: 'right', plain: true });
    expect(asked.map((n) => `${n.place / Q}:${n.midi}`)).toEqual(expect.arrayContaining(['1:65', '2:62', '4:65']));
    expect(chartText(arrangement, ENGLISH)).toMatch(/right +G\+E\+C +F +D/);
  });

  it('lets a key go that the tune comes to, and says which keys this hand cannot hold', () => {
    const meets = { ...OSTINATO, inner: [key(4, 4, 'B4')] };
    const b = rightOf(documentOf(meets)).filter((n) => n.pitch === 'B4');
    expect(b.map((n) => [n.at / Q, n.length / Q])).toEqual([[4, 1], [5, 1]]); // prettier-ignore
    const wide = { ...OSTINATO, inner: [key(4, 2, 'C3')] };
    const { findings } = arrange({ ...documentOf(wide), hands: handsOf('child') });
    expect(findings.map((f) => ENGLISH.fact(f.fact)).join()).toContain('C3 at bar 2, count 1 is left out');
  });
});

describe('grace notes and reminders in files', () => {
  it('are in MIDI and come back as they were; reminders in MusicXML too', () => {
    const graced = {
      ...OSTINATO,
      inner: undefined,
      melody: OSTINATO.melody.map((n, i) => (i === 1 ? { ...n, graces: ['F4', 'G4'] } : n)),
    };
    const doc = applyEdit(documentOf(graced), { code: 'edit.remind', at: 4 * Q, text: 'jump early' });
    const arrangement = arrange(doc);
    const reminders = arrangement.parts.flatMap((p) => p.reminders);
    const midi = readMidi(writeMidi(arrangement.song, arrangement.score, [], [], (at) => at, reminders));
    expect(midi.ok && midi.song.melody.map((n) => n.graces ?? [])).toEqual([[], ['F4', 'G4'], [], []]);
    expect(midi.ok && midi.reminders).toEqual([{ at: 4 * Q, text: 'jump early' }]);
    const xml = openFile('song.musicxml', new TextEncoder().encode(writeMusicXml(writtenScore(arrangement))));
    expect(xml.ok && xml.document.choices.reminders).toEqual([{ at: 4 * Q, text: 'jump early' }]);
    expect(xml.ok && xml.document.song.marks.filter((m) => m.kind === 'words')).toEqual([]);
  });

  it.each([60, 96, 103, 107, 120, 200])('grace notes are no written notes at %i quarters a minute', (tempo) => {
    const song = songOf([['C5', 2], ['E5', 1], ['D5', 1]], [[0, 'C']], { tempo }); // prettier-ignore
    const graced = { ...song, melody: song.melody.map((n, i) => (i === 1 ? { ...n, graces: ['D5'] } : n)) };
    const arrangement = arrange(documentOf(graced));
    const back = readMidi(writeMidi(arrangement.song, arrangement.score));
    expect(back.ok && back.song.melody.map((n) => [n.pitch, n.length / Q, n.graces ?? []])).toEqual([
      ['C5', 2, []],
      ['E5', 1, ['D5']],
      ['D5', 1, []],
    ]);
  });
});
