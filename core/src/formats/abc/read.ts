import abcjs from 'abcjs';
import { noteName } from '../../pitch/pitch.js';
import { TICKS_PER_QUARTER } from '../../time/ticks.js';
import { barTicks, type Meter } from '../../time/meter.js';
import { parseKey, signatureOf, type Mode } from '../../harmony/key.js';
import { plainSigns, parseChord } from '../../harmony/symbol.js';
import { MOST } from '../../song/limits.js';
import type { ChordEvent, Lyric, Mark } from '../../song/song.js';
import { assemble, type RawMeasure, type RawNote, type RawSong } from '../measures.js';
import { markOfDecoration } from '../ornaments.js';
import {
  inPlace,
  reading,
  refuse,
  stacksIn,
  stacksQuestion,
  type Answers,
  type Counted,
  type Notice,
  type Question,
  type QuestionEntry,
  type Reading,
  type RefusedAt,
} from '../result.js';
import { Tally } from '../tally.js';
import { unescapeAbc } from './text.js';

/** The part of the ABC parser's output that this reader uses. */
interface AbcPitch {
  pitch: number;
  accidental?: string;
  startTie?: unknown;
  startSlur?: unknown[];
  endSlur?: unknown[];
}
interface AbcElement {
  startSlur?: unknown[];
  el_type: string;
  type?: string;
  duration?: number;
  pitches?: AbcPitch[];
  rest?: { type: string; text?: number };
  chord?: { name: string; position: string }[];
  lyric?: { syllable: string; divider: string }[];
  startTriplet?: number;
  tripletMultiplier?: number;
  endTriplet?: boolean;
  startEnding?: string;
  endEnding?: boolean;
  gracenotes?: AbcPitch[];
  decoration?: string[];
  startChar: number;
  title?: string;
  value?: { num: string; den: string }[];
  accidentals?: { acc: string; note: string }[];
  root?: string;
  acc?: string;
  mode?: string;
  endSlur?: unknown[];
}
interface AbcLine {
  staff?: { voices: AbcElement[][]; key?: AbcElement; meter?: AbcElement }[];
}
interface AbcTune {
  lines: AbcLine[];
  metaText: { title?: string; composer?: unknown; tempo?: { duration?: number[]; bpm?: number } };
}

const ACCIDENTALS: Record<string, number> = { sharp: 1, flat: -1, natural: 0, dblsharp: 2, dblflat: -2 };
/** Letters of a whole book, and of one tune in it. */
const MAX_TEXT = 5_000_000;
const MAX_TUNE = 200_000;
const MAX_REST_BARS = 400;

/**
 * Reads the first tune of an ABC text: key, meter, pick-up, chords in quotes, lyrics, repeats and endings played out,
 * tuplets, ties. Of several voices the first is the tune; of notes struck together in it all are kept, or one where that is asked for.
 */
export function readAbc(text: string, answers: Answers = {}): Reading {
  return reading(() => {
    if (!text.trim()) refuse(null, { code: 'file.empty' }, 'abc-lines');
    if (text.length > MAX_TEXT) refuse(null, { code: 'file.too-long', most: MAX_TEXT, what: 'letters' }, 'smaller-book');
    if (!/^\s*K:/m.test(text)) refuse(null, { code: 'abc.no-key' }, 'abc-lines');
    const tunes = tunesOf(text);
    const chosen = tunes.find((t) => t.id === answers['tune']) ?? tunes[0];
    if (chosen.text.length > MAX_TUNE) refuse(null, { code: 'file.too-long', most: MAX_TUNE, what: 'letters' }, 'one-song');
    checkSigns(chosen.text);
    const tune = parsed(chosen.text);
    if (!tune) return refuse(null, { code: 'abc.no-tune' }, 'abc-lines');
    const reader = new AbcTuneReader(tune, chosen.text, answers['voice'] ?? null);
    const raw = reader.read();
    const stacks = stacksIn(answers);
    const { song, notices } = assemble(raw, stacks);
    const stacked = raw.measures.some((m) => m.notes.some((n) => n.pitches.length > 1));
    const order: Notice[] = song.order ? [{ code: 'notice.order', order: song.order }] : [];
    return {
      song,
      notices: [...notices, ...order],
      questions: [...tuneQuestion(tunes, chosen.id), ...reader.questions(), ...(stacked ? [stacksQuestion(stacks)] : [])],
      counted: reader.counted(raw),
    };
  });
}

