import type { Arrangement } from '../arrange/arrangement.js';
import { lessonOf, type Lesson } from '../sheet/lesson.js';
import { meterName } from '../time/meter.js';
import { CAUTION } from './en/labels.js';
import { partTitle, repeats, together } from './en/music.js';
import { changeInShort } from './en/voicing.js';
import type { Speech } from './speech.js';
import { capital } from './text.js';

/** What a lesson says of the song: "G minor, 3/4, ♩ = 96". */
export const lessonAbout = ({ song }: Lesson, say: Speech): string =>
  `${say.key(song.key)}, ${meterName(song.meters[0])}, ♩ = ${song.tempo}`;

/** Which part is the hardest and why, with what to do about it; null where none stands out. */
export function hardestAdvice({ hardest }: Pick<Lesson, 'hardest'>, say: Speech): string | null {
  if (!hardest) return null;
  const why = hardest.reasons.slice(0, 2).map(say.fact).join('; ');
  return `Part ${hardest.part} is the hardest: ${why}. Begin with it while you are fresh.`;
}

/** A lesson as plain text. */
export function lessonText(arrangement: Arrangement, say: Speech): string {
  const lesson = lessonOf(arrangement);
  const lines = [lesson.song.title, lessonAbout(lesson, say)];
  const hardest = hardestAdvice(lesson, say);
  if (hardest) lines.push(hardest);
  for (const { part, repeats: as, start, notes, chords, together: joins, watch } of lesson.parts) {
    lines.push('', `Part ${part.number} · ${partTitle(part)}`);
    if (as) lines.push(`  ${capital(repeats(as))}.`);
    lines.push(`  Start: ${start ? say.fact(start) : 'The right hand rests.'}`);
    lines.push(`  Right hand: ${notes.map((n) => say.note(n.letter) + (n.finger ? `(${n.finger})` : '')).join(' ')}`);
    for (const c of chords) {
      const change = changeInShort(c.moves, say);
      const keys = c.notes.map(say.note).join(' ');
      lines.push(
        `  Left hand: ${say.chord(c.symbol)}, ${say.position(c.position)}: ${keys}, fingers ${c.fingers.join('-')}${change ? ` (${change})` : ''}`,
      );
    }
    for (const j of joins) lines.push(`  Together, ${j.bar === 0 ? 'pick-up' : `bar ${j.bar}`}: ${together(j.point, say)}`);
    if (watch) lines.push(`  Watch: ${say.fact(watch)}.`);
  }
  lines.push('', CAUTION);
  return `${lines.join('\n')}\n`;
}
