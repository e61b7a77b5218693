import { arrange } from '@joined-hands/core/arrange';
import { grade, notesOf, stepsOf } from '@joined-hands/core/practice';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS } from '../../../../../core/testing/songs';
import { marksOf } from './marks';

const glass = arrange(demo(DEMOS[1]));
const step = stepsOf(glass, { order: 'song', joins: 'chain' }).find((s) => s.kind === 'slow');
const notes = step ? notesOf(glass, step) : [];
const heard = notes.map((n) => ({ midi: n.midi, time: n.at }));
const marks = (played: typeof heard) => {
  const inTime = [...played].sort((a, b) => a.time - b.time);
  return marksOf(grade(notes, inTime, { tempo: 60, octavesForgiven: false }).notes, notes);
};

describe('marks on the strip', () => {
  it('are none after a pass in which all is right', () => {
    expect(marks(heard)).toEqual([]);
  });

  it('stand where a note was wrong or missing, under its own hand', () => {
    const tune = notes.findIndex((n) => n.hand === 'right' && n.at > 1);
    const wrong = heard.map((h, i) => (i === tune ? { ...h, midi: h.midi + 1 } : h));
    expect(marks(wrong)).toEqual([{ hand: 'right', place: notes[tune].place, verdict: 'wrong' }]);
    expect(marks(heard.filter((_, i) => i !== tune))).toEqual([{ hand: 'right', place: notes[tune].place, verdict: 'missed' }]);
  });

  it('are one for a chord, the gravest of its faults', () => {
    const chord = notes.filter((n) => n.hand === 'left' && n.place === notes.find((m) => m.hand === 'left' && m.at > 2)?.place);
    expect(chord.length).toBeGreaterThan(2);
    const late = heard.map((h, i) => (chord.includes(notes[i]) ? { ...h, time: h.time + 0.3 } : h));
    expect(marks(late)).toEqual([{ hand: 'left', place: chord[0].place, verdict: 'late' }]);
    const worse = late.filter((_, i) => notes[i] !== chord[0]);
    expect(marks(worse)).toEqual([{ hand: 'left', place: chord[0].place, verdict: 'missed' }]);
  });
});
