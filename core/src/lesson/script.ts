import type { Arrangement, Part } from '../arrange/arrangement.js';
import type { Fill } from '../catalogue/fills/fill.js';
import type { DifficultyFact } from '../difficulty/difficulty.js';
import { CLOSING } from '../fills/close.js';
import { nameOf } from '../pitch/pitch.js';
import { plainScore } from '../practice/score.js';
import { printsOf } from '../practice/steps.js';
import { repeatPlace } from '../sheet/chart.js';
import { patternOf } from '../sheet/pattern.js';
import { barAt } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { PACE, secondsOfPassage } from './pace.js';
import {
  barsOf,
  isPiece,
  line,
  piecesOf,
  secondsOfScenes,
  struckIn,
  type LessonWishes,
  type Material,
  type Piece,
} from './piece.js';
import type { Chapter, ChapterFact, LessonScript, Passage, Scene } from './scene.js';

/**
 * The lesson of an arrangement, in the order in which it is taught: every part by itself, each joined to those before it, the hardest spot,
 * then what dresses it, and the whole. What repeats an earlier part is only named. Everything is taught before it is asked for.
 */
export function lessonScript(arrangement: Arrangement, wishes: LessonWishes): LessonScript {
  const plain = [...plainScore(arrangement)].sort((a, b) => a.at - b.at);
  const prints = {
    right: printsOf(plain.filter((n) => n.hand === 'right')),
    left: printsOf(plain.filter((n) => n.hand === 'left')),
    plain: printsOf(plain),
    dressed: printsOf(arrangement.score),
  };
  const material: Material = { arrangement, plain, prints };
  const dressings = new Set<string>();
  const played = arrangement.parts.filter(
    (p) => struckIn(material, { from: p.start, to: p.end }, 'right').length > 0 || p.chords.length > 0,
  );
  const chapter = (id: string, title: ChapterFact, scenes: readonly Scene[]): Chapter[] =>
    scenes.length === 0 ? [] : [{ id, title, scenes, seconds: secondsOfScenes(material, scenes) }];
  const known = new Set<string>();
  return {
    chapters: [
      ...chapter('opening', { code: 'chapter.opening' }, played.length > 0 ? [opening(arrangement)] : []),
      ...played.flatMap((part, i) => [
        ...partChapters(material, part, wishes, known).flatMap(({ id, piece, scenes }) => {
          const bars = isPiece(piece) ? barsOf(material, piece) : null;
          return chapter(id, { code: 'chapter.part', number: part.number, bars }, scenes);
        }),
        ...soFar(material, played, i, wishes.joins).flatMap((scene) =>
          chapter(scene.id, { code: 'chapter.so-far', from: scene.from, to: part.number }, [scene]),
        ),
      ]),
      ...chapter('hardest', { code: 'chapter.hardest' }, hardestSpot(material)),
      ...played.flatMap((part) =>
        inChapters(material, dressing(material, part, dressings)).flatMap((scenes, i) =>
          chapter(
            `dressing:${part.start}-${part.end}${i > 0 ? `/${i + 1}` : ''}`,
            { code: 'chapter.dressing', number: part.number },
            scenes,
          ),
        ),
      ),
      ...chapter('whole', { code: 'chapter.whole' }, played.length > 1 ? [whole(arrangement)] : []),
    ],
  };
}

function opening({ song, parts }: Arrangement): Scene {
  const { title, key, meters } = song;
  const says = { code: 'lesson.opens', title, key, meter: meters[0], parts: parts.length } as const;
  return { id: 'opening', kind: 'opening', part: parts[0].number, lines: [line(says)], plays: null, asks: false };
}

/** What is taught of a part: all of it, only what is new in it, or only its name. */
function partChapters(
  material: Material,
  part: Part,
  wishes: LessonWishes,
  known: Set<string>,
): { id: string; piece: Piece; scenes: Scene[] }[] {
  const { bars } = material.arrangement;
  const as = repeatPlace(part, bars);
  const newFrom = as && as.differsFrom !== null ? Math.max(part.start, barAt(bars, as.differsFrom).start) : part.end;
  const takesUp = as?.kind === 'exact' || as?.kind === 'new-ending';
  // The same tune under other chords, or under other keys of theirs, is learned again.
  const from = takesUp && isSame(material, part, newFrom) ? newFrom : part.start;
  const pieces = from < part.end ? piecesOf(material, { part, from, to: part.end }, wishes, known) : [];
  const chapters = pieces.map(({ piece, scenes }) => ({ id: `part:${piece.from}-${piece.to}`, piece, scenes }));
  if (!as || (takesUp && from === part.start)) return chapters;
  const told: Scene = {
    id: `repeat:${part.start}-${part.end}`,
    kind: 'repeat',
    part: part.number,
    lines: [line({ code: 'lesson.repeats', part: part.number, as: from === part.end ? { ...as, kind: 'exact' } : as })],
    plays: null,
    asks: false,
  };
  const piece = { part, from: part.start, to: part.end };
  const [first = { id: `part:${part.start}-${part.end}`, piece, scenes: [] }, ...rest] = chapters;
  return [{ ...first, scenes: [told, ...first.scenes] }, ...rest];
}

