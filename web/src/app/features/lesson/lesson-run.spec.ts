// @vitest-environment happy-dom
import { lessonScript } from '@joined-hands/core/lesson';
import { arrange } from '@joined-hands/core/arrange';
import { midiOf } from '@joined-hands/core/pitch';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { demo } from '../../../../../core/testing/songs';
import { TestBed } from '../../../../testing/bed';
import { SilentPlayer } from '../../../../testing/player';
import { emptyStorage } from '../../../../testing/storage';
import { standInWorkers } from '../../../../testing/workers';
import { Player } from '../../platform/audio/player';
import { Voice } from '../../platform/audio/voice';
import { KeyInput } from '../../platform/input/key-input';
import { DeskStore } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Library } from '../../platform/storage/library';
import { Workers } from '../../platform/workers/workers';
import { LessonRun } from './lesson-run';

const SONG = demo('all-aboard-for-nettle-point.musicxml');
const SCENES = lessonScript(arrange(SONG), { first: 'right', by: 'words', joins: 'chain' }).chapters.flatMap((c) => c.scenes);

/** A player whose plans come to their end by themselves. */
class TimedPlayer extends SilentPlayer {
  readonly plans: number[] = [];
  override async play(plan: Parameters<SilentPlayer['play']>[0]): Promise<void> {
    await super.play(plan);
    this.plans.push(plan.length);
    setTimeout(() => {
      if (this.plan === plan) this.stop();
    }, plan.length * 1000);
  }
}

let run: LessonRun;
let player: TimedPlayer;
let settings: InstanceType<typeof SettingsStore>;
let keys: KeyInput;
let id: string;
const said: string[] = [];

/** The lesson of a song as it is opened. */
function open(): void {
  TestBed.configureTestingModule({
    providers: [
      LessonRun,
      { provide: Workers, useValue: standInWorkers().workers },
      { provide: Player, useValue: player },
      { provide: Voice, useValue: { say: async (sentence: string) => void said.push(sentence), stop: () => undefined } },
    ],
  });
  settings = TestBed.inject(SettingsStore);
  keys = TestBed.inject(KeyInput);
}

beforeEach(async () => {
  emptyStorage();
  said.length = 0;
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance', 'Date'], now: Date.UTC(2031, 4, 1, 12) });
  player = new TimedPlayer();
  open();
  const desk = TestBed.inject(DeskStore);
  id = await TestBed.inject(Library).add(SONG);
  await desk.open(id);
  run = TestBed.inject(LessonRun);
  TestBed.tick();
});
afterEach(() => {
  TestBed.resetTestingModule();
  vi.useRealTimers();
});

/** Lets time go by, and what hangs on it happen. */
async function pass(seconds: number): Promise<void> {
  for (let left = seconds; left > 0; left -= 0.5) {
    await vi.advanceTimersByTimeAsync(500);
    TestBed.tick();
  }
}

/** Lets the lesson go on until something is so, an hour at most. */
async function until(so: () => boolean): Promise<void> {
  for (let i = 0; i < 7200 && !so(); i++) await pass(0.5);
  expect(so()).toBe(true);
}

describe('a lesson', () => {
  it.each([false, true])('goes through a whole song by itself, a player answering; waiting for it: %s', async (waits) => {
    settings.set({ lessonWaits: waits });
    run.answered.set(true);
    const seen: string[] = [];
    run.toggle();
    await until(() => {
      const scene = run.scene()?.id ?? '';
      if (seen.at(-1) !== scene && run.state() !== 'done') seen.push(scene);
      return run.state() === 'done';
    });
    expect(seen).toEqual(SCENES.map((s) => s.id));
    expect(said.length).toBe(SCENES.reduce((sum, s) => sum + s.lines.length, 0));
    const played = SCENES.filter((s) => s.plays).length;
    const asked = SCENES.filter((s) => s.asks).length;
    expect(player.plans).toHaveLength(waits ? played : played + asked);
  });

  it('strikes the notes that it names, and spells a chord from the bottom up', async () => {
    run.toggle();
    await until(() => run.scene()?.kind === 'chords' && run.line()?.says.code === 'lesson.chord');
    player.struck.length = 0;
    const strikes = run.line()?.strikes.map(midiOf) ?? [];
    await pass(2.5);
    expect(player.struck.slice(-2 * strikes.length).slice(-strikes.length)).toEqual(strikes);
    expect([...strikes].sort((a, b) => a - b)).toEqual(strikes);
    expect(said.some((s) => s.startsWith('D major, root position: D, F sharp and A.'))).toBe(true);
  });

  it('waits for the right keys, goes on by itself, and wrong ones do not lead on', async () => {
    settings.set({ lessonWaits: true });
    run.toggle();
    await until(() => run.waits());
    const [first, ...others] = run.notes();
    keys.press(first.midi + 1);
    await pass(5);
    expect(run.place()).toBe(first.place);
    for (const n of [first, ...others]) {
      keys.press(n.midi);
      await pass(0.5);
      keys.release(n.midi);
    }
    await until(() => run.scene()?.kind === 'chords');
  });

  it('is played again, slower, by one hand, and led on', async () => {
    run.toggle();
    await until(() => run.scene()?.kind === 'right' && run.state() === 'playing');
    const usual = run.tempo();
    const plans = player.plans.length;
    run.slower();
    await until(() => player.plans.length > plans);
    expect(run.tempo()).toBeLessThan(usual);
    expect(run.scene()?.kind).toBe('right');
    while (run.scene()?.kind !== 'together') run.go(1);
    run.hear('left');
    await until(() => run.state() === 'playing');
    expect(new Set(run.notes().map((n) => n.hand))).toEqual(new Set(['left']));
    run.toggle();
    const silent = player.plans.length;
    await pass(60);
    expect(player.plans).toHaveLength(silent);
  });

  it('goes on where it was left', async () => {
    run.toggle();
    await until(() => run.scene()?.kind === 'meet');
    const left = run.scene()?.id;
    run.stop();
    TestBed.resetTestingModule();
    open();
    await TestBed.inject(DeskStore).open(id);
    run = TestBed.inject(LessonRun);
    TestBed.tick();
    await pass(1);
    expect(run.scene()?.id).toBe(left);
    expect(run.state()).toBe('ready');
  });
});
