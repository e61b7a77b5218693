import { pitchClass, type NoteName } from '../pitch/pitch.js';
import { parseChord, type Chord } from './symbol.js';

/** Kinds of chord that a set of notes may be read as, the plainest first. */
const READINGS = [
  '',
  'm',
  'dim',
  'aug',
  'sus4',
  'sus2',
  '6',
  'm6',
  '7',
  'maj7',
  'm7',
  'm7b5',
  'dim7',
  'mMaj7',
  '7sus4',
  'add9',
  '9',
  'maj9',
  'm9',
  '7b9',
  '6/9',
];

const classes = (names: readonly NoteName[]) => new Set(names.map(pitchClass));

/** The notes that a reading may leave out: a ninth chord is heard without its fifth, its root or its third. */
function readings(chord: Chord): ReadonlySet<number>[] {
  const all = chord.tones;
  const without = (degree: number) => classes(all.filter((t) => t.degree !== degree).map((t) => t.name));
  return all.length > 4 ? [classes(all.map((t) => t.name)), ...[5, 1, 3].map(without)] : [classes(all.map((t) => t.name))];
}

/**
 * Other names for the notes of a chord: Am7 for C6, and C9 for G minor over C. The note at the bottom names the
 * reading's bass where it is not its root. At most three.
 */
export function otherNames(chord: Chord): string[] {
  const bottom = chord.bass ?? chord.root;
  const sounding = classes([...chord.tones.map((t) => t.name), bottom]);
  const names: string[] = [];
  for (const root of [bottom, ...chord.tones.map((t) => t.name)])
    for (const kind of READINGS) {
      const reading = parseChord(root + kind);
      if (reading.kind !== 'chord' || root.length > 2) continue;
      const fits = readings(reading).some((r) => r.size === sounding.size && [...r].every((pc) => sounding.has(pc)));
      // What is left out of a ninth chord may be its root only where the bass plays it.
      const name = reading.root === bottom ? reading.text : `${reading.text}/${bottom}`;
      if (!fits || (!sounding.has(pitchClass(root)) && root !== bottom)) continue;
      const same = reading.root === chord.root && kindOf(reading) === kindOf(chord);
      if (!same && name !== chord.text && !names.includes(name)) names.push(name);
    }
  return names.sort((a, b) => a.length - b.length).slice(0, 3);
}

const kindOf = (chord: Chord) => chord.tones.map((t) => t.interval).join(' ');
