import { computed, inject, type Signal } from '@angular/core';
import type { PartChord } from '@joined-hands/core/arrange';
import { midiOf, nameOf } from '@joined-hands/core/pitch';
import { HAND_LABELS, type Speech } from '@joined-hands/core/words';
import { DeskStore } from '../../platform/state/desk.store';
import { Words } from '../../platform/words';
import { keysInPlay } from '../../ui/keyboard/in-play';
import type { HandSpan, PressedKey } from '../../ui/keyboard/keyboard';

/** Keys of a voicing that is tried by ear, at the place it is tried at. */
export interface Trial {
  readonly at: number | undefined;
  readonly pitches: readonly string[] | null;
}

/** What the keyboard of the desk shows of the part at work. */
export interface KeysAtWork {
  readonly pressed: Signal<PressedKey[]>;
  readonly spans: Signal<HandSpan[]>;
  /** The keys of the part on which the hands meet or crowd, by the place of the chord. */
  readonly clashes: Signal<ReadonlyMap<number, readonly string[]>>;
  /** The lowest and the highest key of the part, and of what is tried; null without a part. */
  readonly inPlay: Signal<readonly [low: number, high: number] | null>;
}

/** The keys of the part at work, following what is chosen and tried; to be called where one may inject. */
export function keysAtWork(trial: Signal<Trial>): KeysAtWork {
  const desk = inject(DeskStore);
  const words = inject(Words);
  const pretty = (pitch: string): string => inSigns(words.say(), pitch);

  /** The keys of the part on which the hands meet or crowd, by the place of the chord. */
  const clashes = computed(() => {
    const here = (desk.arrangement()?.findings ?? []).filter((f) => f.part === desk.currentPart()?.number && f.keys);
    return new Map(here.map((f) => [f.chordAt ?? -1, f.keys ?? []]));
  });

  const pressed = computed((): PressedKey[] => {
    const tried = trial().pitches;
    const chord = desk.selectedChord();
    const note = desk.selectedNote() ?? (chord ? desk.currentPart()?.melody.find((n) => n.at === chord.at) : null);
    const keys: PressedKey[] = [];
    if (desk.view() !== 'right') {
      const played = chord && !tried ? playedLeft(chord, desk.view() === 'fills') : null;
      const pitches = tried ?? played?.pitches ?? [];
      pitches.forEach((p, i) =>
        keys.push({ midi: midiOf(p), hand: 'left', text: tried ? pretty(p) : `${played?.fingers[i] ?? ''}` }),
      );
    }
    const under = desk.currentPart()?.under.find((u) => u.at === (chord ?? note)?.at && (!u.added || desk.view() === 'fills'));
    if (under && desk.view() !== 'left')
      under.pitches.forEach((p, i) => keys.push({ midi: midiOf(p), hand: 'right', text: `${under.fingers[i] ?? pretty(p)}` }));
    if (note && desk.view() !== 'left')
      keys.push({ midi: midiOf(note.pitch), hand: 'right', text: note.finger ? `${note.finger}` : pretty(note.pitch) });
    const meets = new Set((clashes().get(chord?.at ?? -1) ?? []).map(midiOf));
    return keys.map((k) => (meets.has(k.midi) ? { ...k, meets: true } : k));
  });

  const spans = computed((): HandSpan[] => {
    const part = desk.currentPart();
    if (!part) return [];
    const spans: HandSpan[] = [];
    const span = (hand: 'left' | 'right', pitches: readonly string[], fingers = '') => {
      if (pitches.length === 0) return;
      const sorted = [...pitches].sort((a, b) => midiOf(a) - midiOf(b));
      const [low, high] = [sorted[0], sorted[sorted.length - 1]];
      const text = $localize`${HAND_LABELS[hand]}, ${pretty(low)} to ${pretty(high)}${fingers}`;
      spans.push({ hand, from: midiOf(low), to: midiOf(high), text, short: $localize`${pretty(low)} to ${pretty(high)}` });
    };
    if (desk.view() !== 'right')
      span(
        'left',
        part.chords.flatMap((c) => playedLeft(c, desk.view() === 'fills').pitches),
      );
    if (desk.view() === 'left') return spans;
    // With a note or chord chosen the bracket shows the place where the hand lies then; else all that the part asks of it.
    const at = desk.selection()?.at;
    const place = at === undefined ? undefined : part.places.findLast((p) => p.start <= at);
    if (place) span('right', [place.thumb, place.fifth, place.low, place.high], ', fingers 1 to 5');
    else span('right', [...part.melody.map((n) => n.pitch), ...part.under.flatMap((u) => u.pitches)]);
    return spans;
  });
  const inPlay = computed(() => {
    const part = desk.currentPart();
    if (!part) return null;
    const asked = part.chords.flatMap((c) => playedLeft(c, desk.view() === 'fills').pitches);
    const under = part.under.flatMap((u) => u.pitches);
    return keysInPlay([...asked, ...under, ...part.melody.map((n) => n.pitch), ...(trial().pitches ?? [])].map(midiOf));
  });

  return { pressed, spans, clashes, inPlay };
}

/** What the left hand plays of a chord in a view: its texture with the first finger on each key, or the chord as it was learned. */
function playedLeft(chord: PartChord, dressed: boolean): Pick<PartChord, 'pitches' | 'fingers'> {
  const texture = dressed ? chord.dressed : null;
  if (!texture || texture.notes.length === 0) return chord;
  const keys = new Map<string, number>();
  texture.notes.forEach((n, i) => !keys.has(n.pitch) && keys.set(n.pitch, texture.fingers[i]));
  return { pitches: [...keys.keys()], fingers: [...keys.values()] };
}

/** The name of a key with the signs of flat and sharp. */
const inSigns = (say: Speech, pitch: string): string =>
  say
    .note(nameOf(pitch))
    .replace(/(?<=^[A-H])b/, '♭')
    .replace('#', '♯');

/** What is chosen on the strip, in a line; null where nothing is. */
export function chosenInShort(
  desk: InstanceType<typeof DeskStore>,
  say: Speech,
): { readonly name: string; readonly rest: string } | null {
  const chord = desk.selectedChord();
  if (chord) return { name: say.symbol(chord.symbol), rest: `${say.position(chord.position)} · ${chord.fingers.join('-')}` };
  const note = desk.selectedNote();
  return note && { name: say.pitch(note.pitch), rest: note.finger ? $localize`finger ${note.finger}` : '' };
}
