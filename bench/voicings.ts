import { Voicing, VoicingDictionary, VoiceLeading } from 'tonal';
import { parseChord } from '@joined-hands/core/harmony';
import { voiceLeftHand, type Strike, type VoicingWishes } from '@joined-hands/core/left-hand';
import { midiOf } from '@joined-hands/core/pitch';
import { handsOf, resolveChords, type Document } from '@joined-hands/core/song';
import { TICKS_PER_QUARTER } from '@joined-hands/core/time';
import { motionBetween, muddiness } from '../core/src/left-hand/costs.js';
import { demo, DEMOS } from '../core/testing/songs.js';
import { median, ms, ratio, type Row } from './table.js';

const POOL = ['Fmaj7', 'Dm7', 'Gm7', 'C7', 'Am7', 'D7', 'Bbmaj7', 'Bbm6', 'F6', 'Em7b5', 'A7', 'Eb7', 'G9', 'C13'];

/** So many chords, hardly a pair of them twice. */
const chain = (chords: number, pool: readonly string[] = POOL): string[] =>
  Array.from({ length: chords }, (_, i) => pool[(i * 5 + (i >> 3)) % pool.length]);

/** The register of block chords in the left hand, as MIDI numbers and as names. */
const REGISTER = { low: 41, high: 67, names: ['F2', 'G4'] } as const;

const strikesOf = (symbols: readonly string[]): Strike[] =>
  symbols.map((symbol, i) => {
    const at = i * 2 * TICKS_PER_QUARTER;
    return { at, length: 2 * TICKS_PER_QUARTER, symbol, restruck: false, beat: TICKS_PER_QUARTER, writtenAt: at };
  });
const WISHES: VoicingWishes = { hands: handsOf(), pins: new Map(), schoolAt: () => 'close', bassAt: () => 'free' };

/** Our own path, without a tune over it. */
const own = (symbols: readonly string[]): number[][] =>
  voiceLeftHand(strikesOf(symbols), [], WISHES).chords.map((c) => c.pitches.map(midiOf));

/** What is done by feel: from each chord to that close inversion of the next that lies nearest. */
function greedy(symbols: readonly string[]): number[][] {
  const chords: number[][] = [];
  for (const symbol of symbols) {
    const all = inversions(symbol);
    const last = chords.at(-1);
    const middle = (g: readonly number[]) => Math.abs(g[0] - 48);
    const price = (g: readonly number[]) => (last ? motionBetween(last, g) : middle(g));
    chords.push(all.reduce((best, g) => (price(g) < price(best) ? g : best), all[0]));
  }
  return chords;
}

/** Every close inversion of a chord in the register, all of its tones up to four. */
function inversions(symbol: string): number[][] {
  const chord = parseChord(symbol);
  if (chord.kind !== 'chord') return [];
  const classes = chord.tones.slice(0, 4).map((t) => midiOf(`${t.name}4`) % 12);
  const found: number[][] = [];
  for (let low = REGISTER.low; low <= REGISTER.high; low++) {
    if (!classes.includes(low % 12)) continue;
    const grip = classes.map((c) => low + ((((c - low) % 12) + 12) % 12)).sort((a, b) => a - b);
    if (grip[grip.length - 1] <= REGISTER.high) found.push(grip);
  }
  return found;
}

/** True where tonal has a voicing of a chord in the register. */
const isKnown = (symbol: string): boolean => Voicing.search(symbol, [...REGISTER.names], VoicingDictionary.all).length > 0;

/** Tonal's own voicings of the same chords, led by their top notes. */
const tonal = (symbols: readonly string[]): number[][] =>
  Voicing.sequence([...symbols], [...REGISTER.names], VoicingDictionary.all, VoiceLeading.topNoteDiff).map((pitches) =>
    pitches.map(midiOf),
  );

const travel = (chords: readonly (readonly number[])[]): number =>
  chords.slice(1).reduce((sum, chord, i) => sum + motionBetween(chords[i], chord), 0);

/** The voicing path beside the nearest inversion each time and tonal's voice leading: half steps of motion, and time. */
export function voicings(): Row[] {
  const rows: Row[] = [];
  const songs: [string, readonly string[]][] = [
    ...DEMOS.map((name): [string, string[]] => [demo(name).song.title, symbolsOf(demo(name))]),
    ['128 chords', chain(128)],
  ];
  for (const [name, symbols] of songs) {
    const ours = travel(own(symbols));
    const near = greedy(symbols);
    const nearest = travel(near);
    const muddy = near.filter((chord) => muddiness(chord) > 0).length;
    // Tonal has no voicing for some chords; both are compared on those that it has.
    const known = symbols.filter(isKnown);
    const theirs = travel(tonal(known));
    rows.push({
      what: `${name}: half steps of motion`,
      measured: `${ours}`,
      against: `nearest inversion each time ${nearest} (${ratio(nearest, ours)}), ${muddy} of its chords too low to be clear`,
    });
    rows.push({
      what: `${name}: of the ${known.length} chords of ${symbols.length} that tonal voices`,
      measured: `${travel(own(known))}`,
      against: `tonal ${theirs} (${ratio(theirs, travel(own(known)))})`,
    });
  }
  const [path, near, theirs] = [own, greedy, tonal].map((voice) => median(9, () => voice(chain(128, POOL.filter(isKnown)))));
  rows.push({ what: 'voicing, 128 chords, all candidates', measured: ms(path), against: '60 ms' });
  rows.push({ what: 'the same by the nearest inversion each time', measured: ms(near), against: `${ratio(path, near)} as fast` });
  rows.push({ what: 'the same by tonal', measured: ms(theirs), against: `ours takes ${ratio(path, theirs)}` });
  const many = median(5, () => own(chain(1024)));
  rows.push({ what: 'voicing, 1,024 chords', measured: ms(many), against: `${ratio(many, path)}, for 8 × the chords` });
  return rows;
}

const symbolsOf = (doc: Document): string[] =>
  resolveChords(doc)
    .map((c) => c.symbol)
    .filter((s) => parseChord(s).kind === 'chord');
