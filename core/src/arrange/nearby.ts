import { withChoices } from '../song/edits.js';
import type { Document } from '../song/decisions.js';
import type { ChordEvent } from '../song/song.js';
import { arrange } from './arrange.js';
import type { Arrangement, Part } from './arrangement.js';
import { suggestionFor } from './settings.js';

/** Parts on either side of the one at work that are arranged with it, and on either side of those that are shown. */
const SHOWN = 2;
const AROUND = 4;

/** Parts from which on it is worth while to arrange some of them before the others. */
const MANY = 24;

/**
 * A long song with the parts near the one at work as an edit makes them, the others as they stood: what a screen shows of it, in a
 * fraction of the time. The chords at the borders of what is arranged are held where they lay. It is only a first look: what the edit
 * means for the whole song is for {@link arrange} to say. Null where the song is short, or the edit changes more than such a look can
 * tell: how the song is divided, its length or its meters, the hand or the school of all its chords, or chords that are suggested from
 * one end to the other.
 */
export function arrangeNearby(doc: Document, was: Document, before: Arrangement, at: number): Arrangement | null {
  if (before.parts.length < MANY || suggestionFor(doc) !== null || !sameShape(doc, was)) return null;
  const here = before.parts.findIndex((p) => p.number === at);
  if (here < 0) return null;
  const inside = (reach: number) => before.parts.slice(Math.max(0, here - reach), here + reach + 1);
  const [wide, shown] = [inside(SHOWN + AROUND), inside(SHOWN)];
  const near = arrange(windowOf(doc, wide), before.homes);
  const made = shown.map((p) => near.parts.find((q) => q.start === p.start && q.end === p.end));
  if (made.some((p) => p === undefined)) return null;
  const numbers = new Map(made.map((p, i) => [(p as Part).number, shown[i].number]));
  const [first, last] = [shown[0], shown[shown.length - 1]];
  const parts = before.parts.map((p) => {
    const now = made[p.number - first.number];
    const { number, label, name, repeats, reasons } = p;
    return now ? { ...now, number, label, name, repeats, reasons } : p;
  });
  const within = (part: number | null) => part !== null && part >= first.number && part <= last.number;
  const renumbered = <T extends { readonly part: number | null }>(rows: readonly T[]): T[] =>
    rows.flatMap((r) => (r.part !== null && numbers.has(r.part) ? [{ ...r, part: numbers.get(r.part) as number }] : []));
  const spliced = <T extends { readonly at: number }>(old: readonly T[], fresh: readonly T[]): T[] => [
    ...old.filter((x) => x.at < first.start),
    ...fresh.filter((x) => x.at >= first.start && x.at < last.end),
    ...old.filter((x) => x.at >= last.end),
  ];
  return {
    ...before,
    parts,
    song: {
      ...before.song,
      melody: spliced(before.song.melody, near.song.melody),
      chords: spliced(before.song.chords, near.song.chords),
    },
    score: [
      ...before.score.filter((n) => n.part < first.number),
      ...renumbered(near.score),
      ...before.score.filter((n) => n.part > last.number),
    ],
    findings: [...before.findings.filter((f) => !within(f.part)), ...renumbered(near.findings)].sort(
      (a, b) => (a.at ?? 0) - (b.at ?? 0),
    ),
  };
}

/** True where two documents divide a song of one shape in one way, and lay its chords for one hand in one school. */
function sameShape(a: Document, b: Document): boolean {
  const shape = ({ song, choices, hands }: Document) =>
    JSON.stringify([
      song.length,
      song.pickup,
      song.meters,
      choices.parts,
      choices.partSize,
      hands,
      choices.school,
      choices.dominants,
    ]);
  return a.song.melody.length === b.song.melody.length && shape(a) === shape(b);
}

/** The document with nothing to play but some parts, and the left hand held where it lay at their borders. */
function windowOf(doc: Document, parts: readonly Part[]): Document {
  const { song, choices } = doc;
  const [from, to] = [parts[0].start, parts[parts.length - 1].end];
  const within = <T extends { readonly at: number }>(rows: readonly T[]): T[] => rows.filter((r) => r.at >= from && r.at < to);
  // The chord that still sounds where the window begins is struck there too; none sounds after its end.
  const lasting = song.chords.findLast((c) => c.at < from);
  const silent: ChordEvent[] = to < song.length ? [{ at: to, symbol: 'N.C.' }] : [];
  const edges = [parts[0].chords[0], parts[parts.length - 1].chords.at(-1)].filter((c) => c !== undefined);
  const held = edges
    .filter((c) => !choices.pins.some((p) => p.at === c.writtenAt))
    .map((c) => ({ at: c.writtenAt, pitches: [...c.pitches] }));
  const fixed = [{ start: 0, end: from }, ...parts.map(({ start, end }) => ({ start, end })), { start: to, end: song.length }];
  return withChoices(
    {
      ...doc,
      song: {
        ...song,
        melody: within(song.melody),
        ...(song.left ? { left: within(song.left) } : {}),
        ...(song.inner ? { inner: within(song.inner) } : {}),
        chords: [
          ...(lasting && !within(song.chords).some((c) => c.at === from) ? [lasting] : []),
          ...within(song.chords),
          ...silent,
        ],
        marks: within(song.marks),
      },
      versions: [],
    },
    {
      parts: fixed.filter((p) => p.start < p.end),
      chords: within(choices.chords),
      pins: [...within(choices.pins), ...held].sort((a, b) => a.at - b.at),
    },
  );
}
