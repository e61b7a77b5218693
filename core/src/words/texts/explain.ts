import type { ExplainedBar } from '../../arrange/explain.js';
import type { Speech } from '../speech.js';
import { shape } from '../en/voicing.js';
import { capital } from '../text.js';

interface Cost {
  readonly term: string;
  readonly where?: string;
  readonly cost: number;
}

/** Terms in a row: "motion from 4, commonTone from -1"; the sum stands in front of them. */
function priced(terms: readonly Cost[], say: Speech): string {
  const sum = terms.reduce((total, t) => total + t.cost, 0);
  const weighty = terms.filter((t) => Math.abs(t.cost) >= 0.005).toSorted((a, b) => Math.abs(b.cost) - Math.abs(a.cost));
  const row = weighty.map((t) => `${t.term}${t.where && t.where !== 'here' ? ` ${t.where}` : ''} ${say.number(t.cost, 2)}`);
  return `${say.number(sum, 2)}${row.length > 0 ? ` = ${row.join(', ')}` : ''}`;
}

/** What each term costs for the ways that were chosen in a bar, and for the nearest alternatives, as plain text. */
export function explanationText({ bar, cuts, harmony, voicings, fingers }: ExplainedBar, say: Speech): string {
  const lines = [bar === 0 ? 'The pick-up' : `Bar ${bar}`];
  for (const { place, signs, size, more, insteadPlace } of cuts) {
    lines.push(`Part begins at ${say.place(place)}`);
    lines.push(
      `  signs  ${priced(
        signs.map((s) => ({ term: s.term, cost: s.worth })),
        say,
      )}`,
    );
    lines.push(`  size   ${priced(size, say)}`);
    const instead = insteadPlace ? `cut at ${say.place(insteadPlace)}` : 'no cut';
    lines.push(`  without it: ${instead}, ${say.number(more, 2)} more`);
  }
  for (const { place, symbol, terms, rival } of harmony) {
    lines.push(`Chord at ${say.place(place)}`);
    lines.push(`  ${say.symbol(symbol)}: ${priced(terms, say)}`);
    if (rival) lines.push(`  ${say.symbol(rival.symbol)}: ${priced(rival.terms, say)}`);
  }
  for (const { place, symbol, chosen, rival, bends } of voicings) {
    lines.push(`Voicing of ${say.symbol(symbol)} at ${say.place(place)}`);
    for (const way of rival ? [chosen, rival] : [chosen])
      lines.push(`  ${capital(shape(way.shape, say))} (${say.pitches(way.pitches)}): ${priced(way.terms, say)}`);
    for (const bend of bends) lines.push(`  ${say.fact(bend)}`);
  }
  for (const { place, pitch, finger, terms, rival } of fingers) {
    lines.push(`Finger ${finger} on ${say.pitch(pitch)} at ${say.place(place)}`);
    lines.push(`  the phrase: ${priced(terms, say)}`);
    if (rival) lines.push(`  with ${rival.finger}: ${priced(rival.terms, say)}`);
  }
  return `${lines.join('\n')}\n`;
}
