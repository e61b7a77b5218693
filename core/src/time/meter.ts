import { TICKS_PER_QUARTER, type Ticks } from './ticks.js';

/** A time signature: `beats` notes of value 1/`unit` in a bar. */
export interface Meter {
  readonly beats: number;
  readonly unit: number;
}

/** Ticks from one count to the next: a quarter in 3/4, an eighth in 6/8, a half in 2/2. */
export function countTicks(meter: Meter): Ticks {
  return (TICKS_PER_QUARTER * 4) / meter.unit;
}

/** Ticks in a whole bar. */
export function barTicks(meter: Meter): Ticks {
  return meter.beats * countTicks(meter);
}

/** Compound meters beat in groups of three counts: 6/8, 9/8, 12/8. */
export function isCompound(meter: Meter): boolean {
  return meter.unit >= 8 && meter.beats > 3 && meter.beats % 3 === 0;
}

/** Ticks of the felt beat: a dotted quarter in 6/8, otherwise one count. */
export function beatTicks(meter: Meter): Ticks {
  return isCompound(meter) ? 3 * countTicks(meter) : countTicks(meter);
}

/**
 * How strong a place in the bar is: 4 on the first count, 3 on the second half of an even bar,
 * 2 on another felt beat, 1 on another count, 0 between counts.
 */
export function metricStrength(offset: Ticks, meter: Meter): number {
  if (offset === 0) return 4;
  const beat = beatTicks(meter);
  const felt = barTicks(meter) / beat;
  if (felt % 2 === 0 && offset === (felt / 2) * beat) return 3;
  if (offset % beat === 0) return 2;
  return offset % countTicks(meter) === 0 ? 1 : 0;
}

/** The meter of a name: "3/4". */
export function meterFrom(name: string): Meter {
  const [beats, unit] = name.split('/').map(Number);
  return { beats, unit };
}

/** The meter of a name that someone wrote, "3/4" or "C"; null where it cannot be counted. */
export function readMeter(text: string): Meter | null {
  const common: Readonly<Record<string, string>> = { C: '4/4', 'C|': '2/2' };
  const found = /^(\d{1,2})\s*\/\s*(1|2|4|8|16)$/.exec(common[text.trim()] ?? text.trim());
  const beats = Number(found?.[1]);
  return found && beats >= 1 ? { beats, unit: Number(found[2]) } : null;
}

/** "3/4". */
export function meterName(meter: Meter): string {
  return `${meter.beats}/${meter.unit}`;
}
