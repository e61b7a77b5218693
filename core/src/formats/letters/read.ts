import { readSymbolIn } from '../../harmony/german-roots.js';
import { parseKey } from '../../harmony/key.js';
import { parseChord, plainSigns } from '../../harmony/symbol.js';
import { NOTE_NAMES, readNoteName, type NoteNames } from '../../pitch/note-names.js';
import { HIGHEST_KEY, LOWEST_KEY, midiOf } from '../../pitch/pitch.js';
import { MOST } from '../../song/limits.js';
import { besides, emptySong, MOST_BESIDE, type Lyric, type Song } from '../../song/song.js';
import { countTicks, type Meter } from '../../time/meter.js';
import type { Ticks } from '../../time/ticks.js';
import {
  inPlace,
  reading,
  refuse,
  RefusedInput,
  type Reading,
  type RefusalCause,
  type RefusedAt,
  type Remedy,
} from '../result.js';
import { shield, unshield } from './escapes.js';
import { barsOf, cellsOf, octaveNear, type Cell, type TextBar, type Way } from './grid.js';

const MAX_TEXT = 1_000_000;
const HEADERS = ['title', 'by', 'key', 'time', 'tempo', 'pickup', 'last-bar', 'section', 'names'];
const ROWS = ['tune', 'chord', 'words', 'left', 'inner'] as const;
type Row = (typeof ROWS)[number];
/**
 * A tune line with an H in it, its comment taken off. Such a melody names its notes the German way: nobody who writes H means B natural
 * by B.
 */
const TUNE_WITH_H = /^\s*tune\s*:(?:.*[\s|_+])?h(?:is|es)?\d?(?=[\s|_+]|$)/i;

/**
 * Reads letter lines: letter names on a grid of counts, with chords and words on the same grid. The whole of the
 * notation is described in docs/letter-lines.md.
 */
export function readLetters(text: string): Reading {
  return reading(() => {
    if (!text.trim()) refuse(null, { code: 'letters.nothing' }, 'begin-tune-line');
    if (text.length > MAX_TEXT) refuse(null, { code: 'file.too-long', most: MAX_TEXT, what: 'letters' }, 'one-song');
    const lines = text.split(/\r\n?|\n/);
    const german = lines.some((line) => TUNE_WITH_H.test(withoutComment(line)));
    const reader = new LettersReader(german ? 'german' : 'letters');
    lines.forEach((line, i) =>
      inPlace(
        () => [{ line: i + 1 }],
        () => reader.takeLine(line, i + 1),
      ),
    );
    return { song: reader.finish() };
  });
}

/** Where the tune line in force begins, so that chord and word lines under it find their bars. */
interface System {
  readonly bars: { readonly start: Ticks; readonly length: Ticks; readonly counts: number }[];
  readonly firstNote: number;
}

class LettersReader {
  constructor(private names: NoteNames) {}

  private readonly song: Song = { ...emptySong(), meters: [], tempo: 96 };
  private meter: Meter = { beats: 4, unit: 4 };
  private written: { at: Ticks; meter: Meter }[] = [];
  private keyGiven = false;
  private pickupCounts: number | null = null;
  /** Counts of the last bar where it is said to be short, with the line that says so. */
  private lastBar: { readonly counts: number; readonly line: number } | null = null;
  /** Counts of the bar that was written last. */
  private counts = 0;
  private at = 0;
  private bar = 0;
  private system: System | null = null;
  private lastStep: { step: number; octave: number } | null = null;
  private sounding = false;
  /** A bar that is only right if it is the last. */
  private shortBar: RefusedInput | null = null;

  takeLine(raw: string, line: number): void {
    const text = withoutComment(raw);
    if (!text.trim()) return;
    const match = /^\s*([A-Za-z-]+)\s*:/.exec(text);
    const name = match?.[1].toLowerCase() ?? '';
    if (!match || !(HEADERS.includes(name) || ROWS.includes(name as Row))) {
      return refuse([{ line }], { code: 'letters.unnamed-line' }, 'name-line', line, [0, raw.length]);
    }
    const from = match[0].length;
    const body = text.slice(from);
    if (name === 'tune') return this.takeTune(body, from, line);
    if (name === 'chord') return this.takeChords(body, from, line);
    if (name === 'words') return this.takeWords(body, from, line);
    if (name === 'left' || name === 'inner') return this.takeKeys(name, body, from, line);
    return this.takeHeader(name, unshield(body).trim(), line, raw.length);
  }

