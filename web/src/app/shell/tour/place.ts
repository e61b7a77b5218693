/** Pixels around what is pointed at, and between it and the words. */
export const EDGE = 6;
const AWAY = 18;

/** Size of the card with the words, in pixels. */
const CARD = { width: 320, height: 190 } as const;

interface Place {
  readonly left: number;
  readonly top: number;
}

/** A box on the screen, in pixels. */
export interface Frame extends Place {
  readonly width: number;
  readonly height: number;
}

/** Where the card stands: beside what is pointed at where there is room, else under or over it, always in sight. */
export function cardPlace(frame: Frame, screen: { readonly width: number; readonly height: number }): Place {
  const right = frame.left + frame.width + AWAY;
  const before = frame.left - AWAY - CARD.width;
  const under = frame.top + frame.height + AWAY;
  const [beside, top] =
    right + CARD.width <= screen.width
      ? [right, frame.top]
      : before >= 0
        ? [before, frame.top]
        : [frame.left, under + CARD.height <= screen.height ? under : frame.top - AWAY - CARD.height];
  const within = (at: number, size: number, room: number) => Math.max(EDGE, Math.min(at, room - size - EDGE));
  return { left: within(beside, CARD.width, screen.width), top: within(top, CARD.height, screen.height) };
}
