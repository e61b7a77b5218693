import { movesOf, startOf } from './positions.js';
import { ENGLISH, MOVE_LABELS } from '../words/index.js';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS, documentOf, songOf } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { midiOf } from '../pitch/pitch.js';
import { setFingers } from '../song/edits.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';

const placesOf = (notes: readonly (readonly [string | null, number])[]) =>
  arrange(documentOf(songOf(notes, [[0, 'C']]))).parts.flatMap((p) => p.places);

describe('where the right hand lies', () => {
  it('is one five-finger place for five neighbouring keys', () => {
    const [place, ...others] = placesOf(['C5', 'D5', 'E5', 'F5', 'G5', 'E5', 'C5'].map((p) => [p, 1] as const));
    expect(others).toEqual([]);
    expect([place.thumb, place.fifth, place.low, place.high, place.move]).toEqual(['C5', 'G5', 'C5', 'G5', 'fresh']);
  });

  it('changes where the thumb passes under, and says where to', () => {
    const up = ['C5', 'D5', 'E5', 'F5', 'G5', 'A5', 'B5', 'C6'].map((p) => [p, 0.5] as const);
    const [first, second] = placesOf(up);
    expect([first.thumb, second.thumb, second.move, second.by]).toEqual(['C5', 'F5', 'under', 5]);
    expect(MOVE_LABELS[second.move]).toBe('the thumb passes under');
    expect(second.start).toBe(1.5 * Q);
  });

  it('covers every note of the part, in order', () => {
    for (const part of arrange(demo('harbour-glass.abc')).parts) {
      for (const note of part.melody) {
        const place = part.places.findLast((p) => p.start <= note.at);
        expect(place && midiOf(note.pitch) >= midiOf(place.low) && midiOf(note.pitch) <= midiOf(place.high)).toBe(true);
      }
      part.places.slice(1).forEach((p, i) => expect(p.start).toBeGreaterThan(part.places[i].start));
    }
  });

  it('is true of every note: one finger a key in a place, the thumb where it is said to be', () => {
    for (const name of DEMOS)
      for (const part of arrange(demo(name)).parts)
        part.places.forEach((place, i) => {
          const own = part.melody.filter((n) => n.at >= place.start && n.at < (part.places[i + 1]?.start ?? part.end));
          const fingers = new Map(own.map((n) => [n.pitch, n.finger]));
          for (const note of own) expect(fingers.get(note.pitch)).toBe(note.finger);
          expect(new Set(fingers.values()).size).toBe(fingers.size);
          const thumb = own.find((n) => n.finger === 1);
          if (thumb) expect(place.thumb).toBe(thumb.pitch);
          for (const note of own) expect(midiOf(place.thumb)).toBeLessThanOrEqual(midiOf(note.pitch));
        });
  });

  it('is told as a whole: that the hand stays, or where it goes', () => {
    const told = (name: string, number: number) => {
      const { parts, bars } = arrange(demo(name));
      return movesOf(parts[number - 1].places, bars).map(ENGLISH.fact);
    };
    expect(told('harbour-glass.abc', 1)).toEqual(['The hand stays there for the whole part.']);
    expect(told('harbour-glass.abc', 4)).toEqual(['Bar 15, count 3: the hand moves; thumb on the F above middle C.']);
  });

  it('follows a finger that the pianist chose', () => {
    const doc = documentOf(
      songOf(
        [
          ['E5', 1],
          ['F5', 1],
          ['G5', 1],
          ['E5', 1],
        ],
        [[0, 'C']],
      ),
    );
    const [before] = arrange(doc).parts[0].places;
    const [after] = arrange(setFingers(doc, 'right', 0, [3])).parts[0].places;
    expect(before.thumb).toBe('E5');
    expect(after.thumb).toBe('C5');
  });
});

describe('places in words', () => {
  it.each([
    ['C4', 'middle C'],
    ['G4', 'the G above middle C'],
    ['F5', 'the second F above middle C'],
    ['B3', 'the B below middle C'],
    ['Bb2', 'the second Bb below middle C'],
    ['C5', 'the C above middle C'],
  ])('%s is %s', (pitch, words) => expect(ENGLISH.pianoKey(pitch)).toBe(words));

  it('names the start by the thumb and the first finger', () => {
    const [place] = placesOf([
      ['E5', 1],
      ['C5', 1],
      ['G5', 1],
      ['E5', 1],
    ]);
    expect(ENGLISH.fact(startOf(place, 'E5', 3))).toBe('Thumb on the C above middle C; start with finger 3 on E5.');
    expect(ENGLISH.fact(startOf(place, 'C5', 1))).toBe('Thumb on the C above middle C.');
  });
});