/** Most letters of a line, most voices of a tune, and most places where a voice is laid over another: the parser takes each with all before it. */
const MOST_LETTERS = 5000;
const MOST_VOICES = 64;
const MOST_OVERLAYS = 1000;

/** Refuses what would keep the parser busy, before it is parsed: grace notes that are not closed, and voices without end. */
function checkSigns(text: string): void {
  const voices = new Set<string>();
  let overlays = 0;
  text.split(/\r\n?|\n/).forEach((line, i) => {
    if (line.length > MOST_LETTERS) refuse([{ line: i + 1 }], { code: 'line.too-long', most: MOST_LETTERS }, 'break-line', i + 1);
    for (const [, id] of line.matchAll(/(?:^|\[)V:\s*([^\s\]]*)/g)) voices.add(id);
    if (/^([A-Za-z]:|%)/.test(line)) return;
    let open = false;
    let quoted = false;
    for (const sign of line) {
      if (sign === '"') quoted = !quoted;
      if (quoted) continue;
      if (sign === '&') overlays++;
      if (sign === '{' && open) break;
      if (sign === '{') open = true;
      if (sign === '}') open = false;
    }
    if (open) refuse([{ line: i + 1 }], { code: 'abc.open-graces' }, 'close-graces', i + 1);
  });
  if (voices.size > MOST_VOICES) refuse(null, { code: 'file.too-many', most: MOST_VOICES, what: 'voices' }, 'one-song');
  if (overlays > MOST_OVERLAYS) refuse(null, { code: 'file.too-many', most: MOST_OVERLAYS, what: 'overlays' }, 'write-voices');
}

/** The parser's tune; null where it finds none or gives up. */
function parsed(text: string): AbcTune | null {
  try {
    return (abcjs.parseOnly(text) as unknown as (AbcTune | undefined)[])[0] ?? null;
  } catch {
    return null;
  }
}

interface WrittenTune {
  readonly id: string;
  readonly title: string;
  readonly text: string;
}

/** The tunes of a book, each with the lines before the first that hold for all. */
function tunesOf(text: string): WrittenTune[] {
  const starts = [...text.matchAll(/^X:/gm)].map((m) => m.index);
  if (starts.length < 2) return [{ id: '1', title: '', text }];
  return starts.map((start, i) => {
    const body = text.slice(start, starts[i + 1]);
    return { id: `${i + 1}`, title: titleIn(body), text: body };
  });
}

/** The title of a tune, as far as a list of many shows it. */
const titleIn = (body: string): string =>
  unescapeAbc(/^T:\s*(.*)$/m.exec(body)?.[1] ?? '')
    .trim()
    .slice(0, 100);

function tuneQuestion(tunes: readonly WrittenTune[], value: string): Question[] {
  if (tunes.length < 2) return [];
  const entries = tunes.map(({ id, title }): QuestionEntry => ({
    id,
    fact: title ? { code: 'entry.named', text: title } : { code: 'entry.tune', number: Number(id) },
  }));
  return [{ id: 'tune', entries, value }];
}

/** Holds the state of one reading: the key in force, accidentals of the bar, open tuplets and endings. */
class AbcTuneReader {
  private readonly notices: Notice[] = [];
  private readonly measures: RawMeasure[] = [];
  private meter: Meter = { beats: 4, unit: 4 };
  private signature = new Map<string, number>();
  private fifths: number | null = null;
  private mode: Mode | null = null;
  private inBar = new Map<number, number>();
  private tied = new Map<number, number>();
  private tuplet = 1;
  private endings: number[] | null = null;
  private repeatStart = false;
  private notes: RawNote[] = [];
  private chords: ChordEvent[] = [];
  private marks: Mark[] = [];
  private at = 0;
  private number = 0;

