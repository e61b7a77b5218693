import { afterRenderEffect, signal, type ElementRef, type Signal } from '@angular/core';

/** Pixels that an element is high now, 0 before it is there. Called while the component is made. */
export function heightOf(element: Signal<ElementRef<HTMLElement> | undefined>): Signal<number> {
  const height = signal(0);
  afterRenderEffect((onCleanup) => {
    const measured = element()?.nativeElement;
    if (!measured) return;
    const observer = new ResizeObserver(() => height.set(measured.clientHeight));
    observer.observe(measured);
    onCleanup(() => observer.disconnect());
  });
  return height.asReadonly();
}
