import type { Arrangement, Part } from '../arrange/arrangement.js';
import type { Reminder } from '../song/decisions.js';
import type { RepeatOf } from '../divide/repeats.js';
import { midiOf, nameOf, type NoteName } from '../pitch/pitch.js';
import { countAt, countText } from '../time/counts.js';
import { barAt, offsetInBar, placeOf, type Bar, type Place } from '../time/bars.js';
import { patternOf, type TaughtPattern } from './pattern.js';
import type { Ticks } from '../time/ticks.js';

/** A note that is struck with one of the tune, with its finger. */
export interface StruckBeside {
  readonly letter: NoteName;
  readonly finger: number | null;
}

/** One column of the letter chart: a moment at which something is struck. */
export interface ChartColumn {
  readonly at: Ticks;
  /** "1", "2 &". */
  readonly count: string;
  readonly letter: NoteName | null;
  /** What the right hand strikes with it, from the top down. */
  readonly beside: readonly StruckBeside[];
  /** The right-hand finger. */
  readonly finger: number | null;
  readonly word: string | null;
  readonly chord: string | null;
  /** The left hand's notes bottom-up, with fingers. */
  readonly left: readonly { readonly letter: NoteName; readonly finger: number | null }[];
}

/** One bar of the chart. */
export interface ChartBar {
  readonly number: number;
  readonly columns: readonly ChartColumn[];
}

/** One part of the chart. */
export interface ChartPart {
  readonly part: Pick<Part, 'number' | 'name' | 'bars'>;
  readonly repeats: RepeatPlace | null;
  readonly bars: readonly ChartBar[];
  readonly reminders: readonly PlacedReminder[];
  /** The accompaniment of the part; null where its chords are played as blocks. */
  readonly pattern: TaughtPattern | null;
}

/** How a part takes up an earlier one, with the number of the bar where it first differs from it; null where it does not. */
export interface RepeatPlace extends RepeatOf {
  readonly fromBar: number | null;
}

/** A part's repeat with the bar where it differs. */
export function repeatPlace({ repeats }: Pick<Part, 'repeats'>, bars: readonly Bar[]): RepeatPlace | null {
  if (!repeats) return null;
  return { ...repeats, fromBar: repeats.differsFrom === null ? null : barAt(bars, repeats.differsFrom).number };
}

/** The letter chart of an arrangement: part by part, letter names with the chord under the note it falls with. */
export function letterChart(arrangement: Arrangement): ChartPart[] {
  return arrangement.parts.map((part) => ({
    part,
    repeats: repeatPlace(part, arrangement.bars),
    bars: chartBars(part, arrangement.bars),
    reminders: remindersOf(part, arrangement.bars),
    pattern: patternOf(part, arrangement.bars),
  }));
}

function chartBars(part: Part, bars: readonly Bar[]): ChartBar[] {
  const beside = besideIn(part);
  const all = [...part.melody.map((n) => n.at), ...part.chords.map((c) => c.at), ...beside.keys()];
  const places = [...new Set(all)].sort((a, b) => a - b);
  const notes = new Map(part.melody.map((n) => [n.at, n]));
  const chords = new Map(part.chords.map((c) => [c.at, c]));
  const rows: { number: number; columns: ChartColumn[] }[] = [];
  for (const at of places) {
    const bar = barAt(bars, at);
    if (rows.at(-1)?.number !== bar.number) rows.push({ number: bar.number, columns: [] });
    const note = notes.get(at);
    const chord = chords.get(at);
    // Between notes of the tune the top one of a second voice stands in its row.
    const row = [...(note ? [{ letter: nameOf(note.pitch), finger: note.finger }] : []), ...(beside.get(at) ?? [])];
    const [top = { letter: null, finger: null }, ...rest] = row;
    rows.at(-1)?.columns.push({
      at,
      count: countText(countAt(offsetInBar(bar, at), bar.meter)),
      letter: top.letter,
      beside: rest,
      finger: top.finger ?? null,
      word: note?.lyric ? note.lyric.text + (note.lyric.joins ? '-' : '') : null,
      chord: chord ? chord.symbol : null,
      left: chord ? chord.pitches.map((p, i) => ({ letter: nameOf(p), finger: chord.fingers[i] ?? null })) : [],
    });
  }
  return rows;
}

/** A line that the pianist wrote, with where it stands. */
export interface PlacedReminder extends Reminder {
  readonly place: Place;
}

/** What the pianist wants to be reminded of in a part. */
export const remindersOf = ({ reminders }: Pick<Part, 'reminders'>, bars: readonly Bar[]): PlacedReminder[] =>
  reminders.map((r) => ({ ...r, place: placeOf(bars, r.at) }));

/** What the right hand strikes with notes of a part's tune, by their places and from the top down. */
export function besideIn({ under }: Pick<Part, 'under'>): ReadonlyMap<Ticks, readonly StruckBeside[]> {
  const struck = under
    .filter((u) => u.written)
    .flatMap((u) => u.pitches.map((pitch, i) => ({ at: u.at, pitch, finger: u.fingers[i] })));
  const topDown = struck.sort((a, b) => midiOf(b.pitch) - midiOf(a.pitch));
  const found = new Map<Ticks, StruckBeside[]>();
  for (const { at, pitch, finger } of topDown) found.set(at, [...(found.get(at) ?? []), { letter: nameOf(pitch), finger }]);
  return found;
}
