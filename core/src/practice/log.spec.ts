import { ENGLISH, passTitle } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { withoutRest } from './care.js';
import { isOver, pressWhileWaiting, releaseWhileWaiting, waitPlaces, WAITING, type Waiting } from './listen.js';
import {
  accuracyMap,
  daysInARow,
  logCsv,
  minutesPerDay,
  PASS_KINDS,
  PassSchema,
  readLog,
  tempoReached,
  writeLog,
  type Pass,
} from '../log/log.js';
import { simulateLog } from './practised.js';
import { dueAhead } from './review.js';
import { notesOf, plainScore } from './score.js';
import { stepsOf } from './steps.js';
import { stepStates } from './today.js';

const figures = (accuracy: number): Pass['figures'] => ({
  notes: 20,
  right: 18,
  wrong: 1,
  missed: 1,
  extra: 0,
  early: 2,
  late: 1,
  accuracy,
});
const pass = (over: Partial<Pass> = {}): Pass => ({
  id: 'a',
  song: 's',
  title: 'Harbour Glass',
  at: Date.UTC(2031, 4, 20, 18, 5),
  day: '2031-05-20',
  step: 'right:0-9',
  kind: 'right',
  parts: '3',
  hands: 'right',
  tempo: 60,
  goal: 84,
  figures: figures(90),
  clean: true,
  seconds: 90,
  note: '',
  ...over,
});

describe('the log', () => {
  it('goes out and comes back whole', () => {
    const passes = fc.array(
      fc.record({ note: fc.string({ maxLength: 40 }), kind: fc.constantFrom(...PASS_KINDS), seconds: fc.nat(5000) }).map(pass),
    );
    fc.assert(
      fc.property(passes, (list) => {
        expect(readLog(writeLog(list))).toEqual({ ok: true, passes: list });
      }),
    );
  });

  it('refuses what is no log with the place', () => {
    const broken = writeLog([pass(), pass({ tempo: 60 })]).replace(/"tempo": 60(?![\s\S]*"tempo")/, '"tempo": "fast"');
    const sentence = (text: string) => {
      const read = readLog(text);
      return read.ok ? 'was read' : ENGLISH.fact(read.fact);
    };
    expect(sentence(broken)).toContain('entry 2, tempo');
    expect(sentence('{"format":"other"}')).toContain('its heading');
    expect(sentence('tempo 60')).toContain('not a practice log');
  });

  it('is a table that a spreadsheet reads and nothing in it runs', () => {
    const [head, row, quiet] = logCsv([pass({ note: 'slow, "even"' }), pass({ figures: null, note: '=SUM(A1)' })]).split('\r\n');
    expect(head.split(',')).toHaveLength(19);
    expect(row).toBe('2031-05-20,18:05,Harbour Glass,right,3,right,60,84,20,18,1,1,0,2,1,90,yes,1.5,"slow, ""even"""');
    expect(quiet.endsWith(`,,,,,,,,,yes,1.5,'=SUM(A1)`)).toBe(true);
  });

  it('adds up minutes by day, days without any too, and days in a row', () => {
    const list = [pass({ day: '2031-05-18', seconds: 120 }), pass({ day: '2031-05-20' }), pass({ day: '2031-05-20' })];
    expect(minutesPerDay(list, '2031-05-20', 3).map((d) => d.minutes)).toEqual([2, 0, 3]);
    expect([daysInARow(list, '2031-05-20'), daysInARow(list, '2031-05-21'), daysInARow(list, '2031-05-22')]).toEqual([1, 1, 0]);
    expect(daysInARow([...list, pass({ day: '2031-05-19' })], '2031-05-20')).toBe(3);
  });

  it('knows the fastest clean tempo against the goal, and how each hand of a part goes now', () => {
    const list = [
      pass({ parts: '10', tempo: 50 }),
      pass({ parts: '2', tempo: 70, clean: false, figures: figures(40) }),
      pass({ parts: '2', tempo: 55, hands: 'left', figures: figures(80) }),
      pass({ parts: '', kind: 'drill' }),
      ...[60, 70, 80, 90, 100].map((a) => pass({ parts: '2', tempo: 48, figures: figures(a) })),
    ];
    expect(tempoReached(list)).toEqual([
      { parts: '2', tempo: 55, goal: 84 },
      { parts: '10', tempo: 50, goal: 84 },
    ]);
    expect(accuracyMap(list).filter((c) => c.parts === '2')).toEqual([
      { parts: '2', hands: 'right', accuracy: 80 },
      { parts: '2', hands: 'left', accuracy: 80 },
    ]);
  });
});

