import { signal } from '@angular/core';
import type { Plan } from '../src/app/platform/audio/schedule';

/** The player without sound: a plan is over when it is told so. */
export class SilentPlayer {
  readonly state = signal<'silent' | 'loading' | 'playing'>('silent');
  readonly position = signal<number | null>(null);
  readonly struck: number[] = [];
  plan: Plan | null = null;
  began = 0;

  async play(plan: Plan): Promise<void> {
    this.plan = plan;
    this.began = performance.now() / 1000;
    this.state.set('playing');
  }

  stop(): void {
    this.state.set('silent');
  }

  async strike(midis: readonly number[]): Promise<void> {
    this.struck.push(...midis);
  }
}
