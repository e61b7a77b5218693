import { travelOf } from '../left-hand/problem.js';
import { gripsOf, shapesOf } from '../left-hand/shapes.js';
import { exactRepeats } from '../divide/repeats.js';
import { solveLeftHand } from '../left-hand/voice.js';
import { notesUnderTune } from '../right-hand/under-melody.js';
import { SCHOOLS, spanOf, type Document, type School } from '../song/decisions.js';
import { chordSpans } from '../song/song.js';
import type { Pitch } from '../pitch/pitch.js';
import type { Ticks } from '../time/ticks.js';
import type { Arrangement } from './arrangement.js';
import { settingsOf, voicingWishes } from './settings.js';

/** Where a school is to hold: the whole song, a stretch, or one chord. */
export interface Scope {
  readonly start: Ticks;
  readonly end: Ticks;
}

/** What the left hand of a stretch costs in a school. */
export interface SchoolPrice {
  readonly school: School;
  /** The keys of one chord in it: the one that is asked for, or the first of the stretch. */
  readonly shape: readonly Pitch[];
  /** Half steps that all voices move within the stretch and into it. */
  readonly travel: number;
  /** Chords past the comfortable span or struck one note after another. */
  readonly stretches: number;
  /** Different shapes of the hand. */
  readonly shapes: number;
  /** Notes of all different chords: what has to be learned. */
  readonly notes: number;
  /** Chords that the school could only give one note. */
  readonly alone: number;
  /** True for the school that the stretch is in now, wholly. */
  readonly current: boolean;
}

/** What each school would cost in a stretch of an arrangement, everything around it staying as it is, with the shape of the chord at a place. */
export function schoolPrices(doc: Document, arrangement: Arrangement, { start, end }: Scope, at = start): SchoolPrice[] {
  const { song, bars, strikes } = arrangement;
  const spans = chordSpans(song);
  const { sections } = arrangement;
  const wishes = voicingWishes(settingsOf(doc), { spans, sections, repeats: exactRepeats(arrangement.parts) });
  const inside = (at: Ticks) => at >= start && at < end;
  const comfortable = spanOf(doc.hands, 'left').comfortable;
  const now = new Set(arrangement.parts.flatMap((p) => p.chords.filter((c) => inside(c.at)).map((c) => c.school)));
  return SCHOOLS.map((school): SchoolPrice => {
    const schoolAt = (at: Ticks) => (inside(at) ? school : wishes.schoolAt(at));
    const { problem, choices } = solveLeftHand(strikes, song.melody, { ...wishes, schoolAt });
    const first = problem.layers.findIndex((l) => inside(l.strike.at));
    const last = problem.layers.findLastIndex((l) => inside(l.strike.at));
    const from = Math.max(0, first - 1);
    const chosen = choices.map((c, i) => problem.layers[i].voicings[c]);
    const laid = first < 0 ? [] : chosen.slice(first, last + 1);
    const chords = laid.map((v, k) => ({ ...problem.layers[first + k].strike, school, pitches: v.pitches }));
    // The chords that the right hand holds are learned with the tune's note on top.
    const under = notesUnderTune(chords, song.melody, doc.hands, bars).map((u) => ({ pitches: [...u.pitches, u.tune] }));
    const laidNotes = [...gripsOf(laid), ...gripsOf(under)];
    const wide = ({ midis, spread }: (typeof laid)[number]) => spread || midis[midis.length - 1] - midis[0] > comfortable;
    return {
      school,
      shape: (chords.find((c) => c.at >= at) ?? chords.at(0))?.pitches ?? [],
      travel: first < 0 ? 0 : travelOf(chosen.slice(from, last + 1)),
      stretches: laid.filter(wide).length,
      shapes: shapesOf(laid).length,
      notes: laidNotes.reduce((sum, g) => sum + g.length, 0),
      alone: school === 'single-bass' || school === 'under-melody' ? 0 : laid.filter((v) => v.form === 'one-note').length,
      current: now.size === 1 && now.has(school),
    };
  });
}
