import { ChangeDetectionStrategy, Component, afterRenderEffect, computed, inject, signal } from '@angular/core';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { STOPS, Tour } from '../../platform/state/tour';
import { EDGE, cardPlace, type Frame } from './place';

@Component({
  selector: 'jh-tour',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@if (stop(); as shown) {
    @if (frame(); as f) {
      <div
        class="ring"
        [style.left.px]="f.left"
        [style.top.px]="f.top"
        [style.width.px]="f.width"
        [style.height.px]="f.height"
      ></div>
      @let card = place();
      <section
        class="card"
        role="dialog"
        i18n-aria-label
        aria-label="Take the tour"
        [style.left.px]="card.left"
        [style.top.px]="card.top"
      >
        <p aria-live="polite">{{ shown.words }}</p>
        <div class="foot">
          <span i18n>{{ number() }} of {{ count }}</span>
          <button i18n type="button" class="btn small bare" (click)="tour.end()">Cancel</button>
          <button type="button" class="btn small main" (click)="tour.next()">
            <ng-container i18n>{number() === count, select, true {Begin} other {Next}}</ng-container>
          </button>
        </div>
      </section>
    }
  }`,
  styleUrl: './tour-card.less',
  host: { '(window:resize)': 'measure()' },
})
export class TourCard {
  protected readonly tour = inject(Tour);
  private readonly desk = inject(DeskStore);
  protected readonly count = STOPS.length;
  protected readonly number = computed(() => (this.tour.at() ?? 0) + 1);
  protected readonly stop = computed(() => {
    const at = this.tour.at();
    return at === null || !this.desk.arrangement() ? null : STOPS[at];
  });
  protected readonly frame = signal<Frame | null>(null);
  protected readonly place = computed(() => {
    const frame = this.frame();
    return frame ? cardPlace(frame, { width: innerWidth, height: innerHeight }) : { left: 0, top: 0 };
  });

  constructor() {
    afterRenderEffect(() => {
      this.stop();
      this.measure();
    });
    inject(Actions).register(() => [
      { name: $localize`Take the tour`, run: () => void this.tour.begin() },
      ...(this.tour.at() === null ? [] : [{ name: $localize`Leave the tour`, keys: ['Escape'], run: () => this.tour.end() }]),
    ]);
  }

  protected measure(): void {
    const target = this.stop()?.target;
    const box = target ? document.querySelector(target)?.getBoundingClientRect() : undefined;
    this.frame.set(
      box ? { left: box.left - EDGE, top: box.top - EDGE, width: box.width + 2 * EDGE, height: box.height + 2 * EDGE } : null,
    );
  }
}
