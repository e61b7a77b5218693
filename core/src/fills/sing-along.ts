import { parseChord } from '../harmony/symbol.js';
import { noteSets } from '../catalogue/schools/note-sets.js';
import { reachableBy, rightFingers } from '../fingers/chords.js';
import { CLEAR_OF_TUNE, motionBetween } from '../left-hand/costs.js';
import { cheapestPath } from '../left-hand/path.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, pitchAt, pitchClass, type NoteName, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf, type Hands, type School } from '../song/decisions.js';
import type { Ticks } from '../time/ticks.js';

/** A chord that the right hand plays while the tune is sung. */
export interface SungChord {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly symbol: string;
  /** Bottom-up. */
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  /** Half steps that the hand's voices move from the chord before. */
  readonly motion: number;
}

/** Where the right hand accompanies a voice: G3 to E5, at home around middle C and the G above it. */
const REGISTER = { low: 55, high: 76, home: 65 } as const;

/** What a chord costs beside its motion, in half steps of motion: a key away from home, a note past comfortable, a note left out. */
const SING_ALONG_COSTS = { away: 0.35, wide: 3, thinned: 6 } as const;

/** The bass under a sung tune: octaves where the hand holds them, one note otherwise. */
export const singAlongBass = (hands: Hands): School => (spanOf(hands, 'left').comfortable >= 12 ? 'octave' : 'single-bass');

/** A way for the right hand to take a chord, and what it costs by itself. */
export interface SungVoicing {
  readonly pitches: readonly Pitch[];
  readonly midis: readonly number[];
  readonly cost: number;
}

/** Every close way to take a chord with the right hand, clear of the left; at least one for any chord. */
export function sungVoicings(chord: Pick<VoicedChord, 'symbol' | 'pitches'>, hands: Hands): SungVoicing[] {
  const parsed = parseChord(chord.symbol);
  if (parsed.kind !== 'chord') return [];
  const { comfortable, limit } = spanOf(hands, 'right');
  const low = Math.max(REGISTER.low, KEYBOARDS[hands.keys].low, midiOf(chord.pitches[chord.pitches.length - 1]) + CLEAR_OF_TUNE);
  const high = Math.min(REGISTER.high, KEYBOARDS[hands.keys].high);
  const sets = noteSets(parsed).filter((s) => s.form !== 'one-note');
  const full = sets[0]?.names.length ?? 0;
  const reachable = reachableBy(hands, 'right');
  return sets.flatMap(({ names }) =>
    turnsOf(names).flatMap((turn) =>
      [3, 4, 5].flatMap((octave): SungVoicing[] => {
        const midis: number[] = [];
        for (const name of turn) {
          const from = midis.length === 0 ? 12 * (octave + 1) : midis[midis.length - 1] + 1;
          midis.push(from + ((pitchClass(name) - from + 1200) % 12));
        }
        const span = midis[midis.length - 1] - midis[0];
        if (midis[0] < low || midis[midis.length - 1] > high || span > limit || !reachable(midis)) return [];
        const middle = (midis[0] + midis[midis.length - 1]) / 2;
        const cost =
          SING_ALONG_COSTS.away * Math.abs(middle - REGISTER.home) +
          SING_ALONG_COSTS.wide * Math.max(0, span - comfortable) +
          SING_ALONG_COSTS.thinned * (full - midis.length);
        return [{ pitches: turn.map((name, k) => pitchAt(name, midis[k])), midis, cost }];
      }),
    ),
  );
}

const turnsOf = (names: readonly NoteName[]): NoteName[][] => {
  const sorted = [...names].sort((a, b) => pitchClass(a) - pitchClass(b));
  return sorted.map((_, i) => [...sorted.slice(i), ...sorted.slice(0, i)]);
};

/** The chords of a song for the right hand under a sung tune: the path that moves least, by exact search. */
export function chordsForVoice(chords: readonly VoicedChord[], hands: Hands): SungChord[] {
  const rows = chords.map((chord) => ({ chord, ways: sungVoicings(chord, hands) })).filter(({ ways }) => ways.length > 0);
  const { choices } = cheapestPath(
    rows.map(({ ways }) => ({ size: ways.length, cost: (c) => ways[c].cost })),
    (i, from, to) => motionBetween(rows[i - 1].ways[from].midis, rows[i].ways[to].midis),
  );
  return rows.map(({ chord, ways }, i): SungChord => {
    const { pitches, midis } = ways[choices[i]];
    const before = i > 0 ? rows[i - 1].ways[choices[i - 1]].midis : null;
    return {
      at: chord.at,
      length: chord.length,
      symbol: chord.symbol,
      pitches,
      fingers: rightFingers(midis, hands),
      motion: before ? motionBetween(before, midis) : 0,
    };
  });
}
