import { evidenceOf, evidenceOfChords, findKey } from '../harmony/find-key.js';
import { type Key, type Mode, keyFromSignature } from '../harmony/key.js';
import { parseChord } from '../harmony/symbol.js';
import { HIGHEST_KEY, LOWEST_KEY, midiOf, nameOf, pitchClass, type Pitch } from '../pitch/pitch.js';
import type { Reminder } from '../song/decisions.js';
import { MOST } from '../song/limits.js';
import {
  besides,
  keysOf,
  MOST_BESIDE,
  type KeyNote,
  type ChordEvent,
  type Lyric,
  type Mark,
  type MelodyNote,
  type Song,
} from '../song/song.js';
import { barTicks, countTicks, type Meter } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import { refuse, type Notice, type RefusalCause, type Stacks } from './result.js';

/** A note of a written measure. `pitches` is empty for a rest, longer than one for a chord of notes. */
export interface RawNote {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitches: readonly Pitch[];
  readonly tiedOn: boolean;
  /** The words of the first verse, or of the verse that is sung. */
  readonly lyric: Lyric | null;
  /** Words of further verses, from the second on; sung when the measure comes again. */
  readonly verses?: readonly (Lyric | null)[];
  readonly graces?: readonly Pitch[];
}

/** A key of a written measure that has a length of its own; one that is tied goes on in the next note on its key. */
export interface RawKey {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
  readonly tiedOn: boolean;
}

/** Signs that send the player elsewhere, and the places they send to. */
export interface Leaps {
  /** Back to the start or to the sign, then up to the end, to "fine", or to the coda. */
  readonly jump?: { readonly from: 'start' | 'sign'; readonly until: 'end' | 'fine' | 'coda' };
  readonly sign?: boolean;
  readonly fine?: boolean;
  /** Where the coda is left for, once the player has been sent back. */
  readonly toCoda?: boolean;
  readonly coda?: boolean;
}

/** A measure as it is written, before repeats are played out. Positions count from its own start. */
export interface RawMeasure extends Leaps {
  /** The number that a reader of the page would give it. */
  readonly name: string;
  readonly length: Ticks;
  readonly meter: Meter;
  readonly notes: readonly RawNote[];
  /** The left hand, where it is written. */
  readonly left?: readonly RawKey[];
  /** What the right hand plays beside the tune: other voices of its staff. */
  readonly inner?: readonly RawKey[];
  /** What a pianist wrote to be reminded of. */
  readonly reminders?: readonly Reminder[];
  readonly chords: readonly ChordEvent[];
  readonly marks: readonly Mark[];
  readonly repeatStart: boolean;
  /** How often the stretch that ends here is played; 1 where no repeat ends. */
  readonly times: number;
  /** The passes this measure is played in, or null for all. */
  readonly endings: readonly number[] | null;
  /** Changes of tempo inside it, in quarter notes a minute. */
  readonly tempos?: readonly { readonly at: Ticks; readonly tempo: number }[];
  /** True where a double bar or a repeat lets the measure be short. */
  readonly mayBeShort: boolean;
}

/** All that a reader knows of a written song. */
export interface RawSong {
  readonly title: string;
  readonly composer: string | null;
  readonly tempo: number;
  /** Sharps above 0, flats below. Null when nothing is written. */
  readonly signature: number | null;
  /** The mode, where it is written. */
  readonly mode: Mode | null;
  readonly measures: readonly RawMeasure[];
  readonly notices: readonly Notice[];
}

/** A measure as it is played: which time it is. */
export interface PlayedMeasure extends RawMeasure {
  /** 1 for the first time. */
  readonly time: number;
}

