import type { DrillAnswer } from '../catalogue/drills/drill.js';
import { isDrill, type Pass } from '../log/log.js';
import type { PracticeStep } from '../log/step.js';
import { STEPS } from './en/labels.js';
import type { Speech } from './speech.js';

/** The parts of a step: "Part 3", "Parts 1 to 4", "The whole song". */
export function stepTitle({ whole, parts: { from, to } }: Pick<PracticeStep, 'whole' | 'parts'>): string {
  return whole ? 'The whole song' : from === to ? `Part ${from}` : `Parts ${from} to ${to}`;
}

/** What is done in a step: "right hand alone". */
export const stepWork = ({ kind, newEnding }: Pick<PracticeStep, 'kind' | 'newEnding'>): string =>
  newEnding ? `${STEPS[kind]}, the new ending` : STEPS[kind];

/** What a pass was of: "Part 3, right hand alone"; a drill or a warm-up by its own name. */
export function passTitle({ kind, parts, title }: Pick<Pass, 'kind' | 'parts' | 'title'>): string {
  if (isDrill(kind)) return title;
  if (kind === 'whole') return 'The whole song';
  return `${parts.includes('–') ? 'Parts' : 'Part'} ${parts}, ${STEPS[kind]}`;
}

/** A name that a drill offers to choose. */
export const answer = (of: DrillAnswer, say: Speech): string =>
  'symbol' in of ? say.symbol(of.symbol) : say.position(of.position);
