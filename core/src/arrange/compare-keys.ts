import { keyName, keysOf, signatureOf, type Key } from '../harmony/key.js';
import { isBlackKey, midiOf, pitchClass, type Pitch } from '../pitch/pitch.js';
import { JUMP } from '../join/jumps.js';
import { spanOf, type Document } from '../song/decisions.js';
import { transposeDocument } from '../song/edits.js';
import { arrange } from './arrange.js';
import type { Arrangement } from './arrangement.js';
import { songDifficulty } from './song-difficulty.js';

/** What a song asks for in one key. */
export interface KeyFacts {
  readonly key: Key;
  readonly name: string;
  /** Sharps above 0, flats below. */
  readonly signature: number;
  /** Notes that are played, and how many of them on black keys. */
  readonly notes: number;
  readonly black: number;
  /** Chords past the comfortable span, spread or thinned. */
  readonly stretches: number;
  /** Jumps of a fifth or more, of both hands. */
  readonly jumps: number;
  /** Lowest and highest key that is played. */
  readonly low: Pitch;
  readonly high: Pitch;
  /** True where the tune does not fit the keyboard in this key. */
  readonly moved: boolean;
  /** Difficulty of the song, 0 to 100. */
  readonly difficulty: number;
  /** True for the key it is in now. */
  readonly current: boolean;
}

/** A song in all twelve keys of its mode, from C upwards; the one it is in keeps its spelling. */
export function compareKeys(doc: Document): KeyFacts[] {
  return keysOf(doc.song.key.mode).map((key) => {
    const current = pitchClass(key.tonic) === pitchClass(doc.song.key.tonic);
    return current
      ? factsOf(doc, arrange(doc), doc.song.key, true)
      : factsOf(doc, arrange(transposeDocument(doc, key)), key, false);
  });
}

function factsOf({ hands }: Document, arrangement: Arrangement, key: Key, current: boolean): KeyFacts {
  const { score, parts, findings } = arrangement;
  const sorted = [...score].sort((a, b) => midiOf(a.pitch) - midiOf(b.pitch));
  const comfortable = spanOf(hands, 'left').comfortable;
  const wide = parts
    .flatMap((p) => p.chords)
    .filter((c) => c.spread !== 'together' || midiOf(c.pitches[c.pitches.length - 1]) - midiOf(c.pitches[0]) > comfortable);
  return {
    key,
    current,
    name: keyName(key),
    signature: signatureOf(key),
    notes: score.length,
    black: score.filter((n) => isBlackKey(midiOf(n.pitch))).length,
    stretches: wide.length,
    jumps: parts.flatMap((p) => p.jumps).filter((j) => j.distance >= JUMP.distance).length,
    low: sorted[0]?.pitch ?? 'C4',
    high: sorted.at(-1)?.pitch ?? 'C4',
    moved: findings.some((f) => f.rule === 'tune-moved' || f.rule === 'tune-folded'),
    difficulty: songDifficulty(parts),
  };
}
