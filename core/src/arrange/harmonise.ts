import { weighChords, type WeighedChord } from '../harmony/choices.js';
import type { TuneNote } from '../harmony/fit.js';
import type { Key } from '../harmony/key.js';
import type { PacedTune } from '../harmony/pace.js';
import { hearKeys, suggestChords } from '../harmony/suggest.js';
import { remembered } from '../lists/remembered.js';
import { withWritten } from '../song/edits.js';
import type { ChordEvent, Song } from '../song/song.js';
import type { Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Settings } from './settings.js';

/** A chord of the song with its reason, its rivals and where it comes from. */
export interface HarmonisedChord extends WeighedChord {
  /** given: the song brought it. chosen: the pianist wrote it. suggested: found for the tune. */
  readonly source: 'given' | 'chosen' | 'suggested';
}

/** Songs whose chords are kept as they were weighed: an edit of the hands, of fingers or of a texture leaves them as they are. */
const MOST_SONGS = 12;

/** The chords of a row, each in the key that it is heard in, with its reason and its rivals. */
const weighed = remembered(
  MOST_SONGS,
  (...asked: [task: PacedTune & { readonly key: Key }, row: readonly ChordEvent[], length: Ticks]) => JSON.stringify(asked),
  (task, row, length): WeighedChord[] => {
    const keys = hearKeys(task, row);
    return weighChords(
      task,
      row.map(({ at, symbol }, i) => ({ at, symbol, key: keys[i], length: (row[i + 1]?.at ?? length) - at })),
    );
  },
);

/**
 * The chords that the left hand plays: the song's own or suggested ones, by stretches where that was asked for, and
 * the pianist's in their place. Each comes with its reason and the best others.
 */
export function harmonise(
  song: Song,
  settings: Pick<Settings, 'chords' | 'suggest' | 'stretches'>,
  tune: readonly TuneNote[],
  bars: readonly Bar[],
  ends: readonly Ticks[],
): HarmonisedChord[] {
  const task = { tune, bars, key: song.key, tempo: song.tempo, ends };
  const { chords: chosen, suggest: whole } = settings;
  const wholly = whole && tune.length > 0 ? suggestChords({ ...task, ...whole, from: 0, to: song.length, fixed: chosen }) : null;
  let row: readonly ChordEvent[] = wholly ?? withWritten(song.chords, chosen);
  const found = new Set<Ticks>(wholly?.map((c) => c.at) ?? []);
  for (const { start, end, suggest } of settings.stretches) {
    if (suggest === null || start >= song.length) continue;
    const to = Math.min(end, song.length);
    const before = row.filter((c) => c.at < start).slice(-1);
    const after = row.filter((c) => c.at >= to).slice(0, 1);
    const within = [...chosen].filter(([at]) => at >= start && at < to);
    const fixed = new Map<Ticks, string | null>([...[...before, ...after].map((c) => [c.at, c.symbol] as const), ...within]);
    const fresh = suggestChords({ ...task, ...suggest, from: start, to, fixed });
    row = [...row.filter((c) => c.at < start || c.at >= to), ...fresh].sort((a, b) => a.at - b.at);
    for (const c of fresh) found.add(c.at);
  }
  return weighed(task, row, song.length).map((c) => ({
    ...c,
    source: chosen.get(c.at) === c.symbol ? 'chosen' : found.has(c.at) ? 'suggested' : 'given',
  }));
}
