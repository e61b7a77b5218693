import { parseChord } from '../harmony/symbol.js';
import { struckNotes } from '../left-hand/spread.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, octaveUp, pitchAt } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf, type Hands, type LastTouch } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import { barAt, firstAtOrAfter, type Bar } from '../time/bars.js';
import { beatTicks } from '../time/meter.js';
import { TICKS_PER_QUARTER, type Ticks } from '../time/ticks.js';
import type { TempoPoint } from '../time/tempo.js';
import type { RealisedTexture } from './dress.js';

/** What stands in place of a texture's name where a song closes with a low octave. */
export const CLOSING = 'close';

/** Bars over which the end slows down. */
const SLOWING_BARS = 2;

/**
 * The course of a song's tempo: where it changes on the page, and, where it is to slow down by some percent, evenly, beat by beat, over
 * the last two bars.
 */
export function tempoCourse(
  { tempo, tempos = [] }: Pick<Song, 'tempo' | 'tempos'>,
  bars: readonly Bar[],
  slower: number,
): TempoPoint[] {
  const points: TempoPoint[] = [
    { at: 0, percent: 100 },
    ...tempos.filter((t) => t.at > 0).map((t): TempoPoint => ({ at: t.at, percent: (100 * t.tempo) / tempo, sign: 'tempo' })),
  ];
  if (slower === 0) return points;
  const beats = bars.slice(-SLOWING_BARS).flatMap((bar) => {
    const beat = beatTicks(bar.meter);
    return Array.from({ length: Math.ceil((bar.end - bar.start) / beat) }, (_, k) => bar.start + k * beat);
  });
  const from = beats[0] ?? 0;
  const steady = points.findLast((p) => p.at <= from)?.percent ?? 100;
  const slowing = beats.map((at, k): TempoPoint => {
    const percent = Math.round((steady * 10 * (100 - (slower * (k + 1)) / beats.length)) / 100) / 10;
    return k === 0 ? { at, percent, sign: 'rit' } : { at, percent };
  });
  const before = points.filter((p) => p.at < from);
  return [...before, ...slowing];
}

/** Ticks of a sixteenth, by which a breath takes twice its time. */
const BREATH = TICKS_PER_QUARTER / 4;

/** Where time stops: the last beat of a note with a fermata, and the moment before a breath. They do not overlap. */
function stopsIn({ marks, melody }: Pick<Song, 'marks' | 'melody'>, bars: readonly Bar[]): { at: Ticks; to: Ticks }[] {
  const noteAt = new Map(melody.map((n) => [n.at, n]));
  const stretches = marks.flatMap(({ at, kind }) => {
    if (kind === 'breath') return at >= BREATH ? [{ at: at - BREATH, to: at }] : [];
    if (kind !== 'fermata') return [];
    const beat = beatTicks(barAt(bars, at).meter);
    const length = noteAt.get(at)?.length ?? beat;
    return [{ at: at + length - Math.min(beat, length), to: at + length }];
  });
  stretches.sort((a, b) => a.at - b.at || b.to - a.to);
  let until = 0;
  return stretches.filter((s) => {
    if (s.at < until) return false;
    until = s.to;
    return true;
  });
}

/** A course of tempo in which each of some stretches takes twice its time. */
export function withStops(
  points: readonly TempoPoint[],
  song: Pick<Song, 'marks' | 'melody'>,
  bars: readonly Bar[],
): TempoPoint[] {
  const stops = stopsIn(song, bars);
  if (stops.length === 0) return [...points];
  const inStop = (at: Ticks) => at < (stops[firstAtOrAfter(stops, at + 1) - 1]?.to ?? 0);
  const steady = (at: Ticks) => points.findLast((p) => p.at <= at)?.percent ?? 100;
  const places = new Map(points.map((p) => [p.at, p]));
  for (const at of stops.flatMap((s) => [s.at, s.to]))
    if (!places.has(at)) places.set(at, { at, percent: steady(at), sign: 'stop' });
  return [...places.values()].sort((a, b) => a.at - b.at).map((p) => (inStop(p.at) ? { ...p, percent: p.percent / 2 } : p));
}

/** The last chord as it is struck at the end of a song: as it stands, or rolled from the bottom. */
export function withLastTouch(chords: readonly VoicedChord[], touch: LastTouch, beat: number): readonly VoicedChord[] {
  const last = chords[chords.length - 1];
  if (touch !== 'rolled' || !last || last.spread !== 'together' || last.pitches.length < 2) return chords;
  // A roll within the hand holds every key that it has struck.
  const end = last.at + last.length;
  const struck = struckNotes(last.pitches, 'rolled', { at: last.at, length: last.length, beat }).map((n) => ({
    ...n,
    length: end - n.at,
  }));
  return [...chords.slice(0, -1), { ...last, spread: 'rolled', struck }];
}

/** The last chord as a low root, in octaves where the hand holds them; null where the chord has no root to strike. */
export function lowOctave(chord: VoicedChord, hands: Hands): RealisedTexture | null {
  const parsed = parseChord(chord.symbol);
  if (parsed.kind !== 'chord') return null;
  const { low } = KEYBOARDS[hands.keys];
  let root = pitchAt(parsed.bass ?? parsed.root, LOWEST_ROOT);
  while (midiOf(root) < Math.max(low, LOWEST_ROOT)) root = octaveUp(root, 1);
  const wide = spanOf(hands, 'left').limit >= 12;
  const pitches = wide ? [root, octaveUp(root, 1)] : [root];
  return {
    texture: CLOSING,
    title: 'a low octave to close',
    shaped: false,
    notes: pitches.map((pitch) => ({ at: chord.at, length: chord.length, pitch, role: 'bass' })),
    bends: wide ? [] : [{ code: 'bend.no-octave', pitch: root }],
  };
}

/** The root of a closing octave lies from E1 up, low and still clear. */
const LOWEST_ROOT = 28;
