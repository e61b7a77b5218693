import { describe, expect, it } from 'vitest';
import { latestWins } from './latest';

describe('what is asked again before it was answered', () => {
  it('is answered to the last who asked, however late the others come back', async () => {
    const begin = latestWins();
    const shown: string[] = [];
    const releases: (() => void)[] = [];
    const ask = async (what: string): Promise<void> => {
      const isLatest = begin();
      await new Promise<void>((resolve) => releases.push(resolve));
      if (isLatest()) shown.push(what);
    };
    const all = ['first', 'second', 'third'].map(ask);
    for (const release of releases.reverse()) release();
    await Promise.all(all);
    expect(shown).toEqual(['third']);
  });
});
