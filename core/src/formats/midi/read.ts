import { chordFromNotes, spelledIn } from '../../harmony/from-notes.js';
import { rankKeys } from '../../harmony/find-key.js';
import { hasMinorThird, signatureOf, type Key } from '../../harmony/key.js';
import { midiOf, pitchAt, type Pitch } from '../../pitch/pitch.js';
import type { Reminder } from '../../song/decisions.js';
import { MOST } from '../../song/limits.js';
import type { ChordEvent, KeyNote, Lyric } from '../../song/song.js';
import { barTicks, beatTicks, type Meter } from '../../time/meter.js';
import { TICKS_PER_QUARTER as Q, type Ticks } from '../../time/ticks.js';
import { assemble, withInner, type RawMeasure, type RawNote } from '../measures.js';
import {
  reading,
  refuse,
  stacksIn,
  stacksQuestion,
  type Answers,
  type Question,
  type QuestionEntry,
  type Reading,
} from '../result.js';
import { Tally } from '../tally.js';
import { fromBytes } from './text.js';
import {
  besideLine,
  inTime,
  leftHand,
  likelyTune,
  lowestOf,
  singleLine,
  splitOf,
  TUNEFUL,
  withBeside,
  type TimedKey,
  type Track,
} from './hands.js';
import { distanceFrom, GRID_NAMES, likelyGrid, type GridName } from './quantise.js';
import { asWritten, EXACT, onGrid, withoutGraces, type RecordedNote, type WrittenNote } from './written.js';
import { Midi } from './package.js';

const MAX_BYTES = 4_000_000;
const MAX_PLAYED = 60_000;
/**
 * Reads a Standard MIDI File of type 0 or 1: the track most likely to hold the tune, or the top notes of one that both hands play;
 * places moved onto a grid of note values, pitches spelled by the key, chords named from what accompanies the tune.
 */
