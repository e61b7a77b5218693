import { expose } from 'comlink';
import { hearLine, hearRecording, onBeat, type HeardNote, type HeardRecording, type SungTo } from '@joined-hands/core/hearing';

/** Hearing by itself, loaded with the first sound that is to be heard. */
const hearing = {
  /** One line that was sung or played to a beat, in samples so many a second: its notes in quarters. */
  line(samples: Float32Array, rate: number, beat: SungTo): HeardNote[] {
    return onBeat(hearLine(samples, rate), beat);
  },

  /** Beat, key and pitch of a recording. */
  recording(samples: Float32Array, rate: number, whole: boolean): HeardRecording {
    return hearRecording(samples, rate, whole);
  },
};

export type HearingApi = typeof hearing;

expose(hearing);
