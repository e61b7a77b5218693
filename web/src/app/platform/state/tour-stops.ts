import { Directive, ElementRef, Injectable, effect, inject, input } from '@angular/core';

/** What a newcomer is shown, in the order of a first part. */
export const TOUR_STOPS = ['parts', 'strip', 'hands', 'reasons', 'sound', 'places'] as const;
export type TourStop = (typeof TOUR_STOPS)[number];

/** Where the stops of the tour are on the screens that are open. */
@Injectable({ providedIn: 'root' })
export class TourStops {
  private readonly elements = new Map<TourStop, HTMLElement>();

  set(stop: TourStop, element: HTMLElement): void {
    this.elements.set(stop, element);
  }

  clear(stop: TourStop, element: HTMLElement): void {
    if (this.elements.get(stop) === element) this.elements.delete(stop);
  }

  /** The element of a stop; undefined where it is on no open screen, or hidden. */
  element(stop: TourStop): HTMLElement | undefined {
    const element = this.elements.get(stop);
    return element?.checkVisibility() ? element : undefined;
  }
}

/** Marks what a stop of the tour points at. */
@Directive({ selector: '[jhTourStop]' })
export class TourStopMark {
  readonly jhTourStop = input.required<TourStop>();

  constructor() {
    const stops = inject(TourStops);
    const element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    effect((onCleanup) => {
      const stop = this.jhTourStop();
      stops.set(stop, element);
      onCleanup(() => stops.clear(stop, element));
    });
  }
}
