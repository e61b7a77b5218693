import { realiseTextures, type RealisedTexture, type TextureTask } from '../fills/dress.js';
import type { VoicedChord } from '../left-hand/voice.js';
import type { Grip } from '../right-hand/fingering.js';
import { fingerLine } from '../right-hand/line.js';
import type { Ticks } from '../time/ticks.js';
import { stretchAt, type Settings } from './settings.js';

/** A chord in its texture with the finger of every note. */
export type TexturedChord = RealisedTexture & { readonly fingers: readonly number[] };

type Task = Omit<TextureTask, 'textureAt' | 'walkAt'> & { readonly phrases: readonly Ticks[]; readonly tempo: number };

/** The left hand in the textures that are asked for, note by note with fingers; null for every chord that stays plain. */
export function textureLeftHand(settings: Settings, chords: readonly VoicedChord[], task: Task): (TexturedChord | null)[] {
  if (settings.stretches.every((s) => s.texture === null)) return chords.map(() => null);
  const dressed = realiseTextures(chords, {
    ...task,
    textureAt: (at) => stretchAt(settings, at).texture,
    walkAt: (at) => stretchAt(settings, at).walk,
  });
  const grips = gripsOf(chords, dressed, task.phrases);
  const row = fingerLine(grips, { hands: settings.hands, hand: 'left', tempo: task.tempo });
  const fingers = new Map(grips.map((g, i) => [g.at, { pitches: g.pitches, fingers: row[i].fingers }]));
  return dressed.map((d) => {
    if (!d) return null;
    const found = d.notes.map((n) => {
      const grip = fingers.get(n.at);
      return grip?.fingers[grip.pitches.indexOf(n.pitch)] ?? 5;
    });
    return { ...d, fingers: found };
  });
}

function gripsOf(
  chords: readonly VoicedChord[],
  dressed: readonly (RealisedTexture | null)[],
  phrases: readonly Ticks[],
): Grip[] {
  const moments = new Map<Ticks, { at: Ticks; length: Ticks; pitches: string[] }>();
  chords.forEach((chord, i) => {
    for (const { at, length, pitch } of dressed[i]?.notes ?? chord.struck) {
      const moment = moments.get(at);
      if (moment) moment.pitches.push(pitch);
      else moments.set(at, { at, length, pitches: [pitch] });
    }
  });
  let phrase = 0;
  let last = -1;
  return [...moments.values()]
    .sort((a, b) => a.at - b.at)
    .map((m) => {
      while (phrase + 1 < phrases.length && phrases[phrase + 1] <= m.at) phrase++;
      const fresh = phrase !== last;
      last = phrase;
      return { ...m, fresh };
    });
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
