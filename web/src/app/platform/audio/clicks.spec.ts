import { describe, expect, it } from 'vitest';
import { Clicks } from './clicks';

/** A clock of sound that writes down what is put on it and is asked to let one end. */
function standInClock() {
  const sounds: { hertz: number; starts: number; stops: number[]; ended: () => void }[] = [];
  const loud: number[] = [];
  let connected = true;
  const gain = (onDisconnect: () => void) => ({
    gain: { setValueAtTime: (value: number) => loud.push(value), exponentialRampToValueAtTime: () => undefined },
    connect: () => undefined,
    disconnect: onDisconnect,
  });
  let first = true;
  const clock = {
    destination: {},
    createGain: () => {
      const out = first;
      first = false;
      return gain(() => out && (connected = false));
    },
    sampleRate: 8000,
    createBuffer: (_: number, length: number) => ({ getChannelData: () => new Float32Array(length) }),
    createBiquadFilter: () => ({
      Q: {},
      frequency: {
        set value(hertz: number) {
          sounds[sounds.length - 1].hertz = hertz;
        },
      },
      connect: () => undefined,
    }),
    createBufferSource: () => {
      const sound = { hertz: 0, starts: -1, stops: [] as number[], ended: () => undefined as void };
      sounds.push(sound);
      return {
        connect: () => undefined,
        start: (when: number) => (sound.starts = when),
        stop: (when = 0) => sound.stops.push(when),
        set onended(ended: () => void) {
          sound.ended = ended;
        },
      };
    },
  };
  return {
    clicks: new Clicks(clock as unknown as ConstructorParameters<typeof Clicks>[0]),
    sounds,
    loud,
    heard: () => connected,
  };
}

describe('clicks', () => {
  it('stand on the clock at once, each at its own moment, the first of a bar higher', () => {
    const { clicks, sounds, loud } = standInClock();
    for (const beat of [0, 1, 2, 3]) clicks.at(10 + beat / 2, beat === 0, beat === 0 ? 0.9 : 0.5);
    expect(sounds.map((s) => s.starts)).toEqual([10, 10.5, 11, 11.5]);
    expect(sounds.every((s) => s.stops[0] > s.starts && s.stops[0] < s.starts + 0.1)).toBe(true);
    expect(sounds[0].hertz).toBeGreaterThan(sounds[1].hertz);
    expect(loud[0]).toBeGreaterThan(loud[1]);
  });

  it('are silent at once when the music stops, also those that are still to come', () => {
    const { clicks, sounds, heard } = standInClock();
    for (const beat of [0, 1, 2]) clicks.at(beat, false, 0.5);
    sounds[0].ended();
    clicks.silence();
    expect(heard()).toBe(false);
    // What has ended by itself is not stopped again: the browser would call that an error.
    expect(sounds.map((s) => s.stops.length)).toEqual([1, 2, 2]);
  });

  it('may be silenced twice', () => {
    const { clicks, sounds } = standInClock();
    clicks.at(1, true, 0.5);
    clicks.silence();
    clicks.silence();
    expect(sounds[0].stops).toHaveLength(2);
  });
});
