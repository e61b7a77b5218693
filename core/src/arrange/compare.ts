import { textureTitle } from '../fills/texture.js';
import { grouped } from '../lists/grouped.js';
import { nameOf } from '../pitch/pitch.js';
import type { Document } from '../song/decisions.js';
import { settingAt } from '../song/edits.js';
import { toQuarters } from '../time/ticks.js';
import type { Arrangement, ScoreNote } from './arrangement.js';
import { songDifficulty } from './song-difficulty.js';

/** One bar of one arrangement, as it is told beside another. */
export interface ComparedBar {
  readonly chords: string;
  /** Left-hand attacks, each bottom-up: "C3 E3 G3 · A2". */
  readonly left: string;
  /** What the right hand plays beside the tune. */
  readonly right: string;
  readonly tune: string;
  readonly texture: string;
}

/** One bar of two arrangements. */
export interface BarPair {
  readonly number: number;
  readonly start: number;
  readonly a: ComparedBar;
  readonly b: ComparedBar;
  /** What differs in it; empty where the two are the same. */
  readonly differs: readonly Aspect[];
}

/** What two arrangements cost to play. */
export interface ComparedFigures {
  readonly difficulty: number;
  readonly hardestPart: number | null;
  /** Half steps that the voices of the left hand move in all. */
  readonly motion: number;
  readonly notes: number;
  readonly jumps: number;
  /** Findings that ask for something to be mended. */
  readonly troubles: number;
}

/** Two arrangements of a song side by side. */
export interface Comparison {
  readonly bars: readonly BarPair[];
  readonly a: ComparedFigures;
  readonly b: ComparedFigures;
}

/** Lays two arrangements beside each other, bar by bar, with what differs and what each costs. */
export function compareArrangements(a: Side, b: Side): Comparison {
  const [left, right] = [barsOf(a), barsOf(b)];
  const bars = left.length >= right.length ? a.arrangement.bars : b.arrangement.bars;
  return {
    bars: bars.map((bar, i) => {
      const [one, other] = [left[i] ?? EMPTY, right[i] ?? EMPTY];
      return { number: bar.number, start: bar.start, a: one, b: other, differs: differences(one, other) };
    }),
    a: figuresOf(a.arrangement),
    b: figuresOf(b.arrangement),
  };
}

/** A document with its arrangement. */
export interface Side {
  readonly document: Document;
  readonly arrangement: Arrangement;
}

const EMPTY: ComparedBar = { chords: '', left: '', right: '', tune: '', texture: '' };

const ASPECTS = ['tune', 'chords', 'texture', 'left', 'right'] as const;

/** What two arrangements can differ in within a bar. */
export type Aspect = (typeof ASPECTS)[number];

const differences = (a: ComparedBar, b: ComparedBar): Aspect[] => ASPECTS.filter((aspect) => a[aspect] !== b[aspect]);

function barsOf({ document: doc, arrangement }: Side): ComparedBar[] {
  const { bars, parts, score } = arrangement;
  const chords = parts.flatMap((p) => p.chords.filter((c) => !c.restruck || c.at === p.start));
  let [n, c] = [0, 0];
  return bars.map((bar) => {
    const notes: ScoreNote[] = [];
    for (; n < score.length && score[n].at < bar.end; n++) notes.push(score[n]);
    const symbols: string[] = [];
    for (; c < chords.length && chords[c].at < bar.end; c++) symbols.push(chords[c].symbol);
    const tune = notes.filter((x) => x.role === 'melody');
    const name = settingAt(doc, bar.start, 'texture');
    return {
      chords: symbols.join(' '),
      left: attacks(notes.filter((x) => x.hand === 'left')),
      right: attacks(notes.filter((x) => x.hand === 'right' && x.role !== 'melody')),
      tune: tune.map((x) => `${nameOf(x.pitch)}${octaveMark(x)} ${toQuarters(x.length)}`).join(' '),
      texture: textureTitle(name, doc.choices.textures),
    };
  });
}

const octaveMark = ({ pitch }: ScoreNote): string => pitch.replace(/^\D+/, '');

function attacks(notes: readonly ScoreNote[]): string {
  const moments = grouped(notes, (n) => n.at);
  return [...moments.values()].map((struck) => struck.map((n) => n.pitch).join(' ')).join(' · ');
}

function figuresOf(arrangement: Arrangement): ComparedFigures {
  const { parts, score, totals, findings, hardest } = arrangement;
  return {
    difficulty: songDifficulty(parts),
    hardestPart: hardest?.part ?? null,
    motion: totals.leftTravel,
    notes: score.length,
    jumps: parts.reduce((sum, p) => sum + p.jumps.length, 0),
    troubles: findings.filter((f) => f.severity === 'fix').length,
  };
}
