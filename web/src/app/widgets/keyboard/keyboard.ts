import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { KEYBOARDS, isBlackKey, type KeyboardSize } from '@joined-hands/core';

/** A key under a finger. */
export interface PressedKey {
  readonly midi: number;
  readonly hand: 'left' | 'right';
  readonly text: string;
  /** True where the two hands meet on it or next to it. */
  readonly meets?: boolean;
}

/** Where a hand lies. */
export interface HandSpan {
  readonly from: number;
  readonly to: number;
  readonly hand: 'left' | 'right';
  readonly text: string;
}

interface Key {
  readonly midi: number;
  readonly black: boolean;
  readonly x: number;
  readonly width: number;
}

const WIDTH = 1236;
const TOP = 34;

/** The keyboard at the player's own size: where each hand lies, what sounds, middle C marked. */
@Component({
  selector: 'jh-keyboard',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './keyboard.html',
  styleUrl: './keyboard.less',
})
export class Keyboard {
  readonly size = input<KeyboardSize>(88);
  readonly pressed = input<readonly PressedKey[]>([]);
  readonly spans = input<readonly HandSpan[]>([]);
  readonly sounding = input<ReadonlySet<number>>(new Set<number>());
  readonly keyPressed = output<number>();
  readonly keyReleased = output<number>();

  protected readonly top = TOP;
  protected readonly viewBox = `0 0 ${WIDTH} 136`;
  protected readonly keys = computed(() => layKeys(this.size()));
  protected readonly white = computed(() => this.keys().filter((k) => !k.black));
  protected readonly black = computed(() => this.keys().filter((k) => k.black));
  private readonly byMidi = computed(() => new Map(this.keys().map((k) => [k.midi, k])));
  protected readonly middleC = computed(() => this.centre(60));

  protected readonly dots = computed(() =>
    this.pressed().flatMap((p) => {
      const key = this.byMidi().get(p.midi);
      return key ? [{ ...p, x: key.x + key.width / 2, y: key.black ? 78 : 112 }] : [];
    }),
  );

  protected readonly brackets = computed(() =>
    this.spans().flatMap((s) => {
      const from = this.byMidi().get(s.from);
      const to = this.byMidi().get(s.to);
      return from && to ? [{ ...s, x1: from.x + 2, x2: to.x + to.width - 3 }] : [];
    }),
  );

  protected readonly summary = computed(() =>
    this.spans()
      .map((s) => s.text)
      .join('; '),
  );

  private centre(midi: number): number | null {
    const key = this.byMidi().get(midi);
    return key ? key.x + key.width / 2 : null;
  }
}

function layKeys(size: KeyboardSize): Key[] {
  const { low, high } = KEYBOARDS[size];
  const all = Array.from({ length: high - low + 1 }, (_, i) => low + i);
  const width = WIDTH / all.filter((m) => !isBlackKey(m)).length;
  const blackWidth = width * 0.63;
  let x = 0;
  return all.map((midi) => {
    if (isBlackKey(midi)) return { midi, black: true, x: x - blackWidth / 2, width: blackWidth };
    const key = { midi, black: false, x, width };
    x += width;
    return key;
  });
}