const arrangement = arrange(demo(DEMOS[1]));
const [first] = arrangement.parts;
const stint = { from: first.start, to: first.end, hands: 'both', plain: true } as const;

describe('what is to be played', () => {
  it('is the hand that is asked for, told from where it begins, with its chords', () => {
    const left = notesOf(arrangement, {
      ...stint,
      hands: 'left',
      from: arrangement.parts[1].start,
      to: arrangement.parts[1].end,
    });
    expect(new Set(left.map((n) => n.hand))).toEqual(new Set(['left']));
    expect(left[0]).toMatchObject({ at: 0, place: arrangement.parts[1].start, chord: arrangement.parts[1].chords[0].symbol });
    expect(left.every((n) => n.finger !== null)).toBe(true);
    const right = plainScore(arrangement).filter((n) => n.hand === 'right' && n.at < first.end);
    expect(notesOf(arrangement, { ...stint, hands: 'right' })).toHaveLength(right.length);
  });

  it('is over with its last keys, not with the same keys before', () => {
    const notes = notesOf(arrangement, stint);
    const heard = notes.map((n) => ({ midi: n.midi, time: n.at }));
    const last = notes.filter((n) => n.at === notes[notes.length - 1].at).length;
    expect(isOver(notes, heard)).toBe(true);
    expect(isOver(notes, heard.slice(0, -last))).toBe(false);
    expect(isOver(notes, heard.slice(-last))).toBe(false);
    expect(isOver([], heard)).toBe(false);
  });

  it('is never told to be over before its last key, however its end repeats what came before', () => {
    for (const song of DEMOS.map((name) => arrange(demo(name))))
      for (const step of stepsOf(song, { order: 'song', joins: 'chain' })) {
        const notes = [...notesOf(song, step)].sort((a, b) => a.at - b.at);
        const over = notes.map((_, i) =>
          isOver(
            notes,
            notes.slice(0, i + 1).map((n) => ({ midi: n.midi, time: n.at })),
          ),
        );
        expect(over.indexOf(true)).toBe(notes.length - 1);
      }
  });
});

describe('music that waits', () => {
  const places = waitPlaces(notesOf(arrangement, stint));

  it('moves on when all keys of a place are down, and to the end when all are played', () => {
    let waiting: Waiting = WAITING;
    for (const { midis } of places)
      for (const [k, midi] of [...midis].reverse().entries()) {
        const pressed = pressWhileWaiting(places, waiting, midi, false);
        expect(pressed.what).toBe(k === midis.length - 1 ? 'moved' : 'held');
        waiting = pressed.waiting;
      }
    expect(waiting.index).toBe(places.length);
    expect(pressWhileWaiting(places, waiting, 60, false).what).toBe('wrong');
  });

  it('stays on a wrong key, on one let go too soon, and forgives the octave where asked', () => {
    const chord = [{ at: 0, midis: [48, 52] }];
    expect(pressWhileWaiting(chord, WAITING, 49, false)).toEqual({ waiting: WAITING, what: 'wrong' });
    const { waiting } = pressWhileWaiting(chord, WAITING, 48, false);
    expect(releaseWhileWaiting(waiting, 48, false)).toEqual(WAITING);
    expect(pressWhileWaiting(chord, waiting, 48, false).what).toBe('held');
    expect(pressWhileWaiting(chord, waiting, 64, false).what).toBe('wrong');
    expect(pressWhileWaiting(chord, waiting, 64, true).what).toBe('moved');
  });
});

