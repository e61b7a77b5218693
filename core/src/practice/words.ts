import type { Grade, GradedNote } from './grade.js';

/** Figures of a pass. */
export interface PassFigures {
  readonly notes: number;
  readonly right: number;
  readonly wrong: number;
  readonly missed: number;
  readonly extra: number;
  readonly early: number;
  readonly late: number;
  /** Right notes in a hundred, extra keys counted against them. */
  readonly accuracy: number;
}

export function figuresOf({ notes, extra }: Grade): PassFigures {
  const count = (test: (n: GradedNote) => boolean) => notes.filter(test).length;
  const right = count((n) => n.verdict === 'right');
  return {
    notes: notes.length,
    right,
    wrong: count((n) => n.verdict === 'wrong'),
    missed: count((n) => n.verdict === 'missed'),
    extra: extra.length,
    early: count((n) => n.verdict === 'right' && n.timing === 'early'),
    late: count((n) => n.verdict === 'right' && n.timing === 'late'),
    accuracy: Math.round((100 * right) / Math.max(1, notes.length + extra.length)),
  };
}

/** A pass is clean when hardly a note was wrong and hardly one out of time. */
export const CLEAN = { accuracy: 96, outOfTime: 0.1 } as const;

export function isClean(grade: Grade): boolean {
  const f = figuresOf(grade);
  return f.accuracy >= CLEAN.accuracy && f.early + f.late <= CLEAN.outOfTime * f.notes;
}

const HANDS = ['right', 'left'] as const;

/** A pass in words, what stands out first: "Left hand late at each change to G7." */
export function passWords(grade: Grade): string[] {
  const said: string[] = [];
  for (const hand of HANDS) {
    const own = grade.notes.filter((n) => n.note.hand === hand);
    if (own.length === 0) continue;
    const name = hand === 'right' ? 'Right hand' : 'Left hand';
    for (const timing of ['late', 'early'] as const) {
      const off = own.filter((n) => n.verdict === 'right' && n.timing === timing);
      const chords = new Map<string, number>();
      for (const n of off) if (n.note.chord) chords.set(n.note.chord, (chords.get(n.note.chord) ?? 0) + 1);
      const [chord] =
        [...chords]
          .filter(([c, k]) => k >= 2 && k * 2 >= own.filter((n) => n.note.chord === c).length)
          .sort((a, b) => b[1] - a[1])[0] ?? [];
      if (chord) said.push(`${name} ${timing} at each change to ${chord}.`);
      else if (off.length >= 2 && off.length * 5 >= own.length)
        said.push(`${name} ${timing} on ${off.length} of ${own.length} notes.`);
    }
    const wrong = own.filter((n) => n.verdict === 'wrong').length;
    const missed = own.filter((n) => n.verdict === 'missed').length;
    if (wrong > 0) said.push(`${name}: ${wrong === 1 ? 'one wrong note' : `${wrong} wrong notes`}.`);
    if (missed > 0) said.push(`${name}: ${missed === 1 ? 'one note' : `${missed} notes`} missing.`);
  }
  if (grade.extra.length > 0) said.push(grade.extra.length === 1 ? 'One key too many.' : `${grade.extra.length} keys too many.`);
  if (said.length === 0)
    said.push(isClean(grade) ? 'Clean: every note in its place.' : 'Every note is there; a few lie beside their time.');
  return said;
}
