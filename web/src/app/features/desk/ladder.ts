import { ChangeDetectionStrategy, Component, computed, inject, viewChildren, output } from '@angular/core';
import { type Choices } from '@joined-hands/core/song';
import { barAt } from '@joined-hands/core/time';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { Pressed } from '../../ui/pressed';
import { LadderPart } from './ladder-part';

/** The numbered parts of the song, and how finely it is divided. */
@Component({
  selector: 'jh-ladder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LadderPart, Pressed],
  templateUrl: './ladder.html',
  styleUrl: './ladder.less',
})
export class Ladder {
  /** A picture of the part at work is wished for. */
  readonly pictured = output();
  protected readonly desk = inject(DeskStore);
  protected readonly parts = computed(() => this.desk.arrangement()?.parts ?? []);
  protected readonly currentNumber = computed(() => this.desk.currentPart()?.number);
  protected readonly hardest = computed(() => this.desk.arrangement()?.hardest ?? null);
  /** The sections by the number of the part that they begin with. */
  protected readonly sectionNames = computed(
    () => new Map((this.desk.arrangement()?.sections ?? []).map((s) => [s.from, s.name])),
  );
  protected readonly sizes: readonly Choices['partSize'][] = ['smaller', 'usual', 'larger'];
  protected readonly ownCuts = computed(() => (this.desk.document()?.choices.parts.length ?? 0) > 0);
  private readonly rows = viewChildren(LadderPart);

  constructor() {
    inject(Actions).register(() => {
      const row = this.rows().find((r) => r.part().number === this.currentNumber());
      return row
        ? [...row.actions(), ...this.sizes.map((s) => ({ name: `Divide into ${s} parts`, run: () => this.resize(s) }))]
        : [];
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
