import { arrange } from '../src/arrange/index.js';
import { grouped } from '../src/lists/grouped.js';
import type { ExpectedNote, HeardNote } from '../src/practice/grade.js';
import { notesOf, playStandIn, stepsOf, type PlayingManner } from '../src/practice/index.js';
import { newDocument } from '../src/song/decisions.js';
import { makeTune } from './made-tunes.js';
import type { Struck } from './pianos.js';

/** A take of a step: what is asked, what was really struck, and at how many quarter notes a minute it is asked for. */
export interface Take {
  readonly hands: 'right' | 'left' | 'both';
  readonly notes: readonly ExpectedNote[];
  readonly struck: readonly Struck[];
  readonly tempo: number;
}

/** Keys that lie so many half steps apart at most are played by one hand. */
const ONE_HAND = 10;

/** Keys as they are held: until the next one near them, at most two seconds; some softer, some harder. */
const held = (keys: readonly HeardNote[], tempo: number): Struck[] =>
  keys.map(({ midi, time }, i) => {
    const next = keys.slice(i + 1).find((k) => k.time - time > 0.06 && Math.abs(k.midi - midi) < ONE_HAND);
    const length = Math.min(2, Math.max(0.1, (next?.time ?? time + 120 / tempo) - time));
    return { midi, time, length, loudness: 0.45 + 0.025 * ((i * 37) % 10) };
  });

/** What a learner makes of things: slips at known rates, and a tempo that hardly breathes. */
export const LEARNER: Omit<PlayingManner, 'tempo'> = { wrong: 0.05, missed: 0.04, extra: 0.02, drift: 0.04, uneven: 0.012 };

/** Takes of parts of made tunes, numbered from one on, by the right hand, the left and both, with planted slips. */
export function takesOf(tunes: readonly number[], manner: Omit<PlayingManner, 'tempo'>): Take[] {
  return tunes.flatMap((n) => {
    const made = makeTune(n, n % 2 === 0 ? 'minor' : 'major');
    const arrangement = arrange(newDocument({ ...made.song, chords: [...made.chords] }));
    const steps = stepsOf(arrangement, { order: 'song', joins: 'chain' });
    const tempo = [72, 88, 104, 120][n % 4];
    return (['right', 'left', 'tempo'] as const).flatMap((kind, k) =>
      steps
        .filter((s) => s.kind === kind)
        .slice(0, 2)
        .flatMap((step, i): Take[] => {
          const notes = notesOf(arrangement, step);
          const { heard } = playStandIn(notes, { ...manner, tempo }, 10 * n + 2 * k + i);
          return notes.length < 3 ? [] : [{ hands: kind === 'tempo' ? 'both' : kind, notes, struck: held(heard, tempo), tempo }];
        }),
    );
  });
}

/** A take with two seconds of silence in its middle. */
export function withStop(take: Take): Take {
  const middle = take.struck[take.struck.length >> 1].time - 0.05;
  const struck = take.struck.map((s) => {
    if (s.time > middle) return { ...s, time: s.time + 2 };
    return { ...s, length: Math.max(0.1, Math.min(s.length, middle - s.time)) };
  });
  return { ...take, struck };
}

/** How a chord is played otherwise than it is asked for; octaves and inversions are not told apart by ear. */
export type OtherChord = 'half step' | 'whole step' | 'quality' | 'neighbour' | 'octave' | 'inversion';

const OTHERS: Readonly<Record<OtherChord, (keys: readonly number[], next: readonly number[]) => readonly number[]>> = {
  'half step': (keys) => keys.map((k) => k + 1),
  'whole step': (keys) => keys.map((k) => k - 2),
  // The key next to the lowest is a third, or what stands for one.
  quality: (keys) => keys.map((k, i) => (i === 1 ? k - 1 : k)),
  neighbour: (_, next) => next,
  octave: (keys) => keys.map((k) => k + 12),
  inversion: ([lowest, ...rest]) => [...rest, lowest + 12],
};

/** A take of chords in which every other one is played otherwise. */
export function withOtherChords(take: Take, other: OtherChord): Take {
  const groups = [...grouped([...take.notes], (n) => n.at)];
  const beat = 60 / take.tempo;
  const keys = groups.flatMap(([at, notes], i) => {
    const asked = notes.map((n) => n.midi).sort((a, b) => a - b);
    const next = (groups[i + 1] ?? groups[i - 1])[1].map((n) => n.midi);
    const struck = i % 2 === 0 ? asked : OTHERS[other](asked, next);
    return struck.map((midi) => ({ midi, time: 0.5 + at * beat }));
  });
  return { ...take, struck: held(keys, take.tempo) };
}
