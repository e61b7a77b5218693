import { KEY_NAMES } from '../pitch/note-names.js';
import { pitchClass, type NoteName } from '../pitch/pitch.js';
import { hasMinorThird, signatureOf, type Key } from './key.js';
import { parseChord } from './symbol.js';
import { remembered } from '../lists/remembered.js';

/** Kinds of chord that notes are named by, the plainest first. */
const KINDS = ['', 'm', '7', 'm7', 'maj7', '6', 'sus4', 'dim', 'm7b5', 'aug', 'dim7', 'm6', 'sus2', '5'] as const;

/** What speaks for a name, for each share of the sound: notes of the chord, notes foreign to it, chord notes that are missing, the root in the bass. */
const NAMING_TERMS = { inside: 1, outside: -1.6, missing: -0.22, rootInBass: 0.3, plain: -0.012 } as const;

/** Notes in a line of fifths from F double flat on. */
const FIFTHS = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];
const nameAt = (fifths: number): NoteName => {
  const place = fifths + 1;
  const signs = Math.floor(place / 7);
  return FIFTHS[((place % 7) + 7) % 7] + (signs < 0 ? 'b'.repeat(-signs) : '#'.repeat(signs));
};

/** The name that a key gives a pitch class: its own notes, flats below and sharps above them as they are usually written. */
export function spelledIn(key: Key, pc: number): NoteName {
  const signature = signatureOf(key);
  // In minor the raised sixth and seventh are written as they sound upwards.
  const [from, to] = hasMinorThird(key) ? [signature - 3, signature + 8] : [signature - 4, signature + 7];
  for (let fifths = from; fifths <= to; fifths++) if (pitchClass(nameAt(fifths)) === pc) return nameAt(fifths);
  return nameAt(from);
}

/** A note as chord symbols have it, with one sign at most: far keys write double signs that no symbol has. */
function inSymbols(key: Key, pc: number): NoteName {
  const name = spelledIn(key, pc);
  return name.length > 2 ? KEY_NAMES[pc] : name;
}

/** A chord that notes may be named by: its symbol, its root and its notes as pitch classes. */
interface Template {
  readonly symbol: string;
  readonly root: number;
  readonly tones: ReadonlySet<number>;
  /** Its place among the kinds, the plainest first. */
  readonly rank: number;
}

/** Every kind of chord on every root, spelled in a key. */
const templatesIn: (key: Key) => readonly Template[] = remembered(
  200,
  (key) => `${key.tonic} ${key.mode}`,
  (key) =>
    Array.from({ length: 12 }, (_, root) =>
      KINDS.flatMap((kind, rank): Template[] => {
        const symbol = inSymbols(key, root) + kind;
        const chord = parseChord(symbol);
        if (chord.kind !== 'chord') return [];
        return [{ symbol, root, rank, tones: new Set(chord.tones.map((t) => pitchClass(t.name))) }];
      }),
    ).flat(),
);

/**
 * The chord that notes make together, by how much of the sound each pitch class has; the bass is a pitch class or null. Null where
 * nothing is heard that makes a chord.
 */
export function chordFromNotes(weights: readonly number[], bass: number | null, key: Key): string | null {
  const whole = weights.reduce((a, b) => a + b, 0);
  if (whole <= 0 || weights.filter((w) => w > 0.08 * whole).length < 2) return null;
  let best: Template | null = null;
  let most = LEAST_NAMED;
  for (const template of templatesIn(key)) {
    let score = NAMING_TERMS.plain * template.rank + (bass === template.root ? NAMING_TERMS.rootInBass : 0);
    for (let pc = 0; pc < 12; pc++) {
      const share = weights[pc] / whole;
      const inside = template.tones.has(pc);
      score += share * (inside ? NAMING_TERMS.inside : NAMING_TERMS.outside);
      if (inside && share < 0.02) score += NAMING_TERMS.missing;
    }
    if (score > most + 1e-9) [best, most] = [template, score];
  }
  if (!best) return null;
  return bass !== null && bass !== best.root && best.tones.has(bass) ? `${best.symbol}/${inSymbols(key, bass)}` : best.symbol;
}

/** What must speak for a name before a chord is named at all. */
const LEAST_NAMED = 0.3;
