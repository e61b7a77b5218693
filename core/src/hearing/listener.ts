import { HEARING } from './figures.js';
import { OnsetFinder } from './onsets.js';
import { spectrumTaker } from './spectrum.js';
import { ANY_PIANO, fitKeys, templatesFor, type PianoFit, type Template } from './templates.js';
import { measureKey, middleOf, type MeasuredKey } from './tuning.js';

/** Keys that are to be struck together, as MIDI numbers. */
export interface DuePlace {
  readonly midis: readonly number[];
}

/** A key that was made out: the number of the sample at which it began, and whether it was due. */
export interface HeardKey {
  readonly midi: number;
  readonly at: number;
  readonly due: boolean;
  /** What was learned of the piano from it, where it was due and rang long enough. */
  readonly measured: MeasuredKey | null;
}

/** How what is due is followed. */
export interface Following {
  /**
   * True where the music waits at one place: no later one is listened for, and one faint key of a chord may stay unheard where nothing else
   * sounds.
   */
  readonly waits: boolean;
}

const L = HEARING.listen;

/** Seconds of sound that are kept: as long as the longest window before a beginning and after it, with room. */
const KEPT = 1.5;

/** Beginnings that are remembered. */
const LATELY = 64;

/**
 * Listens to a piano whose score is known. First it finds what begins; then it takes apart what is new in the spectrum there into keys,
 * those before all others that are due next. How high the piano stands it hears from the first dozen keys, and listens by that.
 */
export class PianoListener {
  private readonly onsets: OnsetFinder;
  private readonly size: number;
  private readonly take: ReturnType<typeof spectrumTaker>;
  /** Templates for whole windows and for those of half the length. */
  private whole: readonly Template[] = [];
  private half: readonly Template[] = [];
  private fit: PianoFit;

  private sound: Float32Array;
  /** The number of the first sample that is kept, and how many are. */
  private from = 0;
  private filled = 0;
  /** Beginnings whose keys are not made out yet. */
  private begun: number[] = [];
  /** The samples at which something began lately, whether it was a key or not: claps, too. */
  begunLately: readonly number[] = [];
  /** The last beginning of a key, and how much of one was heard where it was most, lately. */
  private last = -Infinity;
  private loud = 0;
  private readonly struck = new Map<number, number>();
  /** By how many hundredths of a half step keys were high, and at how many places that was told. */
  private readonly offsets: number[] = [];
  private tunedAt = 0;

  private places: readonly DuePlace[] = [];
  private following: Following = { waits: false };
  /** The place that was reached, and which of its keys were heard there. */
  private place = -1;
  private taken = new Set<number>();

  /** Listens to so many samples a second, at first by what is known of the piano. */
  constructor(
    private readonly rate: number,
    fit: PianoFit = ANY_PIANO,
  ) {
    this.onsets = new OnsetFinder(rate);
    this.size = 2 ** Math.round(Math.log2(L.window * rate));
    this.take = spectrumTaker(this.size);
    this.sound = new Float32Array(2 * Math.ceil(KEPT * rate));
    this.fit = fit;
    this.learn(fit);
  }

  /** By how many hundredths of a half step the piano lies above the usual pitch. */
  get cents(): number {
    return Math.round(this.fit.cents);
  }

  /** How much louder the piano was lately than the room by itself; about ten is little. */
  get overRoom(): number {
    return this.loud / Math.max(1e-6, this.onsets.room());
  }

  /** Listens from now on by what is known of a piano. */
  learn(fit: PianoFit): void {
    this.fit = fit;
    this.whole = templatesFor(this.rate, this.size, 1, fit);
    this.half = templatesFor(this.rate, this.size, 2, fit);
  }

  /** What is to be played from now on, in order; the place numbered `next` comes first. */
  expect(places: readonly DuePlace[], next = 0, following: Following = { waits: false }): void {
    this.places = places;
    this.following = following;
    this.place = next - 1;
    this.taken.clear();
  }

