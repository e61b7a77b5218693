import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsOf } from '../../testing/playable.js';
import { documentOf, songOf, songs } from '../../testing/songs.js';
import { ALL_KEYS, scaleFrom } from '../../testing/tunes.js';
import { arrange } from '../arrange/arrange.js';
import { readAbc, readLetters, readMidi, readMusicXml, writeLetters, writeMidi, writeMusicXml } from '../formats/index.js';
import { midiOf } from '../pitch/pitch.js';
import { notesOf } from '../practice/score.js';
import { besideOffers } from '../right-hand/beside.js';
import { writtenScore } from '../sheet/written.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { ENGLISH, refusalWords } from '../words/index.js';
import { chartText, lessonText } from '../words/texts/index.js';
import { HAND_PROFILES, handsOf, type Document } from './decisions.js';
import { applyEdit } from './edit.js';
import { setSetting } from './edits.js';
import { keysOf, SongSchema, type Song } from './song.js';

/** Thirds and sixths under four bars in three-four. */
const LAMPS = songOf(
  [
    ['A4+F4', 2],
    ['C5', 1],
    ['Bb4+G4', 2],
    ['A4', 1],
    ['G4+E4', 2],
    ['Bb4', 1],
    ['A4+F4+C4', 3],
  ],
  [
    [0, 'F'],
    [3, 'C7'],
    [9, 'F'],
  ],
  { key: { tonic: 'F', mode: 'major' }, meters: [{ at: 0, beats: 3, unit: 4 }] },
);

const struck = (song: Pick<Song, 'melody'>): string[] => song.melody.map((n) => keysOf(n).join('+'));
const rightOf = (doc: Document) => arrange(doc).score.filter((n) => n.hand === 'right');

