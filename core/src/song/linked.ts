import type { Ticks } from '../time/ticks.js';
import type { Edit, PlaceEdit, RangeEdit } from './edit.js';
import type { TickRange } from './edits.js';

/** A part as it is linked to those that it repeats. */
interface LinkedPart extends TickRange {
  readonly number: number;
  /** The earlier part that it takes up, and where it first differs from it; null where it does not. */
  readonly repeats: { readonly part: number; readonly kind: string; readonly differsFrom: Ticks | null } | null;
}

/** An edit as the parts that repeat the one it was made in can take it too. */
export interface LinkedEdit {
  readonly edit: Edit;
  /** Numbers of the parts that take it. */
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

/**
 * What was changed inside a part, for its repeats, as far as they are the same. Null where the change reaches outside the part, or where
 * no repeat can take it.
 */
export function linkedEdit(edit: Edit, parts: readonly LinkedPart[], number: number): LinkedEdit | null {
  const part = parts[number - 1];
  const within = part && inside(edit, part);
  if (!within) return null;
  const edits: Edit[] = [];
  const reached: number[] = [];
  const differing: number[] = [];
  for (const { part: other, until } of repeatsOf(number, parts)) {
    const fits = within.filter((e) => !('at' in e) || e.at - part.start < until);
    if (fits.length < within.length) differing.push(other.number);
    if (fits.length === 0) continue;
    reached.push(other.number);
    edits.push(...fits.map((e) => moved(e, part, other)));
  }
  return reached.length > 0
    ? { edit: { code: 'edit.several', as: { kind: 'in-repeats', of: edit }, edits }, parts: reached, differing }
    : null;
}

/** The single changes of an edit where each lies at a place in the part, or holds for all of it; else null. */
function inside(edit: Edit, part: TickRange): (PlaceEdit | RangeEdit)[] | null {
  switch (edit.code) {
    case 'edit.several': {
      const each = edit.edits.map((e) => inside(e, part));
      return each.length > 0 && each.every((e) => e !== null) ? each.flat() : null;
    }
    case 'edit.setting':
    case 'edit.school':
    case 'edit.bass':
    case 'edit.suggest':
    case 'edit.stay':
      return edit.range?.start === part.start && edit.range.end === part.end ? [edit] : null;
    case 'edit.chord':
    case 'edit.leave-out':
    case 'edit.restore-chord':
    case 'edit.voicing':
    case 'edit.free-voicing':
    case 'edit.fingers':
    case 'edit.note':
    case 'edit.respell':
    case 'edit.strike-with':
    case 'edit.remind':
    case 'edit.keys':
    case 'edit.stop':
    case 'edit.chord-school':
    case 'edit.fill':
      return edit.at >= part.start && edit.at < part.end ? [edit] : null;
    default:
      return null;
  }
}

/** The same change in another part, as far from its start. */
function moved(edit: PlaceEdit | RangeEdit, from: TickRange, to: TickRange): Edit {
  const by = to.start - from.start;
  if (edit.code === 'edit.keys') return { ...edit, at: edit.at + by, notes: edit.notes.map((n) => ({ ...n, at: n.at + by })) };
  if ('range' in edit) return { ...edit, range: { start: to.start, end: to.end } };
  if (edit.code === 'edit.chord' && edit.until !== undefined) return { ...edit, at: edit.at + by, until: edit.until + by };
  return { ...edit, at: edit.at + by };
}
