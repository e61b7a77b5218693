import { parseChord, type Chord } from '../harmony/symbol.js';
import { noteSets } from '../catalogue/schools/note-sets.js';
import { reachableBy, rightFingers } from '../fingers/chords.js';
import { CLEAR_OF_TUNE, motionBetween } from '../left-hand/costs.js';
import { cheapestPath } from '../left-hand/path.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, pitchAt, pitchClass, type NoteName, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf, type Hands, type School } from '../song/decisions.js';
import type { MelodyNote } from '../song/song.js';
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

/**
 * What a chord costs beside its motion, in half steps of motion: a key away from home, a note past comfortable, a note left out, and two
 * notes a half step apart over a bass.
 */
const SING_ALONG_COSTS = { away: 0.35, wide: 3, thinned: 6, grates: 4 } as const;

/** The bass under a sung tune: octaves where the hand holds them, one note otherwise. */
export const singAlongBass = (hands: Hands): School => (spanOf(hands, 'left').comfortable >= 12 ? 'octave' : 'single-bass');

/** A way for the right hand to take a chord, and what it costs by itself. */
export interface SungVoicing {
  readonly pitches: readonly Pitch[];
  readonly midis: readonly number[];
  readonly cost: number;
}

/** The notes of a chord that a hand may take, the fullest way first. */
type SetsOf = (chord: Chord) => readonly (readonly NoteName[])[];

/** All of a chord, or as much of it as is left when it is thinned. */
const wholeSets: SetsOf = (chord) =>
  noteSets(chord)
    .filter((s) => s.form !== 'one-note')
    .map((s) => s.names);

/** What of a chord is left out first where its bass sounds below: the root, then the fifth; the third and the seventh tell it. */
const telling = (degree: number): number => ({ 3: 6, 4: 6, 2: 6, 7: 5, 6: 5, 5: 3, 1: 1 })[degree] ?? 4;

/** A chord over its own bass: a triad whole, anything larger without its root, by the three notes that tell most. */
const rootlessSets: SetsOf = (chord) => {
  if (chord.tones.length < 4) return wholeSets(chord);
  const told = [...chord.tones].sort((a, b) => telling(b.degree) - telling(a.degree) || b.degree - a.degree);
  return [told.slice(0, 3).map((t) => t.name), ...wholeSets(chord)];
};

/** How the right hand takes chords: of which notes, from which key to which, around which, and whether a bass sounds below. */
interface Manner {
  readonly setsOf: SetsOf;
  readonly low: number;
  readonly high: number;
  readonly home: number;
  readonly overBass: boolean;
}

/** Under a voice: G3 to E5, at home around middle C and the G above it. */
const UNDER_VOICE: Manner = { setsOf: wholeSets, low: 55, high: 76, home: 65, overBass: false };

/** Over a bass of its own, where rootless chords lie: D3 to D5, at home around middle C. */
const OVER_BASS: Manner = { setsOf: rootlessSets, low: 50, high: 74, home: 61, overBass: true };

/** Every close way to take a chord with the right hand, clear of the left; at least one for any chord. */
export function sungVoicings(
  chord: Pick<VoicedChord, 'symbol' | 'pitches'>,
  hands: Hands,
  { setsOf, home, overBass, ...register }: Manner = UNDER_VOICE,
): SungVoicing[] {
  const parsed = parseChord(chord.symbol);
  if (parsed.kind !== 'chord') return [];
  const { comfortable, limit } = spanOf(hands, 'right');
  const low = Math.max(register.low, KEYBOARDS[hands.keys].low, midiOf(chord.pitches[chord.pitches.length - 1]) + CLEAR_OF_TUNE);
  const high = Math.min(register.high, KEYBOARDS[hands.keys].high);
  const sets = setsOf(parsed);
  const full = sets[0]?.length ?? 0;
  const reachable = reachableBy(hands, 'right');
  const waysOf = (names: readonly NoteName[]): SungVoicing[] =>
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
        const halfSteps = midis.filter((m, k) => k > 0 && m - midis[k - 1] === 1).length;
        const cost =
          SING_ALONG_COSTS.away * Math.abs(middle - home) +
          SING_ALONG_COSTS.wide * Math.max(0, span - comfortable) +
          SING_ALONG_COSTS.thinned * Math.max(0, full - midis.length) +
          (overBass ? SING_ALONG_COSTS.grates * halfSteps : 0);
        return [{ pitches: turn.map((name, k) => pitchAt(name, midis[k])), midis, cost }];
      }),
    );
  // Over a bass the notes that tell the chord are taken wherever the hand can take them.
  return overBass ? (sets.map(waysOf).find((ways) => ways.length > 0) ?? []) : sets.flatMap(waysOf);
}

const turnsOf = (names: readonly NoteName[]): NoteName[][] => {
  const sorted = [...names].sort((a, b) => pitchClass(a) - pitchClass(b));
  return sorted.map((_, i) => [...sorted.slice(i), ...sorted.slice(0, i)]);
};

/** The chords of a song for the right hand under a sung tune: the path that moves least, by exact search. */
export const chordsForVoice = (chords: readonly VoicedChord[], hands: Hands): SungChord[] => led(chords, hands, UNDER_VOICE);

/**
 * Chords that the hands share, where the tune rests: their basses are the left hand's, and the right hand plays what tells them above, a
 * seventh, ninth or thirteenth without its root. The path that moves least, by exact search.
 */
export const chordsOverBass = (chords: readonly VoicedChord[], hands: Hands): SungChord[] => led(chords, hands, OVER_BASS);

function led(chords: readonly VoicedChord[], hands: Hands, manner: Manner): SungChord[] {
  const rows = chords.map((chord) => ({ chord, ways: sungVoicings(chord, hands, manner) })).filter(({ ways }) => ways.length > 0);
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

/** A tune with the top notes of the chords that the right hand plays where it rests: they tell where the hands meet. */
export function withTops(tune: readonly MelodyNote[], chords: readonly SungChord[]): readonly MelodyNote[] {
  if (chords.length === 0) return tune;
  const tops = chords.map(({ at, length, pitches }): MelodyNote => ({
    at,
    length,
    pitch: pitches[pitches.length - 1],
    lyric: null,
  }));
  return [...tune, ...tops].sort((a, b) => a.at - b.at);
}
