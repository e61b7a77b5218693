import { KEY_NAMES } from '../pitch/note-names.js';
import { midiOf, pitchClass, type NoteName } from '../pitch/pitch.js';
import type { Ticks } from '../time/ticks.js';
import { misfitOf, weigh, weighSlots, type Slot, type TuneNote } from './fit.js';
import type { Key } from './key.js';
import { pacesOfParts, type PacedTune, type PartPace } from './pace.js';
import { asKeyChord, endingCost, progressionCost } from './progression.js';
import { parseChord } from './symbol.js';
import { keyChords, type ChordFunction, type KeyChord } from './vocabulary.js';

/** What a chord does in its place: for the tune above it, in its key, and on its way to the next. */
export type ChordFact =
  | { readonly code: 'chord.none' }
  | { readonly code: 'chord.holds'; readonly inside: readonly NoteName[]; readonly outside: readonly NoteName[] }
  | { readonly code: 'chord.function'; readonly what: ChordFunction }
  | { readonly code: 'chord.leads-to'; readonly to: string }
  | { readonly code: 'chord.falls-a-fifth'; readonly to: string }
  | { readonly code: 'chord.follows'; readonly from: string }
  | { readonly code: 'chord.ends'; readonly on: 'home' | 'dominant' | 'elsewhere' }
  | { readonly code: 'chord.as-triad'; readonly symbol: string }
  | { readonly code: 'chord.fourth-holds' }
  | { readonly code: 'chord.fourth-falls' }
  | { readonly code: 'chord.third-arrives'; readonly third: NoteName }
  /** How often the chords of the part that begins here change. */
  | { readonly code: 'chord.pace'; readonly pace: PartPace['pace'] }
  /** `to` is the chord that follows, or null where the song turns back to its start. */
  | { readonly code: 'chord.turns-back'; readonly by: 'dominant' | 'half-step'; readonly to: string | null };

/** Another chord for a place, its neighbours staying as they are. */
export interface ChordChoice {
  readonly symbol: string;
  /** What it costs against the chord that stands there, in weighted beats outside the chord; below 0 it fits better. */
  readonly cost: number;
  readonly why: readonly ChordFact[];
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
  readonly why: readonly ChordFact[];
  readonly others: readonly ChordChoice[];
}

const CHOICES = 3;

/** Weighs every chord of a row against the tune and ranks what else could stand in its place. */
export function weighChords(song: PacedTune, chords: readonly StandingChord[]): WeighedChord[] {
  const surroundings = surround(song, chords);
  return chords.map((standing, i): WeighedChord => {
    const { now, here } = surroundings(i);
    const base = now === null ? 0 : standingCost(now, here);
    return {
      ...standing,
      why: now === null ? [{ code: 'chord.none' }] : chordReason(now, here),
      others: rivalsOf(standing, here)
        .slice(0, CHOICES)
        .map(({ c, cost }) => ({
          symbol: c.symbol,
          cost: Math.round((cost - base) * 100) / 100,
          why: chordReason(c, { ...here, opens: null }),
        })),
    };
  });
}

/** What stands in each place of a row and around it. */
function surround(song: PacedTune, chords: readonly StandingChord[]) {
  const slots = weighSlots(
    song.tune,
    song.bars,
    chords.map((c) => ({ from: c.at, to: c.at + c.length })),
  );
  const closing = closingChords(song.tune, chords, song.ends);
  const paces = pacesOfParts(song, chords);
  const partAt = (at: Ticks) => paces.find((p) => at < p.end) ?? null;
  const known = chords.map((c) => asKeyChord(c.symbol, c.key));
  return (i: number): { readonly now: KeyChord | null; readonly here: Surroundings } => {
    const part = partAt(chords[i].at);
    const next = chords[i + 1];
    const opens = part !== null && partAt(chords[i - 1]?.at ?? -1) !== part;
    return {
      now: known[i],
      here: {
        slot: slots[i],
        key: chords[i].key,
        before: known[i - 1] ?? null,
        next: known[i + 1] ?? null,
        changes: [part?.change(chords[i].at) ?? 0, next ? (partAt(next.at)?.change(next.at) ?? 0) : 0],
        opens: opens || i === 0 ? (part?.pace ?? null) : null,
        ends: closing.get(i) ?? null,
      },
    };
  };
}

/**
 * What else could stand in a place, the cheapest first: one chord on each root but the root that stands there, since another kind of the
 * same chord is no other chord.
 */
function rivalsOf({ symbol, key }: StandingChord, here: Surroundings): { readonly c: KeyChord; readonly cost: number }[] {
  const standing = parseChord(symbol);
  const roots = new Set(standing.kind === 'chord' ? [pitchClass(standing.root)] : []);
  return keyChords(key, 'rich')
    .map((c) => ({ c, cost: standingCost(c, here) }))
    .sort((a, b) => a.cost - b.cost)
    .filter(({ c }) => {
      const root = pitchClass(c.chord.root);
      return !roots.has(root) && roots.add(root);
    });
}

