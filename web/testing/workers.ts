import { arrange, practised, type Arrangement, type Document, type PractisedDays } from '@joined-hands/core';

/** The arranging worker without its thread; answers can be held back and let go in any order. */
export function standInWorkers() {
  const waiting: (() => void)[] = [];
  let holding = false;
  return {
    workers: {
      arranger: {
        arrange: (document: Document): Promise<Arrangement> =>
          new Promise((resolve) => {
            const answer = () => resolve(arrange(document));
            if (holding) waiting.push(answer);
            else answer();
          }),
        practised: async (document: Document, song: string, days: PractisedDays) => practised(arrange(document), song, days),
      },
    },
    /** Holds every answer back from now on. */
    hold: () => (holding = true),
    /** Lets the answers go, the last that was asked for first. */
    letGo: (): void => {
      holding = false;
      for (const answer of waiting.splice(0).reverse()) answer();
    },
  };
}
