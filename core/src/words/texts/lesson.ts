import type { Arrangement } from '../../arrange/arrangement.js';
import { lessonOf } from '../../sheet/lesson.js';
import type { PlacedReminder } from '../../sheet/chart.js';
import type { TaughtPattern } from '../../sheet/pattern.js';
import { meterName } from '../../time/meter.js';
import { hardestAdvice } from '../lesson.js';
import { patternWords } from '../pattern.js';
import { CAUTION } from '../en/labels.js';
import { partTitle, repeats, together } from '../en/music.js';
import { changeInShort } from '../en/voicing.js';
import { fingersInShort } from '../fingers.js';
import type { Speech } from '../speech.js';
import { capital } from '../text.js';
import { sentences } from '../words.js';

/** A lesson as plain text. */
export function lessonText(arrangement: Arrangement, say: Speech): string {
  const lesson = lessonOf(arrangement);
  const lines = [lesson.song.title, `${say.key(lesson.song.key)}, ${meterName(lesson.song.meters[0])}, ♩ = ${lesson.song.tempo}`];
  const hardest = hardestAdvice(lesson, say);
  if (hardest) lines.push(hardest);
  for (const { part, repeats: as, start, moves, notes, chords, together: joins, pattern, reminders, watch } of lesson.parts) {
    lines.push('', `Part ${part.number} · ${partTitle(part)}`);
    if (as) lines.push(`  ${capital(repeats(as))}.`);
    lines.push(`  Start: ${start ? sentences([start, ...moves], say) : 'The right hand rests.'}`);
    lines.push(
      `  Right hand: ${notes.map((n) => say.struck(n.letter, n.beside) + (n.finger ? `(${fingersInShort(n)})` : '')).join(' ')}`,
    );
    for (const c of chords) {
      const change = changeInShort(c.moves, say);
      const keys = c.notes.map(say.note).join(' ');
      lines.push(
        `  Left hand: ${say.chord(c.symbol)}, ${say.position(c.position)}: ${keys}, fingers ${c.fingers.join('-')}${change ? ` (${change})` : ''}`,
      );
    }
    for (const j of joins) lines.push(`  Together, ${j.bar === 0 ? 'pick-up' : `bar ${j.bar}`}: ${together(j.point, say)}`);
    if (pattern) lines.push(...patternText(pattern, say));
    lines.push(...remindersText(reminders, say));
    if (watch) lines.push(`  Watch: ${say.fact(watch)}.`);
  }
  lines.push('', CAUTION);
  return `${lines.join('\n')}\n`;
}

/** What the pianist wrote in a part, a line each. */
export const remindersText = (reminders: readonly PlacedReminder[], say: Speech): string[] =>
  reminders.map(({ place, text }) => `  ${capital(say.place(place))}: ${text}`);

/** The accompaniment of a part in lines: what it is, its strikes count by count, where it is cut. */
export function patternText(pattern: TaughtPattern, say: Speech): string[] {
  const { about, strikes, cut } = patternWords(pattern, say);
  const row = strikes.map((s) => `${s.count} ${s.notes} (${s.fingers})`).join(' · ');
  return [`  Then the pattern: ${about}`, `    ${row}`, ...cut.map((line) => `    ${line}`)];
}
