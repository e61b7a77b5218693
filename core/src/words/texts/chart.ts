import type { Arrangement } from '../../arrange/arrangement.js';
import { letterChart, type ChartBar, type ChartColumn } from '../../sheet/chart.js';
import { meterName } from '../../time/meter.js';
import { partTitle, repeats } from '../en/music.js';
import { patternText, remindersText } from './lesson.js';
import { fingersInShort } from '../fingers.js';
import type { Speech } from '../speech.js';

/** The letter chart as plain text, for a printer or a message. */
export function chartText(arrangement: Arrangement, say: Speech): string {
  const { song } = arrangement;
  const lines = [song.title, `${say.key(song.key)} · ${meterName(song.meters[0])} · ${song.tempo} quarter notes a minute`];
  for (const { part, repeats: as, bars, reminders, pattern } of letterChart(arrangement)) {
    lines.push('', `Part ${part.number} · ${partTitle(part)}${as ? ` · ${repeats(as)}` : ''}`);
    for (const bar of bars) lines.push(...barText(bar, say));
    lines.push(...remindersText(reminders, say));
    if (pattern) lines.push(...patternText(pattern, say));
  }
  return `${lines.join('\n')}\n`;
}

function barText(bar: ChartBar, say: Speech): string[] {
  const rows: [string, (c: ChartColumn) => string][] = [
    ['count', (c) => c.count],
    ['right', (c) => (c.letter ? say.struck(c.letter, c.beside) : '–')],
    ['finger', fingersInShort],
    ['words', (c) => c.word ?? ''],
    ['chord', (c) => (c.chord ? say.symbol(c.chord) : '')],
    ['left', (c) => c.left.map((n) => say.note(n.letter)).join(' ')],
    ['fingers', (c) => c.left.map((n) => n.finger ?? '').join('-')],
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