/** Plays everything out: repeats and endings, then "da capo" and "dal segno" with "fine" and coda. */
function playOut(measures: readonly RawMeasure[]): PlayedMeasure[] {
  const once = expandRepeats(measures);
  const jumpAt = once.findLastIndex((m) => m.jump !== undefined);
  const jump = once[jumpAt]?.jump;
  const times = new Map<RawMeasure, number>();
  const counted = (m: RawMeasure, original: RawMeasure): PlayedMeasure => {
    const time = (times.get(original) ?? 0) + 1;
    times.set(original, time);
    return { ...m, time };
  };
  const byName = new Map(measures.map((m) => [m.name, m]));
  const originalOf = (m: RawMeasure) => byName.get(m.name) ?? m;
  if (!jump) return once.map((m) => counted(m, originalOf(m)));
  const played = once.slice(0, jumpAt + 1);
  // Sent back, the player takes every repeat once, with its last ending.
  const from =
    jump.from === 'start'
      ? 0
      : Math.max(
          0,
          measures.findIndex((m) => m.sign),
        );
  const written = measures.findIndex((m) => m === originalOf(once[jumpAt]));
  const again: RawMeasure[] = [];
  for (let i = from; i < measures.length; i++) {
    const m = measures[i];
    if (jump.until !== 'coda' && i > written && written >= 0) break;
    const lastEnding =
      m.endings === null ||
      !measures
        .slice(i + 1, written + 2)
        .some((n) => n.endings !== null && Math.max(...n.endings) > Math.max(...(m.endings ?? [0])));
    if (lastEnding) again.push(again.length === 0 ? { ...m, marks: [{ at: 0, kind: 'jump', text: null }, ...m.marks] } : m);
    if (jump.until === 'fine' && m.fine) break;
    if (jump.until === 'coda' && m.toCoda) {
      const coda = measures.findIndex((n, k) => n.coda && k > i);
      if (coda >= 0) again.push(...measures.slice(coda));
      break;
    }
    if (jump.until === 'coda' && i === written) break;
  }
  const whole = [...played, ...again];
  if (whole.length > MOST.bars) refuse(null, { code: 'repeats.too-long', most: MOST.bars }, 'fewer-repeats');
  return whole.map((m) => counted(m, originalOf(m)));
}

/** The order in which measures are played, in runs: "1–8, 1–6, 9"; null where each is played once, one after another. */
function orderOf(played: readonly RawMeasure[], written: readonly RawMeasure[]): string | null {
  const names = written.map((m) => m.name);
  const places = new Map(names.map((n, i) => [n, i]));
  const runs: { from: string; to: string; at: number }[] = [];
  for (const { name } of played) {
    const at = places.get(name) ?? 0;
    const last = runs.at(-1);
    if (last && at === last.at + 1) {
      last.to = name;
      last.at = at;
    } else runs.push({ from: name, to: name, at });
  }
  if (runs.length < 2) return null;
  return runs
    .map((r) => (r.from === r.to ? r.from : `${r.from}–${r.to}`))
    .join(', ')
    .slice(0, 2000);
}

/** Plays out repeats and endings: the measures in the order in which they sound. */
export function expandRepeats(measures: readonly RawMeasure[]): RawMeasure[] {
  const played: RawMeasure[] = [];
  let start = 0;
  let pass = 1;
  let i = 0;
  while (i < measures.length) {
    const m = measures[i];
    if (m.repeatStart && i !== start) {
      start = i;
      pass = 1;
    }
    const skipped = m.endings !== null && !m.endings.includes(pass);
    if (!skipped) {
      const again: Mark[] = i === start && pass > 1 ? [{ at: 0, kind: 'repeat', text: null }] : [];
      played.push(again.length ? { ...m, marks: [...again, ...m.marks] } : m);
      if (played.length > MOST.bars)
        refuse([{ measure: m.name }], { code: 'repeats.too-long', most: MOST.bars }, 'fewer-repeats');
    }
    if (m.times > 1 && !skipped && pass < m.times) {
      pass++;
      i = start;
      continue;
    }
    if (m.times > 1) {
      // A last ending follows the repeat sign: it belongs to the same pass and closes the stretch.
      const endingFollows = measures[i + 1]?.endings?.includes(pass) && m.endings !== null;
      if (!endingFollows && !skipped) {
        start = i + 1;
        pass = 1;
      }
    } else if (m.endings !== null && measures[i + 1]?.endings === null && !skipped) {
      start = i + 1;
      pass = 1;
    }
    i++;
  }
  return played;
}