/** True where a part strikes the same keys as the one that it takes up, as far as a place. */
function isSame({ arrangement, prints }: Material, part: Part, to: Ticks): boolean {
  const model = part.repeats ? arrangement.parts[part.repeats.part - 1] : part;
  const of = ({ start }: Part) => ({ start, end: start + to - part.start });
  return (['right', 'left'] as const).every((hand) => prints[hand](of(model)) === prints[hand](of(part)));
}

/** Parts one after another up to a part: as many before it as take no longer than they may, or the pair it closes. */
function soFar(
  material: Material,
  played: readonly Part[],
  i: number,
  joins: LessonWishes['joins'],
): (Scene & { from: number })[] {
  const { song } = material.arrangement;
  const part = played[i];
  const passage = (from: Part): Passage => ({ from: from.start, to: part.end, hands: 'both', plain: true, share: PACE.joined });
  const first = joins === 'pairs' ? (i % 2 === 1 ? i - 1 : i) : 0;
  let at = i;
  while (at > first && secondsOfPassage(passage(played[at - 1]), song.tempo) <= PACE.soFar) at--;
  if (at === i) return [];
  const plays = passage(played[at]);
  return [
    {
      id: `so-far:${plays.from}-${plays.to}`,
      from: played[at].number,
      kind: 'so-far',
      part: part.number,
      lines: [line({ code: 'lesson.so-far', from: played[at].number, to: part.number })],
      plays,
      asks: true,
    },
  ];
}

/** The hardest bars of the hardest part, three times. */
function hardestSpot(material: Material): Scene[] {
  const { hardest, parts } = material.arrangement;
  const part = hardest ? parts[hardest.part - 1] : undefined;
  if (!hardest || !part) return [];
  const { from, to } = spotIn(material, part, hardest.reasons);
  const bars = barsOf(material, { from, to });
  return Array.from({ length: PACE.spot.times }, (_, i): Scene => ({
    id: `hardest:${i + 1}`,
    kind: 'hardest',
    part: part.number,
    lines: [
      line(
        i === 0
          ? { code: 'lesson.hardest', part: part.number, bars, reasons: hardest.reasons.slice(0, 2) }
          : { code: 'lesson.once-more', time: i + 1 },
      ),
    ],
    plays: { from, to, hands: 'both', plain: true, share: PACE.spot.share },
    asks: true,
  }));
}

/** The bars of a part in which most happens of what makes it hard, its first reason first. */
function spotIn(material: Material, part: Part, reasons: readonly DifficultyFact[]): { from: Ticks; to: Ticks } {
  const bars = material.arrangement.bars.filter((b) => b.end > part.start && b.start < part.end);
  const places = placesOf(material, part, reasons.at(0) ?? null);
  let best = { from: part.start, to: part.end, many: -1 };
  bars.forEach((bar, i) => {
    const last = bars[Math.min(i + PACE.spot.bars, bars.length) - 1];
    const [from, to] = [Math.max(part.start, bar.start), Math.min(part.end, last.end)];
    const many = places.filter((at) => at >= from && at < to).length;
    if (many > best.many) best = { from, to, many };
  });
  return best;
}

/** Where in a part it happens that makes it hard. */
function placesOf(material: Material, part: Part, reason: DifficultyFact | null): Ticks[] {
  const struck = (hand: 'left' | 'right') => struckIn(material, { from: part.start, to: part.end }, hand).map((s) => s.at);
  const moves = part.places.slice(1).map((p) => p.start);
  const code = reason?.code ?? null;
  const found =
    reason?.code === 'difficulty.jumps'
      ? part.jumps.filter((j) => j.hand === reason.hand).map((j) => j.at)
      : code === 'difficulty.moves' || code === 'difficulty.black-turns'
        ? moves
        : code && /left|changes|motion|chords|shapes|apart/.test(code)
          ? struck('left')
          : struck('right');
  return found.length > 0 ? found : struck('right');
}