  finish(): Song {
    if (this.song.melody.length === 0) refuse(null, { code: 'letters.no-tune' }, 'begin-tune-line');
    const { song } = this;
    song.length = this.lastBar ? this.shortened(this.lastBar) : this.at;
    // A single short bar is no pick-up to anything.
    if (song.pickup >= song.length) song.pickup = 0;
    song.meters = this.written.map(({ at, meter }) => ({ at, beats: meter.beats, unit: meter.unit as 4 }));
    if (song.left?.length === 0) delete song.left;
    if (song.inner?.length === 0) delete song.inner;
    if (!this.keyGiven) song.key = { tonic: 'C', mode: 'major' };
    return song;
  }

  /** The length of the song where its last bar ends before its last count does. */
  private shortened({ counts, line }: { readonly counts: number; readonly line: number }): Ticks {
    const unit = countTicks(this.meter);
    const length = this.at - Math.round((this.counts - counts) * unit);
    const last = this.song.melody[this.song.melody.length - 1];
    if (Math.ceil(counts) !== this.counts || last.at + last.length > length)
      refuse([{ line }], { code: 'letters.last-bar', counts }, 'change-last-bar', line);
    return length;
  }

  private takeHeader(name: string, value: string, line: number, width: number): void {
    const bad = (cause: RefusalCause, remedy: Remedy) => refuse([{ line }], cause, remedy, line, [0, width]);
    if (!value) return bad({ code: 'letters.empty-header', name }, 'fill-header');
    switch (name) {
      case 'title':
        this.song.title = value;
        return;
      case 'by':
        this.song.composer = value;
        return;
      case 'section':
        this.song.marks.push({ at: this.at, kind: 'section', text: value });
        return;
      case 'names': {
        const names = NOTE_NAMES.find((n) => n === value.toLowerCase());
        if (!names) return bad({ code: 'letters.value', what: 'names', text: value }, 'example-names');
        this.names = names;
        return;
      }
      case 'key': {
        const [, tonic, mode] = /^([^\s-]*)[\s-]*(.*)$/.exec(value) ?? ['', '', ''];
        const named = readNoteName(tonic, this.names);
        const modes = mode.replace(/^dur$/i, 'major').replace(/^moll$/i, 'minor');
        const key = parseKey(named ? `${named} ${modes}` : plainSigns(value));
        if (!key) return bad({ code: 'letters.value', what: 'key', text: value }, 'example-key');
        this.song.key = key;
        this.keyGiven = true;
        return;
      }
      case 'time': {
        const parts = /^(\d{1,2})\s*\/\s*(1|2|4|8|16)$/.exec(value);
        if (!parts || Number(parts[1]) < 1 || Number(parts[1]) > MOST.counts)
          return bad({ code: 'letters.value', what: 'time', text: value }, 'example-time');
        this.meter = { beats: Number(parts[1]), unit: Number(parts[2]) };
        return;
      }
      case 'tempo': {
        const tempo = Number(value);
        if (!(tempo >= 20 && tempo <= 400)) return bad({ code: 'letters.value', what: 'tempo', text: value }, 'example-tempo');
        this.song.tempo = tempo;
        return;
      }
      case 'pickup': {
        const counts = Number(value);
        if (!(counts >= 0 && counts < MOST.counts))
          return bad({ code: 'letters.value', what: 'pickup', text: value }, 'example-pickup');
        this.pickupCounts = counts;
        return;
      }
      case 'last-bar': {
        const counts = Number(value);
        if (!(counts > 0 && counts < MOST.counts))
          return bad({ code: 'letters.value', what: 'counts', text: value }, 'example-last-bar');
        this.lastBar = { counts, line };
        return;
      }
    }
  }

