import type { School } from '../../song/decisions.js';
import { ALL_SCHOOLS } from './list.js';
import type { SchoolRules } from './school.js';

/** The rules of a school of left-hand voicing. */
export const SCHOOL_RULES = Object.fromEntries(ALL_SCHOOLS.map((s) => [s.school, s])) as Readonly<Record<School, SchoolRules>>;
