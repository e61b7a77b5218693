import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, nameOf, type Pitch } from '../pitch/pitch.js';
import type { MelodyNote } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';

/** Two hands in each other's way: on one key, crossed, or closer than a small third. */
export interface Collision {
  readonly at: Ticks;
  readonly kind: 'same-key' | 'crossing' | 'close';
  readonly left: Pitch;
  readonly right: Pitch;
  readonly chord: VoicedChord;
}

const CLOSE = 3;

/** Every place where a sounding left-hand note meets the tune; one, the worst, for each chord. */
export function findCollisions(chords: readonly VoicedChord[], melody: readonly MelodyNote[]): Collision[] {
  const found: Collision[] = [];
  let from = 0;
  for (const chord of chords) {
    const end = chord.at + chord.length;
    while (from < melody.length && melody[from].at + melody[from].length <= chord.at) from++;
    const lefts = chord.pitches.map((p) => ({ pitch: p, midi: midiOf(p) }));
    let worst: (Collision & { gap: number }) | null = null;
    for (let i = from; i < melody.length && melody[i].at < end; i++) {
      const right = midiOf(melody[i].pitch);
      for (const left of lefts) {
        const gap = right - left.midi;
        if (gap >= CLOSE) continue;
        const kind = gap === 0 ? 'same-key' : gap < 0 ? 'crossing' : 'close';
        const graver = worst === null || rank(kind) > rank(worst.kind) || (kind === worst.kind && gap < worst.gap);
        if (!graver) continue;
        const at = Math.max(melody[i].at, chord.at);
        worst = { at, kind, left: left.pitch, right: melody[i].pitch, chord, gap };
      }
    }
    if (worst) {
      const { gap: _gap, ...collision } = worst;
      found.push(collision);
    }
  }
  return found;
}

const rank = (kind: Collision['kind']): number => ['close', 'crossing', 'same-key'].indexOf(kind);

/** A collision in a sentence. */
export function collisionSentence(c: Collision): string {
  switch (c.kind) {
    case 'same-key':
      return `Both hands want ${c.left}.`;
    case 'crossing':
      return `The left hand's ${c.left} lies above the tune's ${c.right}: the hands cross.`;
    case 'close':
      return `${nameOf(c.left)} in the left hand lies right under the tune's ${c.right}.`;
  }
}
