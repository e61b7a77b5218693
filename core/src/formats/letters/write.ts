import { symbolIn } from '../../harmony/german-roots.js';
import { modeName } from '../../harmony/key.js';
import { noteIn, type NoteNames } from '../../pitch/note-names.js';
import { pitchParts, noteName, type Pitch } from '../../pitch/pitch.js';
import type { Song } from '../../song/song.js';
import { layBars, type Bar } from '../../time/bars.js';
import { barTicks, countTicks, meterName } from '../../time/meter.js';
import { commonDivisor, type Ticks } from '../../time/ticks.js';
import { barEvents, type Piece } from '../pieces.js';
import { escapeCell, escapeHeader } from './escapes.js';

const BARS_A_LINE = 4;

/** Writes the tune, its chords and words as letter lines, the columns lined up for reading; notes and chords as they are named there. */
export function writeLetters(song: Song, names: NoteNames = 'letters'): string {
  const first = song.meters[0];
  const bars = layBars(song);
  const head = [
    `title: ${escapeHeader(song.title)}`,
    ...(song.composer ? [`by: ${escapeHeader(song.composer)}`] : []),
    ...(names === 'letters' ? [] : [`names: ${names}`]),
    `key: ${noteIn(names, song.key.tonic)} ${modeName(song.key.mode)}`,
    `time: ${meterName(first)}`,
    `tempo: ${song.tempo}`,
    ...(song.pickup > 0 ? [`pickup: ${song.pickup / countTicks(first)}`] : []),
    ...lastBar(song, bars[bars.length - 1]),
  ];
  const events = barEvents(song, bars);
  const lines: string[] = [];
  const octaves = new OctaveMemory(names);
  let meter = meterName(first);
  for (let i = 0; i < bars.length;) {
    const system: number[] = [];
    const now = meterName(bars[i].meter);
    if (now !== meter) lines.push('', `time: ${now}`);
    meter = now;
    const section = song.marks.find((m) => m.kind === 'section' && m.text && m.at === bars[i].start);
    if (section) lines.push('', `section: ${escapeHeader(section.text ?? '')}`);
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

/** The counts of a last bar that is short, unless whole counts leave to the pick-up what it has: a reader expects that. */
function lastBar(song: Song, { start, end, meter }: Bar): string[] {
  const [length, full] = [end - start, barTicks(meter)];
  const whole = length % countTicks(meter) === 0;
  if (length === full || (whole && song.pickup > 0 && start >= song.pickup && length + song.pickup === full)) return [];
  return start < song.pickup ? [] : [`last-bar: ${length / countTicks(meter)}`];
}

/** Octaves are named where the nearest one would be wrong, and at the start. */
class OctaveMemory {
  constructor(readonly names: NoteNames) {}

  private last: number | null = null;

  write(pitch: Pitch): string {
    const { step, alter, octave } = pitchParts(pitch);
    const here = octave * 7 + step;
    const nearest = this.last === null ? null : Math.round((this.last - step) / 7);
    this.last = here;
    return `${noteIn(this.names, noteName(step, alter))}${nearest === octave ? '' : octave}`;
  }

  /** A note of the tune and what is struck with it, from the top down; the next note is near to that of the tune. */
  writeStruck(pitch: Pitch, beside: readonly Pitch[]): string {
    const first = this.write(pitch);
    const here = this.last;
    const others = beside.toReversed().map((p) => this.write(p));
    this.last = here;
    return [first, ...others].join('+');
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
  const length = bar.end - bar.start;
  const counts = Math.ceil(length / unit);
  // A pick-up ends with its bar: where it begins between counts, the rest of its first count is silent.
  const lead = bar.number === 0 ? counts * unit - length : 0;
  const placed = pieces.map((p) => ({ ...p, at: p.at + lead }));
  const text: BarText = { tune: [], chord: [], words: [] };
  for (let c = 0; c < counts; c++) {
    const from = c * unit;
    const within = (at: Ticks) => at > from && at < from + unit;
    const starts = [...placed.filter((p) => !p.continues).map((p) => p.at), lead + length].filter(within);
    const tuneParts = divisor(
      starts.map((at) => at - from),
      unit,
    );
    const slices: string[] = [];
    for (let s = 0; s < tuneParts; s++) slices.push(mark(placed, from + (s * unit) / tuneParts, octaves));
    text.tune.push(slices.join('_'));
    const chords = song.chords
      .map(({ at, symbol }) => ({ at: at - bar.start + lead, symbol }))
      .filter(({ at }) => at >= Math.max(from, lead) && at < Math.min(from + unit, lead + length));
    const chordParts = divisor(
      chords.map((x) => x.at - from),
      unit,
    );
    const names: string[] = [];
    for (let s = 0; s < chordParts; s++) {
      const chord = chords.find((x) => x.at === from + (s * unit) / chordParts);
      names.push(chord ? escapeCell(symbolIn(octaves.names, chord.symbol)) : '-');
    }
    text.chord.push(names.join('_'));
    const sung = placed.filter((p) => p.pitch && !p.continues && p.at >= from && p.at < from + unit);
    text.words.push(sung.map((p) => syllable(p)).join('_') || '-');
  }
  return text;
}

function syllable(p: Piece): string {
  if (!p.lyric) return '.';
  const text = escapeCell(p.lyric.text) || '.';
  return p.lyric.joins ? `${text}-` : text;
}

/** What stands at a place of the bar: a letter where a note begins, a hold inside it, a rest. */
function mark(pieces: readonly Piece[], at: Ticks, octaves: OctaveMemory): string {
  const piece = pieces.find((p) => p.at <= at && p.at + p.length > at);
  if (!piece?.pitch) return '.';
  if (piece.at !== at || piece.continues) return '-';
  return octaves.writeStruck(piece.pitch, piece.with);
}

/** The fewest even parts of a count that have a start on every given offset. */
function divisor(offsets: readonly Ticks[], unit: Ticks): number {
  let grid = unit;
  for (const offset of offsets) grid = commonDivisor(grid, offset);
  return unit / grid;
}
