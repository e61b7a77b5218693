import { XMLParser } from 'fast-xml-parser';
import { strFromU8, unzipSync } from 'fflate';
import type { Mode } from '../../harmony/key.js';
import { parseChord, plainSigns } from '../../harmony/symbol.js';
import { noteName } from '../../pitch/pitch.js';
import type { ChordEvent, Lyric, Mark } from '../../song/song.js';
import { barTicks, type Meter } from '../../time/meter.js';
import { TICKS_PER_QUARTER, type Ticks } from '../../time/ticks.js';
import { assemble, type RawMeasure, type RawNote, type RawSong } from '../measures.js';
import { reading, refuse, type Reading } from '../result.js';
import { attribute, child, children, element, number, text, type XmlNode } from './xml.js';

const MAX_BYTES = 30_000_000;
const WAY_OUT = 'Export it again as MusicXML (.musicxml) from the program it was written in.';

/**
 * Reads a partwise MusicXML score: the top voice of the first part is the tune, stacked notes reduced to the top one;
 * chord symbols, words, ties, repeats and endings are taken along. Compressed files (.mxl) are unpacked first.
 */
export function readMusicXml(data: string | Uint8Array): Reading {
  return reading(() => {
    const xml = typeof data === 'string' ? data : unpack(data);
    if (!xml.trim()) refuse(null, 'The file is empty.', WAY_OUT);
    if (xml.length > MAX_BYTES) refuse(null, 'The file is larger than 30 MB.', 'Choose a file with one song.');
    if (!/^\uFEFF?\s*</.test(xml)) refuse(null, 'This is not MusicXML: it does not begin with an XML tag.', WAY_OUT);
    if (/<score-timewise/.test(xml)) refuse(null, 'This is a timewise MusicXML score.', 'Export it as a partwise score.');
    if (!/<score-partwise/.test(xml)) refuse(null, 'This is XML, but not a MusicXML score.', WAY_OUT);
    return assemble(readScore(parseXml(xml)));
  });
}

function unpack(data: Uint8Array): string {
  if (data[0] !== 0x50 || data[1] !== 0x4b) return new TextDecoder().decode(data);
  try {
    const files = unzipSync(data);
    const container = files['META-INF/container.xml'];
    const path = container ? /full-path="([^"]+)"/.exec(strFromU8(container))?.[1] : undefined;
    const name = path ?? Object.keys(files).find((f) => /\.(musicxml|xml)$/.test(f) && !f.startsWith('META-INF'));
    if (name && files[name]) return strFromU8(files[name]);
  } catch {
    return refuse(null, 'The compressed file is damaged.', WAY_OUT);
  }
  return refuse(null, 'The compressed file holds no score.', WAY_OUT);
}

function parseXml(xml: string): XmlNode[] {
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    parseTagValue: false,
    processEntities: true,
    htmlEntities: false,
  });
  try {
    return parser.parse(xml) as XmlNode[];
  } catch {
    return refuse(null, 'The XML is broken and cannot be read to its end.', WAY_OUT);
  }
}

function readScore(nodes: XmlNode[]): RawSong {
  const score = element(nodes, 'score-partwise');
  const part = score && child(score, 'part');
  if (!score || !part) return refuse(null, 'The score holds no part.', WAY_OUT);
  const title = text(child(score, 'work'), 'work-title') ?? text(score, 'movement-title') ?? 'Untitled';
  const creators = children(child(score, 'identification'), 'creator');
  const composer = creators.find((c) => (attribute(c, 'type') ?? 'composer') === 'composer');
  const reader = new PartReader();
  for (const measure of children(part, 'measure')) reader.takeMeasure(measure);
  const composerName = composer ? (text(composer) ?? '').trim().slice(0, 200) : '';
  return { ...reader.song(), title: title.trim(), composer: composerName || null };
}

interface VoiceNote extends RawNote {
  readonly voice: string;
}

