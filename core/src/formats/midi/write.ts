import { plainMode, signatureOf } from '../../harmony/key.js';
import { GRACE_SECONDS, heldFor, type ShortTouch } from '../../song/touch.js';
import { midiOf, type Pitch } from '../../pitch/pitch.js';
import type { Reminder } from '../../song/decisions.js';
import type { Song } from '../../song/song.js';
import { countTicks } from '../../time/meter.js';
import type { TempoPoint } from '../../time/tempo.js';
import { TICKS_PER_QUARTER, type Ticks } from '../../time/ticks.js';
import { toBytes } from './text.js';
import { writtenPlace } from './written.js';
import { Midi } from './package.js';

/** A note to be played. */
export interface MidiNote {
  readonly hand: 'left' | 'right';
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitch: Pitch;
  /** From 0 to 1. */
  readonly loudness: number;
  /** Where its key is let go before its time. */
  readonly touch?: ShortTouch;
  /** Small notes that lead to it. */
  readonly graces?: readonly Pitch[];
}

/** A move of the pedal. */
export interface PedalMove {
  readonly at: Ticks;
  readonly kind: 'press' | 'change' | 'lift';
}

/** Share of a quarter note that the pedal is up where it changes. */
const LIFTED = 1 / 24;

/** Writes a Standard MIDI File, its notes where they are heard (where they stand, unless the song swings), of two tracks, right hand and left hand, with the course of the tempo, meter, key, loudness, and the pedal in both. */
export function writeMidi(
  song: Song,
  notes: readonly MidiNote[],
  pedal: readonly PedalMove[] = [],
  tempo: readonly TempoPoint[] = [{ at: 0, percent: 100 }],
  heardAt: (at: Ticks) => Ticks = (at) => at,
  reminders: readonly Reminder[] = [],
): Uint8Array {
  const ppq = resolution(notes);
  const ticks = (at: Ticks) => Math.round((at * ppq) / TICKS_PER_QUARTER);
  const midi = new Midi();
  midi.header.fromJSON({
    name: toBytes(song.title),
    ppq,
    // A word that goes on in the next syllable has a hyphen after it, any other a blank.
    meta: [
      ...song.melody.flatMap(({ at, lyric }) =>
        lyric ? [{ type: 'lyrics', ticks: ticks(at), text: toBytes(lyric.text + (lyric.joins ? '-' : ' ')) }] : [],
      ),
      ...reminders.map(({ at, text }) => ({ type: 'cuePoint', ticks: ticks(at), text: toBytes(text) })),
    ].sort((a, b) => a.ticks - b.ticks),
    tempos: tempo.map(({ at, percent }) => ({ ticks: ticks(at), bpm: (song.tempo * percent) / 100 })),
    timeSignatures: metersOf(song).map((m) => ({ ticks: ticks(m.at), timeSignature: [m.beats, m.unit] })),
    keySignatures: [{ ticks: 0, key: 'C', scale: plainMode(song.key) }],
  });
  const small = smallTicks(song.tempo, ppq);
  for (const hand of ['right', 'left'] as const) {
    const track = midi.addTrack();
    track.name = hand === 'right' ? 'Right hand' : 'Left hand';
    track.channel = hand === 'right' ? 0 : 1;
    for (const { at, kind } of pedal) {
      if (kind !== 'press') track.addCC({ number: 64, ticks: ticks(at), value: 0 });
      const again = kind === 'change' ? Math.round(ppq * LIFTED) : 0;
      if (kind !== 'lift') track.addCC({ number: 64, ticks: ticks(at) + again, value: 1 });
    }
    for (const n of notes) {
      if (n.hand !== hand) continue;
      const { graces = [] } = n;
      graces.forEach((pitch, i) => {
        const at = ticks(heardAt(n.at)) - (graces.length - i) * small;
        if (at >= 0) track.addNote({ midi: midiOf(pitch), ticks: at, durationTicks: small, velocity: n.loudness });
      });
      track.addNote({
        midi: midiOf(n.pitch),
        ticks: ticks(heardAt(n.at)),
        durationTicks: Math.max(1, ticks(heardAt(n.at + heldFor(n))) - ticks(heardAt(n.at))),
        velocity: n.loudness,
      });
    }
  }
  return withSignature(midi.toArray(), signatureOf(song.key));
}

/** How long a grace note lasts at a tempo: about as long as it is heard, and no written value, so that it is known again. */
function smallTicks(tempo: number, ppq: number): number {
  let ticks = Math.round((GRACE_SECONDS * tempo * ppq) / 60);
  while (writtenPlace(ticks / ppq) !== null) ticks++;
  return ticks;
}

/** The meters of a song; a pick-up is a first bar of a meter of its own. */
function metersOf({ meters, pickup }: Song): readonly { at: Ticks; beats: number; unit: number }[] {
  const [first, ...rest] = meters;
  const counts = pickup / countTicks(first);
  if (pickup === 0 || !Number.isInteger(counts)) return meters;
  return [{ at: 0, beats: counts, unit: first.unit }, { ...first, at: pickup }, ...rest];
}

/**
 * Puts the number of sharps or flats into the key signature event, the first of its kind in the file: the package
 * writes another number there than it reads.
 */
function withSignature(bytes: Uint8Array, fifths: number): Uint8Array {
  const at = bytes.findIndex((b, i) => b === 0xff && bytes[i + 1] === 0x59 && bytes[i + 2] === 2);
  if (at >= 0) bytes[at + 3] = fifths & 0xff;
  return bytes;
}

/** The smallest usual resolution that keeps every length exact: 480 a quarter unless there are odd tuplets. */
function resolution(notes: readonly MidiNote[]): number {
  for (const ppq of [480, 3360]) {
    const grid = TICKS_PER_QUARTER / ppq;
    if (notes.every((n) => n.at % grid === 0 && n.length % grid === 0)) return ppq;
  }
  return TICKS_PER_QUARTER;
}
