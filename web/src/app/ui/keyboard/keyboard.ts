import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  computed,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { isBlackKey } from '@joined-hands/core/pitch';
import { KEYBOARDS, type KeyboardSize } from '@joined-hands/core/song';
import { Words } from '../../platform/words';
import { labelsOver } from './labels';
import { SvgSigns } from '../signs';

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
  /** The same in fewer words, for where there is little room. */
  readonly short?: string;
}

interface DrawnKey {
  readonly midi: number;
  readonly black: boolean;
  readonly x: number;
  readonly width: number;
}

const WIDTH = 1236;
const TOP = 34;
/** Length of a white key: where there is little height, usually, and where the keys are what is played on; and of a black one, as a part of it. */
const LENGTH = { least: 42, usual: 98, tall: 190 } as const;
const BLACK = 0.6;

/** Width of a letter over a bracket. */
const LETTER = 8.4;

/** The keyboard at the player's own size: where each hand lies, what sounds, middle C marked; what it holds stands over its left end. */
@Component({
  selector: 'jh-keyboard',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [SvgSigns],
  templateUrl: './keyboard.html',
  styleUrl: './keyboard.less',
})
export class Keyboard {
  protected readonly words = inject(Words);
  readonly size = input<KeyboardSize>(88);
  readonly pressed = input<readonly PressedKey[]>([]);
  readonly spans = input<readonly HandSpan[]>([]);
  readonly sounding = input<ReadonlySet<number>>(new Set<number>());
  /** The keys that are to be seen, lowest and highest, where there is no room for all. */
  readonly within = input<readonly [low: number, high: number] | null>(null);
  /** Longer keys, to be played on. */
  readonly tall = input(false);
  readonly keyPressed = output<number>();
  readonly keyReleased = output<number>();

  private readonly beside = viewChild.required<ElementRef<HTMLElement>>('beside');
  /** Pixels that there are for it, and how many of their width are taken over its left end. */
  private readonly room = signal({ width: WIDTH, height: 0, beside: 0 });
  /** Pixels to a unit of the drawing. */
  private readonly scale = computed(() => {
    const { width, height } = this.room();
    return Math.min(width / this.stretch().width, height / this.height()) || 1;
  });
  /** How far from the left of the keys the room over them is taken. */
  private readonly taken = computed(() => {
    const { width, beside } = this.room();
    return Math.max(0, beside - (width - this.stretch().width * this.scale()) / 2) / this.scale();
  });
  /** How much larger text and fingers are drawn than the keys, so that they keep their size where the keyboard is narrow. */
  protected readonly larger = computed(() => Math.min(1.6, Math.max(1, 1 / this.scale())));

  protected readonly top = TOP;
  /** Where only some keys are seen and there is little height, they are cut short, so that they need not be narrow. */
  protected readonly length = computed(() => {
    if (this.tall()) return LENGTH.tall;
    const { width, height } = this.room();
    if (!this.within() || height === 0) return LENGTH.usual;
    const room = (height * this.stretch().width) / width - TOP - 4;
    return Math.min(LENGTH.usual, Math.max(LENGTH.least, room));
  });
  protected readonly blackLength = computed(() => this.length() * BLACK);
  private readonly height = computed(() => TOP + this.length() + 4);
  /** Where the keys that are drawn begin, and how wide they are together. */
  private readonly stretch = computed(() => {
    const keys = this.keys();
    const last = keys[keys.length - 1];
    return { from: keys[0].x, width: last.x + last.width - keys[0].x };
  });
  protected readonly viewBox = computed(() => `${this.stretch().from} 0 ${this.stretch().width} ${this.height()}`);
  protected readonly keys = computed(() => seen(layKeys(this.size()), this.within()));
  /** The keys as they are drawn: the black ones last, over the white ones, which leave a gap between them. */
  protected readonly drawn = computed(() => [
    ...this.keys().flatMap((k) => (k.black ? [] : [{ ...k, width: k.width - 1.2 }])),
    ...this.keys().filter((k) => k.black),
  ]);
  private readonly byMidi = computed(() => new Map(this.keys().map((k) => [k.midi, k])));
  /** Where the name of the middle C stands; where letters are large beside the keys, a finger on it takes its place. */
  protected readonly middleC = computed(() =>
    this.larger() > 1.2 && this.pressed().some((p) => p.midi === 60) ? null : this.centre(60),
  );

  protected readonly dots = computed(() =>
    this.pressed().flatMap((p) => {
      const key = this.byMidi().get(p.midi);
      return key ? [{ ...p, x: key.x + key.width / 2, y: TOP + this.length() * (key.black ? 0.45 : 0.735) }] : [];
    }),
  );

  protected readonly brackets = computed(() =>
    this.spans().flatMap((s) => {
      const from = this.byMidi().get(s.from);
      const to = this.byMidi().get(s.to);
      return from && to ? [{ ...s, x1: from.x + 2, x2: to.x + to.width - 3 }] : [];
    }),
  );
  /** What stands over the brackets, clear of what stands at the left over the keys. */
  protected readonly labels = computed(() => {
    const wide = (text: string) => text.length * LETTER * this.larger();
    const whole = this.brackets().toSorted((a, b) => a.x1 - b.x1);
    const fits = whole.reduce((sum, b) => sum + wide(b.text), 0) < this.stretch().width - this.taken();
    const inOrder = fits ? whole : whole.map((b) => ({ ...b, text: b.short ?? b.text }));
    const { from, width } = this.stretch();
    const room = { from: from + this.taken(), to: from + width };
    const places = labelsOver(
      inOrder.map((b) => ({ ...b, width: wide(b.text) })),
      room,
    );
    return inOrder.map((b, i) => ({ ...b, x: places[i] }));
  });

  protected readonly summary = computed(() =>
    this.spans()
      .map((s) => s.text)
      .join('; '),
  );

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      const beside = this.beside().nativeElement;
      const observer = new ResizeObserver(() => {
        this.room.set({ width: host.clientWidth, height: host.clientHeight, beside: beside.offsetWidth });
      });
      observer.observe(host);
      observer.observe(beside);
      destroyed.onDestroy(() => observer.disconnect());
    });
  }

  private centre(midi: number): number | null {
    const key = this.byMidi().get(midi);
    return key ? key.x + key.width / 2 : null;
  }
}

/** The keys around some, from a C or an F to a B or an E, as a keyboard looks whole; all of them where nothing is said. */
function seen(keys: readonly DrawnKey[], within: readonly [low: number, high: number] | null): readonly DrawnKey[] {
  if (!within) return keys;
  const [low, high] = within;
  const from = low - (low % 12) + (low % 12 < 5 ? 0 : 5);
  const to = high - (high % 12) + (high % 12 < 5 ? 4 : 11);
  return keys.filter((k) => k.midi >= from && k.midi <= to);
}

function layKeys(size: KeyboardSize): DrawnKey[] {
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
