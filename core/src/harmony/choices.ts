import { pitchClass } from '../pitch/pitch.js';
import type { Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { misfitOf, weigh, weighSlots, type Slot, type TuneNote } from './fit.js';
import type { Key } from './key.js';
import { asKeyChord, endingCost, progressionCost } from './progression.js';
import { keyChords, type KeyChord } from './vocabulary.js';

/** Another chord for a place, its neighbours staying as they are. */
export interface ChordChoice {
  readonly symbol: string;
  /** What it costs against the chord that stands there, in weighted beats outside the chord; below 0 it fits better. */
  readonly cost: number;
  readonly why: string;
}

/** A chord that stands, with the stretch it holds for and the key it is heard in. */
export interface StandingChord {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly symbol: string;
  readonly key: Key;
}

/** A chord that stands with its reason and the best others for its place, the nearest first. */
export interface WeighedChord extends StandingChord {
  /** What it does for the tune and where it leads. */
  readonly why: string;
  readonly others: readonly ChordChoice[];
}

const CHOICES = 3;

/** Weighs every chord of a row against the tune and ranks what else could stand in its place. */
export function weighChords(
  tune: readonly TuneNote[],
  bars: readonly Bar[],
  chords: readonly StandingChord[],
  ends: readonly Ticks[],
): WeighedChord[] {
  const stretches = chords.map((c) => ({ from: c.at, to: c.at + c.length }));
  const slots = weighSlots(tune, bars, stretches);
  const closing = closingChords(tune, chords, ends);
  const known = chords.map((c) => asKeyChord(c.symbol, c.key));
  return chords.map((standing, i): WeighedChord => {
    const here = { slot: slots[i], before: known[i - 1] ?? null, next: known[i + 1] ?? null, ends: closing.has(i) };
    const now = known[i];
    const base = now === null ? 0 : standingCost(now, here);
    const others = keyChords(standing.key, 'rich')
      .filter((c) => c.symbol !== standing.symbol)
      .map((c) => ({ c, cost: standingCost(c, here) - base }))
      .sort((a, b) => a.cost - b.cost);
    return {
      ...standing,
      why: now === null ? 'No chord sounds here.' : chordReason(now, here),
      others: others.slice(0, CHOICES).map(({ c, cost }) => ({
        symbol: c.symbol,
        cost: Math.round(cost * 100) / 100,
        why: chordReason(c, here),
      })),
    };
  });
}

interface Surroundings {
  readonly slot: Slot;
  readonly before: KeyChord | null;
  readonly next: KeyChord | null;
  readonly ends: boolean;
}

function standingCost(chord: KeyChord, { slot, before, next, ends }: Surroundings): number {
  let cost = weigh(slot.weights, misfitOf(chord.chord)) + chord.price;
  if (before) cost += progressionCost(before, chord);
  if (next) cost += progressionCost(chord, next);
  if (ends) cost += endingCost(chord);
  return cost;
}

/** Indices of the chords under the last note of a part. */
function closingChords(tune: readonly TuneNote[], chords: readonly StandingChord[], ends: readonly Ticks[]): Set<number> {
  const closing = new Set<number>();
  let n = 0;
  let c = 0;
  for (const end of ends) {
    while (n < tune.length && tune[n].at < end) n++;
    if (n === 0) continue;
    while (c + 1 < chords.length && chords[c + 1].at <= tune[n - 1].at) c++;
    closing.add(c);
  }
  return closing;
}

const NAMES = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

/** Share of the tune's weight below which a note is not worth naming. */
const WORTH_NAMING = 0.15;

/** What a chord does in its place, in a sentence or two. */
function chordReason(chord: KeyChord, { slot, before, next, ends }: Surroundings): string {
  const costs = misfitOf(chord.chord);
  const all = slot.weights.reduce((sum, w) => sum + w, 0);
  const heard = [...slot.weights.keys()]
    .filter((pc) => slot.weights[pc] > WORTH_NAMING * all)
    .sort((a, b) => slot.weights[b] - slot.weights[a]);
  const inside = heard.filter((pc) => costs[pc] === 0);
  const outside = heard.filter((pc) => costs[pc] > 0);
  const name = (pc: number) => chord.chord.tones.find((t) => pitchClass(t.name) === pc)?.name ?? NAMES[pc];
  const row = (pcs: readonly number[]) => pcs.map(name).join(pcs.length > 2 ? ', ' : ' and ');
  const said: string[] = [];
  if (inside.length > 0) said.push(`Holds ${row(inside)} of the tune${outside.length > 0 ? `, not ${row(outside)}` : ''}`);
  else if (outside.length > 0) said.push(`Holds none of the tune's ${row(outside)}`);
  said.push(chord.what);
  const root = next ? pitchClass(next.chord.root) : -1;
  if (next && chord.leadsTo?.includes(root)) said.push(`it leads on to ${next.symbol}`);
  else if (next && (root - pitchClass(chord.chord.root) + 12) % 12 === 5) said.push(`its root falls a fifth to ${next.symbol}`);
  else if (before?.leadsTo?.includes(pitchClass(chord.chord.root))) said.push(`${before.symbol} leads into it`);
  if (ends)
    said.push(
      chord.degree === 1
        ? 'the part ends at home'
        : chord.role === 'dominant'
          ? 'the part ends open, on the dominant'
          : 'the part ends away from home',
    );
  const [first, ...rest] = said;
  return `${[first[0].toUpperCase() + first.slice(1), ...rest].join('; ')}.`;
}
