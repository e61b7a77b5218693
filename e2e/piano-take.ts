import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { arrange } from '../core/src/arrange/index.js';
import { notesOf, stepsOf } from '../core/src/practice/index.js';
import { heardInRoom, QUIET_ROOM, RATE, type Struck } from '../core/testing/pianos.js';
import { demo } from '../core/testing/songs.js';
import { wavFrom } from '../core/testing/sounds.js';

export const TITLE = 'All Aboard for Nettle Point';
const ARRANGEMENT = arrange(demo('all-aboard-for-nettle-point.musicxml'));
const [STEP] = stepsOf(ARRANGEMENT, { order: 'song', joins: 'chain' });
/** The notes of its first step. */
export const NOTES = notesOf(ARRANGEMENT, STEP);

/** Quarter notes a minute, and the seconds of the room alone before the first of them: as long as a counted bar, and a little. */
const TEMPO = 60;
const LEAD = 5.2;

/** The first step on a sampled piano that stands a little low, in a quiet room, as a sound file for the microphone; what else is struck later. */
export function writeTake(name: string, later: readonly Struck[] = []): string {
  const struck = NOTES.map(({ midi, at }, i): Struck => {
    const next = NOTES[i + 1]?.at ?? at + 1;
    return { midi, time: LEAD - 1 + (at * 60) / TEMPO, length: Math.max(0.15, ((next - at) * 60) / TEMPO), loudness: 0.6 };
  });
  const [heard] = heardInRoom([[...struck, ...later]], { ...QUIET_ROOM, piano: 'set', cents: -14 });
  const file = join(tmpdir(), `joined-hands-${name}.wav`);
  writeFileSync(file, wavFrom(heard, RATE));
  return file;
}

/** Has the page note how late each key is made out, in seconds. */
export const noteLags = (): void => {
  const lags: number[] = ((window as { lags?: number[] }).lags = []);
  new MutationObserver(() => {
    const lag = Number(document.querySelector('[data-lag]')?.getAttribute('data-lag') ?? 0);
    if (lag > 0 && lag !== lags.at(-1)) lags.push(lag);
  }).observe(document.body, { subtree: true, attributes: true, attributeFilter: ['data-lag'] });
};
