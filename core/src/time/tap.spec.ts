import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { meterFrom } from './meter.js';
import { tappedTempo } from './tap.js';

const taps = (many: number, each: number, from = 0) => Array.from({ length: many }, (_, i) => from + i * each);

describe('a tempo that is tapped', () => {
  it('is that of the beats, which are dotted quarters in compound time', () => {
    expect(tappedTempo(taps(4, 500), meterFrom('4/4'))).toBe(120);
    expect(tappedTempo(taps(4, 1000), meterFrom('6/8'))).toBe(90);
    expect(tappedTempo(taps(4, 1000), meterFrom('2/2'))).toBe(120);
  });

  it('needs three taps that belong together; after a pause it begins anew', () => {
    expect(tappedTempo(taps(2, 500), meterFrom('4/4'))).toBeNull();
    expect(tappedTempo([...taps(5, 500), ...taps(2, 750, 9000)], meterFrom('4/4'))).toBeNull();
    expect(tappedTempo([...taps(5, 500), ...taps(3, 750, 9000)], meterFrom('4/4'))).toBe(80);
  });

  it('is not misled by one tap that came late, and follows a change of mind', () => {
    const late = taps(7, 600).map((at, i) => (i === 3 ? at + 180 : at));
    expect(tappedTempo(late, meterFrom('3/4'))).toBe(100);
    expect(tappedTempo([...taps(6, 400), ...taps(10, 800, 2800)], meterFrom('3/4'))).toBe(75);
  });

  it('is a tempo that a song can have, however one taps', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 4000 }), { maxLength: 20 }), (gaps) => {
        let at = 0;
        const tempo = tappedTempo(
          gaps.map((gap) => (at += gap)),
          meterFrom('4/4'),
        );
        if (tempo === null) return;
        expect(Number.isInteger(tempo)).toBe(true);
        expect(tempo).toBeGreaterThanOrEqual(20);
        expect(tempo).toBeLessThanOrEqual(400);
      }),
    );
  });
});