  private takeTune(body: string, from: number, line: number): void {
    const bars = barsOf(body, from).filter((bar, i) => i > 0 || bar.text);
    const system: System = { bars: [], firstNote: this.song.melody.length };
    for (const bar of bars) {
      const cells = cellsOf(bar);
      const unit = countTicks(this.meter);
      this.checkCounts(cells, bar, line);
      // A pick-up that begins between counts begins inside what is written.
      if (this.bar === 0 && this.song.pickup > 0) this.at = this.song.pickup - cells.length * unit;
      const start = this.at;
      for (const cell of cells) {
        const share = this.shareOf(cell, unit, line);
        for (const slice of cell.slices) {
          this.takeSlice(slice.text, share, line, slice.columns);
          this.at += share;
        }
      }
      if (this.written.at(-1)?.meter !== this.meter) this.writeMeter(Math.max(0, start));
      system.bars.push({ start, length: this.at - start, counts: cells.length });
      if (bar.doubled) this.song.marks.push({ at: this.at, kind: 'double-bar', text: null });
      this.bar++;
      this.counts = cells.length;
    }
    this.song.marks.push({ at: this.at, kind: 'line-end', text: null });
    this.system = system;
  }

  /** How long each mark of a count is. */
  private shareOf({ slices, columns }: Cell, unit: Ticks, line: number): Ticks {
    const share = unit / slices.length;
    if (!Number.isInteger(share))
      refuse(this.place(line), { code: 'letters.slices', slices: slices.length }, 'fewer-slices', line, columns);
    return share;
  }

  private writeMeter(at: Ticks): void {
    const last = this.written.at(-1);
    const same = last && last.meter.beats === this.meter.beats && last.meter.unit === this.meter.unit;
    if (!same) this.written.push({ at, meter: this.meter });
  }

  /** The bar of a row under the tune that is being read; null in a tune line. */
  private rowBar: RefusedAt[] | null = null;

  private place(line: number): RefusedAt[] {
    if (this.rowBar) return this.rowBar;
    return [{ line }, { bar: this.bar === 0 && this.song.pickup > 0 ? 0 : this.barNumber() }];
  }

  private barNumber(): number {
    return this.song.pickup > 0 ? this.bar : this.bar + 1;
  }

  private checkCounts(cells: readonly Cell[], bar: TextBar, line: number): void {
    const full = this.meter.beats;
    if (this.bar === 0) {
      const expected = this.pickupCounts;
      if (expected !== null && expected > 0 && cells.length !== Math.ceil(expected))
        refuse(
          [{ line }, { bar: 0 }],
          { code: 'letters.pickup-counts', counts: cells.length, expected },
          'change-either',
          line,
          bar.columns,
        );
      const counts = expected ?? cells.length;
      if (counts > 0 && counts < full && (cells.length < full || expected !== null)) {
        this.song.pickup = Math.round(counts * countTicks(this.meter));
        return;
      }
    }
    if (this.shortBar) throw this.shortBar;
    if (cells.length === full) return;
    const remedy: Remedy = cells.length > full ? 'fewer-counts-or-bar' : 'more-counts';
    const cause: RefusalCause = { code: 'bar.counts', counts: cells.length, expected: full, meter: null };
    const refusal = { place: this.place(line), cause, remedy, line, columns: bar.columns };
    // A last bar may leave to the pick-up what the pick-up has; any other short bar is a slip.
    const completes = cells.length * countTicks(this.meter) + this.song.pickup === full * countTicks(this.meter);
    const said = cells.length < full && this.lastBar !== null;
    if (!said && (!completes || this.song.pickup === 0)) throw new RefusedInput(refusal);
    this.shortBar = new RefusedInput(refusal);
  }

