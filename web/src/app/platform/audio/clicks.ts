/** The audio library's own context. */
type AudioClock = ReturnType<typeof import('tone').getContext>['rawContext'];

/** Hertz around which a click lies, and one that begins a bar: noise, which nobody who listens takes for a key. */
const BAND = { weak: 2200, strong: 3600 };

/** How narrow that band is. */
const NARROW = 1.4;

/** Seconds until a click has died away. */
const DECAY = 0.06;

/** Gain of the loudest click. */
const LOUDEST = 0.55;

/** Below this a gain is not heard; a curve that falls evenly to the ear cannot end in nothing. */
const UNHEARD = 0.0001;

/** Clicks that are put on the audio clock as soon as they are known, so that nothing that keeps the page busy can delay one. */
export class Clicks {
  private readonly out;
  private readonly waiting = new Set<ReturnType<AudioClock['createBufferSource']>>();
  private noise: AudioBuffer | null = null;

  constructor(private readonly clock: AudioClock) {
    this.out = clock.createGain();
    this.out.connect(clock.destination);
  }

  /** A click at a moment of the audio clock, in seconds; loudness from 0 to 1. */
  at(when: number, strong: boolean, loudness: number): void {
    const sound = this.clock.createBufferSource();
    const band = this.clock.createBiquadFilter();
    const shape = this.clock.createGain();
    sound.buffer = this.noise ??= noiseFor(this.clock);
    band.type = 'bandpass';
    band.frequency.value = strong ? BAND.strong : BAND.weak;
    band.Q.value = NARROW;
    shape.gain.setValueAtTime(LOUDEST * loudness, when);
    shape.gain.exponentialRampToValueAtTime(UNHEARD, when + DECAY);
    sound.connect(band);
    band.connect(shape);
    shape.connect(this.out);
    sound.start(when);
    sound.stop(when + DECAY);
    this.waiting.add(sound);
    sound.onended = () => {
      this.waiting.delete(sound);
      shape.disconnect();
    };
  }

  /** Nothing that was put on the clock is heard from now on. */
  silence(): void {
    this.out.disconnect();
    for (const sound of this.waiting) sound.stop();
    this.waiting.clear();
  }
}

/** Noise as long as a click. */
function noiseFor(clock: AudioClock): AudioBuffer {
  const buffer = clock.createBuffer(1, Math.ceil(DECAY * clock.sampleRate), clock.sampleRate);
  const samples = buffer.getChannelData(0);
  for (let i = 0; i < samples.length; i++) samples[i] = 2 * Math.random() - 1;
  return buffer;
}
