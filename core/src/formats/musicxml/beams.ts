import type { Ticks } from '../../time/ticks.js';

/** A written note as beaming sees it. `at` counts from the start of a full bar. */
export interface Beamable {
  readonly at: Ticks;
  /** Beams of its note value: 1 for an eighth, 2 for a 16th; 0 for a quarter or a rest. */
  readonly level: number;
}

const LEVELS: Record<string, number> = { eighth: 1, '16th': 2, '32nd': 3, '64th': 4, '128th': 5 };

/** Beams that a note value carries. */
export function beamLevel(type: string): number {
  return LEVELS[type] ?? 0;
}

/**
 * The `<beam>` elements of each note of a bar: notes within one felt beat of `beat` ticks are joined, and a shorter
 * note alone among longer ones gets a hook.
 */
export function beamsOf(notes: readonly Beamable[], beat: Ticks): string[] {
  const sameGroup = (a: Beamable | undefined, b: Beamable | undefined) =>
    a !== undefined && b !== undefined && a.level > 0 && b.level > 0 && Math.floor(a.at / beat) === Math.floor(b.at / beat);
  return notes.map((note, i) => {
    const before = sameGroup(notes[i - 1], note) ? notes[i - 1].level : 0;
    const after = sameGroup(note, notes[i + 1]) ? notes[i + 1].level : 0;
    if (before === 0 && after === 0) return '';
    let xml = '';
    for (let level = 1; level <= note.level; level++) {
      const from = before >= level;
      const to = after >= level;
      const kind = from && to ? 'continue' : from ? 'end' : to ? 'begin' : before > 0 ? 'backward hook' : 'forward hook';
      xml += `<beam number="${level}">${kind}</beam>`;
    }
    return xml;
  });
}