  /** Takes the next samples, and gives the keys that could be made out with them. */
  hear(samples: Float32Array): HeardKey[] {
    this.keep(samples);
    const begun = this.onsets.hear(this.sound.subarray(0, this.filled), this.from);
    this.begun.push(...begun);
    this.begunLately = [...this.begunLately, ...begun].slice(-LATELY);
    const found: HeardKey[] = [];
    for (;;) {
      const at = this.begun.at(0);
      if (at === undefined) return found;
      // A key that follows soon cuts the window short.
      const until = Math.min(at + this.size, this.begun.at(1) ?? Infinity);
      if (until > this.from + this.filled) return found;
      this.begun.shift();
      found.push(...this.keysAt(at, until));
    }
  }

  private keep(samples: Float32Array): void {
    if (this.filled + samples.length > this.sound.length) {
      const gone = Math.max(0, this.filled - this.sound.length / 2);
      this.sound.copyWithin(0, gone, this.filled);
      this.from += gone;
      this.filled -= gone;
    }
    this.sound.set(samples, this.filled);
    this.filled += samples.length;
  }

  /** The spectrum of a stretch, as loud as if the stretch filled a window; short ones count for more. */
  private spectrum(from: number, length: number): Float32Array {
    const start = Math.max(0, from - this.from);
    const part = this.sound.subarray(start, Math.max(start + 1, from + length - this.from));
    const scale = this.size / part.length;
    const magnitudes = this.take(part);
    for (let i = 0; i < magnitudes.length; i++) magnitudes[i] *= scale;
    return magnitudes;
  }

  /** What is new at a beginning: the spectrum after it, less the one before it. */
  private fresh(at: number, length: number): Float32Array {
    const [gap, short] = [L.gap, L.short].map((seconds) => Math.round(seconds * this.rate));
    const back = Math.min(length, Math.max(short, at - gap - (this.last + 2 * gap)));
    const was = this.spectrum(at - gap - back, back);
    const fresh = this.spectrum(at, length).slice(0, Math.floor((L.top * this.size) / this.rate) + 1);
    for (let i = 0; i < fresh.length; i++) fresh[i] = Math.max(0, fresh[i] - was[i]);
    return fresh;
  }

  private keysAt(at: number, until: number): HeardKey[] {
    const isWhole = until - at >= this.size;
    const length = isWhole ? this.size : Math.max(Math.round(L.short * this.rate), Math.min(until - at, this.size / 2));
    const templates = isWhole ? this.whole : this.half;
    const fresh = this.fresh(at, length);
    const soft = L.soft * this.loud * 0.5 ** ((at - this.last) / this.rate / L.forget);
    const least = Math.max(soft, L.overRoom * this.onsets.room());
    if (fresh.reduce((sum, x) => sum + x, 0) < least) return [];
    const ahead = this.ahead();
    const amounts = fitKeys(fresh, templates, (midi) => priceOf(midi, ahead.get(midi)));
    const most = amounts.reduce((max, a) => Math.max(max, a), 0);
    // What is far softer than what was struck lately is a key let go, strings that beat, a step on the floor; in a quiet room, the room.
    if (most < least) return [];
    this.loud = Math.max(most, soft / L.soft);
    this.last = at;
    const strengths = new Map(templates.map(({ midi }, k) => [midi, amounts[k] / most]));
    return this.madeOut(at, strengths, ahead, length >= this.size / 2 ? fresh : null);
  }

