import fc from 'fast-check';
import { expect, it } from 'vitest';
import { cardPlace } from './place';

const size = fc.integer({ min: 20, max: 1200 });
const screens = fc.constantFrom({ width: 1280, height: 800 }, { width: 1024, height: 768 }, { width: 820, height: 1180 });

it('the words are in sight wherever something is pointed at, and beside it where there is room', () => {
  fc.assert(
    fc.property(fc.record({ left: size, top: size, width: size, height: size }), screens, (frame, screen) => {
      const { left, top } = cardPlace(frame, screen);
      expect(left).toBeGreaterThanOrEqual(0);
      expect(top).toBeGreaterThanOrEqual(0);
      expect(left + 320).toBeLessThanOrEqual(screen.width);
      expect(top + 190).toBeLessThanOrEqual(screen.height);
      if (frame.left + frame.width + 360 < screen.width) expect(left).toBeGreaterThan(frame.left + frame.width);
    }),
  );
});
