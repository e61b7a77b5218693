import type { ExpectedNote, HeardNote } from './grade.js';

/** How a stand-in plays: shares of notes from 0 to 1, and how far its tempo drifts, from 0 to 0.2. */
export interface PlayingManner {
  readonly wrong: number;
  readonly missed: number;
  readonly extra: number;
  readonly drift: number;
  /** Seconds by which a note may lie beside its place. */
  readonly uneven: number;
  /** Quarter notes a minute. */
  readonly tempo: number;
}

/** What a stand-in played, and what it did on purpose. */
export interface StandInPass {
  readonly heard: readonly HeardNote[];
  /** Indices of the notes, as they were given, that were played wrong or not at all. */
  readonly wrong: readonly number[];
  readonly missed: readonly number[];
  /** Keys that were added. */
  readonly extra: readonly HeardNote[];
}

/** Numbers from 0 to 1 that depend on a seed alone. */
export function chances(seed: number): () => number {
  let state = (seed >>> 0) + 0x9e3779b9;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Quarter notes around a slip in which its key is not asked for, so that it can be told from a note out of time. */
const SEEN = 5;

/** Quarter notes over which the tempo goes from its middle to its fastest, by 2 / π. */
const WAVE = 5;

/** Plays notes as a learner would, with mistakes at known rates; the same seed plays the same. */
export function playStandIn(notes: readonly ExpectedNote[], manner: PlayingManner, seed: number): StandInPass {
  const chance = chances(seed);
  const beat = 60 / manner.tempo;
  const phase = chance() * Math.PI * 2;
  const order = notes.map((note, index) => ({ note, index })).sort((a, b) => a.note.at - b.note.at);
  const heard: HeardNote[] = [];
  const [wrong, missed, extra]: [number[], number[], HeardNote[]] = [[], [], []];
  let [at, time] = [order[0]?.note.at ?? 0, 0.5];
  let slipped = -1;
  for (const { note, index } of order) {
    // The tempo breathes: faster and slower in waves of some bars.
    const paceAt = (place: number) => 1 + manner.drift * Math.sin(phase + place / WAVE);
    while (at < note.at) {
      const step = Math.min(0.25, note.at - at);
      time += (step * beat) / paceAt(at + step / 2);
      at += step;
    }
    const pace = paceAt(at);
    const near = new Set(notes.filter((n) => Math.abs(n.at - note.at) < SEEN).map((n) => n.midi));
    const strange = (): number | null => {
      const steps = [1, -1, 2, -2, 3, -3].filter((s) => !near.has(note.midi + s));
      return steps.length === 0 ? null : note.midi + steps[Math.floor(chance() * steps.length)];
    };
    const when = time + (chance() * 2 - 1) * manner.uneven;
    // One slip at a moment: of two in one chord no one could tell which was which.
    const roll = slipped === note.at ? 1 : chance();
    if (roll < manner.missed + manner.wrong) slipped = note.at;
    const other = strange();
    if (roll < manner.missed) missed.push(index);
    else if (roll < manner.missed + manner.wrong && other !== null) {
      wrong.push(index);
      heard.push({ midi: other, time: when });
    } else heard.push({ midi: note.midi, time: when });
    if (chance() < manner.extra) {
      const slip = strange();
      const between = order.find((o) => o.note.at > note.at)?.note.at;
      if (slip !== null && between !== undefined && between - note.at >= 0.9) {
        const key = { midi: slip, time: time + ((between - note.at) / 2) * (beat / pace) };
        extra.push(key);
        heard.push(key);
      }
    }
  }
  return { heard: heard.sort((a, b) => a.time - b.time), wrong, missed, extra };
}
