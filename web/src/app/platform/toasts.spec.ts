import { describe, expect, it, vi } from 'vitest';
import { Toasts } from './toasts';

describe('messages', () => {
  const undo = { label: 'Undo', run: () => undefined };
  const texts = (toasts: Toasts) => toasts.shown().map((t) => t.text);

  it('keep their way back when others follow', () => {
    vi.useFakeTimers();
    const toasts = new Toasts();
    toasts.say('Part 2 is gone.', undo);
    for (const text of ['one', 'two', 'three', 'four']) toasts.say(text);
    expect(texts(toasts)).toEqual(['Part 2 is gone.', 'three', 'four']);
    vi.useRealTimers();
  });

  it('are not said twice at a time, and go one by one', () => {
    vi.useFakeTimers();
    const toasts = new Toasts();
    toasts.say('Saved.');
    toasts.say('Saved.');
    toasts.say('A chord is gone.', undo);
    expect(texts(toasts)).toEqual(['Saved.', 'A chord is gone.']);
    vi.advanceTimersByTime(10_000);
    expect(texts(toasts)).toEqual(['A chord is gone.']);
    vi.advanceTimersByTime(10_000);
    expect(texts(toasts)).toEqual([]);
    vi.useRealTimers();
  });

  it('are put away by themselves', () => {
    const toasts = new Toasts();
    toasts.say('One.', undo);
    toasts.say('Two.', undo);
    toasts.dismiss(toasts.shown()[0]);
    expect(texts(toasts)).toEqual(['Two.']);
  });
});
