import { barTicks, beatTicks, type Meter } from '../../time/meter.js';
import { TICKS_PER_QUARTER as Q } from '../../time/ticks.js';
import { assemble, withInner } from '../measures.js';
import { reading, refuse, type Answers, type Reading } from '../result.js';
import { inTime, restOf, singleLine, splitOf, withBeside } from './hands.js';
import { gridQuestions, keyFor, layOut, measuresOf, spelled } from './read.js';
import { onGrid, type RecordedNote } from './written.js';
import { GRID_NAMES, likelyGrid } from './quantise.js';

/** A tune as it was played in: places in quarter notes from the first beat of the first bar. */
export interface Recording {
  readonly title: string;
  /** Quarter notes a minute. */
  readonly tempo: number;
  readonly meter: Meter;
  readonly notes: readonly (RecordedNote & { /** True where it was not heard clearly. */ readonly unsure?: boolean })[];
}

/**
 * A recorded tune as a song: with what is struck and let go together with its notes, on the grid that it lies close to or that is asked for, in a key found from its notes.
 * Notes before the first beat, struck during the count-in, make a pick-up.
 */
export function readRecording({ title, tempo, meter, notes }: Recording, answers: Answers = {}): Reading {
  return reading(() => {
    if (notes.length === 0) refuse(null, { code: 'recording.nothing' }, 'press-key');
    const bar = barTicks(meter) / Q;
    const sorted = [...notes].sort((a, b) => a.at - b.at || b.midi - a.midi);
    const early = sorted[0].at < -beatTicks(meter) / Q / 4;
    // Everything is counted from the bar in which the pick-up lies.
    const counted = sorted.map((n) => ({ ...n, at: Math.max(0, n.at + (early ? bar : 0)), until: n.until + (early ? bar : 0) }));
    const line = withBeside(singleLine(counted), counted);
    const rest = restOf(counted, line, splitOf(counted));
    const onsets = line.map((n) => n.at);
    const grid = GRID_NAMES.find((g) => g === answers['grid']) ?? likelyGrid(onsets);
    const written = onGrid(line, grid);
    const key = keyFor(line, null);
    const end = Math.max(...written.map((n) => n.at + n.length)) / Q;
    const measures = measuresOf(layOut([{ at: 0, meter }], end), written, [], key);
    const [first] = measures;
    const lead = early ? (first.notes.find((n) => n.pitches.length > 0)?.at ?? 0) : 0;
    // A pick-up is a first measure without the silence before it.
    const trimmed =
      lead === 0
        ? measures
        : [
            {
              ...first,
              name: '0',
              length: first.length - lead,
              notes: first.notes.filter((n) => n.at >= lead).map((n) => ({ ...n, at: n.at - lead })),
            },
            ...measures.slice(1).map((m, i) => ({ ...m, name: `${i + 1}` })),
          ];
    const { song, notices } = assemble({
      title,
      composer: null,
      tempo,
      signature: null,
      mode: null,
      measures: trimmed,
      notices: [],
    });
    const inner = inTime(rest, false, grid).flatMap(({ at, length, midi }) => {
      const [from, until] = [at - lead, Math.min(at + length - lead, song.length)];
      return from >= 0 && until > from ? [{ at: from, length: until - from, pitch: spelled(midi, key) }] : [];
    });
    return { song: { ...song, key, ...withInner(song.melody, inner) }, notices, questions: gridQuestions(onsets, grid, tempo) };
  });
}
