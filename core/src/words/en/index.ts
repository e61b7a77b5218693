import type { Code, Sayings } from '../fact.js';
import type { Speech } from '../speech.js';
import { adapted } from './adapted.js';
import { approaches, chords, keys } from './chords.js';
import { edits } from './edits.js';
import { faults, notices, refusals } from './files.js';
import { endings, findings, fixes } from './findings.js';
import { fingers } from './fingers.js';
import { lesson } from './lesson.js';
import { parts, playing } from './parts.js';
import { practice } from './practice.js';
import { screens } from './screens.js';
import { voicing } from './voicing.js';

/** English, complete: the compiler misses every code that has no words here. */
export const EN: Sayings<Code, Speech> = {
  ...adapted,
  ...voicing,
  ...chords,
  ...keys,
  ...approaches,
  ...parts,
  ...playing,
  ...fingers,
  ...findings,
  ...endings,
  ...fixes,
  ...edits,
  ...practice,
  ...lesson,
  ...refusals,
  ...faults,
  ...notices,
  ...screens,
};
