import fc from 'fast-check';
import { expect, it } from 'vitest';
import { grouped } from './grouped.js';

it('groups keep every item in its order, and come in the order of their first', () => {
  fc.assert(
    fc.property(fc.array(fc.record({ of: fc.nat(4), n: fc.nat() })), (items) => {
      const groups = grouped(items, (item) => item.of);
      expect([...groups.values()].flat()).toHaveLength(items.length);
      for (const [of, group] of groups) expect(group).toEqual(items.filter((item) => item.of === of));
      expect([...groups.keys()]).toEqual([...new Set(items.map((item) => item.of))]);
    }),
  );
});