  private readonly tally = new Tally();
  private voices = 1;

  constructor(
    private readonly tune: AbcTune,
    private readonly text: string,
    private readonly voice: string | null,
  ) {}

  /** Which of several voices is the tune. */
  questions(): Question[] {
    if (this.voices < 2) return [];
    const entries = Array.from({ length: this.voices }, (_, i): QuestionEntry => ({
      id: `${i + 1}`,
      fact: { code: 'entry.voice', number: i + 1 },
    }));
    return [{ id: 'voice', entries, value: this.voice ?? '1' }];
  }

  /** What was found, and what the text says that a song has no place for. */
  counted(raw: RawSong): Counted[] {
    const notes = raw.measures.flatMap((m) => m.notes).filter((n) => n.pitches.length > 0);
    this.tally.add('melody-notes', 'used', notes.length);
    this.tally.add('syllables', 'used', notes.filter((n) => n.lyric).length);
    this.tally.add(
      'chord-symbols',
      'used',
      raw.measures.reduce((sum, m) => sum + m.chords.length, 0),
    );
    this.tally.add('layout-lines', 'left out', this.text.match(/^%%/gm)?.length ?? 0);
    return this.tally.all();
  }

  read(): RawSong {
    const wanted = Math.max(0, Number(this.voice ?? 1) - 1);
    for (const line of this.tune.lines) {
      if (!line.staff?.[0]) continue;
      const all = line.staff.flatMap((staff) => staff.voices.map((voice) => ({ staff, voice })));
      this.voices = Math.max(this.voices, all.length);
      const { staff, voice } = all[wanted] ?? all[0];
      if (staff.key) this.setKey(staff.key);
      if (staff.meter) this.setMeter(staff.meter);
      for (const element of voice)
        inPlace(
          () => this.placeOf(element),
          () => this.take(element),
        );
      if (this.hasWords(voice)) this.marks.push({ at: this.at, kind: 'line-end', text: null });
    }
    this.endMeasure(false, 1);
    if (this.voices > 1) this.notices.push({ code: 'notice.voices', voice: wanted + 1 });
    const { title, composer, tempo } = this.tune.metaText;
    const quarter = tempo?.bpm && tempo.duration?.[0] ? tempo.bpm * tempo.duration[0] * 4 : 100;
    return {
      title: unescapeAbc(title ?? '').trim() || 'Untitled',
      composer: typeof composer === 'string' ? unescapeAbc(composer) : null,
      tempo: Math.round(quarter * 100) / 100,
      signature: this.fifths,
      mode: this.mode,
      measures: this.measures,
      notices: this.notices,
    };
  }

  private hasWords(voice: AbcElement[] | undefined): boolean {
    return voice?.some((e) => e.lyric?.some((l) => l.syllable.trim())) ?? false;
  }

  private take(e: AbcElement): void {
    switch (e.el_type) {
      case 'note':
        return this.takeNote(e);
      case 'bar':
        return this.takeBar(e);
      case 'key':
        if (this.measures.length > 0) this.notices.push({ code: 'notice.key-changes', measure: `${this.number + 1}` });
        return this.setKey(e);
      case 'meter':
        return this.setMeter(e);
      case 'part':
        this.marks.push({ at: this.at, kind: 'section', text: e.title ? unescapeAbc(e.title) : null });
        return;
      default:
        return;
    }
  }

  private setKey(e: AbcElement): void {
    this.signature = new Map((e.accidentals ?? []).map((a) => [a.note.toUpperCase(), ACCIDENTALS[a.acc] ?? 0]));
    if (this.fifths !== null) return;
    const accidentals = e.accidentals ?? [];
    this.fifths = accidentals.reduce((n, a) => n + Math.sign(ACCIDENTALS[a.acc] ?? 0), 0);
    const key = parseKey(`${e.root ?? ''}${e.acc ?? ''} ${e.mode ?? ''}`);
    if (key && signatureOf(key) === this.fifths) this.mode = key.mode;
  }

