import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';

/** One measured figure beside what is asked of it, or what it is compared with. */
export interface Row {
  readonly what: string;
  readonly measured: string;
  readonly against: string;
}

/** The middle of what was measured, the higher of two. */
export const middle = (figures: readonly number[]): number => figures.toSorted((a, b) => a - b)[figures.length >> 1];

/** For how long work is done before it is timed, in milliseconds: by then its code is compiled, as in a page that has been open for a while. */
const WARM = 600;

/** The middle of several timings, in milliseconds, of work that is warm. */
export function median(times: number, work: () => void): number {
  for (const end = performance.now() + WARM; performance.now() < end;) work();
  const taken = Array.from({ length: times }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return middle(taken);
}

/** The middles of several timings of the same work with one thing or another, by turns: what slows the machine down slows all of them. */
export function medians<T>(times: number, things: readonly T[], work: (thing: T) => void): number[] {
  for (const end = performance.now() + things.length * WARM; performance.now() < end;) for (const thing of things) work(thing);
  const taken = things.map((): number[] => []);
  for (let i = 0; i < times; i++) {
    things.forEach((thing, k) => {
      const start = performance.now();
      work(thing);
      taken[k].push(performance.now() - start);
    });
  }
  return taken.map(middle);
}

/** Milliseconds as the table shows them. */
export const ms = (value: number): string => `${value < 10 ? value.toFixed(1) : value.toFixed(0)} ms`;

/** How many times one figure is another. */
export const ratio = (value: number, other: number): string => `${(value / other).toFixed(value / other < 10 ? 1 : 0)} ×`;

/** The table as a page, with the machine that it was measured on. */
function asPage(rows: readonly Row[]): string {
  const { model } = cpus()[0];
  const day = new Date().toISOString().slice(0, 10);
  return [
    '# Speed and travel',
    '',
    `Printed by \`npm run bench -- --page\` on ${day}: Node ${process.versions.node}, ${cpus().length} processors (${model}), in a virtual machine.`,
    'Times are medians. A ratio says more than a time, since machines differ.',
    '',
    '| what | measured | limit, or beside what |',
    '|---|---|---|',
    ...rows.map((r) => `| ${r.what} | ${r.measured} | ${r.against} |`),
    '',
  ].join('\n');
}

/** Prints the table; keeps it as a page where that is asked for. */
export function show(rows: readonly Row[], page: string | null): void {
  console.table(rows);
  if (page) writeFileSync(page, asPage(rows));
}
