import { ENGLISH } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf, songs } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { parseChord } from '../harmony/symbol.js';
import { midiOf } from '../pitch/pitch.js';
import { HAND_PROFILES, handsOf, spanOf, type Document } from '../song/decisions.js';
import { setSetting } from '../song/edits.js';
import type { Song } from '../song/song.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { isChordNote } from './dress.js';
import { TEXTURES } from '../catalogue/textures/list.js';

const SIZES = ['one', 'two', 'octave', 'full'] as const;
const withHarmony = (doc: Document, density: number, size: (typeof SIZES)[number]) =>
  setSetting(doc, null, 'harmony', { density, size });
const hanging = (song: Song, density: number, size: (typeof SIZES)[number]) =>
  arrange(withHarmony(documentOf(song), density, size)).parts.flatMap((p) => p.under.map((u) => [u.at / Q, u.pitches.join(' ')]));

/** What must hold of harmony under any tune, over any texture; answers what does not. */
function faults(doc: Document, density: number, size: (typeof SIZES)[number], texture: string): string[] {
  const arrangement = arrange(setSetting(withHarmony(doc, density, size), null, 'texture', texture));
  const { score, parts, findings } = arrangement;
  const found: string[] = [];
  const must = (holds: boolean, fault: string) =>
    holds || found.push(`${doc.hands.profile}, ${size} ${density}, ${texture}: ${fault}`);
  const right = score.filter((n) => n.hand === 'right');
  const left = score.filter((n) => n.hand === 'left');
  const told = new Set(findings.filter((f) => f.rule.startsWith('collision')).map((f) => f.chordAt));
  const tune = score.filter((n) => n.role === 'melody');
  must(
    tune.every((n, i) => n.pitch === doc.song.melody[i].pitch && n.at === doc.song.melody[i].at),
    'the tune changed',
  );
  for (const part of parts) {
    const hung = part.under.filter((u) => !u.written);
    must(hung.length * 100 <= part.melody.length * Math.min(80, density), `part ${part.number} has too much`);
    for (const { at, length, pitches, tune: top } of hung) {
      const chord = part.chords.findLast((c) => c.at <= at) ?? parts.flatMap((p) => p.chords).findLast((c) => c.at <= at);
      const parsed = chord && parseChord(chord.symbol);
      for (const pitch of pitches) {
        const doubles = midiOf(top) - midiOf(pitch) === 12;
        must(doubles || (parsed?.kind === 'chord' && isChordNote(parsed, pitch)), `${pitch} is not in ${chord?.symbol}`);
        must(midiOf(pitch) < midiOf(top), `${pitch} is not under ${top}`);
        const meets = left.filter((l) => l.at < at + length && at < l.at + l.length && midiOf(pitch) - midiOf(l.pitch) < 3);
        must(
          meets.every(() => chord !== undefined && told.has(chord.at)),
          `${pitch} at ${at} is in the left hand's space`,
        );
      }
    }
  }
  for (const { at } of right) {
    const keys = right.filter((n) => n.at <= at && at < n.at + n.length).map((n) => midiOf(n.pitch));
    must(Math.max(...keys) - Math.min(...keys) <= spanOf(doc.hands, 'right').limit, `the right hand spans too much at ${at}`);
  }
  must(
    right.every((n) => n.finger !== null),
    'a note has no finger',
  );
  return found;
}

describe('harmony under the tune', () => {
  const song = songOf(
    [
      ['C5', 2],
      ['D5', 1],
      ['E5', 1],
      ['G5', 4],
    ],
    [
      [0, 'C'],
      [4, 'G'],
    ],
  );

  it('hangs from strong and long notes first, in thirds and sixths of the chord', () => {
    expect(hanging(song, 25, 'one')).toEqual([[4, 'B4']]);
    expect(hanging(song, 50, 'one')).toEqual([
      [0, 'E4'],
      [4, 'B4'],
    ]);
    expect(hanging(song, 0, 'one')).toEqual([]);
  });

  it('doubles the melody an octave below where there is room, and says once a part where there is not', () => {
    const doc = documentOf(songOf([['D5', 2], ['E5', 2], ['F4', 2], ['E4', 2]], [[0, 'C']])); // prettier-ignore
    const doubled = setSetting(doc, null, 'harmony', { density: 80, size: 'octave' });
    const { parts, findings } = arrange(doubled);
    expect(parts[0].under.map((u) => u.pitches.join())).toEqual(['D4', 'E4']);
    const told = findings.filter((f) => f.rule === 'no-octave').map((f) => [ENGLISH.fact(f.fact), f.again]);
    expect(told).toEqual([['F4 at bar 2, count 1 is not doubled: the left hand needs the key below.', 1]]);
    const child = arrange({ ...doubled, hands: handsOf('child') });
    expect(child.parts[0].under).toEqual([]);
    expect(ENGLISH.fact(child.findings[0].fact)).toContain('this hand does not reach an octave');
  });

  it('is one note, two, the octave, or the chord under long notes', () => {
    expect(hanging(song, 25, 'two')).toEqual([[4, 'B4 D5']]);
    expect(hanging(song, 25, 'octave')).toEqual([[4, 'G4']]);
    expect(hanging(song, 80, 'full')).toEqual([
      [0, 'E4 G4'],
      [2, 'G4'],
      [4, 'B4 D5'],
    ]);
  });

  it('is never under every note, however much is asked for', () => {
    expect(hanging(song, 80, 'one').length).toBeLessThan(4);
  });

  it('makes the right hand harder and leaves the left as it is', () => {
    const doc = demo('harbour-glass.abc');
    const [plain, full] = [arrange(doc), arrange(withHarmony(doc, 75, 'two'))];
    expect(full.score.filter((n) => n.hand === 'left')).toEqual(plain.score.filter((n) => n.hand === 'left'));
    expect(full.score.filter((n) => n.role === 'harmony').length).toBeGreaterThan(20);
  });

  it.each(DEMOS)('stays under the tune, in the hand and out of the left hand’s space in %s', (name) => {
    const found = HAND_PROFILES.flatMap((profile) =>
      SIZES.flatMap((size) =>
        ['block', 'rise-and-fall'].flatMap((texture) => faults({ ...demo(name), hands: handsOf(profile) }, 50, size, texture)),
      ),
    );
    expect(found).toEqual([]);
  });

  it('does so in random songs over any texture', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 4 }),
        fc.constantFrom(...HAND_PROFILES),
        fc.constantFrom(25, 50, 80),
        fc.constantFrom(...SIZES),
        fc.constantFrom(...TEXTURES.map((t) => t.id)),
        (tune, profile, density, size, texture) => {
          expect(faults({ ...documentOf(tune), hands: handsOf(profile) }, density, size, texture)).toEqual([]);
        },
      ),
      { numRuns: 120 },
    );
  });
});
