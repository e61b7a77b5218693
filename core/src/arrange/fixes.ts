import { keyChords } from '../harmony/vocabulary.js';
import { intervalOf, toneFor } from '../harmony/naming.js';
import { parseChord, type Chord } from '../harmony/symbol.js';
import { gratesWith, type Conflict, type NotesOver } from '../join/conflicts.js';
import { voicingsFor, type Voicing } from '../left-hand/candidates.js';
import { CLEAR_OF_TUNE, VOICING_COSTS, motionBetween, muddiness } from '../left-hand/costs.js';
import { isPlayedAsVoiced, type VoicedChord } from '../left-hand/voice.js';
import { midiOf, nameOf, pitchClass, type NoteName, type Pitch } from '../pitch/pitch.js';
import type { Hands, Level } from '../song/decisions.js';
import type { Edit } from '../song/edit.js';
import { rangeOf, type TickRange } from '../song/edits.js';
import type { Ticks } from '../time/ticks.js';
import type { HarmonisedChord } from './harmonise.js';

/** What is advised where no change to the document would help. */
export type Advice =
  'longer-keyboard' | 'another-key' | 'melody-octave-up' | 'nearest-inversion' | 'slower-tempo' | 'usual-symbol' | 'write-chord';

/** What a way out does. Motion is in semitones. */
export type FixFact =
  | { readonly code: 'fix.advice'; readonly advice: Advice }
  | { readonly code: 'fix.let-go' }
  | {
      readonly code: 'fix.move';
      readonly how: 'place' | 'fewer-notes' | 'inversion';
      readonly pitches: readonly Pitch[];
      /** Notes that are lost. */
      readonly without: readonly NoteName[];
      readonly away: number;
    }
  | { readonly code: 'fix.leave-out'; readonly name: NoteName; readonly pitches: readonly Pitch[] }
  | { readonly code: 'fix.chord'; readonly how: 'first-inversion' | 'quality' | 'chord'; readonly symbol: string }
  | { readonly code: 'fix.skip'; readonly symbol: string }
  | { readonly code: 'fix.octave-up'; readonly part: number }
  /** Every collision at once: chords that move, the motion that it adds, parts whose tune goes up an octave. */
  | { readonly code: 'fix.clear-all'; readonly chords: number; readonly motion: number; readonly raised: readonly number[] }
  | { readonly code: 'fix.level'; readonly level: Level }
  | { readonly code: 'fix.nearest-inversions' }
  | { readonly code: 'fix.straighten' }
  | { readonly code: 'fix.on-the-beat' }
  | { readonly code: 'fix.let-all-go' }
  | { readonly code: 'fix.skip-passing' };

/** A way out: what it does, and the change that makes it, or null for advice. */
export interface Fix {
  readonly fact: FixFact;
  readonly action: Edit | null;
}

/** Advice without a change behind it. */
export const advice = (what: Advice): Fix => ({ fact: { code: 'fix.advice', advice: what }, action: null });

/** A pinned chord let go. */
export const letGo = (at: Ticks): Fix => ({ fact: { code: 'fix.let-go' }, action: { code: 'edit.free-voicing', at } });

/** The tune of a part an octave higher. */
export const octaveUpFix = (part: TickRange & { readonly number: number }, octaves: number): Fix => ({
  fact: { code: 'fix.octave-up', part: part.number },
  action: {
    code: 'edit.setting',
    range: rangeOf(part),
    setting: 'octave',
    value: octaves + 1,
  },
});

/** A chord in another place: with how far the hand goes from where it lies, and the notes that are lost. */
function pin(chord: VoicedChord, how: 'place' | 'fewer-notes' | 'inversion', { pitches, midis }: Voicing): Fix {
  const names = new Set(pitches.map(nameOf));
  const without = [...new Set(chord.pitches.map(nameOf))].filter((n) => !names.has(n));
  const away = motionBetween(chord.pitches.map(midiOf), midis);
  return {
    fact: { code: 'fix.move', how, pitches, without, away },
    action: { code: 'edit.voicing', at: chord.writtenAt, pitches },
  };
}

/** Other places for a chord, best first: near to where it lies, clear, in reach, and below the tune. */
function otherPlaces(chord: VoicedChord, parsed: Chord, hands: Hands, lowest: number): Voicing[] {
  const here = chord.pitches.map(midiOf);
  const price = (v: Voicing) => motionBetween(here, v.midis) + VOICING_COSTS.muddy * muddiness(v.midis);
  return voicingsFor(parsed, hands, 'close')
    .filter((v) => v.midis.join() !== here.join() && v.midis[v.midis.length - 1] <= lowest - CLEAR_OF_TUNE)
    .map((v) => ({ v, cost: price(v) }))
    .sort((a, b) => a.cost - b.cost)
    .map(({ v }) => v);
}

const lowestOf = ({ notes }: NotesOver): number => Math.min(Infinity, ...notes.map((n) => midiOf(n.note.pitch)));

