import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf } from '../../testing/songs.js';
import { readMusicXml, writeMusicXml } from '../formats/index.js';
import { arrange } from '../arrange/arrange.js';
import { applyEdit } from '../song/edit.js';
import { linkedEdit } from '../song/linked.js';
import { writtenScore } from '../sheet/written.js';
import { handsOf, type Document, type FillKind } from '../song/decisions.js';
import { setFill } from '../song/dressing.js';
import { setSetting } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';

/** A tune that holds its fourth note for five beats, then goes on. */
const held = documentOf(
  songOf(
    [
      ['E4', 1],
      ['F4', 1],
      ['D4', 1],
      ['C4', 5],
      ['G4', 4],
    ],
    [
      [0, 'C'],
      [8, 'G'],
    ],
    { tempo: 80 },
  ),
);
const place = 4 * Q;
const roomOf = (doc: Document) => arrange(doc).parts.flatMap((p) => p.rooms)[0];
const notesOf = (doc: Document, kind: FillKind) =>
  roomOf(doc)
    .offers.find((o) => o.kind === kind)
    ?.notes.map((n) => `${n.at / Q} ${n.pitch}`);

describe('a fill', () => {
  it('is offered where the tune holds: a chord going up, a walk to the next note, a turn', () => {
    expect(roomOf(held)).toMatchObject({ at: place, counts: 4, chosen: null });
    expect(notesOf(held, 'broken')).toEqual(['4 E4', '4.5 G4', '5 C5', '5.5 G4', '6 E4', '6.5 G4', '7 C5']);
    expect(notesOf(held, 'walk')).toEqual(['6.5 D4', '7 E4', '7.5 F4']);
    expect(notesOf(held, 'turn')).toEqual(['4 E4', '4.5 F4', '5 E4', '5.5 D4', '6 E4']);
  });

  it('echoes the last notes an octave away, where the hand reaches that far from the note it holds', () => {
    expect(notesOf({ ...held, hands: handsOf('large') }, 'echo')).toBeUndefined();
    const rising = documentOf(
      songOf(
        [
          ['C4', 1],
          ['E4', 1],
          ['G4', 1],
          ['A4', 5],
        ],
        [[0, 'F']],
      ),
    );
    expect(notesOf(rising, 'echo')).toEqual(['4 E5', '4.5 G5', '5 A5']);
    expect(notesOf({ ...rising, hands: handsOf('child') }, 'echo')).toBeUndefined();
  });

  it('goes by whole counts where half counts would be too quick', () => {
    const fast = { ...held, song: { ...held.song, tempo: 200 } };
    expect(notesOf(fast, 'broken')).toEqual(['4 E4', '5 G4', '6 C5']);
  });

  it('is played once it is kept, and the tune’s key keeps its finger meanwhile', () => {
    const arrangement = arrange(setFill(held, place, 'broken'));
    const fills = arrangement.score.filter((n) => n.role === 'fill');
    expect(fills.length).toBe(7);
    const finger = arrangement.parts[0].melody.find((n) => n.pitch === 'C4')?.finger;
    for (const fill of fills) expect(fill.finger).toBeGreaterThan(finger ?? 5);
    expect(arrangement.parts.flatMap((p) => p.rooms)[0].chosen).toBe('broken');
    expect(arrange(held).score.some((n) => n.role === 'fill')).toBe(false);
  });

  it('can be refused, and taken back', () => {
    const refused = setFill(setFill(held, place, 'turn'), place, 'none');
    expect(arrange(refused).score).toEqual(arrange(held).score);
    expect(roomOf(refused).chosen).toBe('none');
    expect(setFill(refused, place, null).choices.fills).toEqual([]);
  });

  it('takes the place of harmony under the note it is played over', () => {
    const long = documentOf(songOf([['C5', 4]], [[0, 'C']]));
    const full = setSetting(long, null, 'harmony', { density: 80, size: 'two' });
    const low = songOf(
      [
        ['C5', 4],
        ['E5', 4],
      ],
      [[0, 'C']],
    );
    const two = { ...full, song: low };
    const under = (doc: Document) => arrange(doc).parts.flatMap((p) => p.under.map((u) => u.at / Q));
    expect(under(two)).toEqual([0]);
    expect(under(setFill(two, Q, 'broken'))).toEqual([]);
  });

  it('never enters the left hand’s space', () => {
    const low = documentOf(songOf([['D4', 4]], [[0, 'Dm']]));
    for (const { offers } of arrange(low).parts.flatMap((p) => p.rooms))
      for (const offer of offers) for (const n of offer.notes) expect(n.pitch).not.toMatch(/3$/);
  });

  it('is carried to the repeats of its part and stands on the sheet beside an unchanged tune', () => {
    const glass = demo('harbour-glass.abc');
    const { parts } = arrange(glass);
    const [first] = parts[0].rooms;
    const edit = linkedEdit({ code: 'edit.fill', at: first.at, kind: 'broken' }, parts, 1);
    expect(edit?.parts.length).toBeGreaterThan(0);
    const filled = edit ? applyEdit(setFill(glass, first.at, 'broken'), edit.edit) : glass;
    expect(filled.choices.fills.length).toBeGreaterThan(1);
    const read = readMusicXml(writeMusicXml(writtenScore(arrange(filled))));
    expect(read.ok && read.song.melody.map((n) => [n.at, n.length, n.pitch])).toEqual(
      glass.song.melody.map((n) => [n.at, n.length, n.pitch]),
    );
  });
});
