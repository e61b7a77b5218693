import { ENGLISH } from '../../words/index.js';
import { describe, expect, it } from 'vitest';
import { fitsManual, manualScales } from '../../../testing/manuals.js';
import { demo, DEMOS } from '../../../testing/songs.js';
import { arrange } from '../../arrange/arrange.js';
import { keysOf, type Key } from '../../harmony/key.js';
import { parseChord } from '../../harmony/symbol.js';
import { motionBetween } from '../../left-hand/costs.js';
import { midiOf, nameOf, pitchClass } from '../../pitch/pitch.js';
import { handsOf, KEYBOARDS } from '../../song/decisions.js';
import { cadenceDrill } from './cadence.js';
import { CADENCES } from './cadences.js';
import { inversionsOf } from './drill.js';
import { fromNameDrill } from './from-name.js';
import { hardMovesDrill } from './hard-moves.js';
import { inversionsDrill } from './inversions.js';
import { namingDrill } from './naming.js';
import { drillFigures, DRILL_START, isDrillClean, pressInDrill } from './progress.js';
import { runDrill } from './runs.js';
import { diatonicDrill } from './sevenths.js';
import { warmUpDrill, warmUpDrills } from './warm-up.js';

const C: Key = { tonic: 'C', mode: 'major' };
const SYMBOLS = ['C', 'Dm7', 'G7', 'Fmaj7', 'Am', 'Bm7b5', 'Eb', 'C6'];
const letters = (pitches: readonly string[]) => pitches.join(' ');

describe('cadences', () => {
  it('move two voices at each change of ii–V–I in all twelve keys', () => {
    const { tasks } = cadenceDrill('ii–V–I', keysOf('major'), handsOf());
    expect(tasks).toHaveLength(12);
    for (const { grips } of tasks) {
      const midis = grips.map((g) => g.pitches.map(midiOf));
      expect([motionBetween(midis[0], midis[1]), motionBetween(midis[1], midis[2])]).toEqual([3, 3]);
    }
    expect(cadenceDrill('ii–V–I', [C], handsOf()).tasks[0].grips.map((g) => letters(g.pitches))).toEqual([
      'D3 F3 A3 C4',
      'D3 F3 G3 B3',
      'C3 E3 G3 B3',
    ]);
  });

  it.each(CADENCES)('%s is made of chords that can be read, in every key', (cadence) => {
    for (const mode of ['major', 'minor'] as const)
      for (const { grips } of cadenceDrill(cadence, keysOf(mode), handsOf('small')).tasks)
        for (const g of grips) expect(g.pitches.length).toBeGreaterThanOrEqual(2);
  });
});

describe('chord drills', () => {
  it('go through the inversions up and down with the usual fingers', () => {
    const drill = inversionsDrill('C', 'left', handsOf());
    expect(drill?.tasks[0].grips.map((g) => [letters(g.pitches), g.fingers.join('')])).toEqual([
      ['C3 E3 G3', '531'],
      ['E3 G3 C4', '531'],
      ['G3 C4 E4', '521'],
      ['E3 G3 C4', '531'],
      ['C3 E3 G3', '531'],
    ]);
    const right = parseChord('C');
    expect(right.kind === 'chord' && inversionsOf(right, 'right', handsOf()).map((g) => g.fingers.join(''))).toEqual([
      '135',
      '125',
      '135',
    ]);
    expect(inversionsDrill('N.C.', 'left', handsOf())).toBeNull();
  });

  it('give the sevenths of a key on its degrees', () => {
    expect(
      diatonicDrill(C, 'right', handsOf()).tasks.map((t) => 'symbol' in t.grips[0].label && t.grips[0].label.symbol),
    ).toEqual(['Cmaj7', 'Dm7', 'Em7', 'Fmaj7', 'G7', 'Am7', 'Bm7b5']);
  });

  it('ask for a name that one choice alone gives', () => {
    for (let seed = 0; seed < 60; seed++)
      for (const what of ['name', 'inversion'] as const)
        for (const { names, grips } of namingDrill(SYMBOLS, what, handsOf(), seed).tasks) {
          const all = names?.all ?? [];
          expect(new Set(all.map((n) => JSON.stringify(n))).size).toBe(all.length);
          expect(all[names?.right ?? -1]).toBeDefined();
          if (what === 'inversion') continue;
          const keys = new Set(grips[0].pitches.map((p) => pitchClass(nameOf(p))));
          const same = all
            .map((n) => parseChord('symbol' in n ? n.symbol : ''))
            .filter((c) => c.kind === 'chord' && sameSet(new Set(c.tones.map((t) => pitchClass(t.name))), keys));
          expect(same).toHaveLength(1);
        }
  });

  it('draw other questions for another seed, and the same for the same', () => {
    const asks = (seed: number) => fromNameDrill(SYMBOLS, 'left', handsOf(), seed).tasks.map((t) => t.ask);
    expect(asks(4)).toEqual(asks(4));
    expect(asks(4)).not.toEqual(asks(5));
  });
});

