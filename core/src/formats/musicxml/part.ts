import type { Mode } from '../../harmony/key.js';
import { noteName } from '../../pitch/pitch.js';
import type { ChordEvent, Lyric, Mark } from '../../song/song.js';
import { barTicks, type Meter } from '../../time/meter.js';
import { TICKS_PER_QUARTER, type Ticks } from '../../time/ticks.js';
import type { RawMeasure, RawNote, RawSong } from '../measures.js';
import { ORNAMENTS } from '../ornaments.js';
import { refuse } from '../result.js';
import type { Tally } from '../tally.js';
import { harmonyText } from './kinds.js';
import { soundLeaps, wordLeaps, type OpenLeaps } from './leaps.js';
import type { Line } from './lines.js';
import { attribute, child, children, number, text, type XmlNode } from './xml.js';

/** What to do with a file that is broken. */
export const WAY_OUT = 'Export it again as MusicXML (.musicxml) from the program it was written in.';

/** Reads the measures of one part; holds what stays in force from measure to measure. */
export class PartReader {
  private readonly measures: RawMeasure[] = [];
  private readonly notices: string[] = [];
  private divisions = 1;
  private meter: Meter = { beats: 4, unit: 4 };
  private fifths: number | null = null;
  private mode: Mode | null = null;
  private tempo: number | null = null;
  private endings: number[] | null = null;
  private graces: string[] = [];
  /** Half steps from what is written to what sounds, for a transposing instrument. */
  private sounding = 0;

  constructor(
    private readonly line: Pick<Line, 'staff' | 'voice'>,
    private readonly tally: Tally,
  ) {}

  /** Half steps from what is written to what sounds. */
  get transposed(): number {
    return this.sounding;
  }

  song(): Omit<RawSong, 'title' | 'composer'> {
    return {
      tempo: this.tempo ?? 100,
      signature: this.fifths,
      mode: this.mode,
      measures: this.measures,
      notices: this.notices,
    };
  }

  takeMeasure(measure: XmlNode): void {
    const open = openMeasure(attribute(measure, 'number') ?? String(this.measures.length + 1));
    for (const node of children(measure)) {
      this.take(node, open);
      open.longest = Math.max(open.longest, open.at);
    }
    const full = open.notes.length === 0 && open.longest === 0;
    const length = full ? barTicks(this.meter) : Math.max(open.longest, endOf(open.notes));
    this.measures.push({
      ...open.leaps,
      ...(open.tempos.length > 0 ? { tempos: open.tempos.filter((t) => t.at < length) } : {}),
      ...{ name: open.name, length, meter: this.meter, endings: this.endings, repeatStart: open.repeatStart },
      notes: withGaps(open.notes, length),
      chords: open.chords.sort((a, b) => a.at - b.at).filter((c) => c.at < length),
      marks: open.marks.filter((m) => m.at < length),
      times: Math.min(8, open.times),
      mayBeShort: open.strong || attribute(measure, 'implicit') === 'yes',
    });
    this.carry(open.marks, length, open.strong);
    if (open.closes) this.endings = null;
  }

  private take(node: XmlNode, open: OpenMeasure): void {
    switch (Object.keys(node).find((k) => k !== ':@')) {
      case 'attributes':
        return this.takeAttributes(node, open.name);
      case 'note':
        return this.takeNote(node, open);
      case 'backup':
        open.at = Math.max(0, open.at - this.ticks(node, open.name));
        return;
      case 'forward':
        open.at += this.ticks(node, open.name);
        return;
      case 'harmony':
        open.chords.push({ at: Math.max(0, this.placeOf(node, open)), symbol: harmonyText(node) });
        return;
      case 'direction':
        return this.takeDirection(node, open);
      case 'sound':
        soundLeaps(node, open.leaps);
        return this.takeTempo(Number(attribute(node, 'tempo')), this.placeOf(node, open), open);
      case 'figured-bass':
        return this.tally.add('figured bass signs', 'left out');
      case 'barline':
        return this.takeBarline(node, open);
    }
  }

