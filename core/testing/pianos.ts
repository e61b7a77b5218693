import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { noiseFrom } from './sounds.js';
import { Midi } from '../src/formats/midi/package.js';
import type { HeardKey, PianoListener } from '../src/hearing/listener.js';

/** Sampled pianos: one by which weights are set, and one that is never used for it. */
export const PIANOS = {
  set: '/usr/share/sounds/sf2/TimGM6mb.sf2',
  apart: '/usr/share/sounds/sf3/MuseScore_General_Lite.sf3',
} as const;

/** A key as it is struck: seconds, how long it is held, and how hard, from 0 to 1. */
export interface Struck {
  readonly midi: number;
  readonly time: number;
  readonly length: number;
  readonly loudness: number;
}

/** What the piano and its room are like: the pedal down from chord to chord, a room that rings, noise in decibels under the sound, and cents above the usual pitch. */
export interface Room {
  readonly piano: keyof typeof PIANOS;
  readonly pedal: boolean;
  readonly rings: boolean;
  readonly noise: number;
  readonly cents: number;
}

export const QUIET_ROOM: Omit<Room, 'piano'> = { pedal: false, rings: false, noise: -60, cents: 0 };

export const RATE = 44_100;

/** Seconds of the room alone with which a take begins. */
export const LEAD = 1;

/** Gives a sound to a listener in blocks, as a microphone does. */
export function listen(listener: PianoListener, sound: Float32Array): HeardKey[] {
  const heard: HeardKey[] = [];
  for (let k = 0; k + 1024 <= sound.length; k += 1024) heard.push(...listener.hear(sound.subarray(k, k + 1024)));
  return heard;
}

/** Seconds between two takes of one rendering, in which the last one dies away. */
const APART = 2.5;

/** Takes as one would hear them, one after another by one piano in one room. Each begins with a little of the room alone. */
export function heardInRoom(takes: readonly (readonly Struck[])[], room: Room): Float32Array[] {
  const folder = mkdtempSync(join(tmpdir(), 'piano-'));
  try {
    const midi = new Midi();
    const track = midi.addTrack();
    const starts: number[] = [];
    let from = LEAD;
    // A piano that stands higher is one that is rendered slower and played faster.
    const faster = 2 ** (room.cents / 1200);
    for (const take of takes) {
      starts.push(from);
      for (const { midi: key, time, length, loudness } of take)
        track.addNote({ midi: key, time: (from + time) * faster, duration: length * faster, velocity: loudness });
      const end = from + Math.max(0, ...take.map((s) => s.time + s.length));
      if (room.pedal) {
        for (const at of pedalled(take)) addPedal(track, (from + at) * faster);
        track.addCC({ number: 64, time: end * faster, value: 0 });
      }
      from = end + APART;
    }
    const [file, sound] = [join(folder, 'takes.mid'), join(folder, 'takes.raw')];
    writeFileSync(file, midi.toArray());
    const reverb = room.rings ? ['-R', '1', '-o', 'synth.reverb.room-size=0.7', '-o', 'synth.reverb.level=0.7'] : ['-R', '0'];
    const how = [
      '-n',
      '-i',
      '-q',
      '-g',
      '0.5',
      '-C',
      '0',
      '-o',
      'synth.dynamic-sample-loading=1',
      ...reverb,
      '-r',
      `${Math.round(RATE / faster)}`,
      '-O',
      'float',
      '-T',
      'raw',
      '-F',
      sound,
    ];
    execFileSync('fluidsynth', [...how, PIANOS[room.piano], file], { stdio: 'ignore' });
    const bytes = readFileSync(sound);
    const both = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength >> 2);
    const all = new Float32Array(both.length >> 1);
    let power = 0;
    for (let i = 0; i < all.length; i++) {
      all[i] = 0.5 * (both[2 * i] + both[2 * i + 1]);
      power += all[i] * all[i];
    }
    const hiss = noiseFrom(takes.length + 7);
    const level = Math.sqrt((3 * power) / all.length) * 10 ** (room.noise / 20);
    for (let i = 0; i < all.length; i++) all[i] += level * hiss();
    const sample = (seconds: number) => Math.round((seconds - LEAD) * RATE);
    return starts.map((at, i) => all.subarray(sample(at), sample(starts[i + 1] ?? Infinity)));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Where the pedal is changed: at every lowest key of a handful struck together, at most twice a second. */
function pedalled(take: readonly Struck[]): number[] {
  const changes: number[] = [];
  for (const { time } of take.toSorted((a, b) => a.time - b.time)) if (time - (changes.at(-1) ?? -1) > 0.9) changes.push(time);
  return changes;
}

function addPedal(track: ReturnType<Midi['addTrack']>, at: number): void {
  track.addCC({ number: 64, time: Math.max(0, at - 0.02), value: 0 });
  track.addCC({ number: 64, time: at + 0.08, value: 1 });
}
