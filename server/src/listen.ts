import type { Express } from 'express';
import type { Server } from 'node:http';

/** How many ports are tried after the first. */
const TRIES = 20;

/** Listens on localhost at `port` or, when that is busy, at the next free one. Rejects when none of them is free. */
export async function listen(app: Express, port: number): Promise<{ server: Server; port: number }> {
  for (let p = port; p < port + TRIES; p++) {
    const server = await attempt(app, p);
    if (server) return { server, port: p };
  }
  throw new Error(`No free port between ${port} and ${port + TRIES - 1}.`);
}

function attempt(app: Express, port: number): Promise<Server | null> {
  return new Promise((resolve, reject) => {
    const server = app.listen(port, '127.0.0.1', (error?: Error) => {
      if (!error) return resolve(server);
      if ((error as NodeJS.ErrnoException).code === 'EADDRINUSE') resolve(null);
      else reject(error);
    });
  });
}
