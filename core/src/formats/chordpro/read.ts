import { evidenceOfChords, findKey } from '../../harmony/find-key.js';
import { parseKey } from '../../harmony/key.js';
import { parseChord, plainSigns } from '../../harmony/symbol.js';
import { pitchClass } from '../../pitch/pitch.js';
import { emptySong, type Song } from '../../song/song.js';
import { barTicks, beatTicks, readMeter, type Meter } from '../../time/meter.js';
import type { Ticks } from '../../time/ticks.js';
import {
  CHORD_LENGTHS,
  inPlace,
  reading,
  refuse,
  type Answers,
  type ChordLength,
  type Question,
  type Reading,
} from '../result.js';
import { Tally } from '../tally.js';

const MAX_TEXT = 1_000_000;

const BARS: Readonly<Record<ChordLength, number>> = { bar: 1, half: 0.5, 'two-bars': 2 };

/** A chord with the words that are sung from it on; null for words that come before the first chord of a line. */
interface Segment {
  readonly chord: string | null;
  readonly text: string;
}

/** A line of the song: its number in the text, the section that it begins, and its chords with their words. */
interface SungLine {
  readonly line: number;
  readonly section: string | null;
  readonly segments: readonly Segment[];
}

/**
 * Reads words with chords: ChordPro text with its chords in brackets, or lines of chords over lines of words. The song has no tune:
 * each chord lasts as long as the answer says, a bar where nothing is said, and every line begins with a bar.
 */
export function readChordPro(text: string, answers: Answers = {}): Reading {
  return reading(() => {
    if (text.length > MAX_TEXT) refuse(null, { code: 'file.too-long', most: MAX_TEXT, what: 'letters' }, 'one-song');
    const tally = new Tally();
    const page = new Page(tally);
    const lines = text.split(/\r\n?|\n/);
    for (let i = 0; i < lines.length; i++)
      i += inPlace(
        () => [{ line: i + 1 }],
        () => page.take(lines[i], lines[i + 1] ?? '', i + 1),
      );
    if (!page.sung.some((l) => l.segments.some((s) => s.chord !== null)))
      refuse(null, { code: 'chordpro.no-chords' }, 'write-chords-over');
    const length = CHORD_LENGTHS.find((l) => l === answers['length']) ?? 'bar';
    const song = page.song(length);
    tally.add('chord-symbols', 'used', song.chords.length);
    return { song, questions: [lengthQuestion(length)], counted: tally.all() };
  });
}

const lengthQuestion = (value: ChordLength): Question => ({
  id: 'length',
  entries: CHORD_LENGTHS.map((lasts) => ({ id: lasts, fact: { code: 'entry.length', lasts } })),
  value,
});

/** What stands alone in brackets, or before a colon, and is no chord: the name of a section. */
const LABEL = /^\s*(?:\[([^[\]]+)\]|([A-Za-z][\w ]{0,30}):)\s*$/;
/** Directives by their short names. */
const SHORT: Readonly<Record<string, string>> = {
  t: 'title',
  st: 'composer',
  c: 'comment',
  ci: 'comment',
  cb: 'comment',
  comment_italic: 'comment',
  comment_box: 'comment',
  artist: 'composer',
  subtitle: 'composer',
  soc: 'start_of_chorus',
  sov: 'start_of_verse',
  sob: 'start_of_bridge',
};

/** The page as it is read, line by line. */
class Page {
  readonly sung: SungLine[] = [];
  private title = '';
  private composer: string | null = null;
  private key: Song['key'] | null = null;
  private meter: Meter = { beats: 4, unit: 4 };
  private tempo: number | null = null;
  private section: string | null = null;

  constructor(private readonly tally: Tally) {}

  /** Takes a line, with the next one where that has the words under its chords; answers how many further lines were taken. */
  take(line: string, next: string, number: number): 0 | 1 {
    const directive = directiveIn(line.trim());
    if (directive) this.direct(directive.name, directive.value, number);
    if (directive || line.trim() === '' || line.startsWith('#')) return 0;
    const label = LABEL.exec(line);
    const name = (label?.[1] ?? label?.[2])?.trim();
    if (name && !isChord(name)) {
      this.section = name;
      return 0;
    }
    const chords = chordsIn(line);
    if (chords === null) {
      this.push(bracketed(line), number);
      return 0;
    }
    const words = isWords(next);
    this.push(over(chords, words ? next : ''), number);
    return words ? 1 : 0;
  }

  private push(segments: readonly Segment[], line: number): void {
    if (segments.length === 0) return;
    this.sung.push({ line, section: this.section, segments });
    this.section = null;
  }

  private direct(written: string, text: string, number: number): void {
    const name = SHORT[written] ?? written;
    const started = /^start_of_(\w+)$/.exec(name);
    if (started) this.section = text || started[1].charAt(0).toUpperCase() + started[1].slice(1);
    else if (name === 'comment') this.section = text || null;
    else if (name === 'title') this.title = text;
    else if (name === 'composer') this.composer ??= text || null;
    else if (name === 'key') this.key = parseKey(text) ?? this.key;
    else if (name === 'tempo') this.tempo = tempoIn(text) ?? this.tempo;
    else if (name === 'time')
      this.meter = readMeter(text) ?? refuse([{ line: number }], { code: 'meter.uncountable', text }, 'usual-meter', number);
    else if (!name.startsWith('end_of_')) this.tally.add('layout-lines', 'left out');
  }