describe('several notes at once in the right hand', () => {
  it('are all played, for as long as the tune’s, each by a finger of its own', () => {
    const played = rightOf(documentOf(LAMPS)).filter((n) => n.at === 9 * Q);
    expect(new Set(played.map((n) => n.pitch))).toEqual(new Set(['C4', 'F4', 'A4']));
    expect(new Set(played.map((n) => n.length))).toEqual(new Set([3 * Q]));
    expect(new Set(played.map((n) => n.finger)).size).toBe(3);
  });

  it('can be played by any hand on any keyboard in random songs; what a hand cannot hold is left out and told with its place', () => {
    fc.assert(
      fc.property(
        songs({ maxBars: 4 }),
        fc.constantFrom(...HAND_PROFILES),
        fc.constantFrom(49, 61, 88),
        (song, profile, keys) => {
          const doc = { ...documentOf(song), hands: handsOf(profile, keys) };
          const arrangement = arrange(doc);
          expect(faultsOf(doc, arrangement)).toEqual([]);
          const told = new Set(arrangement.findings.flatMap((f) => (f.rule === 'wide-stack' ? [f.at] : [])));
          song.melody.forEach((note, i) => {
            const kept = arrangement.song.melody[i];
            expect((kept.with?.length ?? 0) < (note.with?.length ?? 0)).toBe(told.has(note.at));
            const sounds = arrangement.score.filter((n) => n.hand === 'right' && n.at === note.at).map((n) => n.pitch);
            for (const pitch of keysOf(kept)) expect(sounds).toContain(pitch);
          });
        },
      ),
      { numRuns: 120 },
    );
  });

  it('say what is left out, where and of what', () => {
    const wide = documentOf(songOf([['A5+C5+A4', 4]], [[0, 'F']]));
    const { findings } = arrange({ ...wide, hands: handsOf('child') });
    expect(findings.map((f) => ENGLISH.fact(f.fact)).join(' ')).toContain(
      'A4 C5 A5 at bar 1, count 1 are more than this hand and keyboard hold at once: A4 is left out.',
    );
  });

  it('move with the tune into other keys and octaves, and rest where it is silent', () => {
    const inG = applyEdit(documentOf(LAMPS), { code: 'edit.key', key: { tonic: 'G', mode: 'major' } });
    expect(struck(inG.song).slice(0, 3)).toEqual(['G4+B4', 'D5', 'A4+C5']);
    const up = arrange(setSetting(documentOf(LAMPS), null, 'octave', 1));
    expect(struck(up.song)[0]).toBe('F5+A5');
    const silent = applyEdit(documentOf(LAMPS), { code: 'edit.mute', layer: 'tune', muted: true });
    expect(rightOf(silent)).toEqual([]);
  });

  it('are left out of an outline, which is the tune alone', () => {
    const { song, score } = arrange(applyEdit(documentOf(LAMPS), { code: 'edit.play-mode', mode: 'outline' }));
    expect(struck(song)).toEqual(LAMPS.melody.map((n) => n.pitch));
    expect(score.filter((n) => n.hand === 'right').map((n) => n.pitch)).toEqual(struck(song));
  });

  it('are asked for in rehearsal by the right hand as it is learned first', () => {
    const arrangement = arrange(documentOf(LAMPS));
    const keys = notesOf(arrangement, { from: 0, to: LAMPS.length, hands: 'right', plain: true }).map((n) => n.midi);
    expect(keys.length).toBe(LAMPS.melody.flatMap(keysOf).length);
  });

  it('make a part harder for the right hand, and say so', () => {
    const alone = documentOf({ ...LAMPS, melody: LAMPS.melody.map(({ with: _, ...n }) => n) });
    const [[together], [single]] = [documentOf(LAMPS), alone].map((doc) => arrange(doc).parts.map((p) => p.difficulty.right));
    expect(together.score).toBeGreaterThan(single.score);
    expect(together.reasons.map(ENGLISH.fact).join()).toContain('four melody notes struck together with others');
  });

  it('make another part of the same tune', () => {
    const melody = [...LAMPS.melody, ...LAMPS.melody.map((n) => ({ ...n, at: n.at + LAMPS.length, with: undefined }))];
    const chords = [...LAMPS.chords, ...LAMPS.chords.map((c) => ({ ...c, at: c.at + LAMPS.length }))];
    const { parts } = arrange(documentOf({ ...LAMPS, melody, chords, length: 2 * LAMPS.length }));
    expect(parts.map((p) => p.repeats?.kind ?? null)).not.toContain('exact');
  });

  it('stand on the letter chart and in the lesson, from the top down with their fingers', () => {
    const arrangement = arrange(documentOf(LAMPS));
    expect(chartText(arrangement, ENGLISH)).toMatch(/right +A\+F +C\n +finger +3-1 +5/);
    expect(lessonText(arrangement, ENGLISH)).toContain('Right hand: A+F(3-1) C(5) Bb+G(4-2)');
  });

  it('are one key once', () => {
    const twice = { ...LAMPS, melody: [{ ...LAMPS.melody[0], with: ['A4'] }] };
    expect(SongSchema.safeParse(twice).error?.issues[0].message).toBe('song.key-twice');
  });
});