  private takeNote(node: XmlNode, open: OpenMeasure): void {
    this.tally.leftOutIn(node);
    if (child(node, 'cue')) return;
    if (child(node, 'grace')) {
      if (this.isOurs(node)) this.graces.push(...pitchOf(node));
      return;
    }
    const length = this.ticks(node, open.name);
    if (child(node, 'chord') !== undefined) return this.stack(node, open);
    this.addNote(node, length, open);
    open.at += length;
  }

  private takeBarline(node: XmlNode, open: OpenMeasure): void {
    const repeat = child(node, 'repeat');
    const ending = child(node, 'ending');
    if (repeat && attribute(repeat, 'direction') === 'forward') open.repeatStart = true;
    if (repeat && attribute(repeat, 'direction') === 'backward') open.times = Number(attribute(repeat, 'times') ?? 2) || 2;
    const kind = ending && attribute(ending, 'type');
    if (ending && kind === 'start') {
      this.endings = endingNumbers(attribute(ending, 'number') ?? '1');
      open.marks.push({ at: 0, kind: 'ending', text: attribute(ending, 'number') ?? null });
    }
    if (kind === 'stop' || kind === 'discontinue') open.closes = true;
    const style = text(node, 'bar-style');
    if (repeat || style === 'light-light' || style === 'light-heavy') open.strong = true;
  }

  /** Marks that fall on the end of a measure belong to the place where the next one begins. */
  private carried: Mark[] = [];
  private carry(marks: readonly Mark[], length: Ticks, strong: boolean): void {
    const index = this.measures.length - 1;
    const measure = this.measures[index];
    if (this.carried.length > 0) this.measures[index] = { ...measure, marks: [...this.carried, ...measure.marks] };
    this.carried = marks.filter((m) => m.at >= length).map((m) => ({ ...m, at: 0 }));
    if (strong) this.carried.push({ at: 0, kind: 'double-bar', text: null });
  }

  private offset(node: XmlNode): Ticks {
    return Math.round(((number(node, 'offset') ?? 0) * TICKS_PER_QUARTER) / this.divisions);
  }

  /** Where a sign stands that may be set off from its place among the notes. */
  private placeOf(node: XmlNode, { at }: OpenMeasure): Ticks {
    return at + this.offset(node);
  }

  private ticks(node: XmlNode, measure: string): Ticks {
    const duration = number(node, 'duration') ?? 0;
    if (!(duration >= 0)) return refuse(`measure ${measure}`, 'a note has no proper duration.', WAY_OUT);
    return Math.round((duration * TICKS_PER_QUARTER) / this.divisions);
  }

  private takeAttributes(node: XmlNode, measure: string): void {
    const divisions = number(node, 'divisions');
    if (divisions !== null && divisions > 0) this.divisions = divisions;
    const time = child(node, 'time');
    if (time && !child(time, 'senza-misura')) {
      const beats = (text(time, 'beats') ?? '4').split('+').reduce((sum, b) => sum + Number(b), 0);
      const unit = number(time, 'beat-type') ?? 4;
      if (!(beats >= 1 && beats <= 32 && [1, 2, 4, 8, 16].includes(unit)))
        refuse(`measure ${measure}`, `the time signature ${beats}/${unit} cannot be counted.`, WAY_OUT);
      this.meter = { beats, unit };
    }
    const key = child(node, 'key');
    const fifths = key ? number(key, 'fifths') : null;
    if (fifths !== null && Math.abs(fifths) <= 7) {
      if (this.fifths === null) {
        this.fifths = fifths;
        const mode = text(key, 'mode');
        if (mode === 'major' || mode === 'minor') this.mode = mode;
      } else if (this.fifths !== fifths)
        this.notices.push(`The key changes at measure ${measure}: the notes are kept as written.`);
    }
    const transpose = child(node, 'transpose');
    if (transpose) this.sounding = (number(transpose, 'chromatic') ?? 0) + 12 * (number(transpose, 'octave-change') ?? 0);
  }

