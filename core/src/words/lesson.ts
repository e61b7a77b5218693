import type { Lesson } from '../sheet/lesson.js';
import type { Speech } from './speech.js';

/** Which part is the hardest and why, with what to do about it; null where none stands out. */
export function hardestAdvice({ hardest }: Pick<Lesson, 'hardest'>, say: Speech): string | null {
  if (!hardest) return null;
  const why = hardest.reasons.slice(0, 2).map(say.fact).join('; ');
  return `Part ${hardest.part} is the hardest: ${why}. Begin with it while you are fresh.`;
}
