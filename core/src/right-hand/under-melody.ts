import { reachableBy } from '../fingers/chords.js';
import { CLEAR_OF_TUNE, muddiness } from '../left-hand/costs.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { midiOf, pitchAt, pitchClass, type Pitch } from '../pitch/pitch.js';
import { spanOf, KEYBOARDS, type Hands } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { beatTicks, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** Chord notes that the right hand holds under a note of the tune. */
export interface UnderNote {
  readonly at: Ticks;
  readonly length: Ticks;
  /** Bottom-up, the tune's own note left out. */
  readonly pitches: readonly Pitch[];
  readonly tune: Pitch;
  /** True for harmony that was added once the plain version held. */
  readonly added?: boolean;
}

/** Beats from which a note is long wherever it falls, and the metric strength from which a single beat is enough. */
const LONG = 2;
const STRONG = 3;

/** Half steps under the tune that a chord note keeps: nearer ones blur the tune. */
const CLEAR_UNDER = 2;

/**
 * The chord notes under the tune for chords of the under-melody school: on notes of two beats or more, on notes of a beat
 * that fall on a strong one, and where a chord changes under a held note. The hand's span holds them and the tune; the
 * left hand stays clear below.
 */
export function notesUnderTune(
  chords: readonly Pick<VoicedChord, 'at' | 'length' | 'symbol' | 'school' | 'pitches'>[],
  tune: readonly MelodyNote[],
  hands: Hands,
  bars: readonly Bar[],
): UnderNote[] {
  const found: UnderNote[] = [];
  let from = 0;
  for (const voiced of chords) {
    const end = voiced.at + voiced.length;
    while (from < tune.length && tune[from].at + tune[from].length <= voiced.at) from++;
    const chord = parseChord(voiced.symbol);
    if (voiced.school !== 'under-melody' || chord.kind !== 'chord') continue;
    const left = midiOf(voiced.pitches[voiced.pitches.length - 1]);
    for (let i = from; i < tune.length && tune[i].at < end; i++) {
      const at = Math.max(tune[i].at, voiced.at);
      const length = Math.min(tune[i].at + tune[i].length, end) - at;
      const bar = barAt(bars, at);
      const beat = beatTicks(bar.meter);
      const strong = metricStrength(offsetInBar(bar, at), bar.meter) >= STRONG;
      if (length < beat || (length < LONG * beat && !strong)) continue;
      const pitches = hangBelow(chord, tune[i].pitch, left, hands);
      if (pitches.length > 0) found.push({ at, length, pitches, tune: tune[i].pitch });
    }
  }
  return found;
}

/** As much of the chord as the right hand holds below a note: its nearest notes down to the span, clear of the left hand. */
function hangBelow(chord: Chord, tune: Pitch, left: number, hands: Hands): Pitch[] {
  const top = midiOf(tune);
  const floor = Math.max(top - spanOf(hands, 'right').comfortable, left + CLEAR_OF_TUNE, KEYBOARDS[hands.keys].low);
  const most = 3;
  const tones = [...chord.tones].sort((a, b) => weight(b.degree) - weight(a.degree));
  const wanted = tones.filter((t) => pitchClass(t.name) !== top % 12).slice(0, most);
  const placed: { pitch: Pitch; midi: number }[] = [];
  for (const { name } of wanted) {
    const below = (top - pitchClass(name) + 120) % 12;
    const midi = top - below;
    if (below < CLEAR_UNDER || midi < floor) continue;
    placed.push({ pitch: pitchAt(name, midi), midi });
  }
  placed.sort((a, b) => a.midi - b.midi);
  return hangable(
    placed.map((p) => p.pitch),
    tune,
    hands,
  );
}

/** Chord notes under the tune, bottom-up, without the lowest ones that would blur so low or that no fingers reach below it. */
export function hangable(pitches: readonly Pitch[], tune: Pitch, hands: Hands): Pitch[] {
  const reachable = reachableBy(hands, 'right');
  const lies = (from: number) => {
    const keys = [...pitches.slice(from), tune].map(midiOf);
    return muddiness(keys) === 0 && reachable(keys);
  };
  const from = pitches.findIndex((_, i) => lies(i));
  return from < 0 ? [] : pitches.slice(from);
}

/** The third and the seventh say which chord it is; the fifth is left out first, the bass has the root. */
const weight = (degree: number): number => ({ 3: 6, 4: 6, 2: 6, 7: 5, 6: 4, 1: 3, 5: 2 })[degree] ?? 4;
