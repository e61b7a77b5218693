// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { TestBed } from '../../../../testing/bed';
import { emptyStorage } from '../../../../testing/storage';
import { SettingsStore } from '../state/settings.store';
import { Voice } from './voice';

interface Utterance {
  readonly text: string;
  voice: { readonly name: string } | null;
  onend: (() => void) | null;
  onerror: (() => void) | null;
}

const voiceOf = (name: string, lang: string, localService: boolean) => ({ name, lang, localService, default: false });

const spoken: Utterance[] = [];
let voices: ReturnType<typeof voiceOf>[] = [];
let told: (() => void) | null = null;

beforeEach(() => {
  emptyStorage();
  spoken.length = 0;
  voices = [];
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  class Words {
    voice = null;
    onend = null;
    onerror = null;
    constructor(readonly text: string) {}
  }
  vi.stubGlobal('SpeechSynthesisUtterance', Words);
  Object.defineProperty(window, 'speechSynthesis', {
    configurable: true,
    value: {
      getVoices: () => voices,
      addEventListener: (_: string, look: () => void) => (told = look),
      removeEventListener: () => undefined,
      cancel: () => undefined,
      speak: (words: Utterance) => spoken.push(words),
    },
  });
});
afterEach(() => {
  TestBed.resetTestingModule();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('the voice that reads a lesson', () => {
  it('is one of the device in English, never one that would send the words away', async () => {
    voices = [voiceOf('far', 'en-GB', false), voiceOf('ici', 'fr-FR', true), voiceOf('here', 'en-US', true)];
    const voice = TestBed.inject(Voice);
    const said = voice.say('D, F sharp and A.');
    expect(spoken.map((w) => [w.text, w.voice?.name])).toEqual([['D, F sharp and A.', 'here']]);
    spoken[0].onend?.();
    await said;
  });

  it('is there once the browser knows it, and silent where it is not wished for', async () => {
    voices = [voiceOf('far', 'en-GB', false)];
    const voice = TestBed.inject(Voice);
    await voice.say('Nobody speaks.');
    expect(voice.speaks()).toBe(false);
    voices = [voiceOf('here', 'en-GB', true)];
    told?.();
    expect(voice.speaks()).toBe(true);
    TestBed.inject(SettingsStore).set({ spoken: false });
    await voice.say('Nobody speaks either.');
    expect(spoken).toEqual([]);
  });

  it('does not hold the lesson up where it gets stuck or fails', async () => {
    voices = [voiceOf('here', 'en-GB', true)];
    const voice = TestBed.inject(Voice);
    const failing = voice.say('It fails.');
    spoken[0].onerror?.();
    await failing;
    const stuck = voice.say('It hangs.');
    await vi.advanceTimersByTimeAsync(31_000);
    await stuck;
    expect(spoken).toHaveLength(2);
  });
});
