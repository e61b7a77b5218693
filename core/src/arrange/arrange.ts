import { divide } from '../divide/divide.js';
import { findRepeats, type RepeatOf } from '../divide/repeats.js';
import { collisionSentence, findCollisions } from '../join/collisions.js';
import { togetherPoints, type Together } from '../join/together.js';
import { blockStrikes } from '../left-hand/strikes.js';
import { voiceLeftHand, type VoicedChord } from '../left-hand/voice.js';
import { nameWithMelody } from '../harmony/naming.js';
import { parseChord } from '../harmony/symbol.js';
import { nameOf, type Pitch } from '../pitch/pitch.js';
import type { Document } from '../song/decisions.js';
import { chordSpans, type MelodyNote, type Song } from '../song/song.js';
import { barSpan, capital, layBars, placeName, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { checkVoicings, partFinder, type Finding } from './findings.js';
import { resolveSong } from './resolve.js';

/** A chord of a part, with what the tune on top makes of it. */
export interface PartChord extends VoicedChord {
  /** "F7/A" for F/A under E flat; null where the tune makes nothing with a name. */
  readonly withMelody: string | null;
}

/** One numbered part. */
export interface Part {
  readonly number: number;
  /** The form letter: parts that repeat each other share it. */
  readonly label: string;
  /** The pianist's own name for it, or null. */
  readonly name: string | null;
  readonly start: Ticks;
  readonly end: Ticks;
  /** Numbers of the first and last bar. */
  readonly bars: { readonly from: number; readonly to: number };
  readonly repeats: RepeatOf | null;
  /** What spoke for cutting at its start. */
  readonly reasons: readonly string[];
  readonly melody: readonly MelodyNote[];
  readonly chords: readonly PartChord[];
  readonly together: readonly Together[];
}

/** A note that is played. */
export interface ScoreNote {
  readonly hand: 'left' | 'right';
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
  readonly finger: number | null;
  readonly role: 'melody' | 'chord' | 'bass' | 'harmony' | 'fill';
  readonly part: number;
}

/** All that is computed from a document */
export interface Arrangement {
  /** The song as it is played: with the pianist's chords, and with the tune on the keyboard's keys. */
  readonly song: Song;
  readonly bars: readonly Bar[];
  readonly parts: readonly Part[];
  readonly score: readonly ScoreNote[];
  readonly findings: readonly Finding[];
  readonly totals: { readonly leftTravel: number; readonly leftTravelRoot: number; readonly pathCost: number };
}

/**
 * Computes the arrangement of a document: parts, voicings, joins, score and findings. Pure and deterministic; the
 * time it takes grows linearly with the song.
 */
export function arrange(doc: Document): Arrangement {
  const { song, findings } = resolveSong(doc);
  const bars = layBars(song);
  const spans = chordSpans(song);
  const strikes = blockStrikes(spans, bars);
  const pins = new Map(doc.choices.pins.map((p) => [p.at, p.pitches]));
  const left = voiceLeftHand(strikes, song.melody, doc.hands, pins);
  const together = togetherPoints(left.chords, song.melody, bars);
  const stretches = divide(song, bars, doc.choices);
  const form = findRepeats(song, stretches, spans);
  const names = new Map(doc.choices.names.map((n) => [n.at, n.name]));
  const notesOf = sliceBy(song.melody);
  const chordsOf = sliceBy(left.chords);
  const joinsOf = sliceBy(together);
  const parts = stretches.map((stretch, i): Part => {
    const chords = chordsOf(stretch.end);
    const joins = joinsOf(stretch.end);
    return {
      number: i + 1,
      label: form[i].label,
      name: names.get(stretch.start) ?? null,
      start: stretch.start,
      end: stretch.end,
      bars: barSpan(bars, stretch.start, stretch.end),
      repeats: form[i].repeats,
      reasons: stretch.reasons,
      melody: notesOf(stretch.end),
      chords: chords.map((c, k) => ({ ...c, withMelody: withMelody(c, joins[k]) })),
      together: joins,
    };
  });
  const partOf = partFinder(parts);
  return {
    song,
    bars,
    parts,
    score: parts.flatMap(scoreOf),
    findings: [
      ...findings,
      ...checkVoicings(left.chords, doc, partOf, bars),
      ...findCollisions(left.chords, song.melody).map((c): Finding => {
        return {
          rule: `collision-${c.kind}`,
          severity: c.kind === 'close' ? 'warn' : 'fix',
          at: c.at,
          part: partOf(c.chord.at),
          chordAt: c.chord.at,
          message: `${capital(placeName(bars, c.at))}: ${collisionSentence(c)}`,
          fixes: ['another inversion', 'fewer notes', 'the tune up an octave'],
        };
      }),
    ].sort((a, b) => (a.at ?? 0) - (b.at ?? 0)),
    totals: { leftTravel: left.travel, leftTravelRoot: left.travelRoot, pathCost: Math.round(left.cost * 1000) / 1000 },
  };
}

/** Hands out the items of an ordered list stretch by stretch, each item once. */
function sliceBy<T extends { readonly at: Ticks }>(items: readonly T[]): (end: Ticks) => T[] {
  let from = 0;
  return (end) => {
    const start = from;
    while (from < items.length && items[from].at < end) from++;
    return items.slice(start, from);
  };
}

function withMelody(chord: VoicedChord, join: Together): string | null {
  const note = join.melody ?? join.under;
  const parsed = parseChord(chord.symbol);
  if (note === null || parsed.kind !== 'chord') return null;
  return nameWithMelody(parsed, nameOf(note));
}

function scoreOf(part: Part): ScoreNote[] {
  const notes: ScoreNote[] = part.melody.map((n) => ({
    hand: 'right',
    at: n.at,
    length: n.length,
    pitch: n.pitch,
    finger: null,
    role: 'melody',
    part: part.number,
  }));
  for (const chord of part.chords) {
    chord.pitches.forEach((pitch, k) =>
      notes.push({
        hand: 'left',
        at: chord.at,
        length: chord.length,
        pitch,
        finger: chord.fingers[k] ?? null,
        role: chord.form === 'one-note' ? 'bass' : 'chord',
        part: part.number,
      }),
    );
  }
  return notes.sort((a, b) => a.at - b.at || (a.hand === b.hand ? 0 : a.hand === 'right' ? -1 : 1));
}
