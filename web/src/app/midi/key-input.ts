import { Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';

/** Letters of a computer's keyboard as white keys, those above them as black ones. */
const STAND_IN = 'awsedftgyhujkolp';

/** Keys that a pianist presses, wherever they are pressed: on the screen's keyboard or on a connected one. */
@Injectable({ providedIn: 'root' })
export class KeyInput {
  private readonly pressedKeys = new Subject<number>();
  /** MIDI numbers, as they are pressed. */
  readonly pressed = this.pressedKeys.asObservable();
  private readonly releasedKeys = new Subject<number>();
  /** MIDI numbers, as they are let go. */
  readonly released = this.releasedKeys.asObservable();
  /** Name of the connected keyboard, or null. */
  readonly device = signal<string | null>(null);
  readonly trouble = signal<string | null>(null);

  /** A key of the screen's keyboard, the stand-in for a real one. */
  press(midi: number): void {
    this.pressedKeys.next(midi);
  }

  release(midi: number): void {
    this.releasedKeys.next(midi);
  }

  /** The key of the piano that a key of the computer stands for, two rows of letters from C4 up; null for others. */
  static standIn(key: string): number | null {
    const at = STAND_IN.indexOf(key.toLowerCase());
    return key.length === 1 && at >= 0 ? 60 + at : null;
  }

  /** Looks for a connected keyboard; the browser asks first. */
  async connect(): Promise<void> {
    this.trouble.set(null);
    const { WebMidi } = await import('webmidi');
    try {
      await WebMidi.enable();
    } catch {
      return this.trouble.set('This browser gives no access to connected keyboards. The keys on the screen do the same.');
    }
    const input = WebMidi.inputs[0];
    if (!input) return this.trouble.set('No keyboard is connected. Plug one in and try again, or use the keys on the screen.');
    input.removeListener('noteon');
    input.removeListener('noteoff');
    input.addListener('noteoff', (event) => {
      this.release(event.note.number);
    });
    input.addListener('noteon', (event) => {
      this.press(event.note.number);
    });
    this.device.set(input.name);
  }
}
