import { HEARING } from './figures.js';
import { ANY_PIANO, partialOf, type FittedKey, type PianoFit } from './templates.js';

/** What a single key tells of its piano: how loud its overtones are, and by how many hundredths of a half step it is high; null where that is not clear. */
export interface MeasuredKey extends FittedKey {
  readonly cents: number | null;
}

const { partials: MOST, farthest } = HEARING.listen;

/** Overtones by which the pitch is told: higher ones are stretched by the stiffness of the string. */
const TELLING = 5;

/** The middle of some figures, the higher of two. */
export const middleOf = (figures: readonly number[]): number => figures.toSorted((a, b) => a - b)[figures.length >> 1];

/** Measures a key in a spectrum of so many samples in which others may sound, too: what they share tells nothing of its pitch. */
export function measureKey(
  midi: number,
  spectrum: Float32Array,
  rate: number,
  size: number,
  sounding: readonly number[] = [],
): MeasuredKey {
  const others = sounding
    .filter((m) => m !== midi)
    .flatMap((m) => Array.from({ length: MOST }, (_, k) => partialOf(m, k + 1, 0)));
  const shared = (hertz: number) => others.some((o) => Math.abs(o - hertz) < Math.max(0.06 * hertz, (4 * rate) / size));
  const found: { cents: number; strength: number }[] = [];
  const partials = Array.from({ length: MOST }, (_, k) => {
    const place = (partialOf(midi, k + 1, 0) * size) / rate;
    const reach = Math.max(1.5, place * (2 ** (farthest / 1200) - 1));
    const [from, to] = [Math.max(1, Math.floor(place - reach)), Math.min(spectrum.length - 2, Math.ceil(place + reach))];
    let top = from;
    for (let i = from; i <= to; i++) if (spectrum[i] > spectrum[top]) top = i;
    if (from > to) return 0;
    const [a, b, c] = [spectrum[top - 1], spectrum[top], spectrum[top + 1]].map((m) => Math.log(m + 1e-9));
    const bend = a - 2 * b + c;
    const off = bend < 0 ? (0.5 * (a - c)) / bend : 0;
    // Low overtones lie in few bins: they tell little of the pitch.
    if (k < TELLING && place > 24 && top > from && top < to && !shared((place * rate) / size))
      found.push({ cents: 1200 * Math.log2((top + off) / place), strength: spectrum[top] });
    return spectrum[top];
  });
  const loudest = Math.max(...found.map((f) => f.strength), 0);
  const clear = found.filter((f) => f.strength > 0.1 * loudest).map((f) => f.cents);
  const whole = partials.reduce((sum, p) => sum + p, 0) || 1;
  return {
    midi,
    partials: partials.map((p) => p / whole),
    cents: clear.length === 0 ? null : middleOf(clear),
  };
}

/** A piano by a few of its keys, in any order. */
export function fitOf(measured: readonly MeasuredKey[]): PianoFit {
  const cents = measured.flatMap((m) => (m.cents === null ? [] : [m.cents]));
  const keys = measured.map(({ midi, partials }) => ({ midi, partials })).toSorted((a, b) => a.midi - b.midi);
  return { cents: cents.length === 0 ? ANY_PIANO.cents : middleOf(cents), keys };
}
