import { PianoListener } from '@joined-hands/core/hearing';
import { grade, waitPlaces } from '@joined-hands/core/practice';
import { heardInRoom, QUIET_ROOM, RATE } from '../core/testing/pianos.js';
import { LEARNER, takesOf, withOtherChords, type Take } from '../core/testing/takes.js';
import { median, type Row } from './table.js';

const ROOM = { ...QUIET_ROOM, piano: 'apart' } as const;

/** The keys that are heard of a take, as seconds after the room alone. */
function heardOf({ notes }: Take, sound: Float32Array) {
  const listener = new PianoListener(RATE);
  listener.expect(waitPlaces(notes));
  const heard: { midi: number; time: number }[] = [];
  for (let k = 0; k + 1024 <= sound.length; k += 1024)
    for (const { midi, at } of listener.hear(sound.subarray(k, k + 1024))) heard.push({ midi, time: at / RATE - 1 });
  return heard;
}

/** Listening to a piano by microphone: what of a processor it takes, and what is not promised: octaves and inversions told apart. */
export function listening(): Row[] {
  const [take] = takesOf([201], LEARNER).filter((t) => t.hands === 'both');
  const [sound] = heardInRoom([take.struck], ROOM);
  const taken = median(5, () => heardOf(take, sound));
  const share = taken / 10 / (sound.length / RATE);
  const chords = takesOf([201, 202, 203, 204], { wrong: 0, missed: 0, extra: 0, drift: 0, uneven: 0 }).filter(
    (t) => t.hands === 'left',
  );
  const passing = (['octave', 'inversion'] as const).map((other): Row => {
    const takes = chords.map((c) => withOtherChords(c, other));
    const sounds = heardInRoom(
      takes.map((t) => t.struck),
      ROOM,
    );
    let [wrong, passed] = [0, 0];
    takes.forEach((t, i) => {
      const options = { tempo: t.tempo, octavesForgiven: false };
      const told = grade(t.notes, heardOf(t, sounds[i]), options).notes;
      grade(t.notes, t.struck, options).notes.forEach(({ verdict }, k) => {
        if (verdict === 'right') return;
        wrong++;
        if (told[k].verdict === 'right') passed++;
      });
    });
    return {
      what: `keys heard as right, another ${other} struck`,
      measured: `${Math.round((100 * passed) / wrong)} %`,
      against: 'not promised',
    };
  });
  return [{ what: 'listening to both hands', measured: `${share.toFixed(1)} % of a processor`, against: '10 %' }, ...passing];
}