/** What dresses a part: its pattern and its fills, those that `known` does not hold, which takes them; then the part as it is played, its ending with it. */
function dressing({ arrangement, prints }: Material, part: Part, known: Set<string>): Scene[] {
  const { bars, song, parts } = arrangement;
  if (prints.plain(part) === prints.dressed(part)) return [];
  const shared = { part: part.number, asks: false, plays: null };
  const pattern = patternOf(part, bars);
  const earlier = pattern !== null && known.has(pattern.title);
  if (pattern) known.add(pattern.title);
  const taught: Scene[] =
    pattern && !earlier
      ? [
          {
            ...shared,
            id: `pattern:${part.start}-${part.end}`,
            kind: 'pattern',
            lines: [
              line({
                code: 'lesson.pattern',
                part: part.number,
                title: pattern.title,
                symbol: pattern.symbol,
                over: pattern.over,
              }),
              ...pattern.strikes.map((s) => line({ code: 'lesson.strike', count: s.count, notes: s.notes }, s.pitches)),
            ],
          },
        ]
      : [];
  const fills = fillsOf(arrangement, part).flatMap(({ at, end, fill }): Scene[] => {
    const name = `${fill.kind} ${fill.notes.map((n) => n.pitch).join(' ')}`;
    if (known.has(name)) return [];
    known.add(name);
    return [
      {
        ...shared,
        id: `fill:${at}-${end}`,
        kind: 'fill',
        lines: [
          line({ code: 'lesson.fill', bar: barAt(bars, at).number, why: fill.why }),
          ...fill.notes.map((n) => line({ code: 'lesson.note', name: nameOf(n.pitch), beside: [] }, [n.pitch], n.at)),
        ],
        plays: { from: at, to: end, hands: 'right', plain: false, share: PACE.slow[0] },
        asks: true,
      },
    ];
  });
  const last = part.number === parts.length;
  const closes = last && part.chords.some((c) => c.dressed?.texture === CLOSING);
  const passage: Passage = { from: part.start, to: part.end, hands: 'both', plain: false, share: 1 };
  // As slowly as there is time for; a part that is too long for it is only heard.
  const share = [...PACE.slow, 1].find((s) => 2 * secondsOfPassage({ ...passage, share: s }, song.tempo) <= PACE.dressed);
  const dressed = line({ code: 'lesson.dressed', part: part.number, pattern: pattern !== null, fills: part.fills.length > 0 });
  return [
    ...taught,
    ...fills,
    {
      ...shared,
      id: `dressed:${part.start}-${part.end}`,
      kind: closes ? 'ending' : 'dressed',
      lines: closes ? [dressed, line({ code: 'lesson.ending' })] : [dressed],
      plays: { ...passage, share: share ?? 1 },
      asks: share !== undefined,
    },
  ];
}

/** The fills of a part that are played, each with the room that it fills. */
function fillsOf(arrangement: Arrangement, { rooms }: Part): { at: Ticks; end: Ticks; fill: Fill }[] {
  const sounds = new Set(arrangement.score.filter((n) => n.role === 'fill').map((n) => n.at));
  return rooms.flatMap(({ at, length, offers, chosen }) => {
    const fill = offers.find((o) => o.kind === chosen);
    return fill?.notes.some((n) => sounds.has(n.at)) ? [{ at, end: at + length, fill }] : [];
  });
}

/** Scenes in as few rows as it takes for none to be longer than a part may be. */
function inChapters(material: Material, scenes: readonly Scene[]): Scene[][] {
  const rows: Scene[][] = [];
  let seconds = Infinity;
  for (const scene of scenes) {
    const own = secondsOfScenes(material, [scene]);
    if (seconds + own > PACE.part) {
      rows.push([]);
      seconds = 0;
    }
    rows[rows.length - 1].push(scene);
    seconds += own;
  }
  return rows;
}

function whole({ song, parts }: Arrangement): Scene {
  return {
    id: 'whole',
    kind: 'whole',
    part: parts[0].number,
    lines: [line({ code: 'lesson.whole' })],
    plays: { from: 0, to: song.length, hands: 'both', plain: false, share: 1 },
    asks: false,
  };
}
