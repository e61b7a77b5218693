/** The audio library's own context. */
type AudioClock = ReturnType<typeof import('tone').getContext>['rawContext'];

/** Hertz of a click, and of one that begins a bar. */
const PITCH = { weak: 784, strong: 1046.5 };

/** Seconds until a click has died away. */
const DECAY = 0.06;

/** Gain of the loudest click. */
const LOUDEST = 0.2;

/** Below this a gain is not heard; a curve that falls evenly to the ear cannot end in nothing. */
const UNHEARD = 0.0001;

/** Clicks that are put on the audio clock as soon as they are known, so that nothing that keeps the page busy can delay one. */
export class Clicks {
  private readonly out;
  private readonly waiting = new Set<ReturnType<AudioClock['createOscillator']>>();

  constructor(private readonly clock: AudioClock) {
    this.out = clock.createGain();
    this.out.connect(clock.destination);
  }

  /** A click at a moment of the audio clock, in seconds; loudness from 0 to 1. */
  at(when: number, strong: boolean, loudness: number): void {
    const sound = this.clock.createOscillator();
    const shape = this.clock.createGain();
    sound.type = 'triangle';
    sound.frequency.value = strong ? PITCH.strong : PITCH.weak;
    shape.gain.setValueAtTime(LOUDEST * loudness, when);
    shape.gain.exponentialRampToValueAtTime(UNHEARD, when + DECAY);
    sound.connect(shape);
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
