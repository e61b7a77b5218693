import { arrange } from '@joined-hands/core/arrange';
import { lessonScript } from '@joined-hands/core/lesson';
import { ENGLISH } from '@joined-hands/core/words';
import { describe, expect, it } from 'vitest';
import { demo, DEMOS } from '../../../../../core/testing/songs';
import { inOneRow, takesOf } from './reel';

const YOURS = { says: 'Your turn.' };

describe('a lesson as it is seen and heard', () => {
  it.each(DEMOS)('has a shot for every moment, in order and with no gap, and what sounds is marked: %s', (name) => {
    const arrangement = arrange(demo(name));
    const script = lessonScript(arrangement, { first: 'right', by: 'words', joins: 'chain' });
    for (const turns of [YOURS, null]) {
      const takes = takesOf(arrangement, script, ENGLISH, turns);
      expect(takes).toHaveLength(script.chapters.flatMap((c) => c.scenes).length);
      const row = inOneRow(takes);
      for (const [i, { shot, start, until }] of row.entries()) {
        expect(until).toBeGreaterThan(shot.from);
        const next = row.at(i + 1);
        if (next) expect(next.start + next.shot.from).toBeCloseTo(start + until, 6);
      }
      for (const { sounds, shots, seconds } of takes)
        for (const { time, midi } of sounds) {
          expect(time).toBeLessThan(seconds);
          // A key that is heard while notes are played is shown.
          const shot = shots.findLast((s) => s.from <= time + 0.02);
          if (midi !== null && shot && shot.at !== null && shot.keys.length > 0 && !shot.caption.includes('inversion') && !shot.caption.includes('position'))
            expect(shot.keys.map((k) => k.midi), `${name} at ${time}`).toContain(midi); // prettier-ignore
        }
      const said = row.map((r) => r.shot.caption);
      expect(said.includes(YOURS.says)).toBe(turns !== null);
    }
  });
});
