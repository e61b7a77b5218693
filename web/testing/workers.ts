import { arrange } from '@joined-hands/core/arrange';
import { simulateLog, type PractisedDays } from '@joined-hands/core/practice';
import { cardOf, checkDocument } from '@joined-hands/core/sheet';
import type { Document } from '@joined-hands/core/song';
import type { Answer, Trouble } from '../src/app/platform/workers/worker-client';

/** The arranging and checking workers without their threads; answers can be held back and let go in any order, or refused. */
export function standInWorkers() {
  const waiting: (() => void)[] = [];
  let holding = false;
  let trouble: Trouble | null = null;
  const usual: Record<string, (...args: never[]) => unknown> = {
    arrange: (document: Document) => arrange(document),
    open: (saved: unknown) => {
      const checked = checkDocument(saved);
      return checked.ok ? { ok: true, document: checked.document, id: 0, arrangement: arrange(checked.document) } : checked;
    },
    edit: (document: Document) => ({ id: 1, change: { whole: arrange(document) }, settled: true }),
    practised: (document: Document, song: string, days: PractisedDays) => simulateLog(arrange(document), song, days),
    cards: (documents: readonly unknown[]) => documents.map(cardOf),
    check: (documents: readonly unknown[]) =>
      documents.map(checkDocument).map((checked) => (checked.ok ? checked.document : null)),
  };
  const answers = { ...usual };
  const client = {
    call: (name: string, ...args: never[]): Promise<Answer<unknown>> =>
      new Promise((resolve) => {
        const refused = trouble;
        const answer = () => {
          if (refused) return resolve({ ok: false, trouble: refused });
          try {
            resolve({ ok: true, value: answers[name](...args) });
          } catch {
            resolve({ ok: false, trouble: 'failed' });
          }
        };
        if (holding) waiting.push(answer);
        else answer();
      }),
  };
  return {
    workers: { arranger: client, checker: client },
    /** Holds every answer back from now on. */
    hold: () => (holding = true),
    /** Answers nothing but this from now on; null for answers again. */
    refuse: (why: Trouble | null) => (trouble = why),
    /** Has a call answered in another way from now on; null for the usual one. */
    answer: (name: string, act: ((...args: never[]) => unknown) | null) => (answers[name] = act ?? usual[name]),
    /** Lets the first answer go, and holds back what is asked after it. */
    letOne: (): void => waiting.shift()?.(),
    /** Lets the answers go, the last that was asked for first. */
    letGo: (): void => {
      holding = false;
      for (const answer of waiting.splice(0).reverse()) answer();
    },
  };
}
