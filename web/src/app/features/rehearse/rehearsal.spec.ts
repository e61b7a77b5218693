// @vitest-environment happy-dom
import { arrange } from '@joined-hands/core/arrange';
import { midiOf } from '@joined-hands/core/pitch';
import { stepsOf, notesOf, REST } from '@joined-hands/core/practice';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { demo } from '../../../../../core/testing/songs';
import { TestBed } from '../../../../testing/bed';
import { SilentPlayer } from '../../../../testing/player';
import { emptyStorage } from '../../../../testing/storage';
import { standInWorkers } from '../../../../testing/workers';
import { Player } from '../../platform/audio/player';
import { KeyInput } from '../../platform/input/key-input';
import { DeskStore } from '../../platform/state/desk.store';
import { PracticeStore } from '../../platform/state/practice.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Library } from '../../platform/storage/library';
import { Workers } from '../../platform/workers/workers';
import { Rehearsal } from './rehearsal';

const SONG = demo('all-aboard-for-nettle-point.musicxml');
const STEPS = stepsOf(arrange(SONG), { order: 'song', joins: 'chain' });

let rehearsal: Rehearsal;
let player: SilentPlayer;
let settings: InstanceType<typeof SettingsStore>;
let keys: KeyInput;
let practice: InstanceType<typeof PracticeStore>;

beforeEach(async () => {
  emptyStorage();
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance', 'Date'], now: Date.UTC(2031, 4, 1, 12) });
  player = new SilentPlayer();
  TestBed.configureTestingModule({
    providers: [Rehearsal, { provide: Workers, useValue: standInWorkers().workers }, { provide: Player, useValue: player }],
  });
  settings = TestBed.inject(SettingsStore);
  keys = TestBed.inject(KeyInput);
  practice = TestBed.inject(PracticeStore);
  const desk = TestBed.inject(DeskStore);
  await desk.open(await TestBed.inject(Library).add(SONG));
  rehearsal = TestBed.inject(Rehearsal);
  TestBed.tick();
});
afterEach(() => {
  TestBed.resetTestingModule();
  vi.useRealTimers();
});

const tune = notesOf(arrange(SONG), STEPS[0]);

/** Lets time go by, and what hangs on it happen. */
async function pass(seconds: number): Promise<void> {
  await vi.advanceTimersByTimeAsync(seconds * 1000);
  TestBed.tick();
}

/** The music comes to its end. */
async function musicEnds(): Promise<void> {
  player.stop();
  TestBed.tick();
  await pass(60 / rehearsal.tempo());
}

/** Begins a pass in time and plays its notes on time, but for those at some indices, which are a half step off. */
async function playInTime(slips: readonly number[] = [], play = (midi: number) => keys.press(midi)): Promise<void> {
  rehearsal.toggle();
  await pass(0);
  const lead = player.plan?.lead ?? 0;
  const quarter = 60 / rehearsal.tempo();
  let now = 0;
  for (const [i, note] of tune.entries()) {
    const at = lead + (note.at - tune[0].at) * quarter;
    await pass(at - now);
    now = at;
    play(slips.includes(i) ? note.midi + 1 : note.midi);
  }
  TestBed.tick();
  if (rehearsal.state() === 'playing') await musicEnds();
}