export function readMidi(data: Uint8Array, answers: Answers = {}): Reading {
  return reading(() => {
    if (data.length > MAX_BYTES) refuse(null, { code: 'file.too-long', most: 4, what: 'megabytes' }, 'one-song');
    const file = parse(data);
    const { ppq } = file.header;
    const tracks = tracksOf(file, ppq);
    const all = tracks.flatMap((t) => t.notes).sort((a, b) => a.at - b.at || b.midi - a.midi);
    if (all.length === 0) refuse(null, { code: 'tune.none' }, 'file-with-tune');
    if (all.length > MAX_PLAYED) refuse(null, { code: 'file.too-many', most: MAX_PLAYED, what: 'notes' }, 'one-song');
    const tempo = file.header.tempos[0]?.bpm ?? 120;
    const small = tracks.map((t) => withoutGraces(t.notes, tempo));
    const plain = tracks.map((t, i): Track => ({ ...t, notes: small[i].notes }));
    const track = plain.find((t) => t.id === answers['line']) ?? likelyTune(plain);
    const graces = small[plain.indexOf(track)].graces;
    // A track that is named for one hand is that hand's, however wide.
    const split = TUNEFUL.test(track.name ?? '') ? 0 : splitOf(track.notes);
    const stacks = stacksIn(answers, split === 0 ? 'all' : 'top');
    const held = withBeside(singleLine(track.notes, split), track.notes, split);
    const stacked = held.some((n) => n.beside?.length);
    const line = stacks === 'lowest' ? held.map(lowestOf) : held;
    const onsets = line.map((n) => n.at);
    const grid = GRID_NAMES.find((g) => g === answers['grid']) ?? likelyGrid(onsets);
    const exact = answers['grid'] === undefined ? asWritten(line) : null;
    const written = exact ?? onGrid(line, grid);
    const meters = metersOf(file, ppq);
    const end = Math.max(...all.map((n) => n.until));
    const bars = layOut(meters, end);
    const signature = signatureIn(data);
    const key = keyFor(line, signature);
    const others = all.filter((n) => !line.some((t) => t.at === n.at && t.midi === n.midi));
    const named = answers['chords'] !== 'none' && others.length >= 4;
    const tally = new Tally();
    tally.add('melody-notes', 'used', line.length);
    tally.add(named ? 'accompaniment-as-chords' : 'accompaniment', named ? 'used' : 'left out', others.length);
    if (file.header.tempos.length > 1) tally.add('tempo-changes', 'used', file.header.tempos.length - 1);
    const controls = file.tracks.reduce((sum, t) => sum + Object.values(t.controlChanges).reduce((n, c) => n + c.length, 0), 0);
    tally.add('controls', 'left out', controls);
    const left = leftHand(plain, track, split, exact !== null, grid);
    tally.add('left-hand', 'kept', left.length);
    const beside = stacks === 'all' ? inTime(besideLine(plain, track, line, split), exact !== null, grid) : [];
    tally.add('second-voice', 'kept', beside.length);
    tally.add('grace-notes', 'kept', [...graces.values()].flat().length);
    const title = fromBytes(file.header.name || '').trim() || track.name || '';
    const words = wordsOf(file, ppq);
    const { song, notices } = assemble(
      {
        title,
        composer: null,
        tempo: Math.round(tempo * 100) / 100,
        signature: signatureOf(key),
        mode: key.mode,
        measures: withTempos(measuresOf(bars, written, named ? chordsOf(others, line, bars, key) : [], key), bars, file, ppq),
        notices: [],
      },
      stacks === 'all' ? 'all' : 'top',
    );
    const gracing = gracesAt(graces, key);
    const sung = song.melody.map((n) => ({ ...n, ...gracing(n), lyric: words.get(n.at) ?? null }));
    const reminders = remindersOf(file, ppq);
    tally.add('reminders', 'kept', reminders.length);
    tally.add('syllables', 'used', sung.filter((n) => n.lyric).length);
    return {
      song: {
        ...song,
        key,
        ...withInner(sung, keysWithin(beside, song.length, key)),
        ...leftWithin(left, song.length, key),
      },
      reminders: reminders.filter((r) => r.at < song.length),
      notices: [
        ...notices,
        ...(left.length > 0 ? [{ code: 'notice.left-kept' } as const] : []),
        ...(beside.length > 0 ? [{ code: 'notice.inner-kept' } as const] : []),
      ],
      counted: tally.all(),
      questions: [
        ...questionsOf(tracks, track, exact ? null : gridQuestions(onsets, grid, tempo), others.length >= 4, named),
        ...(stacked || beside.length > 0 ? [stacksQuestion(stacks)] : []),
      ],
    };
  });
}

/** The left hand up to the end of the song, spelled by its key; nothing where there is none. */
function leftWithin(left: readonly TimedKey[], end: Ticks, key: Key): { left?: KeyNote[] } {
  const within = keysWithin(left, end, key);
  return within.length > 0 ? { left: within } : {};
}

const keysWithin = (keys: readonly TimedKey[], end: Ticks, key: Key): KeyNote[] =>
  keys.flatMap(({ at, length, midi }) =>
    at < end ? [{ at, length: Math.min(length, end - at), pitch: spelled(midi, key) }] : [],
  );

/** The grace notes of a note of the tune, by the place and key of the note that they were played before. */
function gracesAt(
  graces: ReadonlyMap<RecordedNote, readonly number[]>,
  key: Key,
): (note: { readonly at: Ticks; readonly pitch: string }) => { graces?: string[] } {
  const mains = [...graces];
  return ({ at, pitch }) => {
    const own = mains.find(([n]) => n.midi === midiOf(pitch) && Math.abs(n.at - at / Q) < 0.2);
    return own ? { graces: own[1].map((m) => spelled(m, key)) } : {};
  };
}

