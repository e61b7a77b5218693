import { placeOf } from './bars.js';
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { barAt, barSpan, countBars, countIn, cutAt, layBars } from './bars.js';
import { countAt, countText } from './counts.js';
import { barTicks, metricStrength } from './meter.js';
import { TICKS_PER_QUARTER as Q } from './ticks.js';

const at = (quarters: number) => Math.round(quarters * Q);

describe('counts', () => {
  it.each([
    [0, '1'],
    [1, '2'],
    [1.5, '2 &'],
    [0.25, '1 e'],
    [0.75, '1 a'],
    [2 + 1 / 3, '3 la'],
    [2 + 2 / 3, '3 li'],
    [0.2, '1 ·'],
  ])('in 4/4, %s quarters in is said "%s"', (quarters, said) => {
    expect(countText(countAt(at(quarters), { beats: 4, unit: 4 }))).toBe(said);
  });

  it('counts compound time in its own beats and cut time in halves', () => {
    expect(countText(countAt(at(1.5), { beats: 6, unit: 8 }))).toBe('4');
    expect(countText(countAt(at(3), { beats: 2, unit: 2 }))).toBe('2 &');
  });
});

describe('bars', () => {
  it('are as many as are counted without laying them, whatever the meters and the pick-up', () => {
    const meter = fc.record({ beats: fc.integer({ min: 1, max: 12 }), unit: fc.constantFrom(2, 4, 8, 16) });
    const changes = fc.array(fc.record({ meter, after: fc.integer({ min: 1, max: 9 * Q }) }), { maxLength: 5 });
    fc.assert(
      fc.property(meter, changes, fc.nat(Q), fc.integer({ min: 1, max: 60 * Q }), (first, rest, pickup, more) => {
        let place = 0;
        const meters = [{ at: 0, ...first }, ...rest.map(({ meter: m, after }) => ({ at: (place += after), ...m }))];
        const grid = { pickup: Math.min(pickup, barTicks(first) - 1), length: pickup + more, meters };
        const bars = layBars(grid).length;
        expect(countBars(grid, 4000)).toBe(bars);
        expect(countBars(grid, 3)).toBe(Math.min(bars, 4));
      }),
    );
  });

  const bars = layBars({ pickup: Q, length: at(1 + 3 * 3), meters: [{ at: 0, beats: 3, unit: 4 }] });

  it('numbers the first full bar 1 and the pick-up 0', () => {
    expect(bars.map((b) => b.number)).toEqual([0, 1, 2, 3]);
    expect(countIn(bars, 0)).toBe('3');
    expect(placeOf(bars, 0)).toEqual({ bar: 0, count: '3' });
    expect(placeOf(bars, at(5))).toEqual({ bar: 2, count: '2' });
  });

  it('finds the bar of a place by halving', () => {
    for (const bar of bars) for (const place of [bar.start, bar.end - 1]) expect(barAt(bars, place)).toBe(bar);
    expect(barAt(bars, at(100))).toBe(bars[3]);
  });

  it('leaves a pick-up that leads into a part out of its bar numbers', () => {
    expect(barSpan(bars, 0, at(4))).toEqual({ from: 1, to: 1 });
    expect(barSpan(bars, at(3), at(7))).toEqual({ from: 2, to: 2 });
  });

  it('follows a change of meter', () => {
    const mixed = layBars({
      pickup: 0,
      length: at(10),
      meters: [
        { at: 0, beats: 4, unit: 4 },
        { at: at(4), beats: 3, unit: 4 },
      ],
    });
    expect(mixed.map((b) => (b.end - b.start) / Q)).toEqual([4, 3, 3]);
  });
});

describe('metric strength', () => {
  it('falls from the bar line to between the counts', () => {
    const strengths = [0, 2, 1, 0.5].map((q) => metricStrength(at(q), { beats: 4, unit: 4 }));
    expect(strengths).toEqual([4, 3, 2, 0]);
    expect(metricStrength(at(0.5), { beats: 6, unit: 8 })).toBe(1);
    expect(metricStrength(at(1.5), { beats: 6, unit: 8 })).toBe(3);
  });
});

describe('ordered items', () => {
  it('are cut at ends without losing or doubling one, each before its end', () => {
    const places = fc.array(fc.integer({ min: 0, max: 99 })).map((all) => all.toSorted((a, b) => a - b));
    fc.assert(
      fc.property(places, places, (starts, cuts) => {
        const items = starts.map((at) => ({ at }));
        const ends = [...cuts, 100];
        const cut = cutAt(items, ends);
        expect(cut).toHaveLength(ends.length);
        expect(cut.flat()).toEqual(items);
        cut.forEach((piece, i) => expect(piece.every(({ at }) => at < ends[i] && at >= (ends[i - 1] ?? 0))).toBe(true));
      }),
    );
  });
});
