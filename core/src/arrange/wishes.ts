import type { VoicingWishes } from '../left-hand/problem.js';
import type { BassWish, Document, School } from '../song/decisions.js';
import { passageAt } from '../song/edits.js';
import type { ChordSpan } from '../song/song.js';

/** The school of a song where nothing was chosen: the nearest inversion, or two notes in a first year. */
export function usualSchool({ hands }: Pick<Document, 'hands'>): School {
  return hands.firstYear ? 'two-note' : 'close';
}

/** How the left hand is to be voiced: chord by chord, else by its stretch, else by the song. */
export function wishesOf(doc: Document, spans: readonly ChordSpan[]): VoicingWishes {
  const { choices, hands } = doc;
  const single = new Map(choices.chordSchools.map((c) => [c.at, c.school]));
  // Every strike of a chord follows the school of its symbol's place.
  const own = spans.flatMap(({ at, length }) => {
    const school = single.get(at);
    return school ? [{ start: at, end: at + length, school, bass: null, suggest: null, stay: null }] : [];
  });
  const whole = choices.school ?? usualSchool(doc);
  return {
    hands,
    pins: new Map(choices.pins.map((p) => [p.at, p.pitches])),
    schoolAt: (at): School => passageAt(own, at)?.school ?? passageAt(choices.passages, at)?.school ?? whole,
    bassAt: (at): BassWish => passageAt(choices.passages, at)?.bass ?? choices.bass,
  };
}
