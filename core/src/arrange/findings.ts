import { thinningWords } from '../left-hand/reasons.js';
import { muddiness } from '../left-hand/costs.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf } from '../pitch/pitch.js';
import { KEYBOARDS, SPANS, type Document } from '../song/decisions.js';
import { placeName, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';

/** Something the pianist should know, with its place and ways out. */
export interface Finding {
  /** A stable name for the rule, such as "reach" or "collision-crossing". */
  readonly rule: string;
  /** fix: it cannot be played as it stands. warn: it will trouble. note: good to know. */
  readonly severity: 'fix' | 'warn' | 'note';
  readonly at: Ticks | null;
  readonly part: number | null;
  /** The chord it speaks of, or null. */
  readonly chordAt: Ticks | null;
  readonly message: string;
  readonly fixes: readonly string[];
}

interface PartRange {
  readonly number: number;
  readonly start: Ticks;
}

/** Finds the number of the part that holds a place, by halving. */
export function partFinder(parts: readonly PartRange[]): (at: Ticks) => number | null {
  return (at) => {
    let low = 0;
    let high = parts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (parts[middle].start <= at) low = middle;
      else high = middle - 1;
    }
    return parts[low]?.number ?? null;
  };
}

/** Checks every voiced chord against the hand, the keyboard and the low limits. */
export function checkVoicings(
  chords: readonly VoicedChord[],
  doc: Document,
  partOf: (at: Ticks) => number | null,
  bars: readonly Bar[],
): Finding[] {
  const { comfortable, limit } = SPANS[doc.hands.profile];
  const keyboard = KEYBOARDS[doc.hands.keys];
  const found: Finding[] = [];
  for (const chord of chords) {
    const midis = chord.pitches.map(midiOf);
    const span = midis[midis.length - 1] - midis[0];
    const place = placeName(bars, chord.at);
    const say = (rule: string, severity: Finding['severity'], message: string, fixes: string[]) =>
      found.push({ rule, severity, at: chord.at, part: partOf(chord.at), chordAt: chord.at, message, fixes });
    const title = `${chord.symbol} at ${place}`;
    if (span > limit)
      say('reach', 'fix', `${title} spans ${span} half steps; this hand reaches ${limit}.`, ['another inversion', 'fewer notes']);
    else if (span > comfortable)
      say('stretch', 'note', `${title} spans ${span} half steps, past the comfortable ${comfortable}. Never force a stretch.`, [
        'another inversion',
      ]);
    if (midis[0] < keyboard.low || midis[midis.length - 1] > keyboard.high)
      say('keyboard', 'fix', `${title} leaves the ${doc.hands.keys} keys of this keyboard.`, ['another octave']);
    if (muddiness(midis) > 0)
      say('low', 'note', `${title} lies low for such close notes and may sound muddy.`, ['another inversion', 'fewer notes']);
    const thinned = chord.pinned || chord.again ? null : thinningWords(chord.form, chord.position);
    if (thinned) say('thinned', 'note', `${title}: ${thinned}`, ['another inversion', 'the tune up an octave']);
  }
  return found;
}
