import type { TaughtPattern } from '../sheet/pattern.js';
import type { Speech } from './speech.js';
import { capital } from './text.js';

/** A taught pattern in words: what it is, and where it is cut. */
export interface PatternWords {
  /** "Bass, then chord, shown over Gm; the same over Cm and D." */
  readonly about: string;
  /** Count, notes and fingers of each strike: "1", "G", "5". */
  readonly strikes: readonly { readonly count: string; readonly notes: string; readonly fingers: string }[];
  /** "Bar 4, count 3: …" */
  readonly cut: readonly string[];
}

/** What a lesson or a chart says of the accompaniment of a part. */
export function patternWords({ title, symbol, strikes, over, cut }: TaughtPattern, say: Speech): PatternWords {
  const same = over.length > 0 ? `; the same over ${say.list(over.map(say.symbol))}` : '';
  return {
    about: `${capital(title)}, shown over ${say.symbol(symbol)}${same}.`,
    strikes: strikes.map((s) => ({
      count: s.count,
      notes: s.notes.map(say.note).join(' '),
      fingers: s.fingers.join('-'),
    })),
    cut: cut.map(({ place, facts }) => `${capital(say.place(place))}: ${facts.map(say.fact).join(' ')}`),
  };
}
