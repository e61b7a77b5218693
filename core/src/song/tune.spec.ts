import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arrange } from '../arrange/index.js';
import { documentOf, songOf, songs } from '../../testing/songs.js';
import { midiOf } from '../pitch/pitch.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { applyEdit } from './edit.js';
import { checkDocument } from '../sheet/index.js';
import { changedTune, type NoteChange } from './tune.js';

const song = songOf([
  ['G4', 1],
  [null, 1],
  ['A4+C4', 1],
  ['B4', 1],
]);
const row = (change: NoteChange, at: number) =>
  changedTune(song, at * Q, change)?.map((n) => `${n.at / Q} ${n.length / Q} ${n.pitch}${n.with ? `+${n.with.join('+')}` : ''}`);

describe('a note of the melody put right', () => {
  it('is moved with what is struck with it, and named by the key', () => {
    expect(row({ kind: 'pitch', by: 1 }, 2)).toEqual(['0 1 G4', '2 1 Bb4+C#4', '3 1 B4']);
    expect(row({ kind: 'pitch', by: -12 }, 3)).toEqual(['0 1 G4', '2 1 A4+C4', '3 1 B3']);
  });

  it('begins earlier or later, and the note before gives way or goes on up to it where it did', () => {
    expect(row({ kind: 'begin', by: -Q / 2 }, 3)).toEqual(['0 1 G4', '2 0.5 A4+C4', '2.5 1.5 B4']);
    expect(row({ kind: 'begin', by: Q / 2 }, 3)).toEqual(['0 1 G4', '2 1.5 A4+C4', '3.5 0.5 B4']);
    // After a rest nothing is drawn out.
    expect(row({ kind: 'begin', by: -Q / 2 }, 2)).toEqual(['0 1 G4', '1.5 1.5 A4+C4', '3 1 B4']);
    expect(row({ kind: 'begin', by: -Q / 2 }, 0)).toBeUndefined();
  });

  it('is split in two, joined with the next, or taken away', () => {
    expect(row({ kind: 'split' }, 2)).toEqual(['0 1 G4', '2 0.5 A4+C4', '2.5 0.5 A4+C4', '3 1 B4']);
    expect(row({ kind: 'join' }, 0)).toEqual(['0 3 G4', '3 1 B4']);
    expect(row({ kind: 'join' }, 3)).toBeUndefined();
    expect(row({ kind: 'remove' }, 2)).toEqual(['0 1 G4', '3 1 B4']);
    expect(row({ kind: 'remove' }, 1)).toBeUndefined();
  });

  it('leaves a song that is whole and can be arranged, whatever is done to whichever note', () => {
    const change: fc.Arbitrary<NoteChange> = fc.oneof(
      fc.record({ kind: fc.constant('pitch' as const), by: fc.integer({ min: -12, max: 12 }) }),
      fc.record({ kind: fc.constant('begin' as const), by: fc.constantFrom(-Q, -Q / 2, Q / 2, Q) }),
      fc.record({ kind: fc.constantFrom('split' as const, 'join' as const, 'remove' as const) }),
    );
    fc.assert(
      fc.property(songs(), fc.array(fc.tuple(fc.nat(), change), { minLength: 1, maxLength: 8 }), (made, changes) => {
        const changed = changes.reduce((doc, [which, change]) => {
          const { melody } = doc.song;
          return melody.length === 0 ? doc : applyEdit(doc, { code: 'edit.note', at: melody[which % melody.length].at, change });
        }, documentOf(made));
        const { melody } = changed.song;
        melody.forEach((n, i) => {
          expect(n.length).toBeGreaterThan(0);
          expect(n.at + n.length).toBeLessThanOrEqual(melody.at(i + 1)?.at ?? changed.song.length);
        });
        expect(checkDocument(JSON.parse(JSON.stringify(changed))).ok).toBe(true);
        const right = arrange(changed)
          .score.filter((n) => n.hand === 'right')
          .map((n) => midiOf(n.pitch));
        expect(right.length).toBeGreaterThanOrEqual(melody.length > 0 ? 1 : 0);
      }),
      { numRuns: 60 },
    );
  });
});