/** What the pianist wrote to be reminded of, as cues of the file. */
function remindersOf(file: InstanceType<typeof Midi>, ppq: number): Reminder[] {
  return file.header.meta.flatMap(({ type, ticks, text }) => {
    const written = fromBytes(text).trim();
    return type === 'cuePoint' && written ? [{ at: Math.round((ticks / ppq) * Q), text: written }] : [];
  });
}

function parse(data: Uint8Array): InstanceType<typeof Midi> {
  if (String.fromCharCode(...data.subarray(0, 4)) !== 'MThd') refuse(null, { code: 'midi.no-head' }, 'export-midi');
  const type = (data[8] << 8) | data[9];
  if (type > 1) refuse(null, { code: 'midi.type', type }, 'export-midi');
  if (data[12] & 0x80) refuse(null, { code: 'midi.frames' }, 'export-midi');
  try {
    const file = new Midi(data);
    if (file.header.ppq > 0) return file;
  } catch {
    // Said below.
  }
  return refuse(null, { code: 'file.damaged', format: 'midi' }, 'export-midi');
}

function tracksOf(file: InstanceType<typeof Midi>, ppq: number): Track[] {
  return file.tracks.flatMap((track, i): Track[] => {
    // The tenth channel is for drums, whose numbers are no pitches.
    if (track.notes.length === 0 || track.channel === 9) return [];
    const notes = track.notes
      .map((n) => ({ at: n.ticks / ppq, until: (n.ticks + Math.max(1, n.durationTicks)) / ppq, midi: n.midi }))
      .sort((a, b) => a.at - b.at || b.midi - a.midi);
    return [{ id: `${i + 1}`, name: fromBytes(track.name).trim() || null, number: i + 1, notes }];
  });
}

/** Syllables by their places in ticks. */
function wordsOf(file: InstanceType<typeof Midi>, ppq: number): ReadonlyMap<Ticks, Lyric> {
  const words = new Map<Ticks, Lyric>();
  for (const { type, ticks, text } of file.header.meta) {
    const written = fromBytes(text);
    const joins = written.length > 1 && written.endsWith('-');
    const sung = (joins ? written.slice(0, -1) : written).trim();
    if (type === 'lyrics' && sung) words.set(Math.round((ticks / ppq) * Q), { text: sung, joins });
  }
  return words;
}

interface MeterAt {
  readonly at: Ticks;
  readonly meter: Meter;
}

function metersOf(file: InstanceType<typeof Midi>, ppq: number): MeterAt[] {
  const meters = file.header.timeSignatures
    .map((t) => ({ at: Math.round((t.ticks / ppq) * Q), meter: { beats: t.timeSignature[0], unit: t.timeSignature[1] } }))
    .filter(({ meter }) => meter.beats >= 1 && meter.beats <= MOST.counts && [1, 2, 4, 8, 16].includes(meter.unit))
    .sort((a, b) => a.at - b.at);
  return meters.length > 0 && meters[0].at === 0 ? meters : [{ at: 0, meter: { beats: 4, unit: 4 } }, ...meters];
}

interface LaidBar {
  readonly start: Ticks;
  readonly end: Ticks;
  readonly meter: Meter;
  /** True for a first bar that only leads into the second. */
  readonly pickup: boolean;
}