interface Surroundings {
  readonly slot: Slot;
  readonly key: Key;
  readonly before: KeyChord | null;
  readonly next: KeyChord | null;
  /** What it costs at the pace of the part to change to another chord here, and after it. */
  readonly changes: readonly [number, number];
  /** The pace of the part that begins with this chord; null elsewhere. */
  readonly opens: PartPace['pace'] | null;
  /** The pitch class of the tune's note where a part ends here; null elsewhere. */
  readonly ends: number | null;
}

/**
 * What a chord is charged for in its place: melody notes outside it, its colour, the changes to it and from it at the pace of its part, the
 * way to it and from it, how it ends a part.
 */
export interface ChordTerm {
  readonly term: 'misfit' | 'price' | 'changes' | 'from' | 'to' | 'ending';
  /** In weighted beats of a note outside its chord. */
  readonly cost: number;
}

function standingTerms(chord: KeyChord, { slot, key, before, next, changes, ends }: Surroundings): ChordTerm[] {
  const changing =
    (before && before.symbol !== chord.symbol ? changes[0] : 0) + (next && next.symbol !== chord.symbol ? changes[1] : 0);
  return [
    { term: 'misfit', cost: weigh(slot.weights, misfitOf(chord.chord)) },
    { term: 'price', cost: chord.price },
    { term: 'changes', cost: changing },
    ...(before ? [{ term: 'from' as const, cost: progressionCost(before, chord) }] : []),
    ...(next ? [{ term: 'to' as const, cost: progressionCost(chord, next) }] : []),
    ...(ends !== null ? [{ term: 'ending' as const, cost: endingCost(chord, ends, key) }] : []),
  ];
}

const standingCost = (chord: KeyChord, here: Surroundings): number =>
  standingTerms(chord, here).reduce((sum, t) => sum + t.cost, 0);

/** A chord that stands and the nearest other for its place, each with its cost term by term; null where no chord sounds. */
export interface ExplainedChord {
  readonly symbol: string;
  readonly terms: readonly ChordTerm[];
  readonly rival: { readonly symbol: string; readonly terms: readonly ChordTerm[] } | null;
}

/** What decided for the chord at an index of a row, against the others that could stand there or one that is asked about. */
export function explainChord(
  song: PacedTune,
  chords: readonly StandingChord[],
  index: number,
  against?: string,
): ExplainedChord | null {
  const standing = chords[index];
  if (!standing) return null;
  const { now, here } = surround(song, chords)(index);
  if (!now) return null;
  const [rival] = against
    ? [asKeyChord(against, standing.key)].filter((c) => c !== null)
    : rivalsOf(standing, here).map(({ c }) => c);
  return {
    symbol: now.symbol,
    terms: standingTerms(now, here),
    rival: rival ? { symbol: rival.symbol, terms: standingTerms(rival, here) } : null,
  };
}

/** Indices of the chords under the last note of a part, with the pitch class of the note. */
function closingChords(tune: readonly TuneNote[], chords: readonly StandingChord[], ends: readonly Ticks[]): Map<number, number> {
  const closing = new Map<number, number>();
  let n = 0;
  let c = 0;
  for (const end of ends) {
    while (n < tune.length && tune[n].at < end) n++;
    if (n === 0) continue;
    while (c + 1 < chords.length && chords[c + 1].at <= tune[n - 1].at) c++;
    closing.set(c, midiOf(tune[n - 1].pitch) % 12);
  }
  return closing;
}

/** Share of the tune's weight below which a note is not worth naming. */
const WORTH_NAMING = 0.15;

/** What a chord does in its place. */
function chordReason(chord: KeyChord, { slot, before, next, opens, ends }: Surroundings): ChordFact[] {
  const costs = misfitOf(chord.chord);
  const all = slot.weights.reduce((sum, w) => sum + w, 0);
  const heard = [...slot.weights.keys()]
    .filter((pc) => slot.weights[pc] > WORTH_NAMING * all)
    .sort((a, b) => slot.weights[b] - slot.weights[a]);
  const name = (pc: number) => chord.chord.tones.find((t) => pitchClass(t.name) === pc)?.name ?? KEY_NAMES[pc];
  const inside = heard.filter((pc) => costs[pc] === 0).map(name);
  const outside = heard.filter((pc) => costs[pc] > 0).map(name);
  const facts: ChordFact[] = [];
  if (heard.length > 0) facts.push({ code: 'chord.holds', inside, outside });
  facts.push({ code: 'chord.function', what: chord.what });
  const root = next ? pitchClass(next.chord.root) : -1;
  if (next && chord.leadsTo?.includes(root)) facts.push({ code: 'chord.leads-to', to: next.symbol });
  else if (next && (root - pitchClass(chord.chord.root) + 12) % 12 === 5)
    facts.push({ code: 'chord.falls-a-fifth', to: next.symbol });
  else if (before?.leadsTo?.includes(pitchClass(chord.chord.root))) facts.push({ code: 'chord.follows', from: before.symbol });
  if (ends !== null)
    facts.push({ code: 'chord.ends', on: chord.degree === 1 ? 'home' : chord.role === 'dominant' ? 'dominant' : 'elsewhere' });
  if (opens !== null) facts.push({ code: 'chord.pace', pace: opens });
  return facts;
}
