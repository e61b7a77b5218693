import compression from 'compression';
import express, { type Express } from 'express';
import compressedFiles from 'express-static-gzip';
import helmet from 'helmet';
import { join } from 'node:path';

/** Headers that keep everything on this origin: nothing is fetched from or sent to anywhere else. */
const POLICY = {
  defaultSrc: ["'self'"],
  // The engraver is WebAssembly; the audio clock runs in a worker made from a blob.
  scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
  workerSrc: ["'self'", 'blob:'],
  // The framework and the engraver write styles into the page.
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", 'data:'],
  fontSrc: ["'self'", 'data:'],
  connectSrc: ["'self'", 'data:'],
  objectSrc: ["'none'"],
  baseUri: ["'self'"],
  formAction: ["'none'"],
  frameAncestors: ["'none'"],
  upgradeInsecureRequests: null,
};

/** Serves the built application from a folder. Keeps nothing. */
export function makeApp(folder: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      frameguard: { action: 'deny' },
      referrerPolicy: { policy: 'no-referrer' },
      contentSecurityPolicy: { useDefaults: false, directives: POLICY },
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
    }),
  );
  // Nothing is written here: the page and its files are read, and that is all.
  app.use((request, response, next) => {
    if (request.method === 'GET' || request.method === 'HEAD') {
      next();
      return;
    }
    response.status(405).setHeader('Allow', 'GET, HEAD').type('text').send('Method not allowed');
  });
  app.get('/health', (_request, response) => {
    response.setHeader('Cache-Control', 'no-store');
    response.json({ status: 'ok' });
  });
  // What the build has compressed is sent so; the rest is compressed as it goes.
  app.use(compression());
  app.use(
    compressedFiles(folder, {
      enableBrotli: true,
      orderPreference: ['br'],
      index: false,
      serveStatic: {
        setHeaders: (response, path) => {
          const hashed = /-[A-Z0-9]{8}\.(js|css|woff2?)(\.br)?$/.test(path);
          response.setHeader('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      },
    }),
  );
  // Screens have addresses of their own; missing files are missing.
  app.use((request, response) => {
    if (/\.[a-z0-9]+$/i.test(request.path)) {
      response.status(404).type('text').send('Not found');
      return;
    }
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(folder, 'index.html'));
  });
  return app;
}
