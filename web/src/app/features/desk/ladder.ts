import { ChangeDetectionStrategy, Component, afterRenderEffect, computed, inject, viewChildren, output } from '@angular/core';
import { type Choices } from '@joined-hands/core/song';
import { PART_SIZE_LABELS } from '@joined-hands/core/words';
import { barAt } from '@joined-hands/core/time';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { Viewport } from '../../platform/viewport';
import { More, type MenuItem } from '../../ui/more';
import { Pressed } from '../../ui/pressed';
import { LadderPart } from './ladder-part';

const DIVISIONS: Readonly<Record<Choices['partSize'], string>> = {
  smaller: $localize`Divide into smaller parts`,
  usual: $localize`Divide into parts of the usual length`,
  larger: $localize`Divide into larger parts`,
};

/** The numbered parts of the song, and how finely it is divided. */
@Component({
  selector: 'jh-ladder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LadderPart, More, Pressed],
  templateUrl: './ladder.html',
  styleUrl: './ladder.less',
})
export class Ladder {
  /** A picture of the part at work is wished for. */
  readonly pictured = output();
  protected readonly desk = inject(DeskStore);
  protected readonly viewport = inject(Viewport);
  protected readonly parts = computed(() => this.desk.arrangement()?.parts ?? []);
  protected readonly currentNumber = computed(() => this.desk.currentPart()?.number);
  protected readonly hardest = computed(() => this.desk.arrangement()?.hardest ?? null);
  /** The sections by the number of the part that they begin with. */
  protected readonly sectionNames = computed(
    () => new Map((this.desk.arrangement()?.sections ?? []).map((s) => [s.from, s.name])),
  );
  protected readonly sizes: readonly Choices['partSize'][] = ['smaller', 'usual', 'larger'];
  protected readonly sizeLabels = PART_SIZE_LABELS;
  protected readonly ownCuts = computed(() => (this.desk.document()?.choices.parts.length ?? 0) > 0);
  private readonly rows = viewChildren(LadderPart);
  private readonly current = computed(() => this.rows().find((r) => r.part().number === this.currentNumber()));
  /** What can be done to the part at work, and to the way in which the song is divided. */
  protected readonly doings = computed((): MenuItem[] => {
    const row = this.current();
    if (!row) return [];
    const { partSize } = this.desk.document()?.choices ?? {};
    return [
      ...row.actions(),
      ...this.sizes.map((size) => ({
        name: DIVISIONS[size],
        current: size === partSize,
        run: () => this.resize(size),
      })),
      ...(this.ownCuts() ? [{ name: $localize`Divide by the phrases again`, run: () => this.recut() }] : []),
    ];
  });

  constructor() {
    inject(Actions).register(() => this.doings());
    // The part at work is in view, the one that sounds too.
    afterRenderEffect(() => {
      this.current()?.host.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    });
  }

  /** The bar of a place, as a repeat names it. */
  protected barOf(at: number | null): number | null {
    const bars = this.desk.arrangement()?.bars;
    return at === null || !bars ? null : barAt(bars, at).number;
  }

  protected resize(size: Choices['partSize']): void {
    void this.desk.edit({ code: 'edit.part-size', size });
  }

  protected recut(): void {
    void this.desk.edit({ code: 'edit.clear-parts' });
  }
}