  private setMeter(e: AbcElement): void {
    const value = e.value?.[0];
    if (value) this.meter = { beats: Number(value.num), unit: Number(value.den) };
    else if (e.type === 'cut_time') this.meter = { beats: 2, unit: 2 };
    else if (e.type === 'common_time') this.meter = { beats: 4, unit: 4 };
    const { beats, unit } = this.meter;
    if (!(Number.isInteger(beats) && beats >= 1 && beats <= MOST.counts && [1, 2, 4, 8, 16].includes(unit)))
      refuse(null, { code: 'meter.uncountable', text: `${value?.num ?? '?'}/${value?.den ?? '?'}` }, 'usual-meter');
  }

  private takeNote(e: AbcElement): void {
    if (e.startTriplet) this.tuplet = e.tripletMultiplier ?? 1;
    const whole = e.rest?.type === 'multimeasure' || e.rest?.type === 'invisible-multimeasure';
    const length = whole ? barTicks(this.meter) : Math.round((e.duration ?? 0) * 4 * TICKS_PER_QUARTER * this.tuplet);
    if (e.endTriplet) this.tuplet = 1;
    for (const c of e.chord ?? []) this.takeChord(c, e);
    if (whole) return this.takeRestBars(e.rest?.text ?? 1, length);
    if (length <= 0) return;
    const graces = (e.gracenotes ?? []).map((g) => this.pitchOf(g));
    const pitches = (e.pitches ?? []).map((p) => this.pitchOf(p));
    const tiedOn = (e.pitches ?? []).some((p) => p.startTie !== undefined);
    this.tally.add('grace-notes', 'kept', graces.length);
    this.takeSigns(e.decoration ?? [], pitches.length > 0, length);
    const [lyric, ...verses] = versesOf(e);
    this.notes.push({
      at: this.at,
      length,
      pitches,
      tiedOn,
      lyric: lyric ?? null,
      verses,
      graces: pitches.length > 0 ? graces : [],
    });
    this.at += length;
    if (e.startSlur?.length || e.pitches?.some((p) => p.startSlur?.length))
      this.marks.push({ at: this.at - length, kind: 'slur-start', text: null });
    const slurEnds = e.endSlur?.length || e.pitches?.some((p) => p.endSlur?.length);
    if (slurEnds) this.marks.push({ at: this.at, kind: 'slur-end', text: null });
  }

  /** Signs over a note: ornaments, fermatas and the breath after it are kept, others counted. */
  private takeSigns(decorations: readonly string[], sounds: boolean, length: number): void {
    for (const decoration of decorations) {
      if (decoration === 'breath' && sounds) {
        this.marks.push({ at: this.at + length, kind: 'breath', text: null });
        this.tally.add('breaths', 'kept');
        continue;
      }
      const mark = sounds ? markOfDecoration(decoration, this.at) : null;
      if (mark) this.marks.push(mark);
      if (mark) this.tally.add(mark.kind === 'fermata' ? 'fermatas' : 'ornaments', 'kept');
      else this.tally.add('playing-signs', 'left out');
    }
  }

  private takeRestBars(count: number, length: number): void {
    if (!(count <= MAX_REST_BARS)) refuse(null, { code: 'tune.long-rest', most: MAX_REST_BARS }, 'shorten-rest');
    for (let i = 0; i < count; i++) {
      this.notes.push({ at: 0, length, pitches: [], tiedOn: false, lyric: null });
      this.at = length;
      if (i < count - 1) this.endMeasure(false, 1);
    }
  }

  private takeChord(c: { name: string; position: string }, e: AbcElement): void {
    const name = plainSigns(unescapeAbc(c.name).trim());
    if (c.position !== 'default' || !name) return;
    // Quoted words that do not begin like a chord are remarks, such as "slowly".
    const unread = parseChord(name).kind === 'unread';
    if (unread && !/^[A-H]/.test(name)) return;
    // Several words that begin with a letter name are kept as they are.
    if (unread && !name.includes(' '))
      refuse(this.placeOf(e), { code: 'chord.unread', text: name }, 'usual-symbol', this.lineOf(e));
    this.chords.push({ at: this.at, symbol: name });
  }

