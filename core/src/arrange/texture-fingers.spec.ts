import { describe, expect, it } from 'vitest';
import { documentOf, songOf } from '../../testing/songs.js';
import { ALL_KEYS } from '../../testing/tunes.js';
import { scaleOf, type Key } from '../harmony/key.js';
import { isBlackKey, midiOf, pitchAt, pitchClass } from '../pitch/pitch.js';
import { handsOf, HAND_PROFILES, type HandProfile, type School } from '../song/decisions.js';
import { setSchool, setSetting } from '../song/edits.js';
import { arrange } from './arrange.js';
import type { PartChord } from './arrangement.js';

/** The triads on the first, fourth, fifth and sixth degree of a key, a bar each, under a tune far above them. */
function fourChords(key: Key): ReturnType<typeof documentOf> {
  const names = scaleOf(key);
  const minor = key.mode === 'minor';
  const chords = [0, 3, 4, 5].map((d, i) => [i * 4, names[d] + (minor === d < 5 ? 'm' : '')] as const);
  const high = pitchAt(names[0], 72 + pitchClass(names[0]));
  return documentOf(
    songOf(
      chords.map(() => [high, 4] as const),
      chords,
      { key },
    ),
  );
}

const chordsIn = (key: Key, texture: string, profile: HandProfile, school: School = 'close'): readonly PartChord[] =>
  arrange(setSetting(setSchool({ ...fourChords(key), hands: handsOf(profile) }, school), null, 'texture', texture)).parts.flatMap(
    (p) => p.chords,
  );

/** The attacks of a dressed chord: keys and fingers, bottom-up. */
const attacks = ({ dressed }: PartChord) =>
  [...new Set(dressed?.notes.map((n) => n.at))].map((at) => {
    const notes = (dressed?.notes ?? []).flatMap((n, i) => (n.at === at ? [{ ...n, finger: dressed?.fingers[i] ?? 0 }] : []));
    return notes.sort((a, b) => midiOf(a.pitch) - midiOf(b.pitch));
  });

describe('a bass with its chord, in every key and hand', () => {
  it.each(['bass-chord', 'bass-chord-chord', 'alternating-bass'])('%s: the bass is 5, the chord keeps its fingers', (texture) => {
    for (const key of ALL_KEYS)
      for (const profile of HAND_PROFILES)
        for (const chord of chordsIn(key, texture, profile)) {
          const shape = new Map(chord.pitches.map((p, i) => [p, chord.fingers[i]]));
          for (const attack of attacks(chord)) {
            if (attack.length === 1 && attack[0].role === 'bass') expect(attack[0].finger).toBe(5);
            if (attack.length > 1) expect(attack.map((n) => n.finger)).toEqual(attack.map((n) => shape.get(n.pitch)));
          }
        }
  });

  it('octaves are 5-1 where the hand spans them, fifths 5-1 in their own school', () => {
    for (const key of ALL_KEYS)
      for (const profile of HAND_PROFILES) {
        if (profile !== 'child')
          for (const chord of chordsIn(key, 'octave-bass', profile))
            expect(attacks(chord).map(([n]) => n.finger)).toEqual([5, 1, 5, 1]);
        for (const chord of chordsIn(key, 'counted-block', profile, 'fifths'))
          for (const attack of attacks(chord)) if (attack.length === 2) expect(attack.map((n) => n.finger)).toEqual([5, 1]);
      }
  });
});

describe('lines of the bass', () => {
  it('four keys down by step, a bar each, take neighbouring fingers', () => {
    for (const key of ALL_KEYS) {
      const names = scaleOf(key);
      const down = [3, 2, 1, 0].map((d, i) => [i * 4, `${names[0]}/${names[d]}`] as const);
      const doc = documentOf(
        songOf(
          down.map(() => ['C6', 4] as const),
          down,
          { key },
        ),
      );
      const bass = arrange(setSetting(doc, null, 'texture', 'long-bass')).parts.flatMap((p) => p.chords.flatMap(attacks));
      const fingers = bass.flatMap((a) => a.map((n) => n.finger));
      const keys = bass.flatMap((a) => a.map((n) => midiOf(n.pitch)));
      // Where the line leaps an octave to stay on the lowest keys, and where it ends on a black key, the fingers follow.
      const steps = keys.every((k, i) => i === 0 || (keys[i - 1] - k > 0 && keys[i - 1] - k < 4));
      if (!steps) continue;
      expect(fingers.map((f) => f - fingers[0])).toEqual([0, 1, 2, 3]);
      if (!isBlackKey(keys[3])) expect(fingers[0]).toBe(1);
    }
  });

  it('a step that leads down to the next bass is its neighbour', () => {
    for (const key of ALL_KEYS) {
      const chords = chordsIn(key, 'step-line', 'medium');
      chords.slice(0, -1).forEach((chord, i) => {
        const last = attacks(chord).at(-1);
        const [next] = attacks(chords[i + 1]);
        const by = midiOf(last?.[0].pitch ?? 'C1') - midiOf(next[0].pitch);
        if (last?.[0].role === 'fill' && by > 0 && by < 4) expect([last[0].finger, next[0].finger]).toEqual([4, 5]);
      });
    }
  });
});
