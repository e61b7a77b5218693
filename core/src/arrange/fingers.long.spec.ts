import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { songs } from '../../testing/songs.js';
import { TEXTURES } from '../catalogue/textures/list.js';
import { spansFor } from '../fingers/spans.js';
import { isBlackKey, midiOf } from '../pitch/pitch.js';
import { HAND_PROFILES, handsOf, newDocument, SCHOOLS, type Document, type Hands } from '../song/decisions.js';
import { setSchool, setSetting } from '../song/edits.js';
import type { Song } from '../song/song.js';
import { arrange } from './arrange.js';
import type { Arrangement, Part, PartChord, ScoreNote } from './arrangement.js';

const dressed = fc.record({
  song: songs({ maxBars: 6 }),
  profile: fc.constantFrom(...HAND_PROFILES),
  texture: fc.constantFrom(...TEXTURES.map((t) => t.id)),
  school: fc.constantFrom(...SCHOOLS),
});

function documentFor({ song, profile, texture, school }: typeof dressed extends fc.Arbitrary<infer T> ? T : never): Document {
  const doc = { ...newDocument(song), hands: handsOf(profile) };
  return setSetting(setSchool(doc, school), null, 'texture', texture);
}

/** Pairs of fingers that hold keys of one hand at once and cannot: in the wrong order, twice the same, or past their span. */
function impossible(score: readonly ScoreNote[], hands: Hands): string[] {
  return (['left', 'right'] as const).flatMap((hand) => {
    const spans = spansFor(hands, hand);
    const notes = score.filter((n) => n.hand === hand && n.finger !== null);
    return notes.flatMap((a, i) =>
      notes.slice(i + 1).flatMap((b) => {
        if (b.at >= a.at + a.length || a.at >= b.at + b.length || a.pitch === b.pitch) return [];
        const [low, high] = midiOf(a.pitch) < midiOf(b.pitch) ? [a, b] : [b, a];
        const [inner, outer] = hand === 'right' ? [low, high] : [high, low];
        const [first, last] = [inner.finger ?? 0, outer.finger ?? 0];
        const told = `${hand} ${low.pitch} ${low.finger} with ${high.pitch} ${high.finger} at ${b.at}`;
        if (first >= last) return [told];
        const wide = midiOf(high.pitch) - midiOf(low.pitch);
        // What is wider than the whole hand is told as such: no fingers reach it.
        return wide > spans(first, last).practicalMax && wide <= spans(1, 5).practicalMax ? [told] : [];
      }),
    );
  });
}

/** A song that is played through twice. */
const twice = (song: Song): Song => ({
  ...song,
  length: 2 * song.length,
  melody: [...song.melody, ...song.melody.map((n) => ({ ...n, at: n.at + song.length }))],
  chords: [...song.chords, ...song.chords.map((c) => ({ ...c, at: c.at + song.length }))],
});

const chordsOf = (a: Arrangement): PartChord[] => a.parts.flatMap((p) => [...p.chords]);

/** What a chord's pattern is to the hand: distances, colours and times, of the chord as learned and of what is struck. */
function printOf({ at, length, pitches, school, dressed: d }: PartChord): string {
  const [low] = (d?.notes ?? []).map((n) => midiOf(n.pitch)).sort((x, y) => x - y);
  const key = (pitch: string) => `${midiOf(pitch) - low}${isBlackKey(midiOf(pitch)) ? 'b' : 'w'}`;
  // Two notes are fingered by where the hand lies.
  const where = school === 'two-note' ? pitches : [];
  return [
    length,
    ...where,
    d?.shaped,
    pitches.map(key).join('+'),
    ...(d?.notes ?? []).map((n) => `${n.at - at}:${key(n.pitch)}`),
  ].join(' ');
}

describe('fingers of whole arrangements', () => {
  it('never ask two fingers for more than they span, nor in the wrong order, in any texture, school and hand', () => {
    fc.assert(
      fc.property(dressed, (choice) => {
        const doc = documentFor(choice);
        expect(impossible(arrange(doc).score, doc.hands)).toEqual([]);
      }),
      { numRuns: 500 },
    );
  });

  it('are the same wherever one pattern lies over one shape', () => {
    fc.assert(
      fc.property(dressed, (choice) => {
        const known = new Map<string, string>();
        for (const chord of chordsOf(arrange(documentFor(choice)))) {
          // Single notes that lead from chord to chord are a line, not a pattern.
          const places = new Set(chord.dressed?.notes.map((n) => n.at));
          const single = places.size === chord.dressed?.notes.length && places.size <= 2;
          if (!chord.dressed || single) continue;
          const fingers = chord.dressed.fingers.join(' ');
          expect(fingers).toBe(known.get(printOf(chord)) ?? fingers);
          known.set(printOf(chord), fingers);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('of a chord inside a texture are those of its shape', () => {
    fc.assert(
      fc.property(dressed, (choice) => {
        for (const { pitches, fingers, spread, dressed: d } of chordsOf(arrange(documentFor(choice)))) {
          // What is learned note by note is another thing where it is struck at once.
          if (spread !== 'together' || d?.shaped !== true) continue;
          const { notes } = d;
          notes.forEach((n, i) => {
            const together = notes.filter((m) => m.at === n.at);
            const keys = together.map((m) => m.pitch);
            const whole = keys.length > 1 && [pitches, pitches.slice(1)].some((p) => p.join() === keys.join());
            if (whole) expect(d.fingers[i]).toBe(fingers[pitches.indexOf(n.pitch)]);
          });
        }
      }),
      { numRuns: 150 },
    );
  });

  it('are the same in parts that repeat exactly', () => {
    let compared = 0;
    fc.assert(
      fc.property(dressed, fc.boolean(), (choice, plain) => {
        fc.pre(choice.song.pickup === 0);
        const { parts, score } = arrange(
          documentFor({ ...choice, song: twice(choice.song), texture: plain ? 'block' : choice.texture }),
        );
        const played = (part: Part, hand: 'left' | 'right', what: (n: ScoreNote) => unknown) =>
          score.filter((n) => n.part === part.number && n.hand === hand).map((n) => [n.at - part.start, what(n)]);
        for (const part of parts) {
          const first = parts.find((p) => p.number === part.repeats?.part);
          if (!first || part.repeats?.kind !== 'exact') continue;
          // A chord that lies otherwise is another shape under the hand.
          const shapes = [first, part].map((p) => p.chords.map((c) => c.pitches.join('+')).join());
          if (shapes[0] !== shapes[1]) continue;
          for (const hand of ['left', 'right'] as const) {
            const keys = [first, part].map((p) => JSON.stringify(played(p, hand, (n) => `${n.pitch} ${n.length}`)));
            if (keys[0] !== keys[1]) continue;
            compared++;
            expect(played(part, hand, (n) => n.finger)).toEqual(played(first, hand, (n) => n.finger));
          }
        }
      }),
      { numRuns: 100 },
    );
    expect(compared).toBeGreaterThan(20);
  });
});