  private lineOf(e: AbcElement): number {
    return this.text.slice(0, e.startChar).split('\n').length;
  }

  private placeOf(e: AbcElement): RefusedAt[] {
    return [{ line: this.lineOf(e) }, { measure: `${Math.max(1, this.number + (this.startsWithPickup() ? 0 : 1))}` }];
  }

  private startsWithPickup(): boolean {
    const first = this.measures[0];
    return first !== undefined && first.length < barTicks(first.meter);
  }

  private pitchOf(p: AbcPitch): string {
    const step = ((p.pitch % 7) + 7) % 7;
    const octave = 4 + Math.floor(p.pitch / 7);
    if (p.accidental) this.inBar.set(p.pitch, ACCIDENTALS[p.accidental] ?? 0);
    const held = this.tied.get(p.pitch);
    const alter = this.inBar.get(p.pitch) ?? held ?? this.signature.get('CDEFGAB'[step]) ?? 0;
    this.tied.delete(p.pitch);
    if (p.startTie !== undefined) this.tied.set(p.pitch, alter);
    return `${noteName(step, alter)}${octave}`;
  }

  private takeBar(e: AbcElement): void {
    const type = e.type ?? '';
    const ends = type === 'bar_right_repeat' || type === 'bar_dbl_repeat';
    const strong = ends || type !== 'bar_thin';
    this.endMeasure(strong, ends ? 2 : 1);
    if (e.endEnding || (this.endings && strong && type !== 'bar_thin')) this.endings = null;
    if (e.startEnding) this.endings = endingNumbers(e.startEnding);
    if (type === 'bar_left_repeat' || type === 'bar_dbl_repeat') this.repeatStart = true;
    if (type === 'bar_thin_thin' || type === 'bar_thin_thick' || type === 'bar_thick_thin')
      this.marks.push({ at: 0, kind: 'double-bar', text: null });
    if (ends) this.marks.push({ at: 0, kind: 'repeat', text: null });
    if (e.startEnding) this.marks.push({ at: 0, kind: 'ending', text: e.startEnding });
  }

  private endMeasure(strong: boolean, times: number): void {
    if (this.at === 0) {
      // An empty measure stands where a repeat sign opens a line.
      const last = this.measures.at(-1);
      if (last && times > 1) this.measures[this.measures.length - 1] = { ...last, times, mayBeShort: true };
      return;
    }
    if (this.measures.length === 0 && this.at < barTicks(this.meter)) this.number--;
    this.number++;
    this.measures.push({
      name: this.number <= 0 ? 'of the pick-up' : String(this.number),
      length: this.at,
      meter: this.meter,
      notes: this.notes,
      chords: this.chords,
      marks: this.marks,
      repeatStart: this.repeatStart,
      times,
      endings: this.endings,
      mayBeShort: strong,
    });
    this.repeatStart = false;
    this.notes = [];
    this.chords = [];
    this.marks = [];
    this.at = 0;
    this.inBar.clear();
  }
}

/** The words of a note, verse by verse. */
function versesOf(e: AbcElement): (Lyric | null)[] {
  return (e.lyric ?? []).slice(0, 12).map((lyric) => {
    const text = unescapeAbc(lyric.syllable).trim();
    return text ? { text, joins: lyric.divider === '-' } : null;
  });
}

/** "1", "2", "1,3", "1-3". */
function endingNumbers(text: string): number[] {
  const numbers: number[] = [];
  for (const piece of text.split(',')) {
    const [from, to] = piece.split('-').map((n) => parseInt(n, 10));
    if (Number.isNaN(from)) continue;
    for (let n = from; n <= (to || from) && n < 20; n++) numbers.push(n);
  }
  return numbers.length > 0 ? numbers : [1];
}
