import { realiseTextures, type RealisedTexture, type TextureTask } from '../fills/dress.js';
import { OCTAVE } from '../fingers/costs.js';
import { fingerLine } from '../fingers/line.js';
import {
  fingerPattern,
  knownFingers,
  leadingFingers,
  patternPrint,
  turnsIn,
  type Attack,
  type FingerTurn,
} from '../fingers/pattern.js';
import type { Fingered, FingeringTask, Grip } from '../fingers/search.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { roleIn } from '../left-hand/written.js';
import type { KeyNote } from '../song/song.js';
import { textureTitle, WRITTEN } from '../fills/texture.js';
import { midiOf } from '../pitch/pitch.js';
import type { Ticks } from '../time/ticks.js';
import { stretchAt, type Settings } from './settings.js';

/** A chord in its texture with the finger of every note. */
export type TexturedChord = RealisedTexture & {
  readonly fingers: readonly number[];
  /** Where its pattern crosses fingers. */
  readonly turns: readonly FingerTurn[];
};

type Task = Omit<TextureTask, 'textureAt' | 'walkAt'> & {
  readonly phrases: readonly Ticks[];
  readonly tempo: number;
  /** The left hand as it was written, as far as this hand can play it. */
  readonly left: readonly KeyNote[];
};

/** The left hand in the textures that are asked for, note by note with fingers; null for every chord that stays plain. */
export function textureLeftHand(settings: Settings, chords: readonly VoicedChord[], task: Task): (TexturedChord | null)[] {
  if (settings.stretches.every((s) => s.texture === null && !s.written)) return chords.map(() => null);
  const textured = realiseTextures(chords, {
    ...task,
    textureAt: (at) => stretchAt(settings, at).texture,
    walkAt: (at) => stretchAt(settings, at).walk,
  });
  const written = asWritten(settings, chords, task);
  const dressed = textured.map((d, i) => written[i] ?? d);
  const how: FingeringTask = { hands: settings.hands, hand: 'left', tempo: task.tempo, key: task.key };
  const attacks = dressed.map((d) => (d ? attacksIn(d) : []));
  const fingers = [...patternFingers(chords, dressed, attacks, how), ...lineFingers(attacks, task.phrases, how)];
  const found = new Map(fingers);
  return dressed.map((d, i) => {
    if (!d) return null;
    const row = found.get(i) ?? [];
    const fingerOf = ({ at, pitch }: { readonly at: Ticks; readonly pitch: string }) => {
      const k = attacks[i].findIndex((a) => a.at === at);
      return k < 0 ? 5 : (row[k].fingers[attacks[i][k].pitches.indexOf(pitch)] ?? 5);
    };
    return { ...d, fingers: d.notes.map(fingerOf), turns: turnsIn(attacks[i], row) };
  });
}

/**
 * What was written for the left hand, chord by chord where it is to be played; null elsewhere, and in parts for which nothing was written:
 * there the chords are played as they are voiced. What stands before the first chord goes with it.
 */
function asWritten(
  settings: Settings,
  chords: readonly VoicedChord[],
  { left, phrases }: Pick<Task, 'left' | 'phrases'>,
): (RealisedTexture | null)[] {
  const notes = left.filter((n) => stretchAt(settings, n.at).written);
  // By part, in one go over both: chords and notes are in order.
  let from = 0;
  const written = phrases.map((start, i) => {
    const end = phrases[i + 1] ?? Infinity;
    while (from < notes.length && notes[from].at + notes[from].length <= start) from++;
    return from < notes.length && notes[from].at < end;
  });
  let part = 0;
  const hasNotes = (at: Ticks) => {
    while (part + 1 < phrases.length && phrases[part + 1] <= at) part++;
    return written[part] ?? notes.length > 0;
  };
  let next = 0;
  return chords.map((chord, i): RealisedTexture | null => {
    if (!stretchAt(settings, chord.at).written || !hasNotes(chord.at)) return null;
    const until = chords[i + 1]?.at ?? Infinity;
    const own: KeyNote[] = [];
    for (; next < notes.length && notes[next].at < until; next++) own.push(notes[next]);
    return {
      texture: WRITTEN,
      title: textureTitle(WRITTEN),
      shaped: false,
      bends: [],
      notes: own.map((n, k) => ({ ...n, role: roleIn(chord.symbol, n, own[k - 1]?.at !== n.at) })),
    };
  });
}

/** What a texture strikes together, in order, bottom-up. */
function attacksIn({ notes }: RealisedTexture): Attack[] {
  const moments = new Map<Ticks, { at: Ticks; length: Ticks; pitches: string[]; bass: boolean; leads: boolean }>();
  for (const { at, length, pitch, role } of notes) {
    const moment = moments.get(at);
    if (moment) {
      moment.pitches.push(pitch);
      moment.bass = false;
      moment.leads = false;
    } else moments.set(at, { at, length, pitches: [pitch], bass: role === 'bass', leads: role === 'fill' });
  }
  for (const { pitches } of moments.values()) if (pitches.length > 1) pitches.sort((a, b) => midiOf(a) - midiOf(b));
  return [...moments.values()].sort((a, b) => a.at - b.at);
}

