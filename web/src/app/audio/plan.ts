import {
  LOUDNESS_OF_HANDS,
  barAt,
  beatTicks,
  midiOf,
  offsetInBar,
  soundsUntil,
  toSeconds,
  type Arrangement,
  type Part,
  type ScoreNote,
} from '@joined-hands/core';

/** A sound to come: a piano key or a click. Times are seconds from the start of the plan. */
export interface Sound {
  readonly time: number;
  readonly duration: number;
  /** MIDI number, or null for a click. */
  readonly midi: number | null;
  readonly loudness: number;
}

/** What is to be heard, and how its time maps to the song's. */
export interface Plan {
  readonly sounds: readonly Sound[];
  /** Seconds of count-in before the music. */
  readonly lead: number;
  readonly length: number;
  readonly from: number;
  /** Ticks that pass in a second. */
  readonly ticksPerSecond: number;
}

export interface PlanOptions {
  readonly hands: 'right' | 'left' | 'both';
  /** The plain chords in place of the texture they are dressed in. */
  readonly plain: boolean;
  /** This part alone, or all parts up to it back to back. */
  readonly scope: 'part' | 'to-here';
  /** Quarter notes a minute. */
  readonly tempo: number;
  readonly countIn: boolean;
  readonly click: boolean;
}

/** Seconds that a key is let go before the next, so that repeated notes speak. */
const LIFT = 0.03;

/** Plans what is heard of an arrangement up to and including one part. */
export function planSounds(arrangement: Arrangement, part: Part, options: PlanOptions): Plan {
  const from = options.scope === 'part' ? part.start : 0;
  const to = part.end;
  const seconds = (ticks: number) => toSeconds(ticks, options.tempo);
  const first = barAt(arrangement.bars, from);
  const beat = beatTicks(first.meter);
  const sounds: Sound[] = [];
  let lead = 0;
  if (options.countIn) {
    // One full bar is counted, then up to where the music enters in its own bar.
    const whole = first.end - first.start + first.lead;
    const ticks = whole + offsetInBar(first, from);
    lead = seconds(ticks);
    for (let at = 0; at < ticks; at += beat) sounds.push(clickAt(seconds(at), at % whole === 0));
  }
  if (options.click) {
    for (const bar of arrangement.bars) {
      const step = beatTicks(bar.meter);
      for (let at = bar.start - bar.lead; at < bar.end; at += step)
        if (at >= from && at < to) sounds.push(clickAt(lead + seconds(at - from), at === bar.start - bar.lead));
    }
  }
  for (const n of options.plain ? plainScore(arrangement) : arrangement.score) {
    if (n.at < from || n.at >= to) continue;
    if (options.hands !== 'both' && n.hand !== options.hands) continue;
    const until = options.plain ? n.at + n.length : soundsUntil(n, arrangement.pedal);
    sounds.push({
      time: lead + seconds(n.at - from),
      duration: Math.max(0.08, seconds(until - n.at) - LIFT),
      midi: midiOf(n.pitch),
      loudness: LOUDNESS_OF_HANDS[n.hand],
    });
  }
  sounds.sort((a, b) => a.time - b.time);
  const ticksPerSecond = 1 / seconds(1);
  return { sounds, lead, length: lead + seconds(to - from), from, ticksPerSecond };
}

/** What is played while a texture is still to come: the right hand as it is, the left hand's chords as they are voiced. */
function plainScore({ score, parts }: Arrangement): Pick<ScoreNote, 'hand' | 'at' | 'length' | 'pitch'>[] {
  const left = parts.flatMap((p) => p.chords.flatMap((c) => c.struck.map((n) => ({ ...n, hand: 'left' as const }))));
  const added = new Set(parts.flatMap((p) => p.under.filter((u) => u.added).map((u) => u.at)));
  return [...score.filter((n) => n.hand === 'right' && !(n.role === 'harmony' && added.has(n.at))), ...left];
}

function clickAt(time: number, strong: boolean): Sound {
  return { time, duration: 0.03, midi: null, loudness: strong ? 0.9 : 0.5 };
}