describe('a rehearsal', () => {
  it('begins with the first step of a new song, at the lowest rung of its ladder', () => {
    expect(rehearsal.step()?.id).toBe(STEPS[0].id);
    expect(rehearsal.tempo()).toBe(rehearsal.current()?.ladder.rungs[0]);
    expect(rehearsal.tempo()).toBeLessThan(STEPS[0].goal);
    expect(rehearsal.state()).toBe('ready');
  });

  it('listens to a pass in time, says what came of it, and writes it down', async () => {
    await playInTime();
    const result = rehearsal.result();
    expect(result?.clean).toBe(true);
    expect(result?.figures).toMatchObject({ notes: tune.length, right: tune.length, wrong: 0, missed: 0, extra: 0 });
    expect(practice.passes()).toEqual([result?.pass]);
    expect(result?.pass).toMatchObject({ step: STEPS[0].id, day: '2031-05-01', hands: 'right', clean: true });
    expect(rehearsal.step()?.id).toBe(STEPS[0].id);
  });

  it('hears the slips, and does not call it clean', async () => {
    await playInTime([1, 4]);
    expect(rehearsal.result()?.clean).toBe(false);
    expect(rehearsal.result()?.figures).toMatchObject({ right: tune.length - 2, wrong: 2 });
  });

  it('sounds keys that are played on the screen, and none of a keyboard that sounds by itself', () => {
    keys.press(60);
    keys.take({ midi: 62, time: 0, loudness: 0.5, source: 'device' });
    keys.take({ midi: 64, time: 0, loudness: 0.5, source: 'microphone' });
    expect(player.struck).toEqual([60]);
  });

  it('says of what a microphone heard no more than it can, and tells no keys that were too many', async () => {
    const hear = (midi: number) => {
      keys.take({ midi, time: performance.now() / 1000, loudness: 0.6, source: 'microphone' });
      // An overtone that was taken for a key.
      if (midi === tune[2].midi)
        keys.take({ midi: midi + 19, time: performance.now() / 1000, loudness: 0.6, source: 'microphone' });
    };
    await playInTime([1], hear);
    const result = rehearsal.result();
    expect(result?.heardBy).toBe('ear');
    expect(result?.figures?.extra).toBe(0);
    expect(result?.words.map((w) => w.code)).toEqual(['verdict.heard-other']);
  });

  it('counts no slips of a microphone while the music waits', async () => {
    settings.set({ pace: 'wait' });
    rehearsal.toggle();
    await pass(0);
    for (const { midi } of tune) {
      keys.take({ midi: midi + 5, time: 0, loudness: 0.6, source: 'microphone' });
      keys.take({ midi, time: 0, loudness: 0.6, source: 'microphone' });
    }
    expect(rehearsal.result()?.words).toEqual([{ code: 'verdict.found-by-ear' }]);
    expect(rehearsal.result()?.clean).toBe(true);
  });

  it('does not hear what is tried during the count-in', async () => {
    rehearsal.toggle();
    await pass(0.1);
    keys.press(90);
    await musicEnds();
    expect(rehearsal.state()).toBe('asking');
  });

  it('asks the pianist where nothing was heard, and takes the answer', async () => {
    rehearsal.toggle();
    await pass(player.plan?.length ?? 0);
    await musicEnds();
    expect([rehearsal.state(), rehearsal.idle()]).toEqual(['asking', true]);
    expect(practice.passes()).toEqual([]);
    rehearsal.judge(true);
    expect(rehearsal.result()).toMatchObject({ clean: true, figures: null });
    expect(practice.passes()).toHaveLength(1);
    expect(rehearsal.state()).toBe('ready');
  });

  it('waits for the right keys where that is wished, forgives nothing and tells', async () => {
    settings.set({ pace: 'wait' });
    rehearsal.toggle();
    expect(rehearsal.place()).toBe(tune[0].place);
    keys.press(tune[0].midi + 1);
    expect(rehearsal.place()).toBe(tune[0].place);
    for (const note of tune) {
      expect(rehearsal.place()).toBe(note.place);
      keys.press(note.midi);
      keys.release(note.midi);
    }
    expect(rehearsal.result()).toMatchObject({ clean: false, grade: null, words: [{ code: 'verdict.found', slips: 1 }] });
    expect(rehearsal.result()?.figures).toMatchObject({ notes: tune.length, extra: 1 });
  });

  it('broken off, writes nothing down', async () => {
    rehearsal.toggle();
    await pass(0);
    keys.press(tune[0].midi);
    rehearsal.toggle();
    await pass(60);
    expect([rehearsal.state(), rehearsal.result(), practice.passes()]).toEqual(['ready', null, []]);
  });

  it('begins again after a pause in a loop, until it is broken off', async () => {
    settings.set({ loop: true });
    await playInTime();
    expect(rehearsal.state()).toBe('ready');
    await pass(1.3);
    expect(rehearsal.state()).toBe('playing');
    rehearsal.toggle();
    await pass(60);
    expect(rehearsal.state()).toBe('ready');
    expect(practice.passes()).toHaveLength(1);
  });

  it('hears the step as it should sound, and is ready again', async () => {
    rehearsal.hear();
    expect(rehearsal.state()).toBe('hearing');
    expect(player.plan?.sounds.map((s) => s.midi)).toEqual(tune.map((n) => n.midi));
    player.stop();
    TestBed.tick();
    expect(rehearsal.state()).toBe('ready');
  });

  it('goes from step to step, each at its own tempo; a tempo that was wished for holds until then', async () => {
    rehearsal.setTempo(1000);
    expect(rehearsal.tempo()).toBe(Math.round(STEPS[0].goal * 1.2));
    rehearsal.go(1);
    expect(rehearsal.step()?.id).toBe(STEPS[1].id);
    expect(rehearsal.tempo()).toBe(rehearsal.current()?.ladder.rungs[0]);
    rehearsal.go(-1);
    rehearsal.go(-1);
    expect(rehearsal.step()?.id).toBe(STEPS[0].id);
    rehearsal.setTempo(1);
    expect(rehearsal.tempo()).toBe(20);
  });

  it('has the stand-in play a clean pass through the same door', async () => {
    settings.set({ standIn: 'clean' });
    await rehearsal.letPlay();
    await pass((player.plan?.length ?? 0) + 2);
    if (rehearsal.state() === 'playing') await musicEnds();
    expect(rehearsal.result()?.figures).toMatchObject({ right: tune.length, wrong: 0, missed: 0 });
  });

  it('says that a rest is due when there was none for long', async () => {
    settings.set({ pace: 'wait' });
    for (let minutes = 0; !rehearsal.restDue() && minutes < 60; minutes += 2) {
      rehearsal.toggle();
      await pass(120);
      for (const note of tune) keys.press(note.midi);
    }
    expect(rehearsal.sinceRest()).toBeGreaterThanOrEqual(REST.after);
    expect(rehearsal.sinceRest()).toBeLessThan(REST.after + 121);
  });

  it('asks for the plain chords of the left hand by itself', () => {
    const left = STEPS.find((s) => s.hands === 'left');
    rehearsal.choose(left?.id ?? '');
    const chords = arrange(SONG).parts[0].chords;
    expect(
      rehearsal
        .notes()
        .map((n) => n.midi)
        .slice(0, chords[0].pitches.length),
    ).toEqual(chords[0].pitches.map(midiOf));
  });
});
