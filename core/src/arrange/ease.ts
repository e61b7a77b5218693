import { songDifficulty } from './song-difficulty.js';
import { LEVELS, type Document, type Level } from '../song/decisions.js';
import { applyEdit, type Edit } from '../song/edit.js';
import { settingAt, type TickRange } from '../song/edits.js';
import { arrange } from './arrange.js';
import type { Arrangement } from './arrangement.js';
import type { Fix, FixFact } from './fixes.js';
import { atMost } from './settings.js';

/** Difficulty where it is asked for: of one part, or of the song. */
function difficultyIn(arrangement: Arrangement, range: TickRange | null): number {
  const part = range && arrangement.parts.find((p) => p.start === range.start);
  return part ? part.difficulty.score : songDifficulty(arrangement.parts);
}

/** A simpler or fuller version of a part or a song, and how hard it is. */
export interface LevelOption {
  readonly level: Level;
  readonly difficulty: number;
  readonly current: boolean;
}

/** Every version from the tune alone to the fullest that the player is given, for a part or the whole song (null). */
export function levelOptions(doc: Document, range: TickRange | null): LevelOption[] {
  const now = atMost(range ? settingAt(doc, range.start, 'level') : doc.choices.level, doc.hands.most);
  return LEVELS.filter((level) => atMost(level, doc.hands.most) === level).map((level) => ({
    level,
    difficulty: difficultyIn(arrange(applyEdit(doc, { code: 'edit.setting', range, setting: 'level', value: level })), range),
    current: level === now,
  }));
}

/** A change that makes a part or a song easier, and the points that it gains. */
export interface Ease extends Fix {
  readonly action: Edit;
  readonly gain: number;
}

/**
 * What would make a part or the whole song (null) easier, the largest gain first; changes that gain nothing are left out.
 * `known` is what `versions` answered for the same stretch.
 */
export function whatHelps(
  doc: Document,
  arrangement: Arrangement,
  range: TickRange | null,
  known: readonly LevelOption[] = levelOptions(doc, range),
): Ease[] {
  const now = difficultyIn(arrangement, range);
  const after = (action: Edit): number => {
    const version =
      action.code === 'edit.setting' && action.setting === 'level' ? known.find((v) => v.level === action.value) : undefined;
    return version ? version.difficulty : difficultyIn(arrange(applyEdit(doc, action)), range);
  };
  return changesFor(doc, arrangement, range)
    .map(({ fact, action }) => ({ fact, action, gain: now - after(action) }))
    .filter((ease) => ease.gain > 0)
    .sort((a, b) => b.gain - a.gain);
}

type Helpful = Fix & { readonly action: Edit };

function changesFor(doc: Document, arrangement: Arrangement, range: TickRange | null): Helpful[] {
  const at = range?.start ?? 0;
  const inside = (place: number) => !range || (place >= range.start && place < range.end);
  const level = settingAt(doc, at, 'level');
  const chords = arrangement.parts.flatMap((p) => p.chords).filter((c) => inside(c.at));
  const simpler = LEVELS.slice(0, LEVELS.indexOf(level)).map((l): Helpful => ({
    fact: { code: 'fix.level', level: l },
    action: { code: 'edit.setting', range, setting: 'level', value: l },
  }));
  const kept = chords.filter((c) => c.pinned).map((c) => ({ code: 'edit.free-voicing', at: c.writtenAt }) as const);
  const quick = arrangement.findings.flatMap((f) =>
    f.rule === 'fast' && f.at !== null && inside(f.at) ? f.fixes.flatMap((x) => (x.action ? [x.action] : [])) : [],
  );
  return [
    ...simpler,
    ...(chords.some((c) => c.school !== 'close')
      ? [helpful({ code: 'fix.nearest-inversions' }, { code: 'edit.school', range, school: 'close' })]
      : []),
    helpful({ code: 'fix.straighten' }, { code: 'edit.setting', range, setting: 'rhythm', value: 'plain' }),
    helpful({ code: 'fix.on-the-beat' }, { code: 'edit.setting', range, setting: 'timing', value: 'plain' }),
    ...(kept.length > 0
      ? [helpful({ code: 'fix.let-all-go' }, { code: 'edit.several', as: { kind: 'free-voicings' }, edits: kept })]
      : []),
    ...(quick.length > 0
      ? [helpful({ code: 'fix.skip-passing' }, { code: 'edit.several', as: { kind: 'skip-passing' }, edits: quick })]
      : []),
  ];
}

const helpful = (fact: FixFact, action: Edit): Helpful => ({ fact, action });