/** Bars up to the end of the music. A first bar of its own short meter is a pick-up. */
export function layOut(meters: readonly MeterAt[], end: number): LaidBar[] {
  const bars: LaidBar[] = [];
  const last = Math.round(end * Q);
  let at = 0;
  let next = 1;
  let { meter } = meters[0];
  while (at < last || bars.length === 0) {
    while (next < meters.length && meters[next].at <= at) ({ meter } = meters[next++]);
    const full = at + barTicks(meter);
    const change = meters[next]?.at ?? Infinity;
    bars.push({ start: at, end: Math.min(full, change), meter, pickup: false });
    at = Math.min(full, change);
    if (bars.length > MOST.bars) refuse(null, { code: 'file.too-many', most: MOST.bars, what: 'bars' }, 'one-song');
  }
  const [first, second] = bars;
  const leads = second && first.end === meters[1]?.at && first.end - first.start < barTicks(second.meter);
  if (!leads) return bars;
  // The last bar is shorter by the pick-up where the music ends there.
  const { start, end: full, meter: own } = bars[bars.length - 1];
  const short = start + barTicks(own) - (first.end - first.start);
  const trimmed =
    bars.length > 2 && last <= short && short > start ? { ...bars[bars.length - 1], end: Math.min(full, short) } : null;
  return [{ ...first, meter: second.meter, pickup: true }, ...bars.slice(1, -1), trimmed ?? bars[bars.length - 1]];
}

export function measuresOf(
  bars: readonly LaidBar[],
  line: readonly WrittenNote[],
  chords: readonly ChordEvent[],
  key: Key,
): RawMeasure[] {
  let n = 0;
  let number = bars[0].pickup ? 0 : 1;
  return bars.map(({ start, end, meter }): RawMeasure => {
    const notes: RawNote[] = [];
    let at = start;
    const rest = (until: Ticks) => {
      if (until > at) notes.push({ at: at - start, length: until - at, pitches: [], tiedOn: false, lyric: null });
      at = Math.max(at, until);
    };
    while (n < line.length && line[n].at < end) {
      const { at: from, length, midi, beside } = line[n];
      rest(Math.max(start, from));
      const until = Math.min(end, from + length);
      notes.push({
        at: at - start,
        length: until - at,
        pitches: [...beside, midi].map((m) => spelled(m, key)),
        tiedOn: from + length > end,
        lyric: null,
      });
      at = until;
      if (from + length > end) break;
      n++;
    }
    rest(end);
    return {
      name: `${number++}`,
      length: end - start,
      meter,
      notes,
      chords: chords.filter((c) => c.at >= start && c.at < end).map((c) => ({ ...c, at: c.at - start })),
      marks: [],
      repeatStart: false,
      times: 1,
      endings: null,
      mayBeShort: true,
    };
  });
}

/** The measures with the changes of tempo that fall into them. */
function withTempos(
  measures: readonly RawMeasure[],
  bars: readonly LaidBar[],
  file: InstanceType<typeof Midi>,
  ppq: number,
): RawMeasure[] {
  const changes = file.header.tempos
    .slice(1)
    .map((t) => ({ at: Math.round((t.ticks / ppq) * Q), tempo: Math.round(t.bpm * 100) / 100 }));
  if (changes.length === 0) return [...measures];
  return measures.map((m, i) => {
    const { start, end } = bars[i];
    return { ...m, tempos: changes.filter((c) => c.at >= start && c.at < end).map((c) => ({ ...c, at: c.at - start })) };
  });
}

/** A key of the piano as a key signature spells it. */
export const spelled = (midi: number, key: Key): Pitch => pitchAt(spelledIn(key, midi % 12), midi);

/** Chords of bars, or of half bars where these differ, named from everything that sounds in them, the tune counting less. */
function chordsOf(
  others: readonly RecordedNote[],
  line: readonly RecordedNote[],
  bars: readonly LaidBar[],
  key: Key,
): ChordEvent[] {
  const chords: ChordEvent[] = [];
  const say = (at: Ticks, symbol: string | null) => {
    if (symbol !== null && chords.at(-1)?.symbol !== symbol) chords.push({ at, symbol });
  };
  for (const { start, end, meter } of bars) {
    const beats = Math.round((end - start) / beatTicks(meter));
    const middle = beats % 2 === 0 ? start + (end - start) / 2 : null;
    const [whole, first, second] = [
      chordIn(others, line, start, end, key),
      middle === null ? null : chordIn(others, line, start, middle, key),
      middle === null ? null : chordIn(others, line, middle, end, key),
    ];
    if (middle === null || first === null || second === null || first === second) say(start, whole ?? first ?? second);
    else {
      say(start, first);
      say(middle, second);
    }
  }
  return chords;
}