  private takeSlice(text: string, length: Ticks, line: number, columns: readonly [number, number]): void {
    const { melody } = this.song;
    if (text === '.') {
      this.sounding = false;
      return;
    }
    if (this.at < 0) refuse(this.place(line), { code: 'letters.before-pickup' }, 'rest-or-pickup', line, columns);
    if (text === '-') {
      const last = melody.at(-1);
      if (last && this.sounding) last.length += length;
      else refuse(this.place(line), { code: 'letters.hold' }, 'letter-or-rest', line, columns);
      return;
    }
    const pitches = this.struck(text, 'down', line, columns);
    const top = pitches.reduce((a, b) => (midiOf(b) > midiOf(a) ? b : a));
    this.sounding = true;
    melody.push(
      besides(
        { at: this.at, length, pitch: top, lyric: null },
        pitches.filter((p) => p !== top),
      ),
    );
  }

  /** The notes of a mark: one, or several with + between them, which go down from the tune and up from a bass. */
  private struck(text: string, way: Way, line: number, columns: readonly [number, number]): string[] {
    const [first, ...others] = text.split('+');
    const one = this.pitchOf(first, text, line, columns);
    const near = this.lastStep;
    const pitches = [one, ...others.map((other) => this.pitchOf(other, text, line, columns, way))];
    // The next note is near to the one that was written first.
    this.lastStep = near;
    const keys = pitches.map(midiOf);
    if (keys.some((k, i) => keys.indexOf(k) < i))
      refuse(this.place(line), { code: 'letters.key-twice', text }, 'write-note', line, columns);
    if (keys.length > MOST_BESIDE + 1)
      refuse(this.place(line), { code: 'letters.stack', notes: keys.length }, 'fewer-notes', line, columns);
    return pitches;
  }

  /** One note of a mark: its letter, and its octave where that is not the nearest to the note before it. */
  private pitchOf(text: string, mark: string, line: number, columns: readonly [number, number], way: Way | null = null): string {
    const [, named, digit] = /^(.*?)(\d)?$/.exec(text) ?? [];
    const note = readNoteName(named ?? '', this.names);
    if (!note) return refuse(this.place(line), { code: 'letters.not-a-note', text: mark }, 'write-note', line, columns);
    const step = 'CDEFGAB'.indexOf(note[0]);
    const octave = digit !== undefined ? Number(digit) : this.nearestOctave(step, way);
    const pitch = `${note}${octave}`;
    if (midiOf(pitch) < LOWEST_KEY || midiOf(pitch) > HIGHEST_KEY)
      refuse(this.place(line), { code: 'note.off-keyboard', pitch }, 'other-octave', line, columns);
    this.lastStep = { step, octave };
    return pitch;
  }

  /** The octave of a letter without one: within a fourth of the note before, or the first place that way from it; the middle octave for the first note. */
  private nearestOctave(step: number, way: Way | null): number {
    if (!this.lastStep) return 4;
    return octaveNear(step, this.lastStep.octave * 7 + this.lastStep.step, way);
  }

  private underTune(row: Exclude<Row, 'tune'>, body: string, from: number, line: number): { bars: TextBar[]; system: System } {
    let bars = barsOf(body, from);
    if (!this.system) return refuse([{ line }], { code: 'letters.row-without-tune', row }, 'tune-line-first', line);
    // A row may open with a bar line of its own, or with an empty bar under the tune's first.
    if (bars.length > this.system.bars.length && !bars[0].text) bars = bars.slice(1);
    if (bars.length > this.system.bars.length)
      refuse(
        [{ line }],
        { code: 'letters.row-bars', bars: bars.length, expected: this.system.bars.length },
        'bar-for-bar',
        line,
        bars[this.system.bars.length].columns,
      );
    return { bars, system: this.system };
  }

