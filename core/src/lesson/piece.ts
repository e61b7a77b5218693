import type { Arrangement, Part, PartChord } from '../arrange/arrangement.js';
import { grouped } from '../lists/grouped.js';
import { midiOf, nameOf, type Pitch } from '../pitch/pitch.js';
import type { JoinOrder } from '../log/step.js';
import type { PracticeNote } from '../practice/score.js';
import type { Prints } from '../practice/steps.js';
import { movesOf, startOf, type MoveFact, type StartFact } from '../right-hand/positions.js';
import { joinsOf } from '../sheet/lesson.js';
import type { Hand } from '../song/decisions.js';
import { barAt } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { PACE, secondsOfScene } from './pace.js';
import type { LessonLine, Passage, Scene, SceneKind } from './scene.js';

/** How the pianist wishes to be taught. */
export interface LessonWishes {
  /** The hand that is learned first. */
  readonly first: Hand;
  /** Whether the hands meet on words or on counts. */
  readonly by: 'words' | 'counts';
  /** How parts are joined: each to those before it, or two and two. */
  readonly joins: JoinOrder;
}

/** What a song is taught from: its arrangement, and what is struck before anything dresses it, in order. */
export interface Material {
  readonly arrangement: Arrangement;
  readonly plain: readonly PracticeNote[];
  /** What each hand plays of it in a stretch, and what both play once it is dressed, to be compared. */
  readonly prints: Readonly<Record<Hand | 'plain' | 'dressed', Prints>>;
}

/** A stretch of a part that is learned in one go. */
export interface Piece {
  readonly part: Part;
  readonly from: Ticks;
  readonly to: Ticks;
}

/** What is said with keys that are struck, at a place of the song; or by itself. */
export const line = (says: LessonLine['says'], strikes: readonly Pitch[] = [], at: Ticks | null = null): LessonLine => ({
  says,
  strikes,
  at,
});

/** Every note of a hand in a piece, by the place at which it is struck, the highest key first. */
export function struckIn({ plain }: Material, { from, to }: Pick<Piece, 'from' | 'to'>, hand: Hand) {
  const notes = plain.filter((n) => n.hand === hand && n.at >= from && n.at < to);
  return [...grouped(notes, (n) => n.at)]
    .sort(([a], [b]) => a - b)
    .map(([at, struck]) => ({ at, notes: [...struck].sort((a, b) => midiOf(b.pitch) - midiOf(a.pitch)) }));
}

/** The chords of a piece that the left hand takes, each once where it begins. */
function chordsIn(material: Material, piece: Piece): PartChord[] {
  const struck = new Set(struckIn(material, piece, 'left').map((s) => s.at));
  return piece.part.chords.filter((c) => !c.restruck && c.at >= piece.from && c.at < piece.to && struck.has(c.at));
}

/** The keys of a chord and its name, by which it is known again. */
const shapeName = ({ pitches, symbol }: PartChord): string => `${symbol} ${pitches.join(' ')}`;

/** The scenes of a piece at a share of the tempo. `known` holds the chords that were taught before, and takes those that are taught here. */
function scenesOf(material: Material, piece: Piece, wishes: LessonWishes, share: number, known: Set<string>): Scene[] {
  const { part, from, to } = piece;
  const [right, left] = [struckIn(material, piece, 'right'), struckIn(material, piece, 'left')];
  const scene = (kind: SceneKind, lines: readonly LessonLine[], hands: Passage['hands'] | null): Scene => ({
    id: `${kind}:${from}-${to}`,
    kind,
    part: part.number,
    lines,
    plays: hands ? { from, to, hands, plain: true, share } : null,
    asks: hands !== null,
  });
  const title = line({
    code: 'lesson.part',
    number: part.number,
    name: part.name,
    bars: barsOf(material, piece),
    piece: isPiece(piece),
  });
  const rightHand =
    right.length === 0
      ? []
      : [
          scene(
            'names',
            [
              ...(wishes.first === 'right' ? [title] : []),
              ...placesIn(material, piece).map((says) => line(says)),
              line({ code: 'lesson.by-name', hand: 'right' }),
              ...right.map(({ at, notes }) => {
                const [name, ...beside] = notes.map((n) => nameOf(n.pitch));
                return line({ code: 'lesson.note', name, beside }, notes.map((n) => n.pitch), at); // prettier-ignore
              }),
            ],
            null,
          ),
          scene('right', [line({ code: 'lesson.alone', hand: 'right' })], 'right'),
        ];
  const shapes = new Set<string>();
  const chords = chordsIn(material, piece).filter((c) => {
    const fresh = !shapes.has(shapeName(c));
    shapes.add(shapeName(c));
    return fresh;
  });
  const leftHand =
    left.length === 0
      ? []
      : [
          scene(
            'chords',
            [
              ...(wishes.first === 'left' ? [title] : []),
              line({ code: 'lesson.by-name', hand: 'left' }),
              ...chords.map((c) => {
                const { symbol, position, pitches, fingers, at } = c;
                const again = known.has(shapeName(c));
                return line({ code: 'lesson.chord', symbol, position, notes: pitches.map(nameOf), fingers, again }, pitches, at);
              }),
            ],
            null,
          ),
          scene('left', [line({ code: 'lesson.alone', hand: 'left' })], 'left'),
        ];
  for (const c of chords) known.add(shapeName(c));
  const meet =
    right.length === 0 || left.length === 0
      ? []
      : [scene('meet', meetings(material, piece, wishes), null), scene('together', [line({ code: 'lesson.together' })], 'both')];
  const titled = wishes.first === 'right' ? rightHand : leftHand;
  // A hand that has nothing to do here is not told of; the part is, by the other.
  const untitled = titled.length > 0 ? [] : [scene('place', [title], null)];
  return [...untitled, ...(wishes.first === 'right' ? [...rightHand, ...leftHand] : [...leftHand, ...rightHand]), ...meet];
}