  /** The song: every chord at its place, with the words that are sung from it on. */
  song(lasts: ChordLength): Song {
    const bar = barTicks(this.meter);
    const each = Math.round(bar * BARS[lasts]);
    const beat = beatTicks(this.meter);
    const [first] = this.sung;
    const pickup = leadOf(first) && first.segments.length > 1 ? beat : 0;
    const [chords, words, marks]: [Song['chords'], NonNullable<Song['words']>, Song['marks']] = [[], [], []];
    let at: Ticks = pickup;
    for (const { section, segments } of this.sung) {
      if (section !== null) marks.push({ at: Math.max(0, at), kind: 'section', text: section });
      segments.forEach(({ chord, text }, i) => {
        const before = chord === null && segments.length > 1;
        if (chord !== null) chords.push({ at, symbol: chord });
        const joins = goesOn(text, segments[i + 1]?.text);
        if (text.trim())
          words.push({
            at: before ? Math.max(0, at - beat, (words.at(-1)?.at ?? -1) + 1) : at,
            text: joins ? text.trim().replace(/(?<=.)-$/, '') : text.trim(),
            joins,
          });
        if (!before) at += each;
      });
      // A line begins with a bar of its own.
      at = pickup + Math.ceil((at - pickup) / bar) * bar;
      marks.push({ at, kind: 'line-end', text: null });
    }
    const song = { ...emptySong(), title: this.title, composer: this.composer, pickup, chords, words, marks, length: at };
    const heard = findKey(evidenceOfChords(chords), lastRoot(chords), null);
    return {
      ...song,
      meters: [{ at: 0, beats: this.meter.beats, unit: this.meter.unit as Song['meters'][0]['unit'] }],
      key: this.key ?? heard,
      tempo: this.tempo ?? song.tempo,
    };
  }
}

/** What stands in braces: a name, then a colon or a blank and a value; null for any other line. */
function directiveIn(line: string): { readonly name: string; readonly value: string } | null {
  if (!line.startsWith('{') || !line.endsWith('}')) return null;
  const inside = line.slice(1, -1).trim();
  const [name] = /^[\w-]+/.exec(inside) ?? [''];
  return name ? { name: name.toLowerCase(), value: inside.slice(name.length).trim().replace(/^:/, '').trim() } : null;
}

/** True where a line begins with words before its first chord. */
const leadOf = ({ segments: [first] }: SungLine): boolean => first.chord === null && first.text.trim() !== '';

/** True where a word goes on from one chord to the next. */
const goesOn = (text: string, next: string | undefined): boolean => next !== undefined && /\S$/.test(text) && /^\S/.test(next);

function lastRoot(chords: Song['chords']): number | null {
  const last = parseChord(chords.at(-1)?.symbol ?? '');
  return last.kind === 'chord' ? pitchClass(last.root) : null;
}

function tempoIn(text: string): number | null {
  const tempo = Number.parseFloat(text);
  return tempo >= 20 && tempo <= 400 ? tempo : null;
}

const isChord = (text: string): boolean => parseChord(plainSigns(text)).kind !== 'unread';

/** The chords of a line that has nothing else, each with its column; null for any other line. Bar lines between them are passed over. */
export function chordsIn(line: string): readonly { readonly column: number; readonly symbol: string }[] | null {
  const tokens = [...line.matchAll(/[^\s|]+/g)];
  if (tokens.length === 0 || !tokens.every(([t]) => isChord(t))) return null;
  return tokens.map((t) => ({ column: t.index, symbol: plainSigns(t[0]) }));
}

/** True for a line that has words and nothing else. */
const isWords = (line: string): boolean =>
  line.trim() !== '' && !/[[{]/.test(line) && !line.startsWith('#') && chordsIn(line) === null && !LABEL.test(line);

/** Chords over words: each takes the words from its column on. */
function over(chords: readonly { readonly column: number; readonly symbol: string }[], words: string): Segment[] {
  const lead = words.slice(0, chords[0].column);
  return [
    ...(lead.trim() ? [{ chord: null, text: lead }] : []),
    ...chords.map(({ column, symbol }, i) => ({ chord: symbol, text: words.slice(column, chords[i + 1]?.column) })),
  ];
}

/** A line with its chords in brackets. What stands in brackets and begins with a star is said to the players. */
function bracketed(line: string): Segment[] {
  const segments: Segment[] = [];
  let chord: string | null = null;
  let from = 0;
  const push = (text: string) => {
    if (chord !== null || text.trim()) segments.push({ chord, text });
  };
  for (const found of line.matchAll(/\[([^[\]]*)\]/g)) {
    const symbol = plainSigns(found[1].trim());
    push(line.slice(from, found.index));
    from = found.index + found[0].length;
    chord = symbol === '' || symbol.startsWith('*') ? null : symbol;
  }
  push(line.slice(from));
  return segments;
}
