import { nameWithMelody } from '../harmony/naming.js';
import type { ChordChoice } from '../harmony/choices.js';
import type { Key } from '../harmony/key.js';
import { parseChord } from '../harmony/symbol.js';
import { divide } from '../divide/divide.js';
import { findRepeats, type RepeatOf } from '../divide/repeats.js';
import { togetherPoints, type Together } from '../join/together.js';
import { blockStrikes } from '../left-hand/strikes.js';
import { voiceLeftHand, type VoicedChord } from '../left-hand/voice.js';
import { nameOf, type Pitch } from '../pitch/pitch.js';
import { notesUnderTune, type UnderNote } from '../right-hand/under-melody.js';
import type { Document } from '../song/decisions.js';
import { chordSpans, type MelodyNote, type Song } from '../song/song.js';
import { barSpan, layBars, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { examine, partFinder, type Finding } from './findings.js';
import { harmonise, type HarmonisedChord } from './harmonise.js';
import { resolveTune, sayChords } from './resolve.js';
import { wishesOf } from './wishes.js';

/** A chord of a part, with what the tune on top makes of it. */
export interface PartChord extends VoicedChord {
  /** "F7/A" for F/A under E flat; null where the tune makes nothing with a name. */
  readonly withMelody: string | null;
  /** Whether the song brought the chord, the pianist wrote it, or it was suggested. */
  readonly source: HarmonisedChord['source'];
  /** The key it is heard in. */
  readonly key: Key;
  /** What the chord does for the tune and where it leads. */
  readonly chordWhy: string;
  /** Three other chords for the place, the best first. */
  readonly otherChords: readonly ChordChoice[];
  /** Where the symbol stands that this strike belongs to. */
  readonly symbolAt: Ticks;
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
  /** Chord notes that the right hand holds under the tune. */
  readonly under: readonly UnderNote[];
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
  readonly totals: {
    readonly leftTravel: number;
    readonly leftTravelRoot: number;
    readonly pathCost: number;
    readonly motionWeight: number;
  };
}

/**
 * Computes the arrangement of a document: parts, voicings, joins, score and findings. Pure and deterministic; the
 * time it takes grows linearly with the song.
 */
export function arrange(doc: Document): Arrangement {
  const bars = layBars(doc.song);
  const { written, played, findings } = resolveTune(doc, bars);
  const tuneful: Song = { ...doc.song, melody: written };
  const stretches = divide(tuneful, bars, doc.choices);
  const harmony = harmonise(
    doc,
    written,
    bars,
    stretches.map((s) => s.end),
  );
  const song: Song = { ...doc.song, melody: played, chords: harmony.map(({ at, symbol }) => ({ at, symbol })) };
  const spans = chordSpans(song);
  const left = voiceLeftHand(blockStrikes(spans, bars), played, wishesOf(doc, spans));
  const under = notesUnderTune(left.chords, played, doc.hands, bars);
  const together = togetherPoints(left.chords, played, bars);
  const form = findRepeats({ ...song, melody: written }, stretches, spans);
  const names = new Map(doc.choices.names.map((n) => [n.at, n.name]));
  const notesOf = sliceBy(played);
  const chordsOf = sliceBy(withHarmony(left.chords, harmony, together));
  const joinsOf = sliceBy(together);
  const underOf = sliceBy(under);
  const parts = stretches.map((stretch, i): Part => {
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
      chords: chordsOf(stretch.end),
      together: joinsOf(stretch.end),
      under: underOf(stretch.end),
    };
  });
  const partOf = partFinder(parts);
  const score = parts.flatMap(scoreOf);
  const right = score.filter((n) => n.hand === 'right');
  return {
    song,
    bars,
    parts,
    score,
    findings: [
      ...findings,
      ...sayChords(doc, harmony, bars),
      ...examine({ doc, bars, chords: left.chords, harmony, tune: played, right, partOf }),
    ].sort((a, b) => (a.at ?? 0) - (b.at ?? 0)),
    totals: {
      leftTravel: left.travel,
      leftTravelRoot: left.travelRoot,
      pathCost: Math.round(left.cost * 1000) / 1000,
      motionWeight: left.motionWeight,
    },
  };
}

/** Puts what the harmony says beside every strike of its chord. */
function withHarmony(
  chords: readonly VoicedChord[],
  harmony: readonly HarmonisedChord[],
  joins: readonly Together[],
): PartChord[] {
  let h = 0;
  return chords.map((chord, i) => {
    while (h + 1 < harmony.length && harmony[h + 1].at <= chord.at) h++;
    const { source, key, why, others, at } = harmony[h];
    return { ...chord, withMelody: withMelody(chord, joins[i]), source, key, chordWhy: why, otherChords: others, symbolAt: at };
  });
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
  for (const { at, length, pitches } of part.under)
    for (const pitch of pitches)
      notes.push({ hand: 'right', at, length, pitch, finger: null, role: 'harmony', part: part.number });
  for (const chord of part.chords) {
    const role = chord.form === 'one-note' || chord.school === 'octave' || chord.school === 'under-melody' ? 'bass' : 'chord';
    chord.struck.forEach(({ at, length, pitch }, k) =>
      notes.push({ hand: 'left', at, length, pitch, finger: chord.fingers[k] ?? null, role, part: part.number }),
    );
  }
  return notes.sort((a, b) => a.at - b.at || (a.hand === b.hand ? 0 : a.hand === 'right' ? -1 : 1));
}
