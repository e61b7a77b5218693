import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Sketch } from '@joined-hands/core/fills';
import { midiOf } from '@joined-hands/core/pitch';

const [WIDTH, HEIGHT, EDGE, NOTE] = [132, 46, 4, 5];

/** A pattern as a drawing: bars from left to right, keys from the bottom up, each as long as it sounds. */
@Component({
  selector: 'jh-pattern-sketch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg [attr.viewBox]="'0 0 ' + width + ' ' + height" aria-hidden="true">
    @for (x of lines(); track x) {
      <line [class.bar]="$first || $last || x === middle()" [attr.x1]="x" [attr.x2]="x" y1="1" [attr.y2]="height - 1" />
    }
    @for (note of notes(); track $index) {
      <rect [attr.x]="note.x" [attr.y]="note.y" [attr.width]="note.width" height="5" rx="2.5" />
    }
  </svg>`,
  styles: `
    svg {
      display: block;
      width: 100%;
      height: auto;
    }
    line {
      stroke: currentColor;
      stroke-width: 0.6;
      opacity: 0.18;
    }
    .bar {
      opacity: 0.45;
    }
    rect {
      fill: var(--sketch, var(--left));
    }
  `,
})
export class PatternSketch {
  readonly sketch = input.required<Sketch>();
  /** Counts in a bar. */
  readonly counts = input.required<number>();
  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;

  private readonly column = computed(() => (WIDTH - 2 * EDGE) / (this.sketch().bars * this.counts()));
  protected readonly lines = computed(() =>
    Array.from({ length: this.sketch().bars * this.counts() + 1 }, (_, i) => EDGE + i * this.column()),
  );
  protected readonly middle = computed(() => (this.sketch().bars > 1 ? WIDTH / 2 : 0));
  protected readonly notes = computed(() => {
    const { steps } = this.sketch();
    const keys = steps.flatMap((s) => s.pitches.map(midiOf));
    const [low, high] = [Math.min(...keys), Math.max(...keys)];
    const bar = this.column() * this.counts();
    const y = (midi: number) => HEIGHT - EDGE - NOTE - ((midi - low) / Math.max(12, high - low)) * (HEIGHT - 2 * EDGE - NOTE);
    return steps.flatMap(({ from, until, pitches }) =>
      pitches.map((p) => ({ x: EDGE + from * bar + 1, y: y(midiOf(p)), width: Math.max(NOTE, (until - from) * bar - 2) })),
    );
  });
}