  private isOurs(node: XmlNode): boolean {
    return (text(node, 'staff') ?? '1') === this.line.staff && (text(node, 'voice') ?? '1') === this.line.voice;
  }

  private addNote(node: XmlNode, length: Ticks, { at, notes, marks }: OpenMeasure): void {
    if (length === 0) return;
    const pitches = pitchOf(node);
    if (!this.isOurs(node)) {
      if (pitches.length > 0) this.tally.add('notes of other lines', 'left out');
      return;
    }
    const tiedOn = children(node, 'tie').some((t) => attribute(t, 'type') === 'start');
    const [lyric, ...verses] = versesOf(node);
    if (pitches.length > 0) this.tally.add('notes of the tune', 'used');
    if (lyric) this.tally.add('syllables', 'used');
    if (verses.some((v) => v !== null))
      this.tally.add('syllables of further verses', 'used', verses.filter((v) => v !== null).length);
    if (this.graces.length > 0) this.tally.add('grace notes', 'kept', this.graces.length);
    notes.push({ at, length, pitches, tiedOn, lyric: lyric ?? null, verses, graces: pitches.length > 0 ? this.graces : [] });
    if (pitches.length > 0) this.graces = [];
    for (const n of children(node, 'notations')) {
      if (children(n, 'slur').some((x) => attribute(x, 'type') === 'start')) marks.push({ at, kind: 'slur-start', text: null });
      const slur = children(n, 'slur').filter((x) => attribute(x, 'type') === 'stop').length;
      if (slur > 0) {
        marks.push({ at: at + length, kind: 'slur-end', text: null });
        this.tally.add('slurs', 'used', slur);
      }
      for (const signs of children(n, 'ornaments')) this.takeOrnaments(signs, at, marks);
      if (child(n, 'fermata')) {
        marks.push({ at, kind: 'fermata', text: null });
        this.tally.add('fermatas', 'kept');
      }
    }
  }

  private takeOrnaments(signs: XmlNode, at: Ticks, marks: Mark[]): void {
    const known = ORNAMENTS.filter(({ tag }) => child(signs, tag));
    for (const { name } of known) marks.push({ at, kind: 'ornament', text: name });
    this.tally.add('ornament signs', 'kept', known.length);
    const all = children(signs).filter((sign) => !('tremolo' in sign));
    this.tally.add('rarer ornament signs', 'left out', all.length - known.length);
  }

  private stack(node: XmlNode, { at, notes }: OpenMeasure): void {
    const last = notes.at(-1);
    if (!last || last.at + last.length !== at || !this.isOurs(node)) return;
    const tiedOn = last.tiedOn || children(node, 'tie').some((t) => attribute(t, 'type') === 'start');
    notes[notes.length - 1] = { ...last, tiedOn, pitches: [...last.pitches, ...pitchOf(node)] };
  }

  /** A tempo in quarter notes a minute: the song's own, or a change of it. */
  private takeTempo(tempo: number, at: Ticks, { tempos }: OpenMeasure): void {
    if (!(tempo > 0)) return;
    if (this.tempo === null) this.tempo = tempo;
    else tempos.push({ at, tempo });
  }