/** Puts measures together into a song: ties joined, notes struck together kept or reduced to one of them, bars checked. */
export function assemble(
  raw: RawSong,
  stacks: Stacks = 'all',
): { song: Song; notices: readonly Notice[]; reminders: readonly Reminder[] } {
  if (raw.measures.every((m) => m.notes.every((n) => n.pitches.length === 0)))
    refuse(null, { code: 'tune.none' }, 'file-with-tune');
  const notices = [...raw.notices];
  const measures = playOut(raw.measures);
  if (measures.every((m) => m.notes.every((n) => n.pitches.length === 0)))
    refuse(null, { code: 'repeats.nothing-left' }, 'ending-numbers');
  const melody: MelodyNote[] = [];
  const chords: ChordEvent[] = [];
  const marks: Mark[] = [];
  const tempos: NonNullable<Song['tempos']> = [];
  const reminders: Reminder[] = [];
  const bars = checkBars(measures);
  let at = 0;
  let openTie = false;
  let stacked: Notice | null = null;
  for (const m of measures) {
    for (const mark of m.marks) marks.push({ ...mark, at: at + mark.at });
    for (const r of m.reminders ?? []) reminders.push({ ...r, at: at + r.at });
    for (const t of m.tempos ?? []) changeTempo(tempos, { at: at + t.at, tempo: t.tempo }, raw.tempo);
    for (const c of m.chords) addChord(chords, { at: at + c.at, symbol: readSymbol(c.symbol, m.name) });
    for (const n of m.notes) {
      if (n.pitches.length === 0) {
        openTie = false;
        continue;
      }
      const note = noteOf(n, m, at, stacks);
      const { pitch } = note;
      if (n.pitches.length > 1)
        stacked ??= { code: 'notice.stacked', measure: m.name, notes: n.pitches.length, kept: stacks, pitch };
      const last = melody.at(-1);
      const goesOn =
        openTie && last !== undefined && last.at + last.length === note.at && keysOf(last).join() === keysOf(note).join();
      if (goesOn) last.length += n.length;
      else melody.push(note);
      if (melody.length > MOST.notes) refuse(null, { code: 'file.too-many', most: MOST.notes, what: 'notes' }, 'shorter-song');
      openTie = n.tiedOn;
    }
    at += m.length;
  }
  if (stacked) notices.push(stacked);
  const length = at;
  const left = keysIn(measures, 'left');
  const order = orderOf(measures, raw.measures);
  const song: Song = {
    ...(order ? { order } : {}),
    ...(tempos.length > 0 ? { tempos: tempos.slice(0, MOST.changes) } : {}),
    title: raw.title || 'Untitled',
    composer: raw.composer,
    key: keyOf(raw, melody, chords),
    tempo: Math.min(400, Math.max(20, raw.tempo)),
    pickup: bars.pickup,
    length,
    meters: bars.meters,
    ...withInner(melody, stacks === 'all' ? keysIn(measures, 'inner') : []),
    chords: chords.filter((c) => c.at < length),
    marks: marks.filter((m) => m.at < length && (m.at > 0 || AT_START.has(m.kind))),
    ...(left.length > 0 ? { left } : {}),
  };
  return { song, notices, reminders: reminders.filter((r) => r.at < length) };
}

