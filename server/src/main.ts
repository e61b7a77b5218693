import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { makeApp } from './app.js';
import { listen } from './listen.js';

const folder = fileURLToPath(new URL('../../web/dist/browser', import.meta.url));
if (!existsSync(join(folder, 'index.html'))) {
  process.stderr.write('The application is not built yet: run npm start.\n');
  process.exit(1);
}
const { port } = await listen(makeApp(folder), Number(process.env['PORT'] ?? 4173));
process.stdout.write(`Joined Hands is open at http://localhost:${port}\n`);
