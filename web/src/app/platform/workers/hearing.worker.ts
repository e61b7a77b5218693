import { expose } from 'comlink';
import {
  ANY_PIANO,
  fitOf,
  freeBeat,
  HEARING,
  latenessOf,
  hearLine,
  hearRecording,
  onBeat,
  PianoListener,
  type DuePlace,
  type Following,
  type FreeLine,
  type HeardKey,
  type HeardNote,
  type HeardRecording,
  type MeasuredKey,
  type PianoFit,
  type SungTo,
} from '@joined-hands/core/hearing';

/** What has been made out since the last samples, and how it can be heard. */
export interface Heard {
  readonly keys: readonly HeardKey[];
  /** By how many hundredths of a half step the piano is high. */
  readonly cents: number;
  /** True where the room is so loud that little can be promised. */
  readonly noisy: boolean;
}

let piano: PianoListener | null = null;

/** Hearing by itself, loaded with the first sound that is to be heard. */
const hearing = {
  /** One line that was sung or played to a beat, in samples so many a second: its notes in quarters. */
  line(samples: Float32Array, rate: number, beat: SungTo): HeardNote[] {
    return onBeat(hearLine(samples, rate), beat);
  },

  /** One line that was sung or played to no beat, in bars of so many quarters: the beat that was found, null where too little was heard. */
  freeLine(samples: Float32Array, rate: number, quartersOfBar: number): FreeLine | null {
    return freeBeat(hearLine(samples, rate).notes, quartersOfBar);
  },

  /** Begins to listen to a piano, at so many samples a second, by what is known of it. */
  listen(rate: number, fit: PianoFit | null): void {
    piano = new PianoListener(rate, fit ?? ANY_PIANO);
  },

  /** What is to be played, from one of its places on. */
  expect(places: readonly DuePlace[], next: number, following: Following): void {
    piano?.expect(places, next, following);
  },

  /** The next samples of the piano. */
  hear(samples: Float32Array): Heard {
    const keys = piano?.hear(samples) ?? [];
    return { keys, cents: piano?.cents ?? 0, noisy: piano !== null && keys.length > 0 && piano.overRoom < HEARING.listen.clear };
  },

  /** The samples at which something began lately, whether it was a key or not. */
  begun(): readonly number[] {
    return piano?.begunLately ?? [];
  },

  /** By how many seconds this microphone hears late, by claps. */
  late(begun: readonly number[], asked: readonly number[]): number | null {
    return latenessOf(begun, asked);
  },

  /** A piano by a few keys that were measured. */
  fit(measured: readonly MeasuredKey[]): PianoFit {
    return fitOf(measured);
  },

  /** Beat, key and pitch of a recording. */
  recording(samples: Float32Array, rate: number, whole: boolean): HeardRecording {
    return hearRecording(samples, rate, whole);
  },
};

export type HearingApi = typeof hearing;

expose(hearing);
