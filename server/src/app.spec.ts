import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeApp } from './app.js';
import { closeOnSignal, listen } from './listen.js';

const folder = mkdtempSync(join(tmpdir(), 'served-'));
const open: Server[] = [];
let base = '';

beforeAll(async () => {
  writeFileSync(join(folder, 'index.html'), '<title>Joined Hands</title>');
  writeFileSync(join(folder, 'main-ABCDEF12.js'), 'let x;');
  writeFileSync(join(folder, 'chunk-ABCDEF34.js'), 'let y;');
  writeFileSync(join(folder, 'chunk-ABCDEF34.js.br'), brotliCompressSync('let y;'));
  const { server, port } = await listen(makeApp(folder), 45170);
  open.push(server);
  base = `http://127.0.0.1:${port}`;
});
afterAll(() => {
  for (const server of open) server.close();
  rmSync(folder, { recursive: true });
});

describe('the server', () => {
  it('answers every screen with the application and a missing file with 404', async () => {
    for (const path of ['/', '/shelf', '/desk/1234']) expect(await (await fetch(base + path)).text()).toContain('Joined Hands');
    expect((await fetch(`${base}/gone.js`)).status).toBe(404);
  });

  it('lets the page talk to its own origin only', async () => {
    const { headers } = await fetch(base);
    const policy = headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("connect-src 'self' data:");
    expect(policy).toContain("base-uri 'self'");
    expect(policy).toContain("form-action 'none'");
    expect(policy).not.toMatch(/https?:|\*/);
    expect(headers.get('x-powered-by')).toBeNull();
    expect(headers.get('x-content-type-options')).toBe('nosniff');
  });

  it('sends what was compressed at the build as it lies, to whoever can read it', async () => {
    const address = `${base}/chunk-ABCDEF34.js`;
    const small = await fetch(address, { headers: { 'accept-encoding': 'br' } });
    expect(small.headers.get('content-encoding')).toBe('br');
    expect(small.headers.get('content-type')).toContain('javascript');
    expect(small.headers.get('cache-control')).toContain('immutable');
    expect(await small.text()).toBe('let y;');
    const plain = await fetch(address, { headers: { 'accept-encoding': 'identity' } });
    expect(plain.headers.get('content-encoding')).toBeNull();
    expect(await plain.text()).toBe('let y;');
  });

  it('keeps named builds for a year and the page itself not at all', async () => {
    expect((await fetch(`${base}/main-ABCDEF12.js`)).headers.get('cache-control')).toContain('immutable');
    expect((await fetch(base)).headers.get('cache-control')).toBe('no-cache');
  });

  it('answers HEAD as it answers GET, and no other method', async () => {
    for (const path of ['/', '/desk/1234', '/main-ABCDEF12.js']) {
      const [head, get] = await Promise.all([fetch(base + path, { method: 'HEAD' }), fetch(base + path)]);
      expect([head.status, head.headers.get('content-type')]).toEqual([get.status, get.headers.get('content-type')]);
      expect(await head.text()).toBe('');
    }
    for (const method of ['POST', 'PUT', 'DELETE', 'OPTIONS']) {
      const answer = await fetch(`${base}/shelf`, { method });
      expect([method, answer.status, answer.headers.get('allow')]).toEqual([method, 405, 'GET, HEAD']);
    }
  });

  it('says that it is well, sends no referrer and lies in no frame', async () => {
    const health = await fetch(`${base}/health`);
    expect([health.status, await health.json(), health.headers.get('cache-control')]).toEqual([
      200,
      { status: 'ok' },
      'no-store',
    ]);
    const { headers } = await fetch(base);
    expect(headers.get('referrer-policy')).toBe('no-referrer');
    expect(headers.get('x-frame-options')).toBe('DENY');
  });

  it('is open to this machine only unless a host is named', async () => {
    const { server } = await listen(makeApp(folder), 45230);
    open.push(server);
    expect(server.address()).toMatchObject({ address: '127.0.0.1' });
    const wide = await listen(makeApp(folder), 45260, '0.0.0.0');
    open.push(wide.server);
    expect(wide.server.address()).toMatchObject({ address: '0.0.0.0' });
  });

  it('goes when it is asked to stop', async () => {
    const { server } = await listen(makeApp(folder), 45290);
    const gone = new Promise((resolve) => server.once('close', resolve));
    closeOnSignal(server);
    process.emit('SIGTERM');
    await gone;
    expect(server.listening).toBe(false);
  });

  it('does not wait for a request that is never finished', async () => {
    const { server, port } = await listen(makeApp(folder), 45320);
    const gone = new Promise((resolve) => server.once('close', resolve));
    const half = connect(port, '127.0.0.1');
    half.on('error', () => undefined);
    await new Promise<void>((resolve) => half.write('GET / HTTP/1.1\r\nHost: x\r\n', () => resolve()));
    await new Promise<void>((resolve) =>
      server.getConnections((_, count) => (count > 0 ? resolve() : server.once('connection', () => resolve()))),
    );
    closeOnSignal(server, 20);
    process.emit('SIGTERM');
    await gone;
    expect(server.listening).toBe(false);
  });

  it('takes the next port when one is busy', async () => {
    const first = Number(new URL(base).port);
    const { server, port } = await listen(makeApp(folder), first);
    open.push(server);
    expect(port).toBeGreaterThan(first);
  });
});
