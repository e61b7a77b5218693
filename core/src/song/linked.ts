import type { Choices, Document, Passage } from './decisions.js';
import { NO_WISHES, setPassage, type PartRange } from './edits.js';
import type { Ticks } from '../time/ticks.js';

/** A part as it is linked to those that it repeats. */
interface LinkedPart extends PartRange {
  readonly number: number;
  /** The earlier part that it takes up, and where it first differs from it; null where it does not. */
  readonly repeats: { readonly part: number; readonly kind: string; readonly differsFrom: Ticks | null } | null;
}

/** An edit carried over to the parts that repeat the one it was made in. */
export interface LinkedEdit {
  readonly document: Document;
  /** Numbers of the parts that it was carried to. */
  readonly parts: readonly number[];
  /** Numbers of repeats that differ at the place of the edit and stay as they are. */
  readonly differing: readonly number[];
}

/** The part that a part takes up, and how far the two are the same, from their starts. */
export function origin(part: LinkedPart, parts: readonly LinkedPart[]): { part: LinkedPart; until: Ticks } {
  let here = part;
  let until = part.end - part.start;
  while (here.repeats && (here.repeats.kind === 'exact' || here.repeats.kind === 'new-ending')) {
    if (here.repeats.differsFrom !== null) until = Math.min(until, here.repeats.differsFrom - here.start);
    here = parts[here.repeats.part - 1];
  }
  return { part: here, until };
}

/** The repeats of a part, each with how far the two are the same, from their starts. */
export function repeatsOf(number: number, parts: readonly LinkedPart[]): { readonly part: LinkedPart; readonly until: Ticks }[] {
  const mine = origin(parts[number - 1], parts);
  return parts.flatMap((part) => {
    if (part.number === number) return [];
    const other = origin(part, parts);
    if (other.part !== mine.part) return [];
    const whole = wholly(part, parts) === wholly(parts[number - 1], parts);
    return [{ part, until: whole ? part.end - part.start : Math.min(mine.until, other.until) }];
  });
}

/** The first part that a part repeats from end to end. */
function wholly(part: LinkedPart, parts: readonly LinkedPart[]): number {
  let here = part;
  while (here.repeats?.kind === 'exact') here = parts[here.repeats.part - 1];
  return here.number;
}

/** Choices that belong to a single place. */
const BY_PLACE = ['chords', 'pins', 'chordSchools', 'fingers', 'fills'] as const;

/**
 * Carries what was changed inside a part over to its repeats, as far as they are the same. Null where nothing was changed, where
 * the change reaches outside the part, or where no repeat can take it.
 */
export function linkedEdit(before: Document, after: Document, parts: readonly LinkedPart[], number: number): LinkedEdit | null {
  const part = parts[number - 1];
  if (!part || before.song !== after.song) return null;
  const inside = (at: Ticks) => at >= part.start && at < part.end;
  const touched = BY_PLACE.flatMap((list) => changedPlaces(before.choices[list], after.choices[list]));
  const wishes = changedWishes(before, after, part);
  if (wishes === 'elsewhere' || !touched.every(inside) || (touched.length === 0 && wishes === null)) return null;
  const places = [...new Set(touched)].map((at) => at - part.start);
  let document = after;
  const reached: number[] = [];
  const differing: number[] = [];
  for (const { part: other, until } of repeatsOf(number, parts)) {
    const fits = places.filter((p) => p < until);
    if (fits.length < places.length) differing.push(other.number);
    if (fits.length === 0 && (wishes === null || places.length > 0)) continue;
    reached.push(other.number);
    document = carry(document, after, fits, part, other);
    if (wishes) document = setPassage(document, other, wishes);
  }
  return reached.length > 0 ? { document, parts: reached, differing } : null;
}

/** Makes a repeat's choices at some places, told from its start, those of the part. */
function carry(doc: Document, after: Document, places: readonly Ticks[], from: LinkedPart, to: LinkedPart): Document {
  const moved = new Set(places.map((p) => to.start + p));
  const shift = to.start - from.start;
  const wanted = new Set(places.map((p) => from.start + p));
  const list = <T extends { at: Ticks }>(here: readonly T[], source: readonly T[]): T[] =>
    [
      ...here.filter((x) => !moved.has(x.at)),
      ...source.filter((x) => wanted.has(x.at)).map((x) => ({ ...x, at: x.at + shift })),
    ].sort((a, b) => a.at - b.at);
  const [now, then] = [doc.choices, after.choices];
  return {
    ...doc,
    choices: {
      ...now,
      chords: list(now.chords, then.chords),
      pins: list(now.pins, then.pins),
      chordSchools: list(now.chordSchools, then.chordSchools),
      fingers: list(now.fingers, then.fingers),
      fills: list(now.fills, then.fills),
    },
  };
}

function changedPlaces(before: readonly { at: Ticks }[], after: readonly { at: Ticks }[]): Ticks[] {
  if (before === after) return [];
  const prints = (items: readonly { at: Ticks }[]) => new Map(items.map((x) => [JSON.stringify(x), x.at]));
  const [old, now] = [prints(before), prints(after)];
  return [...[...old].filter(([k]) => !now.has(k)), ...[...now].filter(([k]) => !old.has(k))].map(([, at]) => at);
}

/** The wishes of a part where just those changed and hold for all of it; null where none did. */
function changedWishes(before: Document, after: Document, part: LinkedPart): Partial<Passage> | null | 'elsewhere' {
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const plain = ({ passages: _p, chords: _c, pins: _n, chordSchools: _s, fingers: _f, fills: _l, ...rest }: Choices) => rest;
  if (!same(plain(before.choices), plain(after.choices))) return 'elsewhere';
  if (same(before.choices.passages, after.choices.passages)) return null;
  const outside = (doc: Document) => setPassage(doc, part, { ...NO_WISHES }).choices.passages;
  if (!same(outside(before), outside(after))) return 'elsewhere';
  const here = after.choices.passages.find((p) => p.start <= part.start && p.end >= part.end);
  const { start: _start, end: _end, ...wishes } = here ?? { start: 0, end: 0, ...NO_WISHES };
  return wishes;
}
