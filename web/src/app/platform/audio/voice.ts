import { DOCUMENT, DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import { SettingsStore } from '../state/settings.store';

/** How fast it speaks, of its usual pace: there are keys to look at meanwhile. */
const RATE = 0.95;

/** Seconds after which a voice that has not come to an end is taken to be stuck. */
const LONGEST = 30;

/** A voice of this device that reads sentences aloud. Voices that would send the words over the network are never used. */
@Injectable({ providedIn: 'root' })
export class Voice {
  private readonly settings = inject(SettingsStore);
  private readonly speech = inject(DOCUMENT).defaultView?.speechSynthesis ?? null;
  private readonly voices = signal<readonly SpeechSynthesisVoice[]>([]);
  /** The voice that speaks; null where this device has none in the language of the sentences. */
  readonly voice = computed(() => {
    const here = this.voices().filter((v) => v.localService && v.lang.toLowerCase().startsWith('en'));
    return here.find((v) => v.default) ?? here.at(0) ?? null;
  });
  readonly speaks = computed(() => this.settings.spoken() && this.voice() !== null);

  constructor() {
    const { speech } = this;
    if (!speech) return;
    const look = () => this.voices.set(speech.getVoices());
    look();
    // Some browsers know their voices only after a while.
    speech.addEventListener('voiceschanged', look);
    inject(DestroyRef).onDestroy(() => speech.removeEventListener('voiceschanged', look));
  }

  /** Says a sentence, and answers when it is said; at once where nobody speaks. */
  say(sentence: string): Promise<void> {
    const [voice, speech] = [this.voice(), this.speech];
    if (!this.speaks() || !voice || !speech) return Promise.resolve();
    speech.cancel();
    return new Promise((resolve) => {
      const words = new SpeechSynthesisUtterance(sentence);
      words.voice = voice;
      words.lang = voice.lang;
      words.rate = RATE;
      const stuck = setTimeout(resolve, LONGEST * 1000);
      words.onend = words.onerror = () => {
        clearTimeout(stuck);
        resolve();
      };
      speech.speak(words);
    });
  }

  stop(): void {
    this.speech?.cancel();
  }
}
