import { parseMode, type Mode } from '../../harmony/key.js';
import { noteName } from '../../pitch/pitch.js';
import type { Reminder } from '../../song/decisions.js';
import type { ChordEvent, Lyric, Mark } from '../../song/song.js';
import { MOST } from '../../song/limits.js';
import { barTicks, countTicks, type Meter } from '../../time/meter.js';
import type { Ticks } from '../../time/ticks.js';
import type { RawKey, RawMeasure, RawNote, RawSong } from '../measures.js';
import { ORNAMENTS } from '../ornaments.js';
import { inPlace, refuse, type Notice, type RefusalCause } from '../result.js';
import type { Tally } from '../tally.js';
import { REMINDER } from './directions.js';
import { WrittenTime } from './durations.js';
import { harmonyText } from './kinds.js';
import { soundLeaps, wordLeaps, type OpenLeaps } from './leaps.js';
import type { Line } from './lines.js';
import { attribute, child, children, number, text, type XmlNode } from './xml.js';

/** What to do with a file that is broken. */
/** Reads the measures of one part; holds what stays in force from measure to measure. */
export class PartReader {
  private readonly measures: RawMeasure[] = [];
  private readonly notices: Notice[] = [];
  private divisions = 1;
  /** The time signature in force; null where none is written and every measure is taken as long as it is. */
  private meter: Meter | null = null;
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
    const name = (attribute(measure, 'number') ?? String(this.measures.length + 1)).slice(0, 20);
    inPlace(
      () => [{ measure: name }],
      () => this.readMeasure(measure, openMeasure(name, this.divisions)),
    );
  }

  private readMeasure(measure: XmlNode, open: OpenMeasure): void {
    for (const node of children(measure)) {
      this.take(node, open);
      open.longest = Math.max(open.longest, open.time.at);
    }
    const implicit = attribute(measure, 'implicit') === 'yes';
    const meter = this.meter ?? ownMeter(open.longest);
    const full = barTicks(meter);
    const found = Math.max(open.longest, endOf(open.notes));
    // What is written may miss the bar line by the rounding of its durations.
    const untimed = this.meter === null && found <= full;
    const length = found === 0 || untimed || Math.abs(found - full) <= open.time.tolerance ? full : Math.round(found);
    const notes = length === full ? open.notes.flatMap((n) => endingBy(n, full, open.time.tolerance)) : open.notes;
    this.measures.push({
      ...open.leaps,
      ...(open.tempos.length > 0 ? { tempos: open.tempos.filter((t) => t.at < length) } : {}),
      name: open.name,
      length,
      meter,
      endings: this.endings,
      repeatStart: open.repeatStart,
      notes: withGaps(notes, length),
      ...(open.left.length > 0 ? { left: [...open.left] } : {}),
      ...(open.inner.length > 0 ? { inner: [...open.inner] } : {}),
      ...(open.reminders.length > 0 ? { reminders: open.reminders.filter((r) => r.at < length) } : {}),
      chords: open.chords.sort((a, b) => a.at - b.at).filter((c) => c.at < length),
      marks: open.marks.filter((m) => m.at < length),
      times: Math.min(8, open.times),
      mayBeShort: open.strong || implicit || this.meter === null,
    });
    this.carry(open.marks, length, open.strong);
    if (open.closes) this.endings = null;
  }

  private take(node: XmlNode, open: OpenMeasure): void {
    switch (Object.keys(node).find((k) => k !== ':@')) {
      case 'attributes':
        return this.takeAttributes(node, open);
      case 'note':
        return this.takeNote(node, open);
      case 'backup':
        return open.time.back(durationOf(node, open.name));
      case 'forward':
        open.time.step(durationOf(node, open.name));
        return;
      case 'harmony':
        open.chords.push({ at: placeOf(node, open), symbol: harmonyText(node, `measure ${open.name}`) });
        return;
      case 'direction':
        return this.takeDirection(node, open);
      case 'sound':
        soundLeaps(node, open.leaps);
        return this.takeTempo(Number(attribute(node, 'tempo')), placeOf(node, open), open);
      case 'figured-bass':
        return this.tally.add('figured-bass', 'left out');
      case 'barline':
        return this.takeBarline(node, open);
    }
  }

  private takeNote(node: XmlNode, open: OpenMeasure): void {
    this.tally.leftOutIn(node);
    if (child(node, 'cue')) return;
    if (child(node, 'grace')) {
      if (this.isOurs(node)) this.graces.push(...pitchOf(node, open.name));
      return;
    }
    if (child(node, 'chord') !== undefined) return this.stack(node, open);
    const at = Math.round(open.time.at);
    open.time.step(durationOf(node, open.name), node);
    this.addNote(node, at, Math.round(open.time.at) - at, open);
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

  private takeAttributes(node: XmlNode, open: OpenMeasure): void {
    const measure = open.name;
    const divisions = number(node, 'divisions');
    if (divisions !== null && divisions > 0) {
      this.divisions = divisions;
      open.time.divide(divisions);
    }
    const time = child(node, 'time');
    if (time && child(time, 'senza-misura')) this.meter = null;
    else if (time) {
      const beats = (text(time, 'beats') ?? '4').split('+').reduce((sum, b) => sum + Number(b), 0);
      const unit = number(time, 'beat-type') ?? 4;
      if (!(Number.isInteger(beats) && beats >= 1 && beats <= MOST.counts && [1, 2, 4, 8, 16].includes(unit)))
        refuse([{ measure }], { code: 'meter.uncountable', text: `${beats}/${unit}` }, 'export-musicxml');
      this.meter = { beats, unit };
    }
    const key = child(node, 'key');
    const fifths = key ? number(key, 'fifths') : null;
    if (fifths !== null && Number.isInteger(fifths) && Math.abs(fifths) <= 7) {
      if (this.fifths === null) {
        this.fifths = fifths;
        const mode = text(key, 'mode');
        if (mode) this.mode = parseMode(mode);
      } else if (this.fifths !== fifths) this.notices.push({ code: 'notice.key-changes', measure });
    }
    const transpose = child(node, 'transpose');
    if (!transpose) return;
    this.sounding = (number(transpose, 'chromatic') ?? 0) + 12 * (number(transpose, 'octave-change') ?? 0);
    if (!Number.isInteger(this.sounding) || Math.abs(this.sounding) > FARTHEST_TRANSPOSED)
      refuse([{ measure }], { code: 'part.transposed', semitones: this.sounding }, 'export-musicxml');
  }

  private isOurs(node: XmlNode): boolean {
    return (text(node, 'staff') ?? '1') === this.line.staff && (text(node, 'voice') ?? '1') === this.line.voice;
  }

  /** True for notes of the staff under that of the tune: what the left hand plays. */
  private isLeft(node: XmlNode): boolean {
    const staff = text(node, 'staff') ?? '1';
    return this.line.staff === '1' && staff === '2';
  }

  /** Another voice on the staff of the tune: what the right hand plays beside it. */
  private isInner(node: XmlNode): boolean {
    return (text(node, 'staff') ?? '1') === this.line.staff && !this.isOurs(node);
  }

  private addKeys(node: XmlNode, at: Ticks, length: Ticks, hand: 'left' | 'inner', open: OpenMeasure): void {
    const tiedOn = children(node, 'tie').some((t) => attribute(t, 'type') === 'start');
    for (const pitch of pitchOf(node, open.name)) {
      open[hand].push({ at, length, pitch, tiedOn });
      this.tally.add(hand === 'left' ? 'left-hand' : 'second-voice', 'kept');
    }
  }

  private addNote(node: XmlNode, at: Ticks, length: Ticks, open: OpenMeasure): void {
    const { name, notes, marks } = open;
    if (length <= 0) return;
    if (!this.isOurs(node)) {
      if (this.isLeft(node)) this.addKeys(node, at, length, 'left', open);
      else if (this.isInner(node)) this.addKeys(node, at, length, 'inner', open);
      else if (child(node, 'pitch')) this.tally.add('other-lines', 'left out');
      return;
    }
    const pitches = pitchOf(node, name);
    const tiedOn = children(node, 'tie').some((t) => attribute(t, 'type') === 'start');
    const [lyric, ...verses] = versesOf(node);
    if (pitches.length > 0) this.tally.add('melody-notes', 'used');
    if (lyric) this.tally.add('syllables', 'used');
    if (verses.some((v) => v !== null)) this.tally.add('further-verses', 'used', verses.filter((v) => v !== null).length);
    if (this.graces.length > 0) this.tally.add('grace-notes', 'kept', this.graces.length);
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
      if (children(n, 'articulations').some((a) => child(a, 'breath-mark'))) {
        marks.push({ at: at + length, kind: 'breath', text: null });
        this.tally.add('breaths', 'kept');
      }
      if (child(n, 'fermata')) {
        marks.push({ at, kind: 'fermata', text: null });
        this.tally.add('fermatas', 'kept');
      }
    }
  }

  private takeOrnaments(signs: XmlNode, at: Ticks, marks: Mark[]): void {
    const known = ORNAMENTS.filter(({ tag }) => child(signs, tag));
    for (const { name } of known) marks.push({ at, kind: 'ornament', text: name });
    this.tally.add('ornaments', 'kept', known.length);
    const all = children(signs).filter((sign) => !('tremolo' in sign));
    this.tally.add('rare-ornaments', 'left out', all.length - known.length);
  }

  private stack(node: XmlNode, open: OpenMeasure): void {
    const { name, time, notes } = open;
    const hand = this.isLeft(node) ? 'left' : this.isInner(node) ? 'inner' : null;
    const under = hand && open[hand].at(-1);
    if (hand && under && under.at + under.length === Math.round(time.at)) {
      this.addKeys(node, under.at, under.length, hand, open);
      return;
    }
    const last = notes.at(-1);
    if (!last || last.at + last.length !== Math.round(time.at) || !this.isOurs(node)) return;
    const tiedOn = last.tiedOn || children(node, 'tie').some((t) => attribute(t, 'type') === 'start');
    notes[notes.length - 1] = { ...last, tiedOn, pitches: [...last.pitches, ...pitchOf(node, name)] };
  }

  /** A tempo in quarter notes a minute: the song's own, or a change of it. */
  private takeTempo(tempo: number, at: Ticks, { tempos }: OpenMeasure): void {
    if (!(tempo > 0)) return;
    if (this.tempo === null) this.tempo = tempo;
    else tempos.push({ at, tempo });
  }

  private takeDirection(node: XmlNode, open: OpenMeasure): void {
    const { marks, leaps } = open;
    const at = placeOf(node, open);
    this.tally.leftOutIn(node);
    soundLeaps(child(node, 'sound'), leaps);
    for (const kind of children(node, 'direction-type')) {
      if (child(kind, 'segno')) leaps.sign = true;
      if (child(kind, 'coda')) leaps.coda = !leaps.toCoda;
      const words = (text(kind, 'words') ?? '').trim();
      if (words && attribute(child(kind, 'words'), 'id')?.startsWith(REMINDER)) open.reminders.push({ at, text: words });
      else if (words && !wordLeaps(words, leaps)) {
        marks.push({ at, kind: 'words', text: words });
        this.tally.add('words', 'kept');
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
  readonly time: WrittenTime;
  longest: number;
  readonly notes: RawNote[];
  readonly left: RawKey[];
  readonly inner: RawKey[];
  readonly reminders: Reminder[];
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

const openMeasure = (name: string, divisions: number): OpenMeasure => ({
  name,
  time: new WrittenTime(divisions),
  longest: 0,
  notes: [],
  left: [],
  inner: [],
  reminders: [],
  chords: [],
  marks: [],
  tempos: [],
  leaps: {},
  repeatStart: false,
  times: 1,
  strong: false,
  closes: false,
});

/** Half steps by which no instrument is transposed: four octaves. */
const FARTHEST_TRANSPOSED = 48;

/** A duration as it is written, in divisions. */
function durationOf(node: XmlNode, measure: string): number {
  const duration = number(node, 'duration') ?? 0;
  return duration >= 0 ? duration : refuse([{ measure }], { code: 'note.duration' }, 'export-musicxml');
}

/** Where a sign stands that may be set off from its place among the notes. */
const placeOf = (node: XmlNode, { time }: OpenMeasure): Ticks =>
  Math.max(0, Math.round(time.at + time.ticks(number(node, 'offset') ?? 0)));

/**
 * The meter of a measure that stands under no time signature: its own length in quarters, or in the first counts that fill it. One
 * that no counts fill is filled up with a rest.
 */
function ownMeter(length: number): Meter {
  const counts = (unit: number) => length / countTicks({ beats: 1, unit });
  const fits = (beats: number) => beats >= 1 && beats <= MOST.counts;
  const exact = [4, 8, 16, 2, 1].find((unit) => Number.isInteger(counts(unit)) && fits(counts(unit)));
  const unit = exact ?? [16, 8, 4, 2, 1].find((u) => fits(Math.ceil(counts(u))));
  return unit === undefined ? { beats: 4, unit: 4 } : { beats: Math.ceil(counts(unit)), unit };
}

/** A note that ends at a bar line which it misses by no more than a rounding; none where nothing is left of it. */
function endingBy(note: RawNote, end: Ticks, tolerance: Ticks): RawNote[] {
  const until = note.at + note.length;
  const length = Math.abs(until - end) <= tolerance ? end - note.at : note.length;
  return length > 0 ? [{ ...note, length }] : [];
}

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

/** The pitch of a note, none for a rest; quarter tones are taken to the nearest half step. */
function pitchOf(node: XmlNode, measure: string): string[] {
  const pitch = child(node, 'pitch');
  if (!pitch) return [];
  const step = (text(pitch, 'step') ?? '').trim();
  const letter = step.length === 1 ? 'CDEFGAB'.indexOf(step) : -1;
  const alter = Math.round(number(pitch, 'alter') ?? 0);
  const octave = number(pitch, 'octave') ?? 4;
  const wrong = (cause: RefusalCause): never => refuse([{ measure }], cause, 'export-musicxml');
  if (letter < 0) return wrong({ code: 'note.no-letter', text: step.slice(0, 10) });
  if (Math.abs(alter) > 3) return wrong({ code: 'note.altered', semitones: Math.abs(alter) });
  if (!Number.isInteger(octave) || octave < 0 || octave > 9) return wrong({ code: 'note.octave', octave });
  return [`${noteName(letter, alter)}${octave}`];
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
    if (sung) verses[number - 1] = { text: sung, joins: syllabic === 'begin' || syllabic === 'middle' };
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
