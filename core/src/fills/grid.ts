import { parseChord } from '../harmony/symbol.js';
import type { Key } from '../harmony/key.js';
import { voicingsFor } from '../left-hand/candidates.js';
import type { Pitch } from '../pitch/pitch.js';
import type { Hands } from '../song/decisions.js';
import { barsOf } from '../song/texture-data.js';
import { degreesFrom } from './dress.js';
import { GRACED, ungraced } from './tokens.js';

/** Rows of the count grid on which a texture is written, from the top down. */
export const GRID_ROWS = ['14', '12', '10', '9', '8', '7', '5', '3', '1', '5,', 'p', 'c', 'u', 'b', 'r', '^', 'w', '.'] as const;
export type GridRow = (typeof GRID_ROWS)[number];

/** Rows that stand alone in a column, and rows that can only be the lowest of what is struck together. */
const ALONE: readonly string[] = ['w', '.'];
const LOWEST: readonly string[] = ['5,', 'p', 'c', 'u', 'b', 'r'];

/** The rows that are set in a column; none where what sounds is held. */
export function rowsOf(token: string): GridRow[] {
  if (token === '-') return [];
  const rows = ungraced(token).split('+') as GridRow[];
  return token.startsWith(GRACED) ? [...rows, GRACED] : rows;
}

/** A column with one of its rows set or cleared. A row that cannot stand beside another takes its place. */
export function toggleRow(token: string, row: GridRow): string {
  const before = rowsOf(token);
  if (before.includes(row)) return tokenOf(before.filter((r) => r !== row));
  if (ALONE.includes(row)) return row;
  // A small note leads to something.
  if (row === GRACED && before.every((r) => ALONE.includes(r))) return token;
  const others = before.filter((r) => !ALONE.includes(r) && !(LOWEST.includes(row) && LOWEST.includes(r)));
  return tokenOf([...others, row]);
}

function tokenOf(all: readonly string[]): string {
  const rows = all.filter((r) => r !== GRACED);
  if (rows.length === 0) return '-';
  const rank = (row: string) => (LOWEST.includes(row) ? 0 : Number(row));
  return `${all.includes(GRACED) ? GRACED : ''}${rows.sort((a, b) => rank(a) - rank(b)).join('+')}`;
}

/** A pattern on another grid: so many bars of so many columns, every attack at the place nearest to where it was. */
export function regrid(steps: string, bars: number, columns: number): string {
  const old = barsOf(steps);
  const grid = Array.from({ length: bars }, () => Array.from({ length: columns }, () => '-'));
  for (let b = 0; b < bars; b++)
    old[b % old.length].forEach((token, k, row) => {
      const column = Math.min(columns - 1, Math.round((k * columns) / row.length));
      if (token !== '-' && grid[b][column] === '-') grid[b][column] = token;
    });
  return grid.map((row) => row.join(' ')).join(' | ');
}

/** A pattern with one column changed. */
export function withColumn(steps: string, bar: number, column: number, token: string): string {
  return barsOf(steps)
    .map((row, b) => row.map((t, k) => (b === bar && k === column ? token : t)).join(' '))
    .join(' | ');
}

/** The keys that a column strikes over a chord, to be heard while it is written; none where it strikes none. */
export function columnKeys(token: string, symbol: string, hands: Hands, key: Key): Pitch[] {
  const chord = parseChord(symbol);
  if (chord.kind !== 'chord' || token === '-' || token === '.') return [];
  const pitches = voicingsFor(chord, hands).find((v) => v.form === 'full' && v.midis[0] >= 48)?.pitches ?? [];
  return degreesFrom(chord, { pitches }, hands, key)(token);
}
