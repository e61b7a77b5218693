import type { Pitch } from '../pitch/pitch.js';
import type { VoicedChord } from '../left-hand/voice.js';
import type { MelodyNote } from '../song/song.js';
import { countIn, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { sungWords, type SungSyllable } from './counting.js';

/** One left-hand attack and the melody note struck with it. */
export interface Together {
  readonly at: Ticks;
  readonly chord: string;
  /** The melody note struck at the same moment, or null when the chord falls between notes. */
  readonly melody: Pitch | null;
  /** The melody note that is still sounding when the chord falls between notes, or null. */
  readonly under: Pitch | null;
  readonly syllable: string | null;
  /** The word that is sung or held as the chord is struck, and which syllable of it; null without words. */
  readonly sung: SungSyllable | null;
  /** "1", "2 &". */
  readonly count: string;
}

/** Where the hands meet: every left-hand attack, in order, with the melody note on it. */
export function togetherPoints(
  chords: readonly Pick<VoicedChord, 'at' | 'symbol'>[],
  melody: readonly Pick<MelodyNote, 'at' | 'length' | 'pitch' | 'lyric'>[],
  bars: readonly Bar[],
): Together[] {
  const words = sungWords(melody);
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
      sung: sounding ? words[i] : null,
      count: countIn(bars, chord.at),
    };
  });
}
