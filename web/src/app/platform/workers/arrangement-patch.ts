import type { Arrangement } from '@joined-hands/core/arrange';

/** What changed in a row of things: single ones of them in their places, or a stretch with other things in its place. */
type Changed =
  | { readonly places: readonly (readonly [index: number, item: unknown])[] }
  /** Where the stretch begins, and how many things after it stay. */
  | { readonly from: number; readonly after: number; readonly items: readonly unknown[] };

/** What became of an arrangement: only what is no longer the same is sent to the page. */
export interface ArrangementPatch {
  readonly rows: Readonly<Record<string, Changed>>;
  readonly values: Readonly<Record<string, unknown>>;
}

/** What has to be changed in one arrangement to make another of it. */
export function difference(before: Arrangement, after: Arrangement): ArrangementPatch {
  const rows: Record<string, Changed> = {};
  const values: Record<string, unknown> = {};
  for (const [key, now] of Object.entries(after)) {
    const was: unknown = before[key as keyof Arrangement];
    if (!Array.isArray(now) || !Array.isArray(was)) {
      if (!same(was, now)) values[key] = now;
      continue;
    }
    if (was.length === now.length) {
      const places = now.flatMap((item: unknown, i) => (same(was[i], item) ? [] : [[i, item] as const]));
      if (places.length > 0) rows[key] = { places };
      continue;
    }
    const most = Math.min(was.length, now.length);
    let from = 0;
    while (from < most && same(was[from], now[from])) from++;
    let kept = 0;
    while (kept < most - from && same(was[was.length - 1 - kept], now[now.length - 1 - kept])) kept++;
    if (from + kept < Math.max(was.length, now.length))
      rows[key] = { from, after: kept, items: now.slice(from, now.length - kept) };
  }
  return { rows, values };
}

/** The arrangement that a change makes of another; what is the same in both is one thing. */
export function patched(before: Arrangement, { rows, values }: ArrangementPatch): Arrangement {
  const after: Record<string, unknown> = { ...before, ...values };
  for (const [key, changed] of Object.entries(rows)) {
    const row = [...(before[key as keyof Arrangement] as readonly unknown[])];
    if ('places' in changed) for (const [index, item] of changed.places) row[index] = item;
    else row.splice(changed.from, row.length - changed.from - changed.after, ...changed.items);
    after[key] = row;
  }
  return after as unknown as Arrangement;
}

/** True for plain data that is the same through and through. */
function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((x, i) => same(x, (b as unknown[])[i]));
  if (a instanceof Map && b instanceof Map) return same([...a], [...b]);
  const keys = Object.keys(a);
  if (keys.length !== Object.keys(b).length) return false;
  return keys.every((k) => same((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]));
}
