import { describe, expect, it } from 'vitest';
import { demo } from '../../testing/songs.js';
import { setChord } from '../song/edits.js';
import { cardOf, checkDocument } from './card.js';

const glass = demo('harbour-glass.abc');

describe('the card of a song', () => {
  it('shows its key, meter, bars, the chords that the pianist left, and the turn of its tune', () => {
    const card = cardOf(setChord(glass, 0, 'Bbmaj7'));
    expect(card).toMatchObject({
      title: 'Harbour Glass',
      facts: { key: { tonic: 'F', mode: 'major' }, meter: '4/4', bars: 32 },
      fault: null,
    });
    expect(card.chords[0]).toBe('Bbmaj7');
    expect(card.chords.length).toBe(new Set(card.chords).size);
    expect(card.contour.length).toBe(16);
    for (const { x, y } of card.contour) expect([x >= 0, x <= 1, y >= 0, y <= 1]).toEqual([true, true, true, true]);
  });

  it.each<[string, unknown, object]>([
    ['of a newer version', { ...glass, version: 9 }, { title: 'Harbour Glass', fault: { why: 'newer', place: '9' } }],
    [
      'that is damaged',
      { ...glass, hands: { profile: 'giant' } },
      { title: 'Harbour Glass', fault: { why: 'damaged', place: 'hands › profile' } },
    ],
    ['without end', { ...glass, song: { ...glass.song, length: 1e12 } }, { fault: { why: 'damaged', place: 'song › length' } }],
    ['of two lines', { version: 4, song: { title: 'Two\nlines' } }, { title: 'Two lines', fault: { why: 'damaged' } }],
    ['that is nothing', null, { title: 'Untitled', fault: { why: 'damaged', place: '' } }],
    ['that is text', 'a song', { title: 'Untitled', fault: { why: 'damaged', place: '' } }],
  ])('is there for a song %s too', (_, saved, card) => {
    expect(cardOf(saved)).toMatchObject(card);
    expect(checkDocument(saved).ok).toBe(false);
  });
});
