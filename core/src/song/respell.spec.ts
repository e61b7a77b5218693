import { describe, expect, it } from 'vitest';
import { demo, documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { readAbc, readLetters, readMusicXml, writeAbc, writeLetters, writeMusicXml } from '../formats/index.js';
import { isBlackKey, midiOf, nameOf, otherName, pitchClass } from '../pitch/pitch.js';
import { writtenScore } from '../sheet/written.js';
import { applyEdit } from './edit.js';

describe('the other name of a note', () => {
  it('is that of the same key, with one sign at most, and leads back', () => {
    for (const letter of 'CDEFGAB')
      for (const sign of ['', '#', 'b']) {
        const name = letter + sign;
        const other = otherName(name);
        if (other === null) {
          expect('DGA').toContain(name);
          continue;
        }
        expect(pitchClass(other)).toBe(pitchClass(name));
        expect(other.length).toBeLessThanOrEqual(2);
        expect(otherName(other)).toBe(name);
      }
  });
});

describe('a note that is spelled the other way', () => {
  const song = songOf(
    [
      ['C5', 1],
      ['C#5', 1],
      ['D5', 1],
      ['B4', 1],
    ],
    [[0, 'C']],
  );
  const doc = applyEdit(documentOf(song), { code: 'edit.respell', at: song.melody[1].at, name: 'Db' });

  it('has the same key under the same finger', () => {
    expect(doc.song.melody.map((n) => n.pitch)).toEqual(['C5', 'Db5', 'D5', 'B4']);
    const played = (d: typeof doc) => arrange(d).parts.flatMap((p) => p.melody.map((n) => [midiOf(n.pitch), n.finger]));
    expect(played(doc)).toEqual(played(documentOf(song)));
    // Over the octave's edge it stays where it is.
    const over = applyEdit(doc, { code: 'edit.respell', at: song.melody[3].at, name: 'Cb' });
    expect(over.song.melody[3].pitch).toBe('Cb5');
    expect(midiOf('Cb5')).toBe(midiOf('B4'));
  });

  it('is let alone where the name is of another key, or no note begins', () => {
    expect(applyEdit(doc, { code: 'edit.respell', at: song.melody[1].at, name: 'D' })).toBe(doc);
    expect(applyEdit(doc, { code: 'edit.respell', at: 1, name: 'C#' })).toBe(doc);
  });

  it('goes out and comes in as it is spelled, and into another key with its interval', () => {
    for (const back of [
      readAbc(writeAbc(doc.song)),
      readLetters(writeLetters(doc.song)),
      readMusicXml(writeMusicXml(writtenScore(arrange(doc)))),
    ])
      expect(back.ok && back.song.melody.map((n) => n.pitch)).toEqual(['C5', 'Db5', 'D5', 'B4']);
    const inG = applyEdit(doc, { code: 'edit.key', key: { tonic: 'G', mode: 'major' } });
    expect(inG.song.melody.map((n) => nameOf(n.pitch))).toEqual(['G', 'Ab', 'A', 'F#']);
  });

  it('leaves a part that comes again the same part', () => {
    const lamps = demo('lamps-across-the-sound.letters');
    const form = arrange(lamps).parts.map((p) => p.label);
    const black = lamps.song.melody.find((n) => isBlackKey(midiOf(n.pitch)));
    const other = otherName(nameOf(black?.pitch ?? 'D4')) ?? '';
    const respelled = applyEdit(lamps, { code: 'edit.respell', at: black?.at ?? 0, name: other });
    expect(respelled).not.toBe(lamps);
    expect(arrange(respelled).parts.map((p) => p.label)).toEqual(form);
  });
});
