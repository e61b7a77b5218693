import type { Express } from 'express';
import type { Server } from 'node:http';

/** How many ports are tried after the first. */
const TRIES = 20;

/** Listens at `port` or, when that is busy, at the next free one; on this machine only unless a host is named. Rejects when none is free. */
export async function listen(app: Express, port: number, host = '127.0.0.1'): Promise<{ server: Server; port: number }> {
  for (let p = port; p < port + TRIES; p++) {
    const server = await attempt(app, p, host);
    if (server) return { server, port: p };
  }
  throw new Error(`No free port between ${port} and ${port + TRIES - 1}.`);
}

function attempt(app: Express, port: number, host: string): Promise<Server | null> {
  return new Promise((resolve, reject) => {
    const server = app.listen(port, host, (error?: Error) => {
      if (!error) return resolve(server);
      if ((error as NodeJS.ErrnoException).code === 'EADDRINUSE') resolve(null);
      else reject(error);
    });
  });
}

/** Milliseconds that a request which was begun has to finish once the process is asked to stop. */
const GRACE_MS = 2000;

/**
 * Answers what was begun, takes nothing new, and is gone when the process is asked to stop: a request that does not finish in its
 * time is let go.
 */
export function closeOnSignal(server: Server, graceMs = GRACE_MS): void {
  const close = () => {
    server.close();
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), graceMs).unref();
  };
  process.once('SIGTERM', close);
  process.once('SIGINT', close);
}
