import type { Arrangement, Part, ScoreNote } from '@joined-hands/core/arrange';
import { soundsUntil } from '@joined-hands/core/fills';
import { midiOf } from '@joined-hands/core/pitch';
import { plainScore } from '@joined-hands/core/practice';
import { GRACE_SECONDS } from '@joined-hands/core/song';
import { barAt, beatTicks, heardIn, offsetInBar, placeAfter, secondsTo, toSeconds, unswung } from '@joined-hands/core/time';

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
  /** The place in the song, in ticks, that sounds some seconds after the music began. */
  readonly placeAt: (seconds: number) => number;
}

export interface ScheduleOptions {
  /** Whose keys sound; none where only the click is heard. */
  readonly hands: 'right' | 'left' | 'both' | 'none';
  /** The plain chords in place of the texture they are dressed in. */
  readonly plain: boolean;
  /** This part alone, or all parts up to it back to back. */
  readonly scope: 'part' | 'to-here';
  /** Quarter notes a minute. */
  readonly tempo: number;
  readonly countIn: boolean;
  readonly click: boolean;
}

/** Both hands with every layer at a share of the song's tempo, in percent, without count-in or click. */
export function asArranged({ song }: Arrangement, percent: number): Omit<ScheduleOptions, 'scope'> {
  return { hands: 'both', plain: false, tempo: (song.tempo * percent) / 100, countIn: false, click: false };
}

/** Seconds that a key is let go before the next, so that repeated notes speak. */
const LIFT = 0.03;

type AudibleNote = Pick<ScoreNote, 'hand' | 'at' | 'length' | 'pitch' | 'loudness' | 'touch' | 'graces'>;

/** Plans what is heard of an arrangement up to and including one part. */
export function scheduleSounds(arrangement: Arrangement, part: Part, options: ScheduleOptions): Plan {
  return scheduleStretch(arrangement, options.scope === 'part' ? part.start : 0, part.end, options);
}

/** Plans what is heard from one place to another, in ticks; with notes that are only tried, if there are any. */
export function scheduleStretch(
  arrangement: Arrangement,
  from: number,
  to: number,
  options: Omit<ScheduleOptions, 'scope'>,
  tried: readonly AudibleNote[] = [],
): Plan {
  const steady = (ticks: number) => toSeconds(ticks, options.tempo);
  const heardAt = heardIn(arrangement);
  const start = secondsTo(heardAt(from), arrangement.tempo, options.tempo);
  /** Seconds from the start of what is heard to a place. */
  const time = (at: number) => secondsTo(heardAt(at), arrangement.tempo, options.tempo) - start;
  const placeAt = (seconds: number) =>
    unswung(placeAfter(start + seconds, arrangement.tempo, options.tempo), arrangement.bars, arrangement.swing);
  const first = barAt(arrangement.bars, from);
  const beat = beatTicks(first.meter);
  const sounds: Sound[] = [];
  let lead = 0;
  if (options.countIn) {
    // One full bar is counted, then up to where the music enters in its own bar.
    const whole = first.end - first.start + first.lead;
    const ticks = whole + offsetInBar(first, from);
    lead = steady(ticks);
    for (let at = 0; at < ticks; at += beat) sounds.push(clickAt(steady(at), at % whole === 0));
  }
  if (options.click) {
    for (const bar of arrangement.bars) {
      const step = beatTicks(bar.meter);
      for (let at = bar.start - bar.lead; at < bar.end; at += step)
        if (at >= from && at < to) sounds.push(clickAt(lead + time(at), at === bar.start - bar.lead));
    }
  }
  for (const n of [...(options.plain ? plainScore(arrangement) : arrangement.score), ...tried]) {
    if (n.at < from || n.at >= to) continue;
    if (options.hands !== 'both' && n.hand !== options.hands) continue;
    if (n.graces) sounds.push(...graceSounds(n.graces.map(midiOf), lead + time(n.at)));
    const until = soundsUntil(n, options.plain ? [] : arrangement.pedal);
    sounds.push({
      time: lead + time(n.at),
      duration: Math.max(0.08, time(until) - time(n.at) - LIFT),
      midi: midiOf(n.pitch),
      loudness: n.loudness,
    });
  }
  sounds.sort((a, b) => a.time - b.time);
  return { sounds, lead, length: lead + time(to), from, placeAt };
}

/** How loud a small note is. */
const GRACE_LOUDNESS = 0.55;

/** Small notes before one of the tune, quickly one after another; before the music begins there is no time for them. */
function graceSounds(midis: readonly number[], before: number): Sound[] {
  return midis
    .map((midi, i) => ({
      time: before - (midis.length - i) * GRACE_SECONDS,
      duration: GRACE_SECONDS,
      midi,
      loudness: GRACE_LOUDNESS,
    }))
    .filter((s) => s.time >= 0);
}

function clickAt(time: number, strong: boolean): Sound {
  return { time, duration: 0.03, midi: null, loudness: strong ? 0.9 : 0.5 };
}
