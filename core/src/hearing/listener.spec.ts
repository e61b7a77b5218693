import { describe, expect, it } from 'vitest';
import { heardInRoom, QUIET_ROOM, RATE, type Room, type Struck } from '../../testing/pianos.js';
import { LEARNER, takesOf, withOtherChords, withStop, type OtherChord, type Take } from '../../testing/takes.js';
import { grade, waitPlaces, type Grade } from '../practice/index.js';
import { HEARING } from './figures.js';
import { PianoListener, type HeardKey } from './listener.js';
import { fitOf, type MeasuredKey } from './tuning.js';

/** Weights were set on the other piano; this one was never used for it. */
const QUIET: Room = { ...QUIET_ROOM, piano: 'apart' };
/** Pedal, a room that rings, noise, and a piano that stands low. */
const HARD: Room = { piano: 'apart', pedal: true, rings: true, noise: -20, cents: -15 };
/** A take begins after a second of the room alone. */
const LEAD = 1;

/** Gives a sound to a listener in blocks, as a microphone does. */
function listen(listener: PianoListener, sound: Float32Array): HeardKey[] {
  const heard: HeardKey[] = [];
  for (let k = 0; k + 1024 <= sound.length; k += 1024) heard.push(...listener.hear(sound.subarray(k, k + 1024)));
  return heard;
}

/** A take as its true keys are graded, and as those that were heard are. */
function graded({ notes, struck, tempo }: Take, sound: Float32Array): { truth: Grade; told: Grade } {
  const listener = new PianoListener(RATE);
  listener.expect(waitPlaces(notes));
  const keys = listen(listener, sound).map(({ midi, at }) => ({ midi, time: at / RATE - LEAD }));
  const options = { tempo, octavesForgiven: false };
  return { truth: grade(notes, struck, options), told: grade(notes, keys, options) };
}

/** Sounds of takes, each rendered once. */
const rendered = (takes: readonly Take[], room: Room): Float32Array[] =>
  heardInRoom(
    takes.map((t) => t.struck),
    room,
  );

/** Per cent of notes on whose being right both agree, and of right ones on whose timing; by what was practised. */
function agreement(takes: readonly Take[], room: Room) {
  const sums = new Map<Take['hands'], { notes: number; agree: number; right: number; timed: number; refused: number }>();
  rendered(takes, room).forEach((sound, i) => {
    const { truth, told } = graded(takes[i], sound);
    const sum = sums.get(takes[i].hands) ?? { notes: 0, agree: 0, right: 0, timed: 0, refused: 0 };
    sums.set(takes[i].hands, sum);
    truth.notes.forEach((note, k) => {
      const other = told.notes[k];
      const [really, heard] = [note.verdict === 'right', other.verdict === 'right'];
      sum.notes++;
      if (really === heard) sum.agree++;
      if (really && !heard) sum.refused++;
      if (really && heard) sum.right++;
      if (really && heard && note.timing === other.timing) sum.timed++;
    });
  });
  const of = (hands: Take['hands']) => {
    const sum = sums.get(hands);
    if (!sum) throw new Error(`Nothing was played by ${hands}.`);
    const { notes, agree, right, timed, refused } = sum;
    return { notes, agree: (100 * agree) / notes, timed: (100 * timed) / right, refused: (100 * refused) / notes };
  };
  const all = { right: of('right'), left: of('left'), both: of('both') };
  console.log(JSON.stringify(all, (_, v: unknown) => (typeof v === 'number' ? Math.round(v * 10) / 10 : v)));
  return all;
}

describe('the listener on a piano that no weight was set by', () => {
  it('judges as the true keys are judged, in a quiet room and in a hard one', () => {
    const quiet = agreement(takesOf([201, 202, 203, 204, 205], LEARNER), QUIET);
    expect(quiet.right.agree).toBeGreaterThanOrEqual(95);
    expect(quiet.left.agree).toBeGreaterThanOrEqual(92);
    expect(quiet.both.agree).toBeGreaterThanOrEqual(90);
    for (const hands of ['right', 'left', 'both'] as const) {
      expect(quiet[hands].timed).toBeGreaterThanOrEqual(90);
      expect(quiet[hands].refused).toBeLessThanOrEqual(5);
    }
    const hard = agreement(takesOf([201, 202, 203], LEARNER), HARD);
    expect(hard.right.agree).toBeGreaterThanOrEqual(88);
    expect(hard.left.agree).toBeGreaterThanOrEqual(84);
    expect(hard.both.agree).toBeGreaterThanOrEqual(84);
  });

  it('loses little where the tempo breathes by a fifth, and where the pianist stops for two seconds', () => {
    const tunes = [204, 205];
    const steady = agreement(takesOf(tunes, LEARNER), QUIET);
    const drifting = agreement(takesOf(tunes, { ...LEARNER, drift: 0.2 }), QUIET);
    const stopping = agreement(takesOf(tunes, LEARNER).map(withStop), QUIET);
    for (const hands of ['right', 'left', 'both'] as const) {
      expect(drifting[hands].agree).toBeGreaterThanOrEqual(steady[hands].agree - 3);
      expect(stopping[hands].agree).toBeGreaterThanOrEqual(steady[hands].agree - 3);
    }
  });

  it('does not let another chord pass', () => {
    const chords = takesOf([201, 202, 203, 204], { wrong: 0, missed: 0, extra: 0, drift: 0, uneven: 0 }).filter(
      (t) => t.hands === 'left',
    );
    const others: readonly OtherChord[] = ['half step', 'whole step', 'quality', 'neighbour'];
    let [wrong, passed] = [0, 0];
    for (const other of others) {
      const takes = chords.map((take) => withOtherChords(take, other));
      rendered(takes, QUIET).forEach((sound, i) => {
        const { truth, told } = graded(takes[i], sound);
        truth.notes.forEach(({ verdict }, k) => {
          if (verdict === 'right') return;
          wrong++;
          if (told.notes[k].verdict === 'right') passed++;
        });
      });
    }
    console.log(`${passed} of ${wrong} other keys passed`);
    expect(wrong).toBeGreaterThan(90);
    expect(passed / wrong).toBeLessThanOrEqual(0.05);
  });
});