  private takeDirection(node: XmlNode, open: OpenMeasure): void {
    const { marks, leaps } = open;
    const at = this.placeOf(node, open);
    this.tally.leftOutIn(node);
    soundLeaps(child(node, 'sound'), leaps);
    for (const kind of children(node, 'direction-type')) {
      if (child(kind, 'segno')) leaps.sign = true;
      if (child(kind, 'coda')) leaps.coda = !leaps.toCoda;
      const words = (text(kind, 'words') ?? '').trim();
      if (words && !wordLeaps(words, leaps)) {
        marks.push({ at, kind: 'words', text: words.slice(0, 200) });
        this.tally.add('words over the staff', 'kept');
      }
    }
    const type = child(node, 'direction-type');
    const metronome = child(type, 'metronome');
    const perMinute = number(metronome, 'per-minute');
    const unit = { eighth: 0.5, quarter: 1, half: 2 }[text(metronome, 'beat-unit') ?? 'quarter'] ?? 1;
    const dotted = child(metronome, 'beat-unit-dot') ? 1.5 : 1;
    const sounds = attribute(child(node, 'sound'), 'tempo');
    this.takeTempo(sounds ? Number(sounds) : perMinute ? perMinute * unit * dotted : 0, at, open);
    const rehearsal = text(type, 'rehearsal');
    if (rehearsal && attribute(child(type, 'rehearsal'), 'id') !== 'part') marks.push({ at, kind: 'section', text: rehearsal });
  }
}

/** A measure while it is read. */
interface OpenMeasure {
  readonly name: string;
  /** Where the next note stands, and the furthest that anything has come. */
  at: Ticks;
  longest: Ticks;
  readonly notes: RawNote[];
  readonly chords: ChordEvent[];
  readonly marks: Mark[];
  readonly tempos: { at: Ticks; tempo: number }[];
  readonly leaps: OpenLeaps;
  repeatStart: boolean;
  /** How often it is played where a repeat ends with it. */
  times: number;
  /** A bar line that closes a section; and an ending that closes here. */
  strong: boolean;
  closes: boolean;
}

const openMeasure = (name: string): OpenMeasure => ({
  ...{ name, at: 0, longest: 0, notes: [], chords: [], marks: [], tempos: [], leaps: {} },
  ...{ repeatStart: false, times: 1, strong: false, closes: false },
});

function endOf(notes: readonly RawNote[]): Ticks {
  return notes.reduce((end, n) => Math.max(end, n.at + n.length), 0);
}

/** Fills the silent stretches of a voice with rests and drops what overlaps. */
function withGaps(notes: readonly RawNote[], length: Ticks): RawNote[] {
  const filled: RawNote[] = [];
  let at = 0;
  for (const n of [...notes].sort((a, b) => a.at - b.at)) {
    if (n.at < at) continue;
    if (n.at > at) filled.push(restOf(at, n.at - at));
    filled.push(n);
    at = n.at + n.length;
  }
  if (at < length) filled.push(restOf(at, length - at));
  return filled;
}

const restOf = (at: Ticks, length: Ticks): RawNote => ({ at, length, pitches: [], tiedOn: false, lyric: null });

function pitchOf(node: XmlNode): string[] {
  const pitch = child(node, 'pitch');
  const letter = 'CDEFGAB'.indexOf(text(pitch, 'step') ?? '?');
  if (!pitch || letter < 0) return [];
  return [`${noteName(letter, Math.round(number(pitch, 'alter') ?? 0))}${number(pitch, 'octave') ?? 4}`];
}

/** The words of a note, verse by verse from the first. */
function versesOf(node: XmlNode): (Lyric | null)[] {
  const verses: (Lyric | null)[] = [];
  for (const lyric of children(node, 'lyric')) {
    const words = children(lyric, 'text').map((t) => text(t) ?? '');
    const sung = words.join(' ').trim();
    const syllabic = text(lyric, 'syllabic');
    const number = Math.max(1, Math.min(12, parseInt(attribute(lyric, 'number') ?? '1', 10) || 1));
    while (verses.length < number) verses.push(null);
    if (sung) verses[number - 1] = { text: sung.slice(0, 200), joins: syllabic === 'begin' || syllabic === 'middle' };
  }
  return verses;
}

/** "1", "1, 2", "1-3". */
function endingNumbers(value: string): number[] {
  const numbers = value.split(/[\s,]+/).flatMap((piece) => {
    const [from, to] = piece.split('-').map((n) => parseInt(n, 10));
    return Number.isNaN(from) ? [] : Array.from({ length: Math.min(20, (to || from) - from + 1) }, (_, i) => from + i);
  });
  return numbers.length > 0 ? numbers : [1];
}