  private takeChords(body: string, from: number, line: number): void {
    const { bars, system } = this.underTune('chord', body, from, line);
    bars.forEach((bar, i) => {
      const { start, length, counts } = system.bars[i];
      const cells = cellsOf(bar);
      if (cells.length === 0) return;
      this.checkRow(cells, counts, bar, line, system, i);
      cells.forEach((cell, c) => {
        const unit = length / counts;
        cell.slices.forEach((slice, s) => {
          if (slice.text === '-' || slice.text === '.') return;
          const written = unshield(slice.text).replaceAll('~', ' ');
          const chord = parseChord(readSymbolIn(this.names, written));
          // Words that stand for a chord are kept as they are.
          if (chord.kind === 'unread' && !chord.text.includes(' '))
            refuse(
              this.rowPlace(line, system, i),
              { code: 'chord.unread', text: chord.text },
              'usual-symbol',
              line,
              slice.columns,
            );
          const at = Math.max(0, start + c * unit + Math.round((s * unit) / cell.slices.length));
          this.song.chords.push({ at, symbol: chord.text });
        });
      });
    });
  }

  /** The left hand, or what the right plays beside its tune: marks as in the tune, notes struck together with + between them. */
  private takeKeys(hand: 'left' | 'inner', body: string, from: number, line: number): void {
    const { bars, system } = this.underTune(hand, body, from, line);
    // Its octaves are near to its own notes, not to those of the tune.
    const tune = this.lastStep;
    this.lastStep = this.stepOf[hand];
    const keys = (this.song[hand] ??= []);
    let held = keys.filter((n) => n.at + n.length === system.bars[0]?.start);
    bars.forEach((bar, i) => {
      const { start, length, counts } = system.bars[i];
      const cells = cellsOf(bar);
      this.checkRow(cells, counts, bar, line, system, i);
      this.rowBar = this.rowPlace(line, system, i);
      const unit = length / counts;
      cells.forEach((cell, c) => {
        const share = this.shareOf(cell, unit, line);
        cell.slices.forEach((slice, s) => {
          const at = start + c * unit + s * share;
          if (slice.text === '.') held = [];
          else if (at < 0) refuse(this.place(line), { code: 'letters.before-pickup' }, 'rest-or-pickup', line, slice.columns);
          else if (slice.text === '-') for (const n of held) n.length += share;
          else {
            held = this.struck(slice.text, 'up', line, slice.columns).map((pitch) => ({ at, length: share, pitch }));
            keys.push(...held);
          }
        });
      });
    });
    this.rowBar = null;
    this.stepOf[hand] = this.lastStep;
    this.lastStep = tune;
  }

  private readonly stepOf: Record<'left' | 'inner', { step: number; octave: number } | null> = {
    left: { step: 0, octave: 3 },
    inner: { step: 0, octave: 4 },
  };

  private rowPlace(line: number, system: System, bar: number): RefusedAt[] {
    const last = this.barNumber() - 1;
    return [{ line }, { bar: last - (system.bars.length - 1 - bar) }];
  }

  private checkRow(cells: readonly Cell[], counts: number, bar: TextBar, line: number, system: System, i: number): void {
    if (cells.length <= counts) return;
    refuse(
      this.rowPlace(line, system, i),
      { code: 'bar.counts', counts: cells.length, expected: counts, meter: null },
      'fewer-counts',
      line,
      bar.columns,
    );
  }

  private takeWords(body: string, from: number, line: number): void {
    const { bars, system } = this.underTune('words', body, from, line);
    let note = system.firstNote;
    const { melody } = this.song;
    bars.forEach((bar, i) => {
      const { start, length } = system.bars[i];
      while (note < melody.length && melody[note].at < start) note++;
      for (const cell of cellsOf(bar))
        for (const slice of cell.slices) {
          if (slice.text === '-') continue;
          if (slice.text !== '.') {
            const target = melody[note];
            if (!target || target.at >= start + length)
              return refuse(
                this.rowPlace(line, system, i),
                { code: 'letters.syllable', text: unshield(slice.text) },
                'syllables',
                line,
                slice.columns,
              );
            target.lyric = lyricOf(slice.text);
          }
          note++;
        }
    });
  }
}

function lyricOf(text: string): Lyric {
  const joins = text.length > 1 && text.endsWith('-');
  return { text: unshield((joins ? text.slice(0, -1) : text).replaceAll('~', ' ')), joins };
}

/** A typed line with its escaped marks put out of the way and its comment taken off. */
const withoutComment = (line: string): string => shield(line).replace(/(^|\s)%.*$/, '');