describe('a note that is struck with others by hand', () => {
  const doc = documentOf(songOf([['E5', 2], ['D5', 2], ['C5', 4]], [[0, 'C']])); // prettier-ignore
  const strike = (at: number, ...below: number[]) => applyEdit(doc, { code: 'edit.strike-with', at, below });

  it('takes them in half steps below it, each once, and lets them go', () => {
    const with2 = strike(0, 4, 9, 9);
    expect(struck(with2.song)).toEqual(['G4+C5+E5', 'D5', 'C5']);
    expect(struck(applyEdit(with2, { code: 'edit.strike-with', at: 0, below: [] }).song)).toEqual(struck(doc.song));
    expect(applyEdit(doc, { code: 'edit.strike-with', at: 1, below: [3] })).toBe(doc);
  });

  it('is offered notes of its scale that the hand reaches, in every key and by every hand', () => {
    for (const key of ALL_KEYS)
      for (const profile of HAND_PROFILES) {
        const hands = handsOf(profile);
        const tunes = scaleFrom(key, 72, 0, 7);
        const scale = new Set(scaleFrom(key, 48, 0, 14).map((p) => midiOf(p) % 12));
        const offers = tunes.map((tune) => besideOffers(tune, key, hands).map(({ below }) => below));
        offers.forEach((below, i) => {
          expect(below.length).toBeGreaterThanOrEqual(2);
          for (const steps of below) expect(scale.has((midiOf(tunes[i]) - steps) % 12)).toBe(true);
        });
        // All first offers in one song, then all second ones, and so on: each is struck once at least.
        for (let k = 0; k < Math.max(...offers.map((o) => o.length)); k++) {
          const plain = documentOf(songOf(tunes.map((tune) => [tune, 4] as const)));
          const struckWith = tunes.reduce<Document>(
            (document, _, i) =>
              applyEdit(document, { code: 'edit.strike-with', at: 4 * i * Q, below: [offers[i][k % offers[i].length]] }),
            plain,
          );
          const { findings } = arrange({ ...struckWith, hands });
          expect(findings.filter((f) => f.rule === 'wide-stack')).toEqual([]);
        }
      }
  });
});

describe('notes struck together in files', () => {
  it('are typed with + in letter lines, the tune’s first, the next letter near to it', () => {
    const read = readLetters('tune: E4+C4 F A5+F+C G |');
    expect(read.ok && struck(read.song)).toEqual(['C4+E4', 'F4', 'C5+F5+A5', 'G5']);
    expect(read.ok && readLetters(writeLetters(read.song)).ok).toBe(true);
  });

  it.each([
    ['E4+E4 - - -', 'Line 1, bar 1: “E4+E4” has a key twice.'],
    ['E4+x - - -', 'Line 1, bar 1: “E4+x” is not a note.'],
    ['A5+G+F+E+D+C - - -', 'Line 1, bar 1: there are 6 notes at once. Leave some out: a hand has five fingers.'],
  ])('are refused with their place: %s', (line, said) => {
    const read = readLetters(`tune: ${line} |`);
    expect(read.ok ? 'was read' : refusalWords(read.refusal, ENGLISH)).toContain(said);
  });

  it('are kept from a track of one hand, and reduced to the top or the lowest where that is asked for', () => {
    const { song, score } = arrange(documentOf(LAMPS));
    const bytes = writeMidi(song, score);
    const through = (answers = {}) => {
      const back = readMidi(bytes, answers);
      return back.ok ? struck(back.song) : [];
    };
    expect(through()).toEqual(struck(LAMPS));
    expect(through({ stacks: 'top' })).toEqual(LAMPS.melody.map((n) => n.pitch));
    expect(through({ stacks: 'lowest' })).toEqual(LAMPS.melody.map((n) => keysOf(n)[0]));
  });

  it('are tied over a bar line together', () => {
    const tied = readAbc('X:1\nM:2/4\nL:1/4\nK:C\nC [EG]- | [EG] C |\n');
    expect(tied.ok && tied.song.melody.map((n) => [keysOf(n).join('+'), n.length / Q])).toEqual([
      ['C4', 1],
      ['E4+G4', 2],
      ['C4', 1],
    ]);
  });

  it('have their fingers beside them in a score', () => {
    const xml = writeMusicXml(writtenScore(arrange(documentOf(LAMPS))));
    const first = xml.split('<note>').filter((n) => n.includes('<chord/>') && n.includes('<staff>1</staff>'))[0];
    expect(first).toContain('<step>F</step>');
    expect(first).toContain('<fingering placement="above">1</fingering>');
    expect(struck((readMusicXml(xml) as { song: Song }).song)).toEqual(struck(LAMPS));
  });
});