  /** The keys that are strong enough, each by whether it is due; what is due moves on by them. */
  private madeOut(
    at: number,
    strengths: ReadonlyMap<number, number>,
    ahead: ReadonlyMap<number, number>,
    spectrum: Float32Array | null,
  ): HeardKey[] {
    const place = this.reached(strengths);
    const due = place === null ? [] : this.dueAt(place);
    // A key beside one that is due, struck in its place, lends it some of its tones.
    const besides = (midi: number) =>
      Math.max(...L.beside.map(([off, share]) => (due.includes(midi + off) ? 0 : share * (strengths.get(midi + off) ?? 0))));
    const struckAgain = (midi: number) => at - (this.struck.get(midi) ?? -Infinity) < L.again * this.rate;
    const keys = [...strengths].flatMap(([midi, strength]) => {
      const isDue = due.includes(midi);
      const least = isDue
        ? Math.max(L.heardDue, besides(midi))
        : ahead.has(midi)
          ? L.heardNear
          : this.places.length > 0
            ? L.heardOther
            : L.heardAlone;
      return strength >= least && !struckAgain(midi) ? [{ midi, due: isDue }] : [];
    });
    if (this.following.waits) keys.push(...faint(due, keys));
    const sounding = keys.map((k) => k.midi);
    const measuredAt = (k: { readonly midi: number; readonly due: boolean }) =>
      spectrum && k.due ? measureKey(k.midi, spectrum, this.rate, this.size, sounding) : null;
    const all = keys.map((k) => ({ ...k, at, measured: measuredAt(k) }));
    this.tune(all.flatMap(({ measured }) => (measured === null || measured.cents === null ? [] : [measured.cents])));
    for (const { midi } of keys) this.struck.set(midi, at);
    if (place !== null && keys.some((k) => k.due)) {
      if (place !== this.place) this.taken = new Set();
      this.place = place;
      for (const k of keys) if (k.due) this.taken.add(k.midi);
    }
    return all;
  }

  /** Keys of a place that are still to come. */
  private dueAt(place: number): readonly number[] {
    const { midis } = this.places[place];
    return place === this.place ? midis.filter((m) => !this.taken.has(m)) : midis;
  }

  /** The last place that may be reached now. */
  private get furthest(): number {
    return Math.min(this.places.length - 1, this.place + (this.following.waits ? 1 : L.ahead));
  }

  /** Keys that may come, by how many places after the next they are due. */
  private ahead(): Map<number, number> {
    const ahead = new Map<number, number>();
    for (let j = this.furthest; j >= Math.max(0, this.place); j--)
      for (const m of this.dueAt(j)) ahead.set(m, Math.max(0, j - this.place - 1));
    return ahead;
  }

  /** The place to which what is heard belongs: the one whose keys are heard best, an earlier one before those after it. */
  private reached(strengths: ReadonlyMap<number, number>): number | null {
    let [best, most] = [null as number | null, 0];
    for (let j = Math.max(0, this.place); j <= this.furthest; j++) {
      const due = this.dueAt(j);
      const heard = due.reduce((sum, m) => sum + Math.min(1, (strengths.get(m) ?? 0) / L.surely), 0) / due.length;
      const score = heard - L.skip * Math.abs(j - this.place - 1);
      if (heard > 0 && (best === null || score > most)) [best, most] = [j, score];
    }
    return best;
  }

  /** Takes what keys tell of the piano's pitch into account, once a few places have been heard and where it is worth it. */
  private tune(cents: readonly number[]): void {
    if (cents.length === 0 || this.tunedAt >= L.tunedBy) return;
    this.offsets.push(...cents);
    if (++this.tunedAt % 3 !== 0) return;
    const middle = middleOf(this.offsets);
    if (Math.abs(middle - this.fit.cents) >= L.outOfTune) this.learn({ ...this.fit, cents: middle });
  }
}

/**
 * What a key costs that is due so many places after the next one, or not at all: the overtones of the lowest lie so close that they would
 * take what belongs to others.
 */
const priceOf = (midi: number, step: number | undefined): number =>
  step !== undefined ? L.near * step : midi < L.dense ? L.otherLow : L.other;

/** The one key of a chord that was not heard where all others were and nothing else sounds: it was too faint, and is taken for struck. */
function faint(due: readonly number[], keys: readonly { readonly midi: number; readonly due: boolean }[]) {
  const missing = due.filter((m) => !keys.some((k) => k.midi === m));
  const alone = due.length >= 3 && missing.length === 1 && keys.every((k) => k.due);
  return alone ? missing.map((midi) => ({ midi, due: true })) : [];
}