/** Numbers of the first and last bar of a piece. */
export function barsOf(
  { arrangement: { bars } }: Material,
  { from, to }: Pick<Piece, 'from' | 'to'>,
): { from: number; to: number } {
  return { from: barAt(bars, from).number, to: barAt(bars, to - 1).number };
}

/** True for a part of a part. */
export const isPiece = ({ part, from, to }: Piece): boolean => from !== part.start || to !== part.end;

/** Where the right hand lies at the beginning of a piece, and where it goes from there: the places that its fingers have. */
function placesIn({ arrangement: { bars } }: Material, { part, from, to }: Piece): (StartFact | MoveFact)[] {
  const first = part.melody.find((n) => n.at >= from && n.at < to);
  const place = first && part.places.findLast((p) => p.start <= first.at);
  if (!first || !place) return [];
  const moves = movesOf([place, ...part.places.filter((p) => p.start > first.at && p.start < to)], bars);
  // That the hand stays is said of whole parts.
  const said = isPiece({ part, from, to }) ? moves.filter((m) => m.code !== 'hand.stays') : moves;
  return [startOf(place, first.pitch, first.finger), ...said];
}

function meetings({ arrangement: { bars } }: Material, { part, from, to }: Piece, { by }: LessonWishes): LessonLine[] {
  return joinsOf(part, bars)
    .filter((j) => j.at >= from && j.at < to)
    .map(({ at, bar, point }) => {
      const chord = part.chords.find((c) => c.at === at);
      const strikes = [...(chord?.pitches ?? []), ...(point.melody ? [point.melody] : [])];
      return line({ code: 'lesson.meet', bar, point, by }, strikes, at);
    });
}

/** Seconds of scenes at the song's tempo. */
export const secondsOfScenes = ({ arrangement }: Material, scenes: readonly Scene[]): number =>
  scenes.reduce((sum, s) => sum + secondsOfScene(s, arrangement.song.tempo), 0);

/** The pieces in which a stretch of a part is learned, with their scenes: whole where that takes no longer than it may, in halves else. */
export function piecesOf(
  material: Material,
  piece: Piece,
  wishes: LessonWishes,
  known: Set<string>,
): { piece: Piece; scenes: Scene[] }[] {
  for (const share of PACE.slow) {
    const learned = new Set(known);
    const scenes = scenesOf(material, piece, wishes, share, learned);
    const middle = middleOf(material, piece);
    // That it repeats another may be said before it.
    if (middle !== null && secondsOfScenes(material, scenes) > PACE.part - PACE.other) continue;
    for (const name of learned) known.add(name);
    return [{ piece, scenes }];
  }
  const middle = middleOf(material, piece) ?? piece.to;
  return [
    ...piecesOf(material, { ...piece, to: middle }, wishes, known),
    ...piecesOf(material, { ...piece, from: middle }, wishes, known),
  ];
}

/** The bar line nearest to the middle of a piece, with a note of the right hand or a chord on either side; a beat where it is one bar; null where it is whole. */
function middleOf(material: Material, { from, to, part }: Piece): Ticks | null {
  const { bars } = material.arrangement;
  const lines = bars.map((b) => b.start);
  const struck = [...part.melody.map((n) => n.at), ...part.chords.map((c) => c.at)];
  const inside = (places: readonly Ticks[]) =>
    places.filter(
      (at) => at > from && at < to && struck.some((s) => s >= from && s < at) && struck.some((s) => s >= at && s < to),
    );
  const places = inside(lines);
  const all = places.length > 0 ? places : inside(struck);
  const middle = (from + to) / 2;
  return all.length === 0 ? null : all.reduce((a, b) => (Math.abs(b - middle) < Math.abs(a - middle) ? b : a));
}
