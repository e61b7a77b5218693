import { HEARING } from './figures.js';

/** How loud the overtones of a key are beside one another, from the first, the key's own, upwards. */
export interface FittedKey {
  readonly midi: number;
  readonly partials: readonly number[];
}

/** What was learned of a piano: its pitch in hundredths of a half step, and the overtones of a few keys, from the lowest. */
export interface PianoFit {
  readonly cents: number;
  readonly keys: readonly FittedKey[];
}

/** A piano of which nothing is known. */
export const ANY_PIANO: PianoFit = { cents: 0, keys: [] };

/** How much of a key lies in which bins of a spectrum: the shares add up to one. */
export interface Template {
  readonly midi: number;
  readonly bins: Uint16Array;
  readonly shares: Float32Array;
}

const { lowest, highest, partials: MOST, loss, thin } = HEARING.listen;

/** By how much a string's overtones are wide of whole multiples, by key; stiffest at both ends. After Fletcher and Rossing, The Physics of Musical Instruments. */
const stiffness = (midi: number): number => 1e-4 * (2 ** ((midi - 48) / 9) + 2 ** ((36 - midi) / 9));

/** The hertz of an overtone, the first of which is the key's own. */
export function partialOf(midi: number, partial: number, cents: number): number {
  const own = 440 * 2 ** ((midi - 69 + cents / 100) / 12);
  return own * partial * Math.sqrt(1 + stiffness(midi) * (partial * partial - 1));
}

/** Share of a spectrum below which a key is given up. */
const LEAST = 1e-5;

/** How loud an overtone is where nothing was learned: each is a little softer, low strings give little of their lowest, high ones few. */
const usual = (midi: number, partial: number): number => {
  const hertz = partialOf(midi, partial, 0);
  return partial ** -loss * Math.min(1, (hertz / thin) ** 2) * Math.exp(-hertz / 2500);
};

/** How loud the overtones of a key are, between the learned keys on either side of it. */
function partialsOf(midi: number, { keys }: PianoFit): number[] {
  const all = Array.from({ length: MOST }, (_, k) => usual(midi, k + 1));
  if (keys.length === 0) return all;
  const over = keys.find((k) => k.midi >= midi) ?? keys[keys.length - 1];
  const under = keys.findLast((k) => k.midi <= midi) ?? keys[0];
  const share = over.midi === under.midi ? 0 : (midi - under.midi) / (over.midi - under.midi);
  // What was learned is how far each overtone lies from the usual one; that goes over from key to key.
  const off = ({ midi: key, partials }: FittedKey, k: number) => Math.log((partials[k] || 1e-3) / usual(key, k + 1));
  return all.map((u, k) => u * Math.exp(0.6 * ((1 - share) * off(under, k) + share * off(over, k))));
}

/** The shape of a tone in the bins around it, `off` bins from it, of a window that is `wide` times shorter than the spectrum. */
function lobe(off: number, wide: number): number {
  const x = Math.abs(off) / wide;
  if (x >= 2) return 0;
  if (x < 1e-6) return 1;
  if (Math.abs(x - 1) < 1e-6) return 0.5;
  return Math.abs(Math.sin(Math.PI * x) / (Math.PI * x * (1 - x * x)));
}

/** Templates of all keys for spectra of so many samples, taken through a window `wide` times shorter. */
export function templatesFor(rate: number, size: number, wide: number, fit: PianoFit): Template[] {
  const { top } = HEARING.listen;
  const last = Math.min(size / 2 - 1, Math.floor((top * size) / rate));
  return Array.from({ length: highest - lowest + 1 }, (_, k) => {
    const midi = lowest + k;
    const loud = new Float32Array(last + 1);
    partialsOf(midi, fit).forEach((strength, p) => {
      const bin = (partialOf(midi, p + 1, fit.cents) * size) / rate;
      const [a, b] = [Math.max(0, Math.ceil(bin - 2 * wide)), Math.min(last, Math.floor(bin + 2 * wide))];
      for (let i = a; i <= b; i++) loud[i] += strength * lobe(i - bin, wide);
    });
    const bins = Uint16Array.from([...loud.keys()].filter((i) => loud[i] > 0));
    const whole = loud.reduce((sum, x) => sum + x, 0);
    return { midi, bins, shares: Float32Array.from(bins, (i) => loud[i] / whole) };
  });
}

/**
 * How much of each key a spectrum holds: the mixture of templates that is nearest to it by Kullback and Leibler's divergence, none of them
 * below nothing, a key that is not expected paying for what it takes. After Lee and Seung, Algorithms for non-negative matrix factorization.
 */
export function fitKeys(spectrum: Float32Array, templates: readonly Template[], price: (midi: number) => number): Float64Array {
  const { rounds } = HEARING.listen;
  const all = spectrum.reduce((sum, x) => sum + x, 0);
  const amounts = new Float64Array(templates.length).fill(all / templates.length);
  const prices = templates.map((t) => 1 + price(t.midi));
  const mixed = new Float32Array(spectrum.length);
  const quotients = new Float32Array(spectrum.length);
  for (let round = 0; round < rounds; round++) {
    mixed.fill(0);
    templates.forEach(({ bins, shares }, k) => {
      const amount = amounts[k];
      if (amount > 0) for (let i = 0; i < bins.length; i++) mixed[bins[i]] += amount * shares[i];
    });
    for (let i = 0; i < spectrum.length; i++) quotients[i] = spectrum[i] / (mixed[i] + 1e-9 * all + 1e-12);
    templates.forEach(({ bins, shares }, k) => {
      if (amounts[k] <= LEAST * all) {
        amounts[k] = 0;
        return;
      }
      let sum = 0;
      for (let i = 0; i < bins.length; i++) sum += shares[i] * quotients[bins[i]];
      amounts[k] *= sum / prices[k];
    });
  }
  return amounts;
}
