/** True for a press elsewhere than on an element: what the element opened closes then, and its own press decides for itself. */
export const isOutside = ({ target }: Event, element: HTMLElement): boolean =>
  !(target instanceof Node && element.contains(target));
