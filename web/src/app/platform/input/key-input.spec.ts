// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { TestBed } from '../../../../testing/bed';
import { SettingsStore } from '../state/settings.store';
import { KeyInput, type KeyPress } from './key-input';

let keys: KeyInput;
let pressed: KeyPress[];
let released: number[];

beforeEach(() => {
  keys = TestBed.inject(KeyInput);
  pressed = [];
  released = [];
  keys.pressed.subscribe((p) => pressed.push(p));
  keys.released.subscribe((midi) => released.push(midi));
});
afterEach(() => {
  TestBed.resetTestingModule();
  vi.useRealTimers();
});

const midis = () => pressed.map((p) => p.midi);

/** A letter of the computer goes down and comes up; answers whether it was taken. */
function letter(key: string, how: KeyboardEventInit = {}): boolean {
  const taken = keys.letter(new KeyboardEvent('keydown', { key, ...how }), true);
  keys.letter(new KeyboardEvent('keyup', { key, ...how }), false);
  return taken;
}

describe('key input', () => {
  it('takes the letters of the computer as two rows of keys from middle C up, and lets them go', () => {
    for (const key of 'awsedftgyhujkolp') expect(letter(key)).toBe(true);
    expect(midis()).toEqual([60, 61, 62, 63, 64, 65, 66, 67, 68, 69, 70, 71, 72, 73, 74, 75]);
    expect(released).toEqual(midis());
    expect(pressed.every((p) => p.source === 'letters')).toBe(true);
  });

  it('moves them by octaves, but not off the keyboard', () => {
    letter('z');
    letter('a');
    letter('x');
    letter('X');
    letter('A');
    expect(midis()).toEqual([48, 72]);
    for (let i = 0; i < 9; i++) letter('x');
    letter('p');
    for (let i = 0; i < 9; i++) letter('z');
    letter('a');
    expect(midis().slice(2)).toEqual([99, 24]);
  });

  it('leaves other letters and combined keys alone, and strikes a key that is held down once', () => {
    expect(letter('q')).toBe(false);
    expect(letter('Enter')).toBe(false);
    expect(letter('a', { ctrlKey: true })).toBe(false);
    expect(letter('a', { repeat: true })).toBe(true);
    expect(pressed).toEqual([]);
  });

  it('leaves letters to a field that is being typed in', () => {
    document.body.innerHTML = '<input>';
    const field = document.querySelector('input');
    let taken = true;
    field?.addEventListener('keydown', (event) => (taken = keys.letter(event, true)));
    field?.dispatchEvent(new KeyboardEvent('keydown', { key: 'a' }));
    expect(taken).toBe(false);
    expect(pressed).toEqual([]);
  });

  it('has stand-in keys as late and as loud as they are set', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'performance'] });
    TestBed.inject(SettingsStore).set({ keyDelay: 120, keyLoudness: 0.9 });
    keys.press(64);
    const before = performance.now() / 1000;
    expect(pressed).toEqual([]);
    await vi.advanceTimersByTimeAsync(120);
    expect(pressed).toEqual([{ midi: 64, time: before + 0.12, loudness: 0.9, source: 'screen' }]);
  });

  it('hands on the keys of a connected keyboard as they come, whatever the stand-in is set to', () => {
    TestBed.inject(SettingsStore).set({ keyDelay: 120 });
    const press: KeyPress = { midi: 40, time: 3, loudness: 0.2, source: 'device' };
    keys.take(press);
    expect(pressed).toEqual([press]);
  });
});
