import { expose } from 'comlink';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { WorkerClient } from './worker-client';

/** A worker without a thread: what it is asked is answered over a channel of its own; it may hang, fall over, or not be there. */
class StandInWorker extends EventTarget {
  readonly ended = vi.fn();
  private readonly channel = new MessageChannel();

  constructor() {
    super();
    const hang = () => new Promise<never>(() => undefined);
    expose({ double: (n: number) => 2 * n, fail: () => Promise.reject(new Error('no')), hang }, this.channel.port1);
    this.channel.port2.addEventListener('message', (e) => this.dispatchEvent(new MessageEvent('message', { data: e.data })));
    this.channel.port2.start();
  }

  postMessage(message: unknown): void {
    this.channel.port2.postMessage(message);
  }

  terminate(): void {
    this.ended();
    this.channel.port1.close();
    this.channel.port2.close();
  }
}

type Api = { double(n: number): number; fail(): never; hang(): void };

let made: StandInWorker[] = [];
let client: WorkerClient<Api>;
beforeEach(() => {
  made = [];
  client = new WorkerClient<Api>(() => {
    made.push(new StandInWorker());
    return made[made.length - 1] as unknown as Worker;
  }, 200);
});
afterEach(() => client.stop());

describe('a worker that may fail', () => {
  it('answers one call after another', async () => {
    expect(await Promise.all([client.call('double', 2), client.call('double', 4)])).toEqual([
      { ok: true, value: 4 },
      { ok: true, value: 8 },
    ]);
    expect(made).toHaveLength(1);
  });

  it('answers that something failed, and goes on', async () => {
    expect(await client.call('fail')).toEqual({ ok: false, trouble: 'failed' });
    expect(await client.call('double', 1)).toEqual({ ok: true, value: 2 });
  });

  it('is ended with a call that takes too long; what waits behind it is answered by a new one', async () => {
    const [stuck, behind] = await Promise.all([client.call('hang'), client.call('double', 3)]);
    expect([stuck, behind]).toEqual([
      { ok: false, trouble: 'late' },
      { ok: true, value: 6 },
    ]);
    expect(made.map((w) => w.ended.mock.calls.length)).toEqual([1, 0]);
  });

  it('is stopped with all that waits, and starts anew', async () => {
    const calls = [client.call('hang'), client.call('double', 3)];
    client.stop();
    expect(await Promise.all(calls)).toEqual([
      { ok: false, trouble: 'stopped' },
      { ok: false, trouble: 'stopped' },
    ]);
    expect(await client.call('double', 5)).toEqual({ ok: true, value: 10 });
  });

  it('lets go of what waits alone', async () => {
    const calls = [client.call('double', 1), client.call('double', 2)];
    client.skipWaiting();
    expect(await Promise.all(calls)).toEqual([
      { ok: true, value: 2 },
      { ok: false, trouble: 'stopped' },
    ]);
  });

  it('says that its program is not there, and is sought again with the next call', async () => {
    const call = client.call('hang');
    made[0].dispatchEvent(new Event('error'));
    expect(await call).toEqual({ ok: false, trouble: 'unavailable' });
    expect(await client.call('double', 1)).toEqual({ ok: true, value: 2 });
    expect(made).toHaveLength(2);
  });
});
