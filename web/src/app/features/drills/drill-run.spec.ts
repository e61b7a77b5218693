// @vitest-environment happy-dom
import { handsOf } from '@joined-hands/core/song';
import { midiOf } from '@joined-hands/core/pitch';
import type { Drill } from '@joined-hands/core/catalogue/drills';
import { fromNameDrill } from '../../../../../core/src/catalogue/drills/from-name';
import { namingDrill } from '../../../../../core/src/catalogue/drills/naming';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { TestBed } from '../../../../testing/bed';
import { SilentPlayer } from '../../../../testing/player';
import { emptyStorage } from '../../../../testing/storage';
import { standInWorkers } from '../../../../testing/workers';
import { Player } from '../../platform/audio/player';
import { KeyInput } from '../../platform/input/key-input';
import { PracticeStore } from '../../platform/state/practice.store';
import { Workers } from '../../platform/workers/workers';
import { DrillRun } from './drill-run';

let run: DrillRun;
let player: SilentPlayer;
let keys: KeyInput;
let practice: InstanceType<typeof PracticeStore>;

beforeEach(() => {
  emptyStorage();
  player = new SilentPlayer();
  TestBed.configureTestingModule({
    providers: [DrillRun, { provide: Workers, useValue: standInWorkers().workers }, { provide: Player, useValue: player }],
  });
  run = TestBed.inject(DrillRun);
  keys = TestBed.inject(KeyInput);
  practice = TestBed.inject(PracticeStore);
});
afterEach(() => TestBed.resetTestingModule());

/** Presses what the question asks for, grip after grip; a wrong key first where that is wished. */
function answer(wrong = false): void {
  if (wrong) keys.press(1);
  for (const grip of run.task()?.grips ?? []) for (const pitch of grip.pitches) keys.press(midiOf(pitch));
}

const triads: Drill = fromNameDrill(['C', 'F', 'G'], 'left', handsOf(), 1);
const names: Drill = namingDrill(['C', 'F', 'Am'], 'name', handsOf(), 1);

describe('a drill', () => {
  it('asks one question after another, and writes down a clean run with its keys counted', () => {
    run.lay(triads, null);
    run.start();
    for (let i = 0; i < triads.tasks.length; i++) {
      expect([run.at(), run.inSight()]).toEqual([i, false]);
      answer();
    }
    const keysAsked = triads.tasks.flatMap((t) => t.grips.flatMap((g) => g.pitches)).length;
    expect(run.state()).toBe('done');
    expect(run.result()).toMatchObject({ kind: 'drill', song: null, hands: 'left', clean: true, parts: '' });
    expect(run.result()?.figures).toMatchObject({ notes: keysAsked, right: keysAsked, accuracy: 100 });
    expect(practice.passes()).toEqual([run.result()]);
  });

  it('counts wrong keys and help against it', () => {
    run.lay(triads, 'song');
    run.start();
    answer(true);
    run.help();
    expect(run.inSight()).toBe(true);
    answer();
    for (let i = 1; i < triads.tasks.length; i++) answer();
    expect(run.result()?.clean).toBe(false);
    expect(run.result()?.song).toBe('song');
    expect(run.result()?.figures?.accuracy).toBeLessThan(100);
  });

  it('sounds the keys that help has brought in sight', () => {
    run.lay(triads, null);
    run.start();
    run.help();
    expect(player.struck).toEqual([]);
    run.help();
    expect(player.struck).toEqual(run.grip()?.pitches.map(midiOf));
  });

  it('takes names where a name is asked for, each wrong one once, and no keys', () => {
    run.lay(names, null);
    run.start();
    const task = run.task()?.names;
    const wrong = task?.right === 0 ? 1 : 0;
    run.name(wrong);
    run.name(wrong);
    expect([run.progress().slips, run.tried()]).toEqual([1, [wrong]]);
    answer();
    expect(run.at()).toBe(0);
    for (let i = 0; i < names.tasks.length; i++) run.name(run.task()?.names?.right ?? -1);
    expect(run.result()?.figures).toMatchObject({ notes: names.tasks.length, extra: 1 });
  });

  it('takes nothing before it is begun, and is as new when it is stopped', () => {
    run.lay(names, null);
    run.name(run.task()?.names?.right ?? -1);
    run.lay(triads, null);
    answer();
    expect(run.at()).toBe(0);
    run.start();
    answer();
    run.stop();
    expect([run.state(), run.at(), run.result()]).toEqual(['ready', 0, null]);
    expect(practice.passes()).toEqual([]);
  });
});
