import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { KeyboardSize } from '@joined-hands/core/song';
import { Player } from '../../platform/audio/player';
import { KeyInput } from '../../platform/input/key-input';
import { Viewport } from '../../platform/viewport';
import { keysInPlay } from './in-play';
import { Keyboard, type HandSpan, type PressedKey } from './keyboard';

/** The keyboard of a screen that is played at: its keys and the letters of the computer are taken as played, and what sounds is shown. */
@Component({
  selector: 'jh-played-keys',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Keyboard],
  template: `
    <jh-keyboard
      [size]="size()"
      [pressed]="pressed()"
      [spans]="spans()"
      [within]="viewport.isPhone() ? inPlay() : null"
      [sounding]="player.sounding()"
      (keyPressed)="keys.press($event)"
      (keyReleased)="keys.release($event)"
    />
  `,
  styles: ':host { display: contents; }',
  host: { '(document:keydown)': 'onKey($event, true)', '(document:keyup)': 'onKey($event, false)' },
})
export class PlayedKeys {
  readonly size = input.required<KeyboardSize>();
  readonly pressed = input.required<readonly PressedKey[]>();
  readonly spans = input<readonly HandSpan[]>([]);
  /** MIDI numbers that are to be seen on a phone, which has no room for all keys; those of the spans where none are named. */
  readonly seen = input<readonly number[]>();
  protected readonly keys = inject(KeyInput);
  protected readonly player = inject(Player);
  protected readonly viewport = inject(Viewport);
  protected readonly inPlay = computed(() => keysInPlay(this.seen() ?? this.spans().flatMap(({ from, to }) => [from, to])));

  protected onKey(event: KeyboardEvent, down: boolean): void {
    if (this.keys.letter(event, down)) event.preventDefault();
  }
}
