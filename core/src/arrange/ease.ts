import { songDifficulty } from './song-difficulty.js';
import { LEVELS, type Document, type Level } from '../song/decisions.js';
import { wishAt, type PartRange } from '../song/edits.js';
import { arrange } from './arrange.js';
import type { Arrangement } from './arrangement.js';
import { applyFix, type Fix, type FixAction, type FixFact } from './fixes.js';

/** Difficulty where it is asked for: of one part, or of the song. */
function difficultyIn(arrangement: Arrangement, range: PartRange | null): number {
  const part = range && arrangement.parts.find((p) => p.start === range.start);
  return part ? part.difficulty.score : songDifficulty(arrangement.parts);
}

/** A simpler or fuller version of a part or a song, and how hard it is. */
export interface Version {
  readonly level: Level;
  readonly difficulty: number;
  readonly current: boolean;
}

/** Every version from the tune alone to full chords, for a part or the whole song (null). */
export function versions(doc: Document, range: PartRange | null): Version[] {
  const now = range ? wishAt(doc, range.start, 'level') : doc.choices.level;
  return LEVELS.map((level) => ({
    level,
    difficulty: difficultyIn(arrange(applyFix(doc, { kind: 'level', range, level })), range),
    current: level === now,
  }));
}

/** A change that makes a part or a song easier, and the points that it gains. */
export interface Ease extends Fix {
  readonly action: FixAction;
  readonly gain: number;
}

/**
 * What would make a part or the whole song (null) easier, the largest gain first; changes that gain nothing are left out.
 * `known` is what `versions` answered for the same stretch.
 */
export function whatHelps(
  doc: Document,
  arrangement: Arrangement,
  range: PartRange | null,
  known: readonly Version[] = versions(doc, range),
): Ease[] {
  const now = difficultyIn(arrangement, range);
  const after = (action: FixAction): number => {
    const version = action.kind === 'level' ? known.find((v) => v.level === action.level) : undefined;
    return version ? version.difficulty : difficultyIn(arrange(applyFix(doc, action)), range);
  };
  return changesFor(doc, arrangement, range)
    .map(({ fact, action }) => ({ fact, action, gain: now - after(action) }))
    .filter((ease) => ease.gain > 0)
    .sort((a, b) => b.gain - a.gain);
}

type Helpful = Fix & { readonly action: FixAction };

function changesFor(doc: Document, arrangement: Arrangement, range: PartRange | null): Helpful[] {
  const at = range?.start ?? 0;
  const inside = (place: number) => !range || (place >= range.start && place < range.end);
  const level = wishAt(doc, at, 'level');
  const chords = arrangement.parts.flatMap((p) => p.chords).filter((c) => inside(c.at));
  const simpler = LEVELS.slice(0, LEVELS.indexOf(level)).map((l): Helpful => ({
    fact: { code: 'fix.level', level: l },
    action: { kind: 'level', range, level: l },
  }));
  const kept = chords.filter((c) => c.pinned).map((c) => ({ kind: 'unpin', at: c.writtenAt }) as const);
  const quick = arrangement.findings.flatMap((f) =>
    f.rule === 'fast' && f.at !== null && inside(f.at) ? f.fixes.flatMap((x) => (x.action ? [x.action] : [])) : [],
  );
  return [
    ...simpler,
    ...(chords.some((c) => c.school !== 'close')
      ? [helpful({ code: 'fix.nearest-inversions' }, { kind: 'school', range, school: 'close' })]
      : []),
    helpful({ code: 'fix.straighten' }, { kind: 'rhythm', range, rhythm: 'plain' }),
    helpful({ code: 'fix.on-the-beat' }, { kind: 'timing', range, timing: 'plain' }),
    ...(kept.length > 0 ? [helpful({ code: 'fix.let-all-go' }, { kind: 'all', actions: kept })] : []),
    ...(quick.length > 0 ? [helpful({ code: 'fix.skip-passing' }, { kind: 'all', actions: quick })] : []),
  ];
}

const helpful = (fact: FixFact, action: FixAction): Helpful => ({ fact, action });
