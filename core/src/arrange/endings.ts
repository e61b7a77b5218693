import { plainRoot } from '../harmony/naming.js';
import { parseChord } from '../harmony/symbol.js';
import { nameOf, pitchClass, transposeName, type Pitch } from '../pitch/pitch.js';
import type { Ending } from '../song/decisions.js';
import type { TickRange } from '../song/edits.js';
import type { MelodyNote } from '../song/song.js';
import { barAt, type Bar } from '../time/bars.js';
import { beatTicks } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';
import type { ChordFact } from '../harmony/choices.js';
import type { HarmonisedChord } from './harmonise.js';
import { stretchAt, type Settings } from './settings.js';

/** A chord as it is struck, with the place where it is written. */
export type TimedChord = HarmonisedChord & { readonly writtenAt: Ticks };

/** Why an ending cannot be played as it was asked for. */
export type EndingObstacle =
  | { readonly code: 'ending.no-third'; readonly symbol: string }
  | { readonly code: 'ending.too-short'; readonly symbol: string }
  | { readonly code: 'ending.third-in-melody'; readonly pitch: Pitch }
  | { readonly code: 'ending.nothing-follows' }
  | { readonly code: 'ending.already-there'; readonly symbol: string };

/** An ending that could not be played as it was asked for. */
export interface EndingTrouble {
  readonly at: Ticks;
  readonly obstacle: EndingObstacle;
}

/** Beats that a chord must last for an ending: a beat for what is added, and one for what was there. */
const LEAST_BEATS = 2;

/**
 * The chords with the endings that were asked for: the last chord of a part suspended, fourth then second, before it comes to rest;
 * or a dominant in its last beats that turns back to what follows.
 */
export function withEndings(
  settings: Settings,
  chords: readonly TimedChord[],
  stretches: readonly TickRange[],
  tune: readonly MelodyNote[],
  bars: readonly Bar[],
): { readonly chords: readonly TimedChord[]; readonly troubles: readonly EndingTrouble[] } {
  if (settings.stretches.every((s) => s.ending === 'plain')) return { chords, troubles: [] };
  const troubles: EndingTrouble[] = [];
  const added: TimedChord[] = [];
  const replaced = new Set<Ticks>();
  stretches.forEach((stretch, i) => {
    const wish = stretchAt(settings, stretch.start).ending;
    const last = chords.findLast((c) => c.at < stretch.end);
    if (wish === 'plain' || !last) return;
    const at = Math.max(last.at, stretch.start);
    const made =
      wish === 'suspended'
        ? suspended(last, at, stretch.end, tune, bars)
        : turnedBack(
            wish,
            last,
            at,
            stretch.end,
            i === stretches.length - 1 ? chords[0] : following(chords, last, stretch.end),
            bars,
          );
    if (!Array.isArray(made)) {
      troubles.push({ at, obstacle: made });
      return;
    }
    if (at === last.at && made[0].at === at) replaced.add(at);
    added.push(...made);
  });
  const taken = new Set(added.map((c) => c.at));
  const whole = [...chords.filter((c) => !replaced.has(c.at) && !taken.has(c.at)), ...added].sort((a, b) => a.at - b.at);
  return { chords: whole, troubles };
}

/** The chord that sounds as the next part begins; one that goes on from before is struck again there. */
function following(chords: readonly TimedChord[], last: TimedChord, end: Ticks): TimedChord {
  return chords.find((c) => c.at === end) ?? { ...last, at: end, writtenAt: end };
}

/** The chord with its third held back: fourth, second, third; what stands in the way where it cannot be. */
function suspended(
  chord: TimedChord,
  at: Ticks,
  end: Ticks,
  tune: readonly MelodyNote[],
  bars: readonly Bar[],
): TimedChord[] | EndingObstacle {
  const parsed = parseChord(chord.symbol);
  const third = parsed.kind === 'chord' ? parsed.tones.find((t) => t.degree === 3) : undefined;
  if (parsed.kind !== 'chord' || !third) return { code: 'ending.no-third', symbol: chord.symbol };
  const beat = beatTicks(barAt(bars, at).meter);
  const beats = Math.floor((end - at) / beat);
  if (beats < LEAST_BEATS) return { code: 'ending.too-short', symbol: chord.symbol };
  const until = at + Math.min(2, beats - 1) * beat;
  const sung = tune.find((n) => n.at < until && n.at + n.length > at && pitchClass(nameOf(n.pitch)) === pitchClass(third.name));
  if (sung) return { code: 'ending.third-in-melody', pitch: sung.pitch };
  const bass = parsed.bass ? `/${parsed.bass}` : '';
  const fourth = {
    ...chord,
    at,
    writtenAt: at === chord.at ? chord.writtenAt : at,
    symbol: `${parsed.root}sus4${bass}`,
    why: [{ code: 'chord.fourth-holds' } as const],
  };
  const second = {
    ...chord,
    at: at + beat,
    writtenAt: at + beat,
    symbol: `${parsed.root}sus2${bass}`,
    why: [{ code: 'chord.fourth-falls' } as const],
  };
  const rest = {
    ...chord,
    at: until,
    writtenAt: until,
    why: [{ code: 'chord.third-arrives', third: third.name } as const, ...chord.why],
  };
  return beats > LEAST_BEATS ? [fourth, second, rest] : [fourth, rest];
}

/** A dominant in the last beats of a part that leads to what comes next; what stands in the way where there is no room. */
function turnedBack(
  wish: Exclude<Ending, 'plain' | 'suspended'>,
  chord: TimedChord,
  at: Ticks,
  end: Ticks,
  next: TimedChord,
  bars: readonly Bar[],
): TimedChord[] | EndingObstacle {
  const target = parseChord(next.symbol);
  if (target.kind !== 'chord') return { code: 'ending.nothing-follows' };
  const beat = beatTicks(barAt(bars, end - 1).meter);
  const beats = Math.floor((end - at) / beat);
  if (beats < LEAST_BEATS) return { code: 'ending.too-short', symbol: chord.symbol };
  const root = plainRoot(transposeName(target.root, wish === 'dominant' ? '5P' : '2m'));
  const symbol = `${root}7`;
  if (symbol === chord.symbol) return { code: 'ending.already-there', symbol };
  const place = end - (beats >= 4 ? 2 : 1) * beat;
  const to = next.at < end ? null : target.text;
  const why: ChordFact[] = [{ code: 'chord.turns-back', by: wish === 'dominant' ? 'dominant' : 'half-step', to }];
  const back = { ...chord, at: place, writtenAt: place, symbol, why };
  return next.at === end && next.writtenAt === end && next.symbol === chord.symbol ? [back, next] : [back];
}
