import { symbolIn } from '../../harmony/german-roots.js';
import { modeName } from '../../harmony/key.js';
import { noteIn, type NoteNames } from '../../pitch/note-names.js';
import { pitchParts, noteName, type Pitch } from '../../pitch/pitch.js';
import { grouped } from '../../lists/grouped.js';
import { MOST_BESIDE, type KeyNote, type Song } from '../../song/song.js';
import { layBars, type Bar } from '../../time/bars.js';
import { barTicks, countTicks, meterName } from '../../time/meter.js';
import { commonDivisor, type Ticks } from '../../time/ticks.js';
import { barEvents, type Piece } from '../pieces.js';
import { escapeCell, escapeHeader } from './escapes.js';
import { octaveNear, type Way } from './grid.js';

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
  const rows: KeyRow[] = (['left', 'inner'] as const).flatMap((hand) => {
    const line = keyLine(song[hand]);
    const octave = hand === 'left' ? 3 : 4;
    if (!line) return [];
    return [
      { hand, events: barEvents({ ...song, melody: line, chords: [] }, bars), octaves: new OctaveMemory(names, octave * 7) },
    ];
  });
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
    lines.push('', ...systemLines(song, system, bars, events, octaves, rows));
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
  /** The place on the staff of the note before, or of one that is taken for it at the start. */
  constructor(
    readonly names: NoteNames,
    private last: number | null = null,
  ) {}

  write(pitch: Pitch, way: Way | null = null): string {
    const { step, alter, octave } = pitchParts(pitch);
    const here = octave * 7 + step;
    const nearest = this.last === null ? null : octaveNear(step, this.last, way);
    this.last = here;
    return `${noteIn(this.names, noteName(step, alter))}${nearest === octave ? '' : octave}`;
  }

  /** A note and what is struck with it, in the order in which they are written; the next note is near to the first. */
  writeStruck(pitch: Pitch, beside: readonly Pitch[], way: Way): string {
    const first = this.write(pitch);
    const here = this.last;
    const others = beside.map((p) => this.write(p, way));
    this.last = here;
    return [first, ...others].join('+');
  }
}

interface BarText {
  tune: string[];
  chord: string[];
  words: string[];
  left: string[];
  inner: string[];
}

/** The left hand, or what the right plays beside its tune, bar by bar, and the octaves that it names. */
interface KeyRow {
  readonly hand: 'left' | 'inner';
  readonly events: readonly (readonly Piece[])[];
  readonly octaves: OctaveMemory;
}

function systemLines(
  song: Song,
  system: readonly number[],
  bars: readonly Bar[],
  events: readonly (readonly Piece[])[],
  octaves: OctaveMemory,
  rows: readonly KeyRow[],
): string[] {
  const texts = system.map((i) =>
    barText(
      song,
      bars[i],
      events[i],
      octaves,
      rows.map((r) => ({ hand: r.hand, pieces: r.events[i], octaves: r.octaves })),
    ),
  );
  const line = (row: keyof BarText, name: string): string[] => {
    if (
      row === 'left' || row === 'inner'
        ? !rows.some((r) => r.hand === row)
        : row !== 'tune' && texts.every((t) => t[row].every((c) => c === '-' || c === '.' || c === ''))
    )
      return [];
    const cells = texts.map((t) =>
      t[row].map((cell, c) => cell.padEnd(Math.max(...Object.values(t).map((r: string[]) => r[c]?.length ?? 0)))),
    );
    return [`${name}: ${cells.map((c) => c.join(' ')).join(' | ')} |`.replace(/ +\|$/, ' |')];
  };
  return [
    ...line('tune', 'tune '),
    ...line('inner', 'inner'),
    ...line('chord', 'chord'),
    ...line('words', 'words'),
    ...line('left', 'left '),
  ];
}

function barText(
  song: Song,
  bar: Bar,
  pieces: readonly Piece[],
  octaves: OctaveMemory,
  rows: readonly { readonly hand: KeyRow['hand']; readonly pieces: readonly Piece[]; readonly octaves: OctaveMemory }[],
): BarText {
  const unit = countTicks(bar.meter);
  const length = bar.end - bar.start;
  const counts = Math.ceil(length / unit);
  // A pick-up ends with its bar: where it begins between counts, the rest of its first count is silent.
  const lead = bar.number === 0 ? counts * unit - length : 0;
  const placed = pieces.map((p) => ({ ...p, at: p.at + lead }));
  const placedRows = rows.map((r) => ({ ...r, pieces: r.pieces.map((p) => ({ ...p, at: p.at + lead })) }));
  const text: BarText = { tune: [], chord: [], words: [], left: [], inner: [] };
  for (let c = 0; c < counts; c++) {
    const from = c * unit;
    // The marks of a count: as many as its notes and rests need.
    const marks = (row: readonly Piece[], write: (piece: Piece) => string): string => {
      const starts = [...row.filter((p) => !p.continues).map((p) => p.at), lead + length].filter(
        (at) => at > from && at < from + unit,
      );
      const parts = divisor(
        starts.map((at) => at - from),
        unit,
      );
      return Array.from({ length: parts }, (_, s) => mark(row, from + (s * unit) / parts, write)).join('_');
    };
    text.tune.push(marks(placed, (p) => octaves.writeStruck(p.pitch ?? '', p.with.toReversed(), 'down')));
    for (const row of placedRows)
      text[row.hand].push(marks(row.pieces, (p) => row.octaves.writeStruck(p.pitch ?? '', p.with, 'up')));
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
function mark(pieces: readonly Piece[], at: Ticks, write: (piece: Piece) => string): string {
  const piece = pieces.find((p) => p.at <= at && p.at + p.length > at);
  if (!piece?.pitch) return '.';
  return piece.at === at && !piece.continues ? write(piece) : '-';
}

/** The keys of a hand as a line of what is struck together, the lowest first; null where they are none: where some are held under others. */
export function keyLine(keys: readonly KeyNote[] = []): Song['melody'] | null {
  const line: Song['melody'] = [];
  for (const moment of grouped(keys, (n) => n.at).values()) {
    const [{ at, length, pitch }, ...others] = moment;
    const before = line.at(-1);
    if (others.some((n) => n.length !== length) || others.length > MOST_BESIDE) return null;
    if (before && before.at + before.length > at) return null;
    line.push({ at, length, pitch, lyric: null, ...(others.length > 0 ? { with: others.map((n) => n.pitch) } : {}) });
  }
  return line.length > 0 ? line : null;
}

/** The fewest even parts of a count that have a start on every given offset. */
function divisor(offsets: readonly Ticks[], unit: Ticks): number {
  let grid = unit;
  for (const offset of offsets) grid = commonDivisor(grid, offset);
  return unit / grid;
}
