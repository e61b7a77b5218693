import { findCollisions, findCrowding, type Collision } from '../join/collisions.js';
import { findDoublings } from '../join/doublings.js';
import { isHardJump } from '../join/jumps.js';
import type { NotesOver } from '../join/conflicts.js';
import { isPlayedAsVoiced } from '../left-hand/voice.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { placeOf } from '../time/bars.js';
import { finding, type Examined, type Finding } from './finding.js';
import { stretchAt } from './settings.js';
import { advice, octaveUpFix, separationFixes, type Fix } from './fixes.js';

/** How the two hands lie to each other: where they meet, crowd, double or jump. */
export function checkJoin(examined: Examined, over: readonly NotesOver[]): Finding[] {
  return [...checkRoom(examined, over), ...checkJumps(examined), ...checkDoublings(examined)];
}

/** Where the hands are in each other's way; crowding is told only where no two notes meet. */
function checkRoom(examined: Examined, over: readonly NotesOver[]): Finding[] {
  const { chords, right, places, bars, settings } = examined;
  const around = new Map(over.map((o) => [o.chord.at, o]));
  const met = findCollisions(chords, right);
  const struck = new Set(met.map((c) => c.chord.at));
  const crowded = findCrowding(
    chords.filter((c) => !struck.has(c.at) && isPlayedAsVoiced(c)),
    places,
  );
  return [...met, ...crowded].map((c) => {
    const { kind, left, right: above } = c;
    const fact = { code: 'finding.collision', place: placeOf(bars, c.at), kind, left, right: above } as const;
    // Another place helps where the chord is struck as it lies, and clears what it is in the way of.
    const below = midiOf(above);
    const helps = (midis: readonly number[]) => midis[midis.length - 1] < below;
    const apart = isPlayedAsVoiced(c.chord) ? separationFixes(around.get(c.chord.at) as NotesOver, settings.hands, helps) : [];
    const rule = c.kind === 'space' ? 'crowded' : `collision-${c.kind}`;
    const told = finding(examined, c.at, rule, SEVERITY[c.kind], fact, [...apart, ...tuneUp(examined, c.at)], c.chord.at);
    return { ...told, keys: [c.left, c.right], ...(kind === 'space' ? { concerns: `${left} ${above}` } : {}) };
  });
}

const SEVERITY: Readonly<Record<Collision['kind'], Finding['severity']>> = {
  'same-key': 'fix',
  crossing: 'fix',
  close: 'warn',
  space: 'note',
};

/** The tune of the part an octave higher, as far as tunes go up. */
function tuneUp({ settings, parts, partOf }: Examined, at: number): Fix[] {
  const part = parts.find((p) => p.number === partOf(at));
  const octaves = stretchAt(settings, at).octave;
  return part && octaves < 2 ? [octaveUpFix(part, octaves)] : [];
}

/** Jumps that are far and fast; of a row of them in a part, each. */
function checkJumps(examined: Examined): Finding[] {
  const { jumps, bars, settings } = examined;
  return jumps.filter(isHardJump).map((jump) => {
    const fact = { code: 'finding.jump', place: placeOf(bars, jump.at), jump } as const;
    const ways = [
      ...(jump.hand === 'left' && stretchAt(settings, jump.at).school !== 'close' ? [advice('nearest-inversion')] : []),
      advice('slower-tempo'),
    ];
    return {
      ...finding(examined, jump.at, 'jump', 'note', fact, ways),
      chordAt: jump.hand === 'left' ? jump.at : null,
      concerns: `${jump.hand} ${jump.from} ${jump.to}`,
    };
  });
}

/** Notes that both hands play for no gain. */
function checkDoublings(examined: Examined): Finding[] {
  const { chords, tune, bars } = examined;
  return findDoublings(chords.filter(isPlayedAsVoiced), tune).map((d) => {
    const pitches = d.chord.pitches.filter((p) => p !== d.left);
    const { chord, left, right } = d;
    const fix: Fix = {
      fact: { code: 'fix.leave-out', name: nameOf(left), pitches },
      action: { code: 'edit.voicing', at: chord.writtenAt, pitches },
    };
    const where = { symbol: chord.symbol, place: placeOf(bars, chord.at) };
    const fact = { code: 'finding.doubled', left, right, ...where } as const;
    return { ...finding(examined, chord.at, 'doubled', 'note', fact, [fix]), concerns: `${chord.pitches.join(' ')} ${right}` };
  });
}