/** Share of the weight of an accompanying note that a note of the tune has. */
const TUNE_SHARE = 0.25;

function chordIn(
  others: readonly RecordedNote[],
  line: readonly RecordedNote[],
  start: Ticks,
  end: Ticks,
  key: Key,
): string | null {
  const weights = new Array<number>(12).fill(0);
  const [from, to] = [start / Q, end / Q];
  let bass: RecordedNote | null = null;
  for (const [notes, share] of [[others, 1] as const, [line, TUNE_SHARE] as const])
    for (const n of notes) {
      const sounds = Math.min(n.until, to) - Math.max(n.at, from);
      if (sounds <= 0.05) continue;
      weights[n.midi % 12] += share * sounds;
      if (share === 1 && n.at < from + (to - from) / 2 && (bass === null || n.midi < bass.midi)) bass = n;
    }
  return chordFromNotes(weights, bass ? bass.midi % 12 : null, key);
}

/** The key signature as the bytes have it, since the package reads another number than is written. */
function signatureIn(data: Uint8Array): { fifths: number; mode: 'major' | 'minor' } | null {
  for (let i = 14; i + 4 < data.length; i++)
    if (data[i] === 0xff && data[i + 1] === 0x59 && data[i + 2] === 2) {
      const fifths = (data[i + 3] << 24) >> 24;
      if (Math.abs(fifths) <= 7 && data[i + 4] <= 1) return { fifths, mode: data[i + 4] === 1 ? 'minor' : 'major' };
    }
  return null;
}

/**
 * The key as it is heard, with the written signature as evidence: programs write "C major" where nobody said anything, and major where they
 * only mean the signs. A minor key is said on purpose, and may be one of the old modes with a minor third.
 */
export function keyFor(line: readonly RecordedNote[], signature: ReturnType<typeof signatureIn>): Key {
  const heard = line.map((n) => ({ pitchClass: n.midi % 12, weight: n.until - n.at }));
  const last = line[line.length - 1];
  const ranked = rankKeys(heard, last ? last.midi % 12 : null, signature?.fifths ?? null);
  return (ranked.find(({ key }) => signature?.mode !== 'minor' || hasMinorThird(key)) ?? ranked[0]).key;
}

function questionsOf(
  tracks: readonly Track[],
  track: Track,
  grids: readonly Question[] | null,
  accompanied: boolean,
  named: boolean,
): Question[] {
  const questions: Question[] = [];
  if (tracks.length > 1)
    questions.push({
      id: 'line',
      entries: tracks.map((t) => ({
        id: t.id,
        fact: {
          code: 'entry.line',
          notes: t.notes.length,
          sung: false,
          name: { of: 'track', name: t.name, number: t.number, staff: null, voice: null },
        },
      })),
      value: track.id,
    });
  questions.push(...(grids ?? []));
  if (accompanied)
    questions.push({
      id: 'chords',
      entries: [
        { id: 'named', fact: { code: 'entry.chords', named: true } },
        { id: 'none', fact: { code: 'entry.chords', named: false } },
      ],
      value: named ? 'named' : 'none',
    });
  return questions;
}

/** On which grid played notes are written, with how far they lie from each; nothing to ask where all of them lie on it as they are. */
export function gridQuestions(onsets: readonly number[], value: GridName, tempo: number): Question[] {
  if (distanceFrom(onsets, value).most < EXACT) return [];
  const off = (g: GridName) => Math.round((distanceFrom(onsets, g).mean * 60_000) / tempo);
  const entries = GRID_NAMES.map((g): QuestionEntry => ({ id: g, fact: { code: 'entry.grid', grid: g, off: off(g) } }));
  return [{ id: 'grid', entries, value }];
}
