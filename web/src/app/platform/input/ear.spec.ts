// @vitest-environment happy-dom
import type { DuePlace, HeardKey } from '@joined-hands/core/hearing';
import { signal } from '@angular/core';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { TestBed } from '../../../../testing/bed';
import { emptyStorage } from '../../../../testing/storage';
import { Microphone, type HeardBlock } from '../audio/microphone';
import { SettingsStore } from '../state/settings.store';
import { Workers } from '../workers/workers';
import { Ear } from './ear';
import { KeyInput, type KeyPress } from './key-input';

const RATE = 48_000;
const BLOCK = 1024;

/** A microphone that hears what it is given. */
class StandInMicrophone {
  readonly live = signal(false);
  readonly level = signal(0);
  readonly trouble = signal<string | null>(null);
  readonly device = signal<string | null>('Built in');
  readonly changed = signal(false);
  readonly rate = RATE;
  heard: (block: HeardBlock) => void = () => undefined;
  lost: () => void = () => undefined;
  start(heard: (block: HeardBlock) => void, lost: () => void): Promise<boolean> {
    [this.heard, this.lost] = [heard, lost];
    return Promise.resolve(true);
  }
  stop(): void {
    this.live.set(false);
  }
}

let microphone: StandInMicrophone;
let ear: Ear;
let pressed: KeyPress[];
/** What the listener was told, and the keys that it makes out of the next samples. */
let told: [name: string, ...args: unknown[]][];
let keys: HeardKey[];
let fails: boolean;

beforeEach(() => {
  emptyStorage();
  microphone = new StandInMicrophone();
  [told, keys, pressed, fails] = [[], [], [], false];
  const call = (name: string, ...args: unknown[]) => {
    told.push([name, ...args]);
    if (name !== 'hear') return Promise.resolve({ ok: true, value: null });
    if (fails) return Promise.resolve({ ok: false, trouble: 'failed' });
    return Promise.resolve({ ok: true, value: { keys: keys.splice(0), cents: -12, noisy: false } });
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Microphone, useValue: microphone },
      { provide: Workers, useValue: { ear: { call } } },
    ],
  });
  ear = TestBed.inject(Ear);
  TestBed.inject(KeyInput).pressed.subscribe((press) => pressed.push(press));
});
afterEach(() => TestBed.resetTestingModule());

/** Blocks that begin at some frames; frame 0 of the audio clock is second 100 of the page's. */
async function hear(...frames: number[]): Promise<void> {
  for (const frame of frames) microphone.heard({ samples: new Float32Array(BLOCK), frame, time: 100 + frame / RATE });
  await Promise.resolve();
  await Promise.resolve();
}

const key = (midi: number, at: number): HeardKey => ({ midi, at, due: true, measured: null });

describe('the ear', () => {
  it('presses what it hears through the door of all keys, at the second in which it was struck', async () => {
    await ear.start();
    keys = [key(60, 2 * BLOCK)];
    await hear(5000, 5000 + BLOCK);
    expect(pressed).toEqual([
      { midi: 60, time: expect.closeTo(100 + (5000 + 2 * BLOCK) / RATE, 6) as number, loudness: 0.6, source: 'microphone' },
    ]);
    expect([ear.lately(), ear.cents()]).toEqual([[60], -12]);
  });

  it('takes off what this microphone is late by, and listens by what is known of its piano', async () => {
    const fit = { cents: -12, keys: [] };
    TestBed.inject(SettingsStore).set({ microphones: [{ name: 'Built in', latency: 0.08, fit, day: '2031-05-01' }] });
    await ear.start();
    expect(told[0]).toEqual(['listen', RATE, fit]);
    keys = [key(60, 0)];
    await hear(0);
    expect(pressed[0].time).toBeCloseTo(100 - 0.08, 6);
  });

  it('says what is due, also what was said before it listened', async () => {
    const places: DuePlace[] = [{ midis: [60] }, { midis: [62] }];
    ear.expect(places, 1, true);
    expect(told).toEqual([]);
    await ear.start();
    expect(told.at(-1)).toEqual(['expect', places, 1, { waits: true }]);
  });

  it('loses no time where the browser loses samples', async () => {
    await ear.start();
    await hear(0, BLOCK + 500);
    const sent = told.filter(([name]) => name === 'hear').map(([, samples]) => (samples as Float32Array).length);
    expect(sent).toEqual([BLOCK, 500, BLOCK]);
  });

  it('is settled once what has sounded was listened to, or when it stops', async () => {
    vi.spyOn(performance, 'now').mockReturnValue(100_000);
    await ear.start();
    let settled = 0;
    void ear.settled().then(() => settled++);
    await hear(0);
    expect(settled).toBe(0);
    // Half a second later.
    await hear(RATE / 2);
    expect(settled).toBe(1);
    void ear.settled().then(() => settled++);
    ear.stop();
    await Promise.resolve();
    expect(settled).toBe(2);
    vi.restoreAllMocks();
  });

  it('is off when the microphone is lost or the listener fails, and says why', async () => {
    await ear.start();
    microphone.lost();
    expect(ear.on()).toBe(false);
    await ear.start();
    fails = true;
    await hear(0);
    expect(ear.on()).toBe(false);
    expect(ear.trouble()).toMatch(/^The microphone is no longer listened to: something in it could not be handled\./);
    await hear(BLOCK);
    expect(pressed).toEqual([]);
  });
});
