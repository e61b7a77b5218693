import type { Action } from '../state/actions';
import { isTaken } from '../keys';
import { Injectable, inject, signal } from '@angular/core';
import { Subject, map } from 'rxjs';
import { SettingsStore } from '../state/settings.store';

/** Letters of a computer's keyboard as white keys, those above them as black ones. */
const STAND_IN = 'awsedftgyhujkolp';

/** How the letters of the computer stand for keys, for the list of shortcuts of a screen that listens to them. */
export const LETTERS: readonly Action[] = [
  { name: $localize`Keys of the piano from C upwards, black ones a row higher`, keys: [$localize`A to P`], run: null },
  { name: $localize`Those keys an octave lower or higher`, keys: [$localize`Z and X`], run: null },
];

/** Where a key was pressed. */
export type KeySource = 'device' | 'microphone' | 'screen' | 'letters' | 'stand-in';

/** True for keys that sound by themselves, so that nothing else must sound for them. */
export const soundsItself = ({ source }: KeyPress): boolean => source === 'device' || source === 'microphone';

/** A key as it was pressed. */
export interface KeyPress {
  readonly midi: number;
  /** Seconds on the browser's own clock. */
  readonly time: number;
  /** From 0 to 1. */
  readonly loudness: number;
  readonly source: KeySource;
}

/**
 * Keys that a pianist presses, wherever that is: on a connected keyboard, or on its stand-ins, the screen's keys, the computer's
 * letters and a player that plays by itself. All come through here alike.
 */
@Injectable({ providedIn: 'root' })
export class KeyInput {
  private readonly settings = inject(SettingsStore);
  private readonly presses = new Subject<KeyPress>();
  /** Keys as they are pressed, with time and loudness. */
  readonly pressed = this.presses.asObservable();
  /** MIDI numbers, as they are pressed. */
  readonly pressedKeys = this.pressed.pipe(map((p) => p.midi));
  private readonly releasedKeys = new Subject<number>();
  /** MIDI numbers, as they are let go. */
  readonly released = this.releasedKeys.asObservable();
  private readonly pedalDown = new Subject<void>();
  /** The pedal of a connected keyboard, as it goes down. */
  readonly pedal = this.pedalDown.asObservable();
  /** Name of the connected keyboard, or null. */
  readonly device = signal<string | null>(null);
  readonly trouble = signal<string | null>(null);
  /** Octaves by which the computer's letters are moved: "z" goes down, "x" up. */
  readonly octave = signal(0);

  /** A key of the screen's keyboard, or of the letters: the stand-in for a real one, as late and as loud as it is set. */
  press(midi: number, source: KeySource = 'screen'): void {
    const delay = this.settings.keyDelay();
    const send = () => this.take({ midi, time: performance.now() / 1000, loudness: this.settings.keyLoudness(), source });
    if (delay === 0) send();
    else setTimeout(send, delay);
  }

  /** A key as it was pressed somewhere. */
  take(press: KeyPress): void {
    this.presses.next(press);
  }

  release(midi: number): void {
    this.releasedKeys.next(midi);
  }

  /** Takes a letter of the computer as a key of the piano, two rows of letters from C4 up; false for other letters. */
  letter(event: KeyboardEvent, down: boolean): boolean {
    if (event.ctrlKey || event.metaKey || event.altKey || event.key.length !== 1 || (down && isTaken(event))) return false;
    const name = event.key.toLowerCase();
    if (name === 'z' || name === 'x') {
      if (down) this.octave.update((o) => Math.min(2, Math.max(-3, o + (name === 'z' ? -1 : 1))));
      return true;
    }
    const at = STAND_IN.indexOf(name);
    if (at < 0) return false;
    const midi = 60 + 12 * this.octave() + at;
    if (down && !event.repeat) this.press(midi, 'letters');
    if (!down) this.release(midi);
    return true;
  }

  /** Looks for a connected keyboard; the browser asks first. */
  async connect(): Promise<void> {
    this.trouble.set(null);
    const { WebMidi } = await import('webmidi');
    try {
      await WebMidi.enable();
    } catch {
      this.trouble.set($localize`This browser gives no access to connected keyboards. The keys on the screen do the same.`);
      return;
    }
    const input = WebMidi.inputs[0];
    if (!input) {
      this.trouble.set($localize`No keyboard is connected. Plug one in and try again, or use the keys on the screen.`);
      return;
    }
    for (const name of ['noteon', 'noteoff', 'controlchange'] as const) input.removeListener(name);
    input.addListener('noteoff', (event) => this.release(event.note.number));
    input.addListener('noteon', (event) => {
      this.take({ midi: event.note.number, time: event.timestamp / 1000, loudness: event.note.attack, source: 'device' });
    });
    input.addListener('controlchange', (event) => {
      if (event.controller.number === 64 && Number(event.value) >= 0.5) this.pedalDown.next();
    });
    this.device.set(input.name);
  }
}
