import type { Hand } from '../song/decisions.js';
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

/** What stands out in a pass. */
export type VerdictFact =
  | {
      readonly code: 'verdict.timing';
      readonly hand: Hand;
      readonly timing: 'late' | 'early';
      /** The chord at whose changes it happens, or how many notes of how many. */
      readonly at: { readonly chord: string } | { readonly notes: number; readonly of: number };
    }
  | { readonly code: 'verdict.wrong'; readonly hand: Hand; readonly notes: number }
  | { readonly code: 'verdict.missing'; readonly hand: Hand; readonly notes: number }
  | { readonly code: 'verdict.extra'; readonly keys: number }
  | { readonly code: 'verdict.clean' }
  | { readonly code: 'verdict.nearly' }
  /** The pianist's own judgement, where nothing was heard. */
  | { readonly code: 'verdict.marked-clean' }
  | { readonly code: 'verdict.marked-not-yet' }
  /** A pass in which the music waited: every key was found, some after wrong ones. */
  | { readonly code: 'verdict.found'; readonly slips: number }
  /** What a microphone can tell: other keys that were clearly heard, notes that were not, and that all were. */
  | { readonly code: 'verdict.heard-other'; readonly hand: Hand; readonly notes: number }
  | { readonly code: 'verdict.not-heard'; readonly hand: Hand; readonly notes: number }
  | { readonly code: 'verdict.all-heard'; readonly inTime: boolean }
  | { readonly code: 'verdict.found-by-ear' };

/** Who heard a pass: keys, that know what was pressed, or an ear, that hears what sounds. */
export type HeardBy = 'keys' | 'ear';

/** A pass as an ear can vouch for it: keys that nothing asked for are not told. */
export const asHeardBy = (grade: Grade, by: HeardBy): Grade => (by === 'ear' ? { ...grade, extra: [] } : grade);

/** What stands out in a pass, hand by hand. */
export function verdictsOf(grade: Grade, by: HeardBy = 'keys'): VerdictFact[] {
  const facts: VerdictFact[] = [];
  for (const hand of HANDS) {
    const own = grade.notes.filter((n) => n.note.hand === hand);
    if (own.length === 0) continue;
    for (const timing of ['late', 'early'] as const) {
      const off = own.filter((n) => n.verdict === 'right' && n.timing === timing);
      const chords = new Map<string, number>();
      for (const n of off) if (n.note.chord) chords.set(n.note.chord, (chords.get(n.note.chord) ?? 0) + 1);
      const [chord] =
        [...chords]
          .filter(([c, k]) => k >= 2 && k * 2 >= own.filter((n) => n.note.chord === c).length)
          .sort((a, b) => b[1] - a[1])[0] ?? [];
      if (chord) facts.push({ code: 'verdict.timing', hand, timing, at: { chord } });
      else if (off.length >= 2 && off.length * 5 >= own.length)
        facts.push({ code: 'verdict.timing', hand, timing, at: { notes: off.length, of: own.length } });
    }
    const wrong = own.filter((n) => n.verdict === 'wrong').length;
    const missed = own.filter((n) => n.verdict === 'missed').length;
    if (wrong > 0) facts.push({ code: by === 'ear' ? 'verdict.heard-other' : 'verdict.wrong', hand, notes: wrong });
    if (missed > 0) facts.push({ code: by === 'ear' ? 'verdict.not-heard' : 'verdict.missing', hand, notes: missed });
  }
  if (grade.extra.length > 0) facts.push({ code: 'verdict.extra', keys: grade.extra.length });
  const clean = isClean(grade);
  if (facts.length === 0)
    facts.push(
      by === 'ear' ? { code: 'verdict.all-heard', inTime: clean } : { code: clean ? 'verdict.clean' : 'verdict.nearly' },
    );
  return facts;
}
