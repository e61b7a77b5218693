import { singAlongBass } from '../fills/sing-along.js';
import type { VoicingWishes } from '../left-hand/problem.js';
import type { TimedSpan } from '../left-hand/strikes.js';
import type { BassWish, Document, School } from '../song/decisions.js';
import { NO_WISHES, passageAt } from '../song/edits.js';
import { levelAt } from './layers.js';
import { schoolWithin } from './levels.js';

/** The school of a song where nothing was chosen: the nearest inversion, or two notes in a first year. */
export function usualSchool({ hands }: Pick<Document, 'hands'>): School {
  return hands.firstYear ? 'two-note' : 'close';
}

/** How the left hand is to be voiced: chord by chord, else by its stretch, else by the song. */
export function wishesOf(doc: Document, spans: readonly TimedSpan[]): VoicingWishes {
  const { choices, hands } = doc;
  const single = new Map(choices.chordSchools.map((c) => [c.at, c.school]));
  // Every strike of a chord follows the school of its symbol's place.
  const own = spans.flatMap(({ at, length, writtenAt }) => {
    const school = single.get(writtenAt ?? at);
    return school ? [{ ...NO_WISHES, start: at, end: at + length, school }] : [];
  });
  const whole = choices.school ?? usualSchool(doc);
  return {
    hands,
    pins: new Map(choices.pins.map((p) => [p.at, p.pitches])),
    fingers: new Map(choices.fingers.filter((f) => f.hand === 'left').map((f) => [f.at, f.fingers])),
    schoolAt: (at): School => {
      const wished = passageAt(own, at)?.school ?? passageAt(choices.passages, at)?.school ?? whole;
      return schoolWithin(levelAt(doc, at), choices.way === 'sing-along' ? singAlongBass(hands) : wished);
    },
    bassAt: (at): BassWish => passageAt(choices.passages, at)?.bass ?? choices.bass,
  };
}