/** Ways to keep the hands apart: the whole chord elsewhere, or fewer of its notes; of several, the first that also passes a test. */
export function separationFixes(over: NotesOver, hands: Hands, helps: (midis: readonly number[]) => boolean = () => true): Fix[] {
  const { chord } = over;
  const parsed = parseChord(chord.symbol);
  if (parsed.kind !== 'chord') return [];
  const places = otherPlaces(chord, parsed, hands, lowestOf(over)).filter((v) => helps(v.midis));
  const whole = places.find((v) => v.pitches.length >= chord.pitches.length && v.form !== 'one-note');
  const fewer = places.find((v) => v.pitches.length < chord.pitches.length);
  return [...(whole ? [pin(chord, 'place', whole)] : []), ...(fewer ? [pin(chord, 'fewer-notes', fewer)] : [])];
}

/** Kinds of chord tried on the same root when a quality does not fit the tune, the plainest first. */
const QUALITIES = [
  '',
  'm',
  '7',
  'm7',
  'maj7',
  '6',
  'm6',
  'sus4',
  'sus2',
  '7sus4',
  'add9',
  'm7b5',
  'dim7',
  'aug',
  '9',
  '7b9',
  '7#9',
];

/**
 * Ways out of a conflict between tune and chord, in the order in which pianists try them: another inversion, the
 * grating note left out, the first inversion with the tune's note in it, another quality, another chord. Each is tried
 * against every note of the tune that stays over the chord before it is offered.
 */
export function conflictFixes(
  { chord, note, against }: Conflict,
  over: NotesOver,
  harmony: HarmonisedChord,
  hands: Hands,
): Fix[] {
  const parsed = parseChord(chord.symbol);
  if (parsed.kind !== 'chord') return [];
  const staying = over.notes.filter((n) => n.stays).map((n) => n.note.pitch);
  const clear = (c: Chord, pitches: readonly Pitch[]) => staying.every((n) => gratesWith(c, pitches, n) === null);
  const lowest = lowestOf(over);
  const fixes: Fix[] = [];
  const struck = isPlayedAsVoiced(chord);
  const inversion = !struck
    ? undefined
    : otherPlaces(chord, parsed, hands, lowest).find(
        (v) => v.pitches.length >= Math.min(3, chord.pitches.length) && clear(parsed, v.pitches),
      );
  if (inversion) fixes.push(pin(chord, 'inversion', inversion));
  const rest = chord.pitches.filter((p) => p !== against);
  if (struck && rest.length > 0 && clear(parsed, rest))
    fixes.push({
      fact: { code: 'fix.leave-out', name: nameOf(against), pitches: rest },
      action: { code: 'edit.voicing', at: chord.writtenAt, pitches: rest },
    });
  /** A chord is worth offering where some place for it sounds clear under the tune. */
  const sounds = (symbol: string): boolean => {
    const other = parseChord(symbol);
    if (other.kind !== 'chord' || symbol === chord.symbol) return false;
    if (!staying.every((n) => fits(other, n))) return false;
    return voicingsFor(other, hands, 'close').some(
      (v) => v.form === 'full' && v.midis[v.midis.length - 1] <= lowest - CLEAR_OF_TUNE && clear(other, v.pitches),
    );
  };
  const change = (how: 'first-inversion' | 'quality' | 'chord', symbol: string) =>
    fixes.push({ fact: { code: 'fix.chord', how, symbol }, action: { code: 'edit.chord', at: chord.writtenAt, symbol } });
  const first = firstInversionWith(parsed, note);
  if (first && sounds(first)) change('first-inversion', first);
  const quality = QUALITIES.map((q) => parsed.root + q).find((s) => s !== first && contains(s, note) && sounds(s));
  if (quality) change('quality', quality);
  const others = [...harmony.others.map((o) => o.symbol), ...keyChords(harmony.key, 'rich').map((c) => c.symbol)];
  const another = others.find((s) => !s.startsWith(parsed.root) && s !== first && contains(s, note) && sounds(s));
  if (another) change('chord', another);
  return fixes;
}

/** A note belongs to a chord or lies a whole step over one of its notes. */
function fits(chord: Chord, note: Pitch): boolean {
  const pc = pitchClass(nameOf(note));
  return !chord.tones.some((t) => (pitchClass(t.name) + 1) % 12 === pc) || toneFor(chord, nameOf(note)) !== null;
}

function contains(symbol: string, note: Pitch): boolean {
  const chord = parseChord(symbol);
  return chord.kind === 'chord' && toneFor(chord, nameOf(note)) !== null;
}

/** Under C, E minor becomes C over E: the tune's note takes the place of the fifth a half step below it. */
function firstInversionWith(chord: Chord, note: Pitch): string | null {
  const third = intervalOf(chord, 3);
  const name = nameOf(note);
  const up = (pitchClass(name) - pitchClass(chord.root) + 12) % 12;
  return third === '3m' && up === 8 ? `${name}/${chord.root}` : null;
}
