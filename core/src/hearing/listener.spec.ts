import { describe, expect, it } from 'vitest';
import { heardInRoom, LEAD, listen, QUIET_ROOM, RATE, type Room, type Struck } from '../../testing/pianos.js';
import { HEARING } from './figures.js';
import { PianoListener } from './listener.js';
import { fitOf, type MeasuredKey } from './tuning.js';

/** What does not depend on the piano is tried on the one that is quicker to load. */
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
