import { PianoListener } from '@joined-hands/core/hearing';
import { waitPlaces } from '@joined-hands/core/practice';
import { heardInRoom, QUIET_ROOM, RATE } from '../core/testing/pianos.js';
import { LEARNER, takesOf } from '../core/testing/takes.js';
import { median, type Row } from './table.js';

/** Listening to a piano by microphone: what of a processor it takes, both hands at once. */
export function listening(): Row[] {
  const [take] = takesOf([201], LEARNER).filter((t) => t.hands === 'both');
  const [sound] = heardInRoom([take.struck], { ...QUIET_ROOM, piano: 'set' });
  const taken = median(5, () => {
    const listener = new PianoListener(RATE);
    listener.expect(waitPlaces(take.notes));
    for (let k = 0; k + 1024 <= sound.length; k += 1024) listener.hear(sound.subarray(k, k + 1024));
  });
  const share = taken / 10 / (sound.length / RATE);
  return [{ what: 'listening to both hands', measured: `${share.toFixed(1)} % of a processor`, against: '10 %' }];
}
