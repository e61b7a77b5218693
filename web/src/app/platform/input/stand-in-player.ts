import { Injectable, inject } from '@angular/core';
import { playStandIn, type PlacedNote, type PlayingManner } from '@joined-hands/core/practice';
import { KeyInput } from './key-input';

/** How the stand-in plays: shares of notes that are wrong, left out or added, and how far its tempo drifts. */
export const MANNERS: Readonly<Record<'clean' | 'learner' | 'rough', Omit<PlayingManner, 'tempo'>>> = {
  clean: { wrong: 0, missed: 0, extra: 0, drift: 0.02, uneven: 0.008 },
  learner: { wrong: 0.06, missed: 0.04, extra: 0.02, drift: 0.05, uneven: 0.02 },
  rough: { wrong: 0.15, missed: 0.1, extra: 0.06, drift: 0.12, uneven: 0.03 },
};

/** Milliseconds that its keys stay down, at most. */
const HELD = 400;

/** A player that plays a step by itself, through the same door as a connected keyboard, with mistakes at known rates. */
@Injectable({ providedIn: 'root' })
export class StandInPlayer {
  private readonly keys = inject(KeyInput);
  private timers: number[] = [];

  /** Plays notes from a moment on, in seconds on the browser's own clock. The same seed plays the same. */
  play(notes: readonly PlacedNote[], from: number, manner: PlayingManner, seed: number): void {
    this.stop();
    const { heard } = playStandIn(notes, manner, seed);
    // It begins a moment into its own time; here its first note falls on the first beat.
    const lead = 0.5;
    for (const { midi, time } of heard) {
      const at = from + time - lead;
      const wait = at * 1000 - performance.now();
      this.later(wait, () => this.keys.take({ midi, time: at, loudness: 0.6, source: 'stand-in' }));
      this.later(wait + HELD, () => this.keys.release(midi));
    }
  }

  stop(): void {
    for (const timer of this.timers) clearTimeout(timer);
    this.timers = [];
  }

  private later(wait: number, act: () => void): void {
    this.timers.push(window.setTimeout(act, Math.max(0, wait)));
  }
}
