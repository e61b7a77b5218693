import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { isBlackKey, midiOf } from '@joined-hands/core/pitch';

const WHITE = 6;

/** A few octaves of keys in small, some of them held down. */
@Component({
  selector: 'jh-little-keyboard',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg
    [attr.viewBox]="'0 0 ' + width() + ' 30'"
    [attr.width]="width() * scale()"
    [attr.height]="30 * scale()"
    aria-hidden="true"
  >
    @for (key of keys(); track $index) {
      <rect
        [class.black]="key.black"
        [class.down]="key.down"
        [attr.x]="key.x"
        y="0"
        [attr.width]="key.black ? 3.8 : 5.5"
        [attr.height]="key.black ? 18 : 30"
        rx="1"
      />
    }
  </svg>`,
  styles: `
    svg {
      display: block;
      max-width: 100%;
      height: auto;
    }
    rect {
      fill: var(--key-white);
      stroke: var(--key-edge);
      stroke-width: 0.7;
    }
    .black {
      fill: var(--key-black);
      stroke: none;
    }
    .down {
      fill: var(--left);
      stroke: var(--left);
    }
  `,
})
export class LittleKeyboard {
  /** How many times its least size it may be drawn. */
  readonly scale = input(1);
  readonly pitches = input.required<readonly string[]>();
  /** Lowest and highest key shown, as MIDI numbers: whole octaves from a C to a B. */
  readonly range = input.required<{ readonly low: number; readonly high: number }>();

  protected readonly width = computed(() => ((this.range().high + 1 - this.range().low) / 12) * 7 * WHITE);
  protected readonly keys = computed(() => {
    const { low, high } = this.range();
    const down = new Set(this.pitches().map(midiOf));
    let x = 0;
    const keys = Array.from({ length: high - low + 1 }, (_, i) => {
      const midi = low + i;
      const black = isBlackKey(midi);
      const key = { x: black ? x - 1.9 : x, black, down: down.has(midi) };
      if (!black) x += WHITE;
      return key;
    });
    // Black keys lie over the white ones.
    return [...keys.filter((k) => !k.black), ...keys.filter((k) => k.black)];
  });
}

/** The whole octaves that hold some keys, two of them at least around the usual place of the left hand. */
export function octavesOf(pitches: readonly string[]): { low: number; high: number } {
  const midis = pitches.map(midiOf);
  return { low: Math.floor(Math.min(48, ...midis) / 12) * 12, high: Math.ceil((Math.max(59, ...midis) + 1) / 12) * 12 - 1 };
}
