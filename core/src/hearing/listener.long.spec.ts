import { beforeAll, describe, expect, it } from 'vitest';
import { heardInRoom, LEAD, listen, QUIET_ROOM, RATE, type Room } from '../../testing/pianos.js';
import { LEARNER, takesOf, withOtherChords, withStop, type OtherChord, type Take } from '../../testing/takes.js';
import { grade, waitPlaces, type Grade } from '../practice/index.js';
import { PianoListener } from './listener.js';

/** Weights were set on the other piano; this one was never used for it. */
const QUIET: Room = { ...QUIET_ROOM, piano: 'apart' };
/** Pedal, a room that rings, noise, and a piano that stands low. */
const HARD: Room = { piano: 'apart', pedal: true, rings: true, noise: -20, cents: -15 };

/** Takes in which nothing goes wrong, and those that slip at known rates. */
const CLEAN = { wrong: 0, missed: 0, extra: 0, drift: 0, uneven: 0 };
const OTHERS: readonly OtherChord[] = ['half step', 'whole step', 'quality', 'neighbour'];

const steady = takesOf([204, 205], LEARNER);
const more = takesOf([201, 202, 203], LEARNER);
const drifting = takesOf([204, 205], { ...LEARNER, drift: 0.2 });
const stopping = steady.map(withStop);
const otherChords = OTHERS.flatMap((other) =>
  takesOf([201, 202, 203, 204], CLEAN)
    .filter((t) => t.hands === 'left')
    .map((take) => withOtherChords(take, other)),
);

interface Graded {
  readonly truth: Grade;
  readonly told: Grade;
}

/** Takes as their true keys are graded, and as those that were heard are. */
function graded(takes: readonly Take[], room: Room): Map<Take, Graded> {
  const sounds = heardInRoom(
    takes.map((t) => t.struck),
    room,
  );
  return new Map(
    takes.map((take, i) => {
      const { notes, struck, tempo } = take;
      const listener = new PianoListener(RATE);
      listener.expect(waitPlaces(notes));
      const keys = listen(listener, sounds[i]).map(({ midi, at }) => ({ midi, time: at / RATE - LEAD }));
      const options = { tempo, octavesForgiven: false };
      return [take, { truth: grade(notes, struck, options), told: grade(notes, keys, options) }];
    }),
  );
}

/** Per cent of notes on whose being right both agree, and of right ones on whose timing; by what was practised. */
function agreement(takes: readonly Take[], grades: ReadonlyMap<Take, Graded>) {
  const of = (hands: Take['hands']) => {
    const sum = { notes: 0, agree: 0, right: 0, timed: 0, refused: 0 };
    for (const take of takes.filter((t) => t.hands === hands)) {
      const { truth, told } = gradesOf(take, grades);
      truth.notes.forEach((note, k) => {
        const other = told.notes[k];
        const [really, heard] = [note.verdict === 'right', other.verdict === 'right'];
        sum.notes++;
        if (really === heard) sum.agree++;
        if (really && !heard) sum.refused++;
        if (really && heard) sum.right++;
        if (really && heard && note.timing === other.timing) sum.timed++;
      });
    }
    if (sum.notes === 0) throw new Error(`Nothing was played by ${hands}.`);
    const { notes, agree, right, timed, refused } = sum;
    return { notes, agree: (100 * agree) / notes, timed: (100 * timed) / right, refused: (100 * refused) / notes };
  };
  const all = { right: of('right'), left: of('left'), both: of('both') };
  console.log(JSON.stringify(all, (_, v: unknown) => (typeof v === 'number' ? Math.round(v * 10) / 10 : v)));
  return all;
}

function gradesOf(take: Take, grades: ReadonlyMap<Take, Graded>): Graded {
  const found = grades.get(take);
  if (!found) throw new Error('A take was not heard.');
  return found;
}

describe('the listener on a piano that no weight was set by', () => {
  let quiet: ReadonlyMap<Take, Graded>;
  // The piano takes longer to load than most takes to play, so that all that is played in one room is played at once.
  beforeAll(() => {
    quiet = graded([...steady, ...more, ...drifting, ...stopping, ...otherChords], QUIET);
  });

  it('judges as the true keys are judged in a quiet room', () => {
    const { right, left, both } = agreement([...steady, ...more], quiet);
    expect(right.agree).toBeGreaterThanOrEqual(95);
    expect(left.agree).toBeGreaterThanOrEqual(92);
    expect(both.agree).toBeGreaterThanOrEqual(90);
    for (const { timed, refused } of [right, left, both]) {
      expect(timed).toBeGreaterThanOrEqual(90);
      expect(refused).toBeLessThanOrEqual(5);
    }
  });

  it('judges so in a hard one', () => {
    const { right, left, both } = agreement(more, graded(more, HARD));
    expect(right.agree).toBeGreaterThanOrEqual(88);
    expect(left.agree).toBeGreaterThanOrEqual(84);
    expect(both.agree).toBeGreaterThanOrEqual(84);
  });

  it('loses little where the tempo breathes by a fifth, and where the pianist stops for two seconds', () => {
    const told = agreement(steady, quiet);
    for (const takes of [drifting, stopping]) {
      const other = agreement(takes, quiet);
      for (const hands of ['right', 'left', 'both'] as const)
        expect(other[hands].agree).toBeGreaterThanOrEqual(told[hands].agree - 3);
    }
  });

  it('does not let another chord pass', () => {
    let [wrong, passed] = [0, 0];
    for (const take of otherChords) {
      const { truth, told } = gradesOf(take, quiet);
      truth.notes.forEach(({ verdict }, k) => {
        if (verdict === 'right') return;
        wrong++;
        if (told.notes[k].verdict === 'right') passed++;
      });
    }
    console.log(`${passed} of ${wrong} other keys passed`);
    expect(wrong).toBeGreaterThan(90);
    expect(passed / wrong).toBeLessThanOrEqual(0.05);
  });
});
