import type { Arrangement, Part, ScoreNote } from '../arrange/arrangement.js';
import { midiOf } from '../pitch/pitch.js';
import { lastFrom } from '../time/bars.js';
import { heardIn } from '../time/swing.js';
import { secondsTo } from '../time/tempo.js';
import type { Ticks } from '../time/ticks.js';
import type { PracticeRange } from '../log/step.js';
import type { ExpectedNote } from './grade.js';

/** What is heard of a note. */
export type PracticeNote = Pick<ScoreNote, 'hand' | 'at' | 'length' | 'pitch' | 'loudness' | 'finger' | 'touch' | 'graces'>;

/** What is played while texture, harmony and fills are still to come: the tune, and the left hand's chords as they are voiced. */
export function plainScore({ score, parts, playMode }: Pick<Arrangement, 'score' | 'parts' | 'playMode'>): PracticeNote[] {
  if (playMode !== 'arranged') return [...score];
  const under = score.find((n) => n.hand === 'left')?.loudness ?? 0.5;
  const left = parts.flatMap((p) =>
    p.chords.flatMap((c) =>
      c.struck.map((n) => ({
        ...n,
        hand: 'left' as const,
        loudness: under,
        finger: c.fingers[c.pitches.indexOf(n.pitch)] ?? null,
      })),
    ),
  );
  const added = new Set(parts.flatMap((p) => p.under.filter((u) => u.added).map((u) => u.at)));
  const right = score.filter((n) => n.hand === 'right' && n.role !== 'fill' && !(n.role === 'harmony' && added.has(n.at)));
  return [...right, ...left];
}

/** A note to be played with the place in the song that it stands at. */
export interface PlacedNote extends ExpectedNote {
  readonly place: Ticks;
  readonly finger: number | null;
}

/** The notes of a stretch as they are to be played, in order; each key at one place once. */
export function notesOf(arrangement: Arrangement, { from, to, hands, plain }: PracticeRange): PlacedNote[] {
  const heardAt = heardIn(arrangement);
  // At 60 a quarter takes a second: where it slows down or stops, what follows comes later.
  const heard = (at: Ticks) => secondsTo(heardAt(at), arrangement.tempo, 60);
  const start = heard(from);
  const notes: PlacedNote[] = [];
  const seen = new Set<string>();
  for (const n of plain ? plainScore(arrangement) : arrangement.score) {
    if (n.at < from || n.at >= to || (hands !== 'both' && n.hand !== hands)) continue;
    const midi = midiOf(n.pitch);
    const print = `${n.at} ${midi}`;
    if (seen.has(print)) continue;
    seen.add(print);
    const chord = n.hand === 'left' ? chordAt(arrangement.parts, n.at) : null;
    notes.push({ midi, at: heard(n.at) - start, hand: n.hand, chord, place: n.at, finger: n.finger });
  }
  return notes.sort((a, b) => a.place - b.place || a.midi - b.midi);
}

function chordAt(parts: readonly Part[], at: Ticks): string | null {
  const part = lastFrom(parts, at);
  return part?.chords.findLast((c) => c.at <= at)?.symbol ?? null;
}