/** The tune with what is struck and let go with its notes; the other keys of the right hand beside it. */
export function withInner(melody: readonly MelodyNote[], inner: readonly KeyNote[]): Pick<Song, 'melody' | 'inner'> {
  const there = new Map(melody.map((n) => [`${n.at} ${n.length}`, n]));
  const beside = new Map<MelodyNote, Pitch[]>();
  const others = inner.filter(({ at, length, pitch }) => {
    const note = there.get(`${at} ${length}`);
    if (!note) return true;
    beside.set(note, [...(beside.get(note) ?? []), pitch]);
    return false;
  });
  const struck = melody.map((n) => {
    const more = beside.get(n);
    return more ? besides(n, besideOf(n.pitch, [...(n.with ?? []), ...more])) : n;
  });
  return { melody: struck, ...(others.length > 0 ? { inner: others } : {}) };
}

/** A note of a measure that is played from a place on, with what is kept of the notes struck with it. */
function noteOf(
  { at, length, pitches, lyric, verses, graces }: RawNote,
  { name, time }: PlayedMeasure,
  from: Ticks,
  stacks: Stacks,
): MelodyNote {
  const pitch = stacks === 'lowest' ? lowestOf(pitches) : topOf(pitches);
  const midi = midiOf(pitch);
  if (midi < LOWEST_KEY || midi > HIGHEST_KEY) refuse([{ measure: name }], { code: 'note.off-keyboard', pitch }, 'other-octave');
  const sung = (time > 1 ? verses?.[time - 2] : null) ?? lyric;
  const small = graces?.length ? { graces: [...graces] } : {};
  return besides({ at: from + at, length, pitch, lyric: sung, ...small }, stacks === 'all' ? besideOf(pitch, pitches) : []);
}

/** Takes a change of tempo along, where it is one. */
function changeTempo(tempos: NonNullable<Song['tempos']>, change: { at: Ticks; tempo: number }, first: number): void {
  const tempo = Math.min(400, Math.max(20, change.tempo));
  const now = tempos.at(-1)?.tempo ?? Math.min(400, Math.max(20, first));
  if (Math.abs(tempo - now) / now < 0.005 || (change.at === 0 && tempos.length === 0)) return;
  if (tempos.at(-1)?.at === change.at) tempos.pop();
  tempos.push({ at: change.at, tempo });
}

/** Marks that mean something where the music begins; the others speak of what came before. */
const AT_START: ReadonlySet<Mark['kind']> = new Set(['section', 'slur-start', 'fermata', 'ornament', 'words'] as const);

function topOf(pitches: readonly Pitch[]): Pitch {
  return pitches.reduce((top, p) => (midiOf(p) > midiOf(top) ? p : top));
}

function lowestOf(pitches: readonly Pitch[]): Pitch {
  return pitches.reduce((low, p) => (midiOf(p) < midiOf(low) ? p : low));
}

/** The left hand, or the second voice of the right, of all measures as they are played, ties joined. */
function keysIn(measures: readonly RawMeasure[], hand: 'left' | 'inner'): KeyNote[] {
  const keys: KeyNote[] = [];
  const tied = new Map<Pitch, KeyNote>();
  let from = 0;
  for (const { [hand]: written = [], length } of measures) {
    // Voices are written one after another; a key that is tied over is taken up where it goes on, before it is struck again.
    for (const n of [...written].sort((a, b) => a.at - b.at)) {
      const [at, midi] = [from + n.at, midiOf(n.pitch)];
      const long = Math.min(n.length, length - n.at);
      if (long <= 0 || midi < LOWEST_KEY || midi > HIGHEST_KEY) continue;
      const before = tied.get(n.pitch);
      const goesOn = before !== undefined && before.at + before.length === at;
      const note: KeyNote = goesOn ? before : { at, length: long, pitch: n.pitch };
      if (goesOn) before.length += long;
      else keys.push(note);
      if (n.tiedOn) tied.set(n.pitch, note);
      else tied.delete(n.pitch);
    }
    from += length;
  }
  if (keys.length > MOST.notes) refuse(null, { code: 'file.too-many', most: MOST.notes, what: 'notes' }, 'shorter-song');
  return keys;
}