const sameSet = (a: ReadonlySet<number>, b: ReadonlySet<number>) => a.size === b.size && [...a].every((x) => b.has(x));

describe('what a song asks', () => {
  const arrangement = arrange(demo(DEMOS[1]));

  it('makes drills of its widest changes, the widest first', () => {
    const most = Math.max(...arrangement.parts.flatMap((p) => p.chords.map((c) => c.motion)));
    const { tasks } = hardMovesDrill(arrangement);
    const [from, to] = tasks[0].grips.map((g) => g.pitches.map(midiOf));
    expect(motionBetween(from, to)).toBe(most);
    expect(tasks.length).toBeGreaterThan(3);
  });

  it('warms up with its scale, its arpeggio and its own chords', () => {
    const drills = warmUpDrills(arrangement, handsOf());
    expect(drills.map((d) => ENGLISH.fact(d.title))).toEqual([
      'Scale of F major, right hand',
      'Arpeggio of F major, right hand',
      'Scale of F major, left hand',
      'Arpeggio of F major, left hand',
      'Chord shapes of the song',
    ]);
    const own = new Set(arrangement.parts.flatMap((p) => p.chords.map((c) => letters(c.pitches))));
    for (const g of drills[4].tasks[0].grips) expect(own.has(letters(g.pitches))).toBe(true);
  });

  it('gives runs the fingers that manuals print', () => {
    for (const key of keysOf('major'))
      for (const hand of ['left', 'right'] as const) {
        const { grips } = runDrill('scale', key, hand, handsOf()).tasks[0];
        const run = manualScales().find((r) => r.name === `${key.tonic} major` && r.hand === hand);
        const up = grips.slice(0, 15).map((g) => g.fingers[0]);
        expect(fitsManual(run ?? { accepted: [] }, up.join('')), `${key.tonic} ${hand}`).toBe(true);
        expect(grips.slice(14).map((g) => g.fingers[0])).toEqual([...up].reverse());
      }
    const short = runDrill('scale', { tonic: 'B', mode: 'major' }, 'right', handsOf('small', 49)).tasks[0].grips;
    expect(Math.max(...short.map((g) => midiOf(g.pitches[0])))).toBeLessThanOrEqual(KEYBOARDS[49].high);
  });
});

describe('playing a drill', () => {
  const [task] = inversionsDrill('C', 'left', handsOf())?.tasks ?? [];
  const press = (...midis: number[]) => midis.reduce((p, m) => pressInDrill(task, p, m), DRILL_START);

  it('takes the keys of a grip in any order and any octave and goes on to the next', () => {
    expect(press(55, 48, 52)).toEqual({ index: 1, struck: [], slips: 0 });
    expect(press(67, 60, 64, 64, 67)).toEqual({ index: 1, struck: [52, 55], slips: 0 });
  });

  it('counts a wrong key and not one struck twice', () => {
    expect(press(48, 48, 49)).toEqual({ index: 0, struck: [48], slips: 1 });
  });
});

describe('what a drill comes to', () => {
  const drill = fromNameDrill(['Dm7', 'G7'], 'left', handsOf(), 1);

  it('is clean without slips, and not once keys had to be shown or many were wrong', () => {
    const outcome = (slips: number, helped: boolean) => drillFigures(drill, [{ slips, helped }]);
    expect([outcome(0, false).accuracy, isDrillClean(outcome(0, false))]).toEqual([100, true]);
    expect(outcome(0, true)).toMatchObject({ notes: 8, right: 4, missed: 4, accuracy: 50 });
    expect([outcome(2, false).accuracy, isDrillClean(outcome(2, false))]).toEqual([80, false]);
  });

  it('takes help for granted where the keys are in sight from the start', () => {
    const inSight = inversionsDrill('C', 'right', handsOf());
    if (!inSight) throw new Error('C has inversions.');
    expect(isDrillClean(drillFigures(inSight, [{ slips: 0, helped: true }]))).toBe(true);
  });
});

describe('the warm-up', () => {
  it('is every run of the song and its chord shapes in a row', () => {
    const song = arrange(demo(DEMOS[1]));
    expect(warmUpDrill(song, handsOf()).tasks.map((t) => t.ask)).toEqual(
      warmUpDrills(song, handsOf()).flatMap((d) => d.tasks.map((t) => t.ask)),
    );
  });
});
