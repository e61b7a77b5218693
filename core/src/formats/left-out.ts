import type { Document } from '../song/decisions.js';
import type { Mark } from '../song/song.js';
import { keyLine } from './letters/write.js';
import type { Counted, CountedThing } from './result.js';
import { Tally } from './tally.js';

/** What a song has written for a text format to leave out: lines of the tune's own file are kept by every other one. */
export type TextFormat = 'letters' | 'abc';

/** Marks of the music by what they are called where they are counted. */
const SIGNS: Readonly<Partial<Record<Mark['kind'], CountedThing>>> = {
  'slur-start': 'slurs',
  fermata: 'fermatas',
  breath: 'breaths',
  ornament: 'ornaments',
  words: 'words',
};

/**
 * What of a document letter lines or ABC have no place for, counted. Letter lines hold a left hand and a second voice that strike one
 * thing after another; ABC holds the tune with its small notes and signs.
 */
export function leftOutOf(format: TextFormat, { song, choices }: Pick<Document, 'song' | 'choices'>): Counted[] {
  const tally = new Tally();
  const { left = [], inner = [] } = song;
  if (format === 'abc' || keyLine(left) === null) tally.add('left-hand', 'left out', left.length);
  if (format === 'abc' || keyLine(inner) === null) tally.add('second-voice', 'left out', inner.length);
  const small = song.melody.reduce((sum, n) => sum + (n.graces?.length ?? 0), 0);
  if (format === 'letters') tally.add('grace-notes', 'left out', small);
  for (const { kind } of song.marks) {
    const sign = SIGNS[kind];
    if (sign && (format === 'letters' || kind === 'words')) tally.add(sign, 'left out');
  }
  tally.add('tempo-changes', 'left out', song.tempos?.length ?? 0);
  tally.add('reminders', 'left out', choices.reminders.length);
  return tally.all();
}
