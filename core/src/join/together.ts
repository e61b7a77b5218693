import type { Pitch } from '../pitch/pitch.js';
import type { VoicedChord } from '../left-hand/voice.js';
import type { MelodyNote } from '../song/song.js';
import { countIn, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';

/** One left-hand attack and the melody note struck with it. */
export interface Together {
  readonly at: Ticks;
  readonly chord: string;
  /** The melody note struck at the same moment, or null when the chord falls between notes. */
  readonly melody: Pitch | null;
  /** The melody note that is still sounding when the chord falls between notes, or null. */
  readonly under: Pitch | null;
  readonly syllable: string | null;
  /** "1", "2 &". */
  readonly count: string;
}

/** Where the hands meet: every left-hand attack, in order, with the melody note on it. */
export function togetherPoints(chords: readonly VoicedChord[], melody: readonly MelodyNote[], bars: readonly Bar[]): Together[] {
  let i = 0;
  return chords.map((chord) => {
    while (i < melody.length && melody[i].at + melody[i].length <= chord.at) i++;
    const note = melody[i];
    const sounding = note && note.at <= chord.at ? note : null;
    const struck = sounding?.at === chord.at ? sounding : null;
    return {
      at: chord.at,
      chord: chord.symbol,
      melody: struck?.pitch ?? null,
      under: struck ? null : (sounding?.pitch ?? null),
      syllable: struck?.lyric?.text ?? null,
      count: countIn(bars, chord.at),
    };
  });
}

/** A together point in a sentence: "D5 with G minor on 1". */
export function togetherSentence(point: Together, chordName: string): string {
  if (point.melody) {
    const word = point.syllable ? `, on “${point.syllable}”` : '';
    return `${point.melody} with ${chordName} on ${point.count}${word}.`;
  }
  return point.under ? `${chordName} on ${point.count}, while ${point.under} is held.` : `${chordName} alone on ${point.count}.`;
}