/** True where the left hand has one or two single notes to a chord: they make a line from chord to chord, if they are no octave. */
function isLine(attacks: readonly Attack[]): boolean {
  if (attacks.length > 2 || attacks.some((a) => a.pitches.length > 1)) return false;
  const [low, high] = [attacks[0], attacks[attacks.length - 1]].map((a) => midiOf(a.pitches[0]));
  return Math.abs(high - low) < OCTAVE;
}

type FingersOfChord = readonly [chord: number, row: readonly Fingered[]];

/**
 * Fingers for patterns over a chord: the same on the same keys, and over the same shape wherever it comes; a shorter one as the beginning
 * of a longer.
 */
function patternFingers(
  chords: readonly VoicedChord[],
  dressed: readonly (RealisedTexture | null)[],
  attacks: readonly (readonly Attack[])[],
  how: FingeringTask,
): FingersOfChord[] {
  const known = new Map<string, readonly Fingered[]>();
  const basses = chords.map((c, i) => attacks[i].at(0)?.pitches[0] ?? c.pitches[0]);
  const patterns = attacks.flatMap((all, i) => (all.length === 0 || isLine(all) ? [] : [i]));
  const longest = patterns.toSorted((a, b) => attacks[b].length - attacks[a].length || a - b);
  return longest.map((i): FingersOfChord => {
    const all = attacks[i];
    const shape = dressed[i]?.shaped === true ? chords[i] : null;
    const lead = leadingFingers(all, basses[i + 1] ?? null);
    const same = samePrint(all, shape, lead);
    const before = known.get(same);
    if (before) return [i, before];
    const taken = knownFingers(all, shape, how.hands);
    const pins = taken.map((pin, k) => pin ?? lead[k]);
    const given = known.get(patternPrint(all, pins));
    if (given) {
      known.set(same, given);
      return [i, given];
    }
    const row = fingerPattern(all, pins, chords[i].length, how);
    known.set(same, row);
    all.forEach((_, k) => {
      const beginning = patternPrint(all.slice(0, k + 1), pins.slice(0, k + 1));
      if (!known.has(beginning)) known.set(beginning, row.slice(0, k + 1));
    });
    return [i, row];
  });
}

/** A pattern by its very keys, and those of the shape that it takes. */
function samePrint(attacks: readonly Attack[], shape: VoicedChord | null, lead: readonly (readonly number[] | null)[]): string {
  const [{ at }] = attacks;
  let print = '';
  for (const a of attacks) print += `${a.at - at}=${a.pitches.join('+')} `;
  if (shape) print += `${shape.pitches.join(' ')} ${shape.fingers.join(' ')} `;
  for (const fingers of lead) print += fingers?.join(' ') ?? '-';
  return print;
}

/** Fingers for single notes that lead from chord to chord, as a line. */
function lineFingers(attacks: readonly (readonly Attack[])[], phrases: readonly Ticks[], how: FingeringTask): FingersOfChord[] {
  const lines = attacks.flatMap((all, i) => (all.length > 0 && isLine(all) ? [i] : []));
  let phrase = 0;
  let last = -2;
  let begun = -1;
  const grips = lines.flatMap((i) => {
    while (phrase + 1 < phrases.length && phrases[phrase + 1] <= attacks[i][0].at) phrase++;
    const broken = i !== last + 1 || phrase !== begun;
    last = i;
    begun = phrase;
    return attacks[i].map((a, k): Grip => ({ ...a, fresh: broken && k === 0 }));
  });
  const row = fingerLine(grips, how);
  let next = 0;
  return lines.map((i): FingersOfChord => [i, attacks[i].map(() => row[next++])]);
}

/** The chords as they are really struck, for all that looks at sounding notes. */
export function asStruck(chords: readonly VoicedChord[], dressed: readonly (RealisedTexture | null)[]): VoicedChord[] {
  return chords.map((chord, i) => {
    const d = dressed[i];
    return d ? { ...chord, struck: d.notes } : chord;
  });
}

/** Every attack of the left hand as a chord of its own place: where it is struck, and each time its texture strikes again. */
export function attacksOf(chords: readonly VoicedChord[], dressed: readonly (RealisedTexture | null)[]): VoicedChord[] {
  return chords.flatMap((chord, i) => {
    const places = new Set(dressed[i]?.notes.map((n) => n.at) ?? [chord.at]);
    return [...places].sort((a, b) => a - b).map((at) => ({ ...chord, at }));
  });
}
