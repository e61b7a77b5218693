import type { AdaptationKind } from '../../arrange/adapted.js';
import type { CodesOf, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { barsInWords, hand } from './music.js';

const KINDS: Readonly<Record<AdaptationKind, string>> = {
  rests: 'rests',
  'joins-in': 'joins in',
  'less-often': 'plays less often',
  'one-by-one': 'plays the same keys one after another',
  'more-often': 'plays more often',
  thinner: 'fewer keys at once',
  fuller: 'more keys at once',
  turned: 'another inversion',
  octave: 'another octave',
  other: 'other notes',
};

/** Changes that an example makes clearer. */
const WITH_EXAMPLE: readonly AdaptationKind[] = ['thinner', 'fuller', 'turned', 'octave', 'other'];

/** Bars in words, those in a row together: "bars 1 to 4, bar 7 and bars 9 and 10". */
function barsOf(bars: readonly number[], say: Speech): string {
  const runs: { from: number; to: number }[] = [];
  for (const bar of bars) {
    const last = runs.at(-1);
    if (last && bar === last.to + 1) last.to = bar;
    else runs.push({ from: bar, to: bar });
  }
  const [first, second] = runs.length > MOST_RUNS ? [runs.slice(0, MOST_RUNS - 1), runs.slice(MOST_RUNS - 1)] : [runs, []];
  const more = second.reduce((sum, { from, to }) => sum + to - from + 1, 0);
  return say.list([...first.map(barsInWords), ...(more > 0 ? [say.count(more, 'more bar')] : [])]);
}

const MOST_RUNS = 5;

const keys = (pitches: readonly string[], say: Speech): string => (pitches.length > 0 ? say.pitches(pitches) : 'a rest');

/** What had to change in a song for a player. */
export const adapted: Sayings<CodesOf<'adapted'>, Speech> = {
  'adapted.nothing': () => 'Nothing changes.',
  'adapted.hand': ({ hand: which, kind, bars, of, first }, say) => {
    const where = bars.length === of ? 'throughout' : `in ${barsOf(bars, say)}`;
    const example = WITH_EXAMPLE.includes(kind)
      ? `, ${keys(first.to, say)} instead of ${keys(first.from, say)} in ${barsInWords({ from: first.bar, to: first.bar })}`
      : '';
    return `${hand(which)} ${where}: ${KINDS[kind]}${example}.`;
  },
  'adapted.fingers': ({ hand: which, notes }, say) => `${hand(which)}: ${say.count(notes, 'note')} with another finger.`,
};