/** Holds what stays in force from measure to measure. */
class PartReader {
  private readonly measures: RawMeasure[] = [];
  private readonly notices: string[] = [];
  private divisions = 1;
  private meter: Meter = { beats: 4, unit: 4 };
  private fifths: number | null = null;
  private mode: Mode | null = null;
  private tempo: number | null = null;
  private endings: number[] | null = null;
  private voice: string | null = null;

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
    const name = attribute(measure, 'number') ?? String(this.measures.length + 1);
    const notes: VoiceNote[] = [];
    const chords: ChordEvent[] = [];
    const marks: Mark[] = [];
    let at = 0;
    let longest = 0;
    let repeatStart = false;
    let times = 1;
    let strong = false;
    let closes = false;
    for (const node of children(measure)) {
      switch (Object.keys(node).find((k) => k !== ':@')) {
        case 'attributes':
          this.takeAttributes(node, name);
          break;
        case 'note': {
          const length = this.ticks(node, name);
          const inStack = child(node, 'chord') !== undefined;
          if (child(node, 'grace') || child(node, 'cue')) break;
          if (!inStack) {
            this.addNote(notes, node, at, length);
            if (slurEnds(node)) marks.push({ at: at + length, kind: 'slur-end', text: null });
            at += length;
          } else this.stack(notes, node, at);
          break;
        }
        case 'backup':
          at = Math.max(0, at - this.ticks(node, name));
          break;
        case 'forward':
          at += this.ticks(node, name);
          break;
        case 'harmony': {
          const offset = Math.round(((number(node, 'offset') ?? 0) * TICKS_PER_QUARTER) / this.divisions);
          chords.push({ at: Math.max(0, at + offset), symbol: harmonyText(node) });
          break;
        }
        case 'direction':
          this.takeDirection(node, at, marks);
          break;
        case 'barline': {
          const repeat = child(node, 'repeat');
          const ending = child(node, 'ending');
          if (repeat && attribute(repeat, 'direction') === 'forward') repeatStart = true;
          if (repeat && attribute(repeat, 'direction') === 'backward') times = Number(attribute(repeat, 'times') ?? 2) || 2;
          const kind = ending && attribute(ending, 'type');
          if (ending && kind === 'start') {
            this.endings = endingNumbers(attribute(ending, 'number') ?? '1');
            marks.push({ at: 0, kind: 'ending', text: attribute(ending, 'number') ?? null });
          }
          if (kind === 'stop' || kind === 'discontinue') closes = true;
          const style = text(node, 'bar-style');
          if (repeat || style === 'light-light' || style === 'light-heavy') strong = true;
          break;
        }
      }
      longest = Math.max(longest, at);
    }
    if (this.voice === null) this.voice = notes.find((n) => n.pitches.length > 0)?.voice ?? null;
    const tune = notes.filter((n) => n.voice === (this.voice ?? n.voice));
    const full = barTicks(this.meter);
    const length = tune.length === 0 && longest === 0 ? full : Math.max(longest, endOf(tune));
    this.measures.push({
      name,
      length,
      meter: this.meter,
      notes: withGaps(tune, length),
      chords: chords.sort((a, b) => a.at - b.at).filter((c) => c.at < length),
      marks: marks.filter((m) => m.at < length),
      repeatStart,
      times: Math.min(8, times),
      endings: this.endings,
      mayBeShort: strong || attribute(measure, 'implicit') === 'yes',
    });
    this.carry(marks, length, strong);
    if (closes) this.endings = null;
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
    if (child(node, 'transpose'))
      this.notices.push('The part is written for a transposing instrument: the notes are kept as written.');
  }

  private addNote(notes: VoiceNote[], node: XmlNode, at: Ticks, length: Ticks): void {
    const staff = text(node, 'staff') ?? '1';
    if (length === 0 || staff !== '1') return;
    const voice = text(node, 'voice') ?? '1';
    const tiedOn = children(node, 'tie').some((t) => attribute(t, 'type') === 'start');
    notes.push({ at, length, pitches: pitchOf(node), tiedOn, lyric: lyricOf(node), voice });
  }

  private stack(notes: VoiceNote[], node: XmlNode, end: Ticks): void {
    const last = notes.at(-1);
    if (!last || last.at + last.length !== end || (text(node, 'staff') ?? '1') !== '1') return;
    const tiedOn = last.tiedOn || children(node, 'tie').some((t) => attribute(t, 'type') === 'start');
    notes[notes.length - 1] = { ...last, tiedOn, pitches: [...last.pitches, ...pitchOf(node)] };
  }

  private takeDirection(node: XmlNode, at: Ticks, marks: Mark[]): void {
    const tempo = attribute(child(node, 'sound'), 'tempo');
    if (tempo && this.tempo === null && Number(tempo) > 0) this.tempo = Number(tempo);
    const type = child(node, 'direction-type');
    const perMinute = number(child(type, 'metronome'), 'per-minute');
    if (perMinute && this.tempo === null) {
      const unit = { eighth: 0.5, quarter: 1, half: 2 }[text(child(type, 'metronome'), 'beat-unit') ?? 'quarter'] ?? 1;
      const dotted = child(child(type, 'metronome'), 'beat-unit-dot') ? 1.5 : 1;
      this.tempo = perMinute * unit * dotted;
    }
    const rehearsal = text(type, 'rehearsal');
    if (rehearsal && attribute(child(type, 'rehearsal'), 'id') !== 'part') marks.push({ at, kind: 'section', text: rehearsal });
  }
}

