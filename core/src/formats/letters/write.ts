import { keyName } from '../../harmony/key.js';
import { pitchParts, noteName, type Pitch } from '../../pitch/pitch.js';
import type { Song } from '../../song/song.js';
import { layBars, type Bar } from '../../time/bars.js';
import { countTicks, meterName } from '../../time/meter.js';
import { commonDivisor, toQuarters, type Ticks } from '../../time/ticks.js';
import { barEvents, type Piece } from '../pieces.js';

const BARS_A_LINE = 4;

/** Writes the tune, its chords and words as letter lines, the columns lined up for reading. */
export function writeLetters(song: Song): string {
  const first = song.meters[0];
  const head = [
    `title: ${song.title}`,
    ...(song.composer ? [`by: ${song.composer}`] : []),
    `key: ${keyName(song.key)}`,
    `time: ${meterName(first)}`,
    `tempo: ${song.tempo}`,
    ...(song.pickup > 0 ? [`pickup: ${toQuarters(song.pickup) * (first.unit / 4)}`] : []),
  ];
  const bars = layBars(song);
  const events = barEvents(song, bars);
  const lines: string[] = [];
  const octaves = new OctaveMemory();
  let meter = meterName(first);
  for (let i = 0; i < bars.length;) {
    const system: number[] = [];
    const now = meterName(bars[i].meter);
    if (now !== meter) lines.push('', `time: ${now}`);
    meter = now;
    const section = song.marks.find((m) => m.kind === 'section' && m.text && m.at === bars[i].start);
    if (section) lines.push('', `section: ${section.text}`);
    do system.push(i++);
    while (
      i < bars.length &&
      system.filter((b) => bars[b].number > 0).length < BARS_A_LINE &&
      meterName(bars[i].meter) === meter &&
      !song.marks.some((m) => m.kind === 'section' && m.at === bars[i].start)
    );
    lines.push('', ...systemLines(song, system, bars, events, octaves));
  }
  return `${[...head, ...lines].join('\n')}\n`;
}

/** Octaves are named where the nearest one would be wrong, and at the start. */
class OctaveMemory {
  private last: number | null = null;

  write(pitch: Pitch): string {
    const { step, alter, octave } = pitchParts(pitch);
    const here = octave * 7 + step;
    const nearest = this.last === null ? null : Math.round((this.last - step) / 7);
    this.last = here;
    return `${noteName(step, alter)}${nearest === octave ? '' : octave}`;
  }
}

interface BarText {
  tune: string[];
  chord: string[];
  words: string[];
}

function systemLines(
  song: Song,
  system: readonly number[],
  bars: readonly Bar[],
  events: readonly (readonly Piece[])[],
  octaves: OctaveMemory,
): string[] {
  const texts = system.map((i) => barText(song, bars[i], events[i], octaves));
  const line = (row: keyof BarText, name: string): string[] => {
    if (row !== 'tune' && texts.every((t) => t[row].every((c) => c === '-' || c === '.' || c === ''))) return [];
    const cells = texts.map((t) =>
      t[row].map((cell, c) => cell.padEnd(Math.max(t.tune[c]?.length ?? 0, t.chord[c]?.length ?? 0, t.words[c]?.length ?? 0))),
    );
    return [`${name}: ${cells.map((c) => c.join(' ')).join(' | ')} |`.replace(/ +\|$/, ' |')];
  };
  return [...line('tune', 'tune '), ...line('chord', 'chord'), ...line('words', 'words')];
}

function barText(song: Song, bar: Bar, pieces: readonly Piece[], octaves: OctaveMemory): BarText {
  const unit = countTicks(bar.meter);
  const counts = Math.ceil((bar.end - bar.start) / unit);
  const text: BarText = { tune: [], chord: [], words: [] };
  for (let c = 0; c < counts; c++) {
    const from = c * unit;
    const inside = (p: Piece) => p.at > from && p.at < from + unit;
    const tuneParts = divisor(
      pieces.filter((p) => inside(p) && !p.continues).map((p) => p.at - from),
      unit,
    );
    const slices: string[] = [];
    for (let s = 0; s < tuneParts; s++) slices.push(mark(pieces, from + (s * unit) / tuneParts, octaves));
    text.tune.push(slices.join('_'));
    const chords = song.chords.filter((x) => x.at >= bar.start + from && x.at < bar.start + from + unit);
    const chordParts = divisor(
      chords.map((x) => x.at - bar.start - from),
      unit,
    );
    const names: string[] = [];
    for (let s = 0; s < chordParts; s++)
      names.push(
        chords.find((x) => x.at === bar.start + from + (s * unit) / chordParts)?.symbol.replace(/^.* .*$/, 'N.C.') ?? '-',
      );
    text.chord.push(names.join('_'));
    const sung = pieces.filter((p) => p.pitch && !p.continues && p.at >= from && p.at < from + unit);
    text.words.push(sung.map((p) => syllable(p)).join('_') || '-');
  }
  return text;
}

function syllable(p: Piece): string {
  if (!p.lyric) return '.';
  const text = p.lyric.text.replaceAll(/\s/g, '~').replaceAll(/[_|%]/g, '') || '.';
  return p.lyric.joins ? `${text}-` : text;
}

/** What stands at a place of the bar: a letter where a note begins, a hold inside it, a rest. */
function mark(pieces: readonly Piece[], at: Ticks, octaves: OctaveMemory): string {
  const piece = pieces.find((p) => p.at <= at && p.at + p.length > at);
  if (!piece?.pitch) return '.';
  return piece.at === at && !piece.continues ? octaves.write(piece.pitch) : '-';
}

/** The fewest even parts of a count that have a start on every given offset. */
function divisor(offsets: readonly Ticks[], unit: Ticks): number {
  let grid = unit;
  for (const offset of offsets) grid = commonDivisor(grid, offset);
  return unit / grid;
}