/** What does not depend on the piano is tried on the other one, which is quicker to load. */
const NEAR: Room = { ...QUIET_ROOM, piano: 'set' };

describe('the listener', () => {
  const scale: readonly Struck[] = [60, 62, 64, 65, 67, 69, 71, 72].map((midi, i) => ({
    midi,
    time: 0.5 * i,
    length: 0.45,
    loudness: 0.6,
  }));
  const places = scale.map((s) => ({ midis: [s.midi] }));

  it('hears how high a piano stands, and goes on by it', () => {
    for (const cents of [-20, 20]) {
      const [sound] = heardInRoom([scale], { ...NEAR, cents });
      const listener = new PianoListener(RATE);
      listener.expect(places);
      expect(listen(listener, sound).map((k) => k.midi)).toEqual(scale.map((s) => s.midi));
      expect(Math.abs(listener.cents - cents)).toBeLessThanOrEqual(6);
    }
  });

  it('dates a key when it was struck, and makes it out in less than a quarter of a second', () => {
    const [sound] = heardInRoom([scale], NEAR);
    const listener = new PianoListener(RATE);
    listener.expect(places);
    for (let k = 0; k + 1024 <= sound.length; k += 1024)
      for (const { midi, at } of listener.hear(sound.subarray(k, k + 1024))) {
        const struck = scale.find((s) => s.midi === midi);
        expect(Math.abs(at / RATE - LEAD - (struck?.time ?? NaN))).toBeLessThan(0.02);
        expect((k + 1024 - at) / RATE).toBeLessThan(0.25);
      }
  });

  it('learns a piano from five of its keys', () => {
    const keys = [36, 48, 60, 72, 84];
    const [sound] = heardInRoom([keys.map((midi, i) => ({ midi, time: i, length: 0.8, loudness: 0.6 }))], {
      ...NEAR,
      cents: 14,
    });
    const listener = new PianoListener(RATE);
    listener.expect(keys.map((midi) => ({ midis: [midi] })));
    const measured = listen(listener, sound).flatMap((k): MeasuredKey[] => (k.measured ? [k.measured] : []));
    expect(measured.map((m) => m.midi)).toEqual(keys);
    const fit = fitOf(measured);
    expect(Math.abs(fit.cents - 14)).toBeLessThanOrEqual(5);
    const [tune] = heardInRoom([scale], { ...NEAR, cents: 14 });
    const fitted = new PianoListener(RATE, fit);
    fitted.expect(places);
    expect(listen(fitted, tune).map((k) => k.midi)).toEqual(scale.map((s) => s.midi));
  });

  it('stays at a place where the music waits, and forgives one faint key of a chord', () => {
    const chord = [48, 52, 55, 60];
    const take = [
      ...chord.map((midi) => ({ midi, time: 0, length: 0.8, loudness: midi === 52 ? 0.08 : 0.6 })),
      // What is due two places later is not taken for now.
      { midi: 74, time: 1.5, length: 0.5, loudness: 0.6 },
    ];
    const [sound] = heardInRoom([take], NEAR);
    const listener = new PianoListener(RATE);
    listener.expect([{ midis: chord }, { midis: [72] }, { midis: [74] }], 0, { waits: true });
    const heard = listen(listener, sound);
    expect(
      heard
        .filter((k) => k.due)
        .map((k) => k.midi)
        .sort((a, b) => a - b),
    ).toEqual(chord);
    expect(heard.filter((k) => !k.due).map((k) => k.midi)).toEqual([74]);
  });

  it('hears nothing in a room where nothing is played', () => {
    const listener = new PianoListener(RATE);
    listener.expect([{ midis: [60, 64, 67] }]);
    const hiss = Float32Array.from({ length: 10 * RATE }, (_, i) => 0.01 * Math.sin(i * i * 0.7));
    expect(listen(listener, hiss)).toEqual([]);
    expect(listen(listener, new Float32Array(5 * RATE))).toEqual([]);
  });

  it('tells a quiet room from a loud one', () => {
    const overRoom = (room: Room) => {
      const [sound] = heardInRoom([scale], room);
      const listener = new PianoListener(RATE);
      listener.expect(places);
      listen(listener, sound);
      return listener.overRoom;
    };
    expect(overRoom(NEAR)).toBeGreaterThan(HEARING.listen.clear);
    expect(overRoom({ ...NEAR, noise: 0 })).toBeLessThan(HEARING.listen.clear);
  });
});
