import { wrap, type Remote } from 'comlink';

/** Why a worker gave no answer: its work failed, took too long, was stopped from here, or its program could not be loaded. */
export type Trouble = 'failed' | 'late' | 'stopped' | 'unavailable';

/** What a worker was asked for, or why it is not there. A call never rejects and never waits for ever. */
export type Answer<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly trouble: Trouble };

type Calls = Record<string, (...args: never[]) => unknown>;

interface Waiting {
  readonly begin: () => void;
  readonly give: (trouble: Trouble) => void;
}

/**
 * A worker that answers one call after another. A call that takes longer than the deadline ends the worker with it: the next call has
 * a new one. What waits behind it is asked there.
 */
export class WorkerClient<Api extends Calls> {
  private running: { readonly worker: Worker; readonly api: Remote<Api> } | null = null;
  private readonly waiting: Waiting[] = [];
  private current: Waiting | null = null;

  constructor(
    private readonly make: () => Worker,
    /** Milliseconds that one call may take. */
    private readonly deadline: number,
  ) {}

  /** Starts the worker before it is needed. */
  warm(): void {
    this.start();
  }

  call<K extends keyof Api>(name: K, ...args: Parameters<Api[K]>): Promise<Answer<Awaited<ReturnType<Api[K]>>>> {
    return new Promise((resolve) => {
      let timer: ReturnType<typeof setTimeout> | undefined;
      const give = (answer: Answer<Awaited<ReturnType<Api[K]>>>) => {
        clearTimeout(timer);
        resolve(answer);
        if (this.current === call) this.next();
      };
      const call: Waiting = {
        begin: () => {
          timer = setTimeout(() => this.end('late'), this.deadline);
          try {
            const ask = this.start().api[name] as unknown as (...args: unknown[]) => Promise<Awaited<ReturnType<Api[K]>>>;
            ask(...args).then(
              (value) => give({ ok: true, value }),
              () => give({ ok: false, trouble: 'failed' }),
            );
          } catch {
            // What cannot be sent to a worker, or no worker to be had.
            give({ ok: false, trouble: 'failed' });
          }
        },
        give: (trouble) => give({ ok: false, trouble }),
      };
      this.waiting.push(call);
      if (!this.current) this.next();
    });
  }

  /** Lets go of what waits; what is under way goes on. */
  skipWaiting(): void {
    for (const call of this.waiting.splice(0)) call.give('stopped');
  }

  /** Ends what is under way and all that waits, and the worker with it. */
  stop(): void {
    this.skipWaiting();
    this.end('stopped');
  }

  private next(): void {
    this.current = this.waiting.shift() ?? null;
    this.current?.begin();
  }

  private start(): { readonly worker: Worker; readonly api: Remote<Api> } {
    if (!this.running) {
      const worker = this.make();
      // Its program is not there, or fell over outside any call.
      worker.addEventListener('error', () => this.running?.worker === worker && this.end('unavailable'));
      this.running = { worker, api: wrap<Api>(worker) };
    }
    return this.running;
  }

  private end(trouble: Trouble): void {
    this.running?.worker.terminate();
    this.running = null;
    this.current?.give(trouble);
  }
}