function endOf(notes: readonly RawNote[]): Ticks {
  return notes.reduce((end, n) => Math.max(end, n.at + n.length), 0);
}

/** Fills the silent stretches of a voice with rests and drops what overlaps. */
function withGaps(notes: readonly VoiceNote[], length: Ticks): RawNote[] {
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

function slurEnds(node: XmlNode): boolean {
  return children(node, 'notations').some((n) => children(n, 'slur').some((s) => attribute(s, 'type') === 'stop'));
}

function lyricOf(node: XmlNode): Lyric | null {
  const lyric = children(node, 'lyric').find((l) => (attribute(l, 'number') ?? '1') === '1');
  const words = children(lyric, 'text').map((t) => text(t) ?? '');
  const sung = words.join(' ').trim();
  const syllabic = text(lyric, 'syllabic');
  return sung ? { text: sung.slice(0, 200), joins: syllabic === 'begin' || syllabic === 'middle' } : null;
}

/** "1", "1, 2", "1-3". */
function endingNumbers(value: string): number[] {
  const numbers = value.split(/[\s,]+/).flatMap((piece) => {
    const [from, to] = piece.split('-').map((n) => parseInt(n, 10));
    return Number.isNaN(from) ? [] : Array.from({ length: Math.min(20, (to || from) - from + 1) }, (_, i) => from + i);
  });
  return numbers.length > 0 ? numbers : [1];
}

/** Symbols for MusicXML's own chord kinds, for scores that carry no text. */
const KIND_SUFFIX: Record<string, string> = {
  major: '',
  minor: 'm',
  augmented: 'aug',
  diminished: 'dim',
  dominant: '7',
  'major-seventh': 'maj7',
  'minor-seventh': 'm7',
  'diminished-seventh': 'dim7',
  'augmented-seventh': '7#5',
  'half-diminished': 'm7b5',
  'major-minor': 'mMaj7',
  'major-sixth': '6',
  'minor-sixth': 'm6',
  'dominant-ninth': '9',
  'major-ninth': 'maj9',
  'minor-ninth': 'm9',
  'dominant-11th': '11',
  'major-11th': 'maj11',
  'minor-11th': 'm11',
  'dominant-13th': '13',
  'major-13th': 'maj13',
  'minor-13th': 'm13',
  'suspended-second': 'sus2',
  'suspended-fourth': 'sus4',
  power: '5',
};

function harmonyText(node: XmlNode): string {
  const kind = child(node, 'kind');
  const kindName = (text(kind) ?? 'major').trim();
  if (kindName === 'none') return 'N.C.';
  const root = stepName(child(node, 'root'), 'root') ?? 'C';
  const bass = stepName(child(node, 'bass'), 'bass');
  const written = plainSigns(attribute(kind, 'text') ?? '').trim();
  const known = KIND_SUFFIX[kindName];
  const degrees = children(node, 'degree').map(degreeText).join('');
  const slash = bass ? `/${bass}` : '';
  if (known !== undefined && written && sameNotes(`${root}${written}`, `${root}${known}`)) return `${root}${written}${slash}`;
  if (kindName === 'other' && written) return `${root}${written}${slash}`;
  // Kinds that no lead sheet writes, such as the Neapolitan, are kept as words.
  if (known === undefined) return `${root} ${written || kindName}${slash}`;
  return `${root}${known}${degrees}${slash}`;
}

/** True where two symbols ask for the same notes, so that the written spelling can stay. */
function sameNotes(a: string, b: string): boolean {
  const [x, y] = [parseChord(a), parseChord(b)];
  return x.kind === 'chord' && y.kind === 'chord' && x.tones.map((t) => t.name).join() === y.tones.map((t) => t.name).join();
}

function degreeText(node: XmlNode): string {
  const value = number(node, 'degree-value') ?? 0;
  const alter = number(node, 'degree-alter') ?? 0;
  const type = text(node, 'degree-type') ?? 'alter';
  const sign = alter < 0 ? 'b' : alter > 0 ? '#' : '';
  if (type === 'subtract') return `(no${value})`;
  return type === 'add' && !sign ? `(add${value})` : `(${sign}${value})`;
}

function stepName(node: XmlNode | undefined, which: 'root' | 'bass'): string | null {
  const letter = 'CDEFGAB'.indexOf(text(node, `${which}-step`) ?? '?');
  return letter < 0 ? null : noteName(letter, Math.round(number(node, `${which}-alter`) ?? 0));
}
