import { parseChord } from '../harmony/symbol.js';
import { findCollisions } from '../join/collisions.js';
import { notesOver } from '../join/conflicts.js';
import { voicingsFor, type Voicing } from '../left-hand/candidates.js';
import { CLEAR_OF_TUNE, VOICING_COSTS, motionBetween, muddiness } from '../left-hand/costs.js';
import { cheapestPath } from '../left-hand/path.js';
import { midiOf } from '../pitch/pitch.js';
import { KEYBOARDS, type Document } from '../song/decisions.js';
import type { Edit } from '../song/edit.js';
import { settingAt } from '../song/edits.js';
import type { Arrangement, PartChord } from './arrangement.js';
import { octaveUpFix, type Fix } from './fixes.js';

/** What putting a tune up an octave is worth against moving chords, in half steps of motion. */
const OCTAVE_PRICE = 24;

/** One way to play a chord: where it lies now (null), or a place that is clear of the tune. */
type Placement = { readonly voicing: Voicing | null; readonly midis: readonly number[]; readonly cost: number };

/**
 * The cheapest set of changes after which no two notes of the hands meet: for each part the chords in the way go to clear places,
 * by the exact least motion against the chords that stay, or the tune goes up an octave where that costs less or is the only way.
 * Null where the hands nowhere meet.
 */
export function fixAllCollisions(doc: Document, arrangement: Arrangement): Fix | null {
  const { parts, score, song, bars } = arrangement;
  const right = score.filter((n) => n.hand === 'right');
  const chords = parts.flatMap((p) => p.chords);
  const meeting = new Set(findCollisions(chords, right).map((c) => c.chord.at));
  if (meeting.size === 0) return null;
  const over = new Map(notesOver(chords, song.melody, bars).map((o) => [o.chord.at, o.notes.map((n) => n.note)]));
  const notesAt = (c: PartChord) => over.get(c.at) ?? [];
  const hanging = parts.flatMap((p) => p.under);
  const floor = (c: PartChord) =>
    Math.min(
      ...notesAt(c).map((n) => midiOf(n.pitch)),
      ...hanging.filter((u) => u.at < c.at + c.length && c.at < u.at + u.length).map((u) => midiOf(u.pitches[0])),
    );
  const ways = chords.map((chord) => (meeting.has(chord.at) ? clearWays(doc, chord, floor(chord)) : [asItLies(chord)]));
  const edits: Edit[] = [];
  let moved = 0;
  let motion = 0;
  const raised: number[] = [];
  for (const part of parts) {
    const from = chords.findIndex((c) => c.at >= part.start && c.at < part.end);
    const here = part.chords.map((_, k) => from + k);
    const mine = here.filter((i) => meeting.has(chords[i].at));
    if (mine.length === 0) continue;
    const price = mine.some((i) => ways[i].length === 0) ? Infinity : pathOf(chords, ways, here).cost - costNow(chords, here);
    // A note that is held over from another part would stay where it is.
    const own = mine.every((i) => notesAt(chords[i]).every((n) => n.at >= part.start && n.at < part.end));
    const clears = mine.every(
      (i) => midiOf(chords[i].pitches[chords[i].pitches.length - 1]) + CLEAR_OF_TUNE <= floor(chords[i]) + 12,
    );
    const octave = octaveUpFix(part, settingAt(doc, part.start, 'octave'));
    if (
      own &&
      clears &&
      price > OCTAVE_PRICE &&
      octave.action &&
      mayRise(
        doc,
        part.melody.map((n) => midiOf(n.pitch)),
      )
    ) {
      edits.push(octave.action);
      raised.push(part.number);
      continue;
    }
    const possible = here.filter((i) => ways[i].length > 0);
    const { choices } = pathOf(chords, ways, possible);
    possible.forEach((i, k) => {
      const { voicing, midis } = ways[i][choices[k]];
      if (!voicing) return;
      edits.push({ code: 'edit.voicing', at: chords[i].writtenAt, pitches: voicing.pitches });
      moved++;
      motion += i > 0 ? motionBetween(chords[i - 1].pitches.map(midiOf), midis) - chords[i].motion : 0;
    });
  }
  if (edits.length === 0) return null;
  return {
    fact: { code: 'fix.clear-all', chords: moved, motion, raised },
    action: { code: 'edit.several', as: { kind: 'clear-collisions' }, edits },
  };
}

const asItLies = (chord: PartChord): Placement => ({ voicing: null, midis: chord.pitches.map(midiOf), cost: 0 });

/** What a chord with a note less costs beside a full one. */
const FEWER_NOTES = 4;

/** The places of a chord that are clear of what the right hand plays over it. */
function clearWays(doc: Document, chord: PartChord, lowest: number): Placement[] {
  const parsed = parseChord(chord.symbol);
  if (parsed.kind !== 'chord') return [];
  return voicingsFor(parsed, doc.hands, 'close')
    .filter((v) => v.midis[v.midis.length - 1] <= lowest - CLEAR_OF_TUNE)
    .map((v) => ({
      voicing: v,
      midis: v.midis,
      cost: VOICING_COSTS.muddy * muddiness(v.midis) + FEWER_NOTES * Math.max(0, chord.pitches.length - v.midis.length),
    }));
}

/** The least motion through some chords, into the first and on from the last included. */
function pathOf(
  chords: readonly PartChord[],
  ways: readonly Placement[][],
  indexes: readonly number[],
): { choices: number[]; cost: number } {
  const neighbour = (i: number) => chords[i]?.pitches.map(midiOf) ?? null;
  const [before, after] = [neighbour(indexes[0] - 1), neighbour(indexes[indexes.length - 1] + 1)];
  const joins = (k: number, midis: readonly number[]) =>
    (k === 0 && before ? motionBetween(before, midis) : 0) +
    (k === indexes.length - 1 && after ? motionBetween(midis, after) : 0);
  return cheapestPath(
    indexes.map((i, k) => ({ size: ways[i].length, cost: (c: number) => ways[i][c].cost + joins(k, ways[i][c].midis) })),
    (k, a, b) => motionBetween(ways[indexes[k - 1]][a].midis, ways[indexes[k]][b].midis),
  );
}

const costNow = (chords: readonly PartChord[], indexes: readonly number[]): number =>
  [...indexes, indexes[indexes.length - 1] + 1].reduce((sum, i) => sum + (chords[i]?.motion ?? 0), 0);

/** True where notes an octave higher are still on the keyboard. */
function mayRise(doc: Document, midis: readonly number[]): boolean {
  return Math.max(...midis) + 12 <= KEYBOARDS[doc.hands.keys].high;
}