describe('a rest', () => {
  const minutes = (n: number) => n * 60_000;
  const passes = [5, 10, 15, 22].map((end) => ({ at: minutes(end), seconds: 240 }));

  it('is counted from the last quiet minutes', () => {
    expect(withoutRest(passes, minutes(22))).toBe(21 * 60);
    expect(withoutRest(passes.slice(0, 1), minutes(6))).toBe(5 * 60);
    expect(withoutRest([...passes, { at: minutes(40), seconds: 60 }], minutes(40))).toBe(60);
    expect([withoutRest(passes, minutes(40)), withoutRest([], minutes(3))]).toEqual([0, 0]);
  });
});

describe('what comes back', () => {
  const learned = (step: string, day: string): Pass[] =>
    Array.from({ length: 3 }, (_, i) => pass({ id: `${step}${i}`, step, day, tempo: 84 }));

  it('counts what was learned on the day it is due, what is overdue today, and leaves out work in hand', () => {
    const list = [...learned('a', '2031-05-01'), ...learned('b', '2031-05-20'), ...learned('c', '2031-05-20')];
    const begun = pass({ step: 'd', day: '2031-05-20' });
    expect(dueAhead([...list, begun], '2031-05-20', 4).map((d) => d.count)).toEqual([1, 2, 0, 0]);
  });

  it('brings a drill back after its first pass', () => {
    const drill = pass({ kind: 'drill', step: 'drill:x', parts: '', tempo: 0, goal: 0, day: '2031-05-19' });
    expect(dueAhead([drill], '2031-05-19', 3).map((d) => d.count)).toEqual([0, 1, 0]);
  });
});

describe('made-up days of practice', () => {
  const song = arrange(demo(DEMOS[1]));
  const today = new Date(2031, 4, 20, 9);
  const days = { today, ago: [9, 7, 6, 4, 2, 1], minutes: 20, warmUp: 'Warm-up', seed: 5 };
  const passes = simulateLog(song, 's', days);

  it('are passes like any others, on the days asked for, and the same each time', () => {
    for (const p of passes) expect(PassSchema.parse(p)).toEqual(p);
    expect([...new Set(passes.map((p) => p.day))]).toEqual([11, 13, 14, 16, 18, 19].map((d) => `2031-05-${d}`));
    expect(passes.map((p) => p.at)).toEqual(passes.map((p) => p.at).sort((a, b) => a - b));
    expect(new Set(passes.map((p) => p.id)).size).toBe(passes.length);
    expect(simulateLog(song, 's', days)).toEqual(passes);
    for (const { minutes } of minutesPerDay(passes, '2031-05-19', 9)) expect(minutes).toBeLessThanOrEqual(22);
  });

  it('bring the plan on: steps are learned, and the slips grow fewer', () => {
    const states = stepStates(stepsOf(song, { order: 'song', joins: 'chain' }), passes, '2031-05-20');
    expect(states.filter((s) => s.state === 'learned').length).toBeGreaterThan(2);
    const heard = passes.flatMap((p) => p.figures?.accuracy ?? []);
    const mean = (list: number[]) => list.reduce((a, b) => a + b, 0) / list.length;
    expect(mean(heard.slice(-20))).toBeGreaterThan(mean(heard.slice(0, 5)));
  });
});

describe('the name of a pass', () => {
  it('says the parts and what was done', () => {
    expect(passTitle(pass())).toBe('Part 3, right hand alone');
    expect(passTitle(pass({ kind: 'join', parts: '1–2' }))).toBe('Parts 1–2, joined together');
    expect(passTitle(pass({ kind: 'drill', title: 'Inversions of Dm7' }))).toBe('Inversions of Dm7');
    expect(passTitle(pass({ kind: 'warm-up', title: 'Warm-up for Harbour Glass' }))).toBe('Warm-up for Harbour Glass');
  });
});
