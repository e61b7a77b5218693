import type { Arrangement, Part } from '../arrange/arrangement.js';
import { repeatWords } from '../divide/repeats.js';
import { keyName } from '../harmony/key.js';
import { nameOf } from '../pitch/pitch.js';
import { countAt, countText } from '../time/counts.js';
import { barAt, offsetInBar, type Bar } from '../time/bars.js';
import { meterName } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/** One column of the letter chart: a moment at which something is struck. */
export interface ChartColumn {
  readonly at: Ticks;
  /** "1", "2 &". */
  readonly count: string;
  readonly letter: string | null;
  /** The right-hand finger. */
  readonly finger: number | null;
  readonly word: string | null;
  readonly chord: string | null;
  /** The left hand's notes bottom-up, with fingers. */
  readonly left: readonly { readonly letter: string; readonly finger: number | null }[];
}

/** One bar of the chart. */
export interface ChartBar {
  readonly number: number;
  readonly columns: readonly ChartColumn[];
}

/** One part of the chart. */
export interface ChartPart {
  readonly number: number;
  readonly title: string;
  readonly note: string | null;
  readonly bars: readonly ChartBar[];
}

/** The title line of a part: its own name, or the bars it covers. */
export function partTitle(part: Part): string {
  const { from, to } = part.bars;
  const bars = from === to ? `bar ${from}` : `bars ${from}–${to}`;
  return part.name ? `${part.name} · ${bars}` : bars[0].toUpperCase() + bars.slice(1);
}

/** The letter chart of an arrangement: part by part, letter names with the chord under the note it falls with. */
export function letterChart(arrangement: Arrangement): ChartPart[] {
  return arrangement.parts.map((part) => ({
    number: part.number,
    title: partTitle(part),
    note: part.repeats ? repeatWords(part.repeats, barName(arrangement.bars, part.repeats.differsFrom)) : null,
    bars: chartBars(part, arrangement.bars),
  }));
}

const barName = (bars: readonly Bar[], at: Ticks | null): string => (at === null ? '' : `bar ${barAt(bars, at).number}`);

function chartBars(part: Part, bars: readonly Bar[]): ChartBar[] {
  const places = [...new Set([...part.melody.map((n) => n.at), ...part.chords.map((c) => c.at)])].sort((a, b) => a - b);
  const notes = new Map(part.melody.map((n) => [n.at, n]));
  const chords = new Map(part.chords.map((c) => [c.at, c]));
  const rows: { number: number; columns: ChartColumn[] }[] = [];
  for (const at of places) {
    const bar = barAt(bars, at);
    if (rows.at(-1)?.number !== bar.number) rows.push({ number: bar.number, columns: [] });
    const note = notes.get(at);
    const chord = chords.get(at);
    rows.at(-1)?.columns.push({
      at,
      count: countText(countAt(offsetInBar(bar, at), bar.meter)),
      letter: note ? nameOf(note.pitch) : null,
      finger: note?.finger ?? null,
      word: note?.lyric ? note.lyric.text + (note.lyric.joins ? '-' : '') : null,
      chord: chord ? chord.symbol : null,
      left: chord ? chord.pitches.map((p, i) => ({ letter: nameOf(p), finger: chord.fingers[i] ?? null })) : [],
    });
  }
  return rows;
}

/** The letter chart as plain text, for a printer or a message. */
export function chartText(arrangement: Arrangement): string {
  const { song } = arrangement;
  const lines = [song.title, `${keyName(song.key)} · ${meterName(song.meters[0])} · ${song.tempo} quarter notes a minute`];
  for (const part of letterChart(arrangement)) {
    lines.push('', `Part ${part.number} · ${part.title}${part.note ? ` · ${part.note}` : ''}`);
    for (const bar of part.bars) lines.push(...barText(bar));
  }
  return `${lines.join('\n')}\n`;
}

function barText(bar: ChartBar): string[] {
  const left = (c: ChartColumn) => c.left.map((n) => n.letter).join(' ');
  const fingers = (c: ChartColumn) => c.left.map((n) => n.finger ?? '').join('-');
  const rows: [string, (c: ChartColumn) => string][] = [
    ['count', (c) => c.count],
    ['right', (c) => c.letter ?? '–'],
    ['finger', (c) => `${c.finger ?? ''}`],
    ['words', (c) => c.word ?? ''],
    ['chord', (c) => c.chord ?? ''],
    ['left', left],
    ['fingers', fingers],
  ];
  const widths = bar.columns.map((c) => Math.max(...rows.map(([, cell]) => cell(c).length)));
  const label = bar.number === 0 ? 'pick-up' : `bar ${bar.number}`;
  return rows
    .filter(([, cell]) => bar.columns.some((c) => cell(c) !== ''))
    .map(([name, cell], i) => {
      const cells = bar.columns.map((c, k) => cell(c).padEnd(widths[k])).join('  ');
      return `  ${(i === 0 ? label : '').padEnd(8)}${name.padEnd(9)}${cells}`.trimEnd();
    });
}
