import { toBytes } from './text.js';
import { Midi } from './package.js';

/** A note that was heard: quarter notes from the first beat, and a MIDI number. */
interface Tone {
  readonly at: number;
  readonly until: number;
  readonly midi: number;
}

/** What was heard of a recording as a Standard MIDI File of one track, to be read as one that was played; tempo in quarter notes a minute. */
export function midiOfTones(title: string, tempo: number, tones: readonly Tone[]): Uint8Array {
  const midi = new Midi();
  const { ppq } = midi.header;
  midi.header.fromJSON({
    name: toBytes(title),
    ppq,
    meta: [],
    tempos: [{ ticks: 0, bpm: tempo }],
    timeSignatures: [{ ticks: 0, timeSignature: [4, 4] }],
    keySignatures: [],
  });
  const track = midi.addTrack();
  for (const { at, until, midi: key } of tones) {
    const ticks = Math.round(at * ppq);
    track.addNote({ midi: key, ticks, durationTicks: Math.max(1, Math.round(until * ppq) - ticks), velocity: 0.6 });
  }
  return midi.toArray();
}