/** What is struck with the tune's note, bottom-up: every key once and on the keyboard, as many as the hand has fingers for. */
function besideOf(tune: Pitch, pitches: readonly Pitch[]): Pitch[] {
  const byKey = new Map(pitches.map((p) => [midiOf(p), p]));
  byKey.delete(midiOf(tune));
  return [...byKey]
    .filter(([midi]) => midi >= LOWEST_KEY && midi <= HIGHEST_KEY)
    .sort(([a], [b]) => a - b)
    .slice(-MOST_BESIDE)
    .map(([, pitch]) => pitch);
}

function addChord(chords: ChordEvent[], chord: ChordEvent): void {
  if (chords.at(-1)?.at === chord.at) chords[chords.length - 1] = chord;
  else chords.push(chord);
}

/** Text that begins like a chord but is none is refused: better a question now than a wrong chord at the lounge. */
function readSymbol(symbol: string, measure: string): string {
  const chord = parseChord(symbol);
  if (chord.kind === 'unread' && !symbol.includes(' '))
    refuse([{ measure }], { code: 'chord.unread', text: symbol }, 'usual-symbol');
  return chord.text.slice(0, 40);
}

function keyOf(raw: RawSong, melody: readonly MelodyNote[], chords: readonly ChordEvent[]): Key {
  if (raw.signature !== null && raw.mode !== null) return keyFromSignature(raw.signature, raw.mode);
  const heard = [...evidenceOf(melody), ...evidenceOfChords(chords)];
  const final = melody.at(-1);
  return findKey(heard, final ? pitchClass(nameOf(final.pitch)) : null, raw.signature);
}

/** Checks that every measure adds up and finds the pick-up and the meters. */
function checkBars(measures: readonly RawMeasure[]): { pickup: Ticks; meters: Song['meters'] } {
  const meters: Song['meters'] = [];
  const push = (at: Ticks, meter: Meter) => {
    const last = meters.at(-1);
    if (last && last.beats === meter.beats && last.unit === meter.unit) return;
    if (last?.at === at) meters.pop();
    meters.push({ at, beats: meter.beats, unit: meter.unit as Song['meters'][number]['unit'] });
  };
  let at = 0;
  let pickup = 0;
  push(0, measures[0].meter);
  for (let i = 0; i < measures.length; i++) {
    const m = measures[i];
    const full = barTicks(m.meter);
    const has = countsOf(m.length, m.meter);
    if (m.length > full) refuse([{ measure: m.name }], has, 'shorten-note');
    const short = m.length < full;
    if (!short) push(at, m.meter);
    else if (i === 0 && measures.length > 1) pickup = m.length;
    else if (i < measures.length - 1) {
      const next = measures[i + 1];
      const completes = m.length + next.length === full && next.meter.beats === m.meter.beats;
      if (completes) {
        push(at, m.meter);
        at += m.length;
        i++;
        at += next.length;
        continue;
      }
      if (!m.mayBeShort && !next.repeatStart) refuse([{ measure: m.name }], has, 'lengthen-note');
      push(at, shortMeter(m));
    }
    at += m.length;
  }
  return { pickup, meters };
}

/** The meter of a bar that stands alone with fewer counts, such as 2/4 before a repeat. */
function shortMeter(m: RawMeasure): Meter {
  for (let unit = m.meter.unit; unit <= 16; unit *= 2) {
    const beats = m.length / countTicks({ beats: 1, unit });
    if (Number.isInteger(beats)) return { beats, unit };
  }
  return refuse([{ measure: m.name }], { code: 'bar.too-short' }, 'lengthen-note');
}

function countsOf(length: Ticks, meter: Meter): RefusalCause {
  const counts = Math.round((length / countTicks(meter)) * 100) / 100;
  return { code: 'bar.counts', counts, expected: meter.beats, meter: `${meter.beats}/${meter.unit}` };
}
