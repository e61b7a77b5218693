import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { makeApp } from './app.js';
import { parseArgs } from 'node:util';
import { closeOnSignal, listen } from './listen.js';

const folder = fileURLToPath(new URL('../../web/dist/browser', import.meta.url));
if (!existsSync(join(folder, 'index.html'))) {
  process.stderr.write('The application is not built yet: run npm start.\n');
  process.exit(1);
}
const { values } = parseArgs({ options: { host: { type: 'string' } }, strict: false });
// Other machines see it only where a host is named on purpose.
const host = typeof values.host === 'string' ? values.host : '127.0.0.1';
const { server, port } = await listen(makeApp(folder), Number(process.env['PORT'] ?? 4173), host);
closeOnSignal(server);
process.stdout.write(`Joined Hands is open at http://${host === '127.0.0.1' ? 'localhost' : host}:${port}\n`);
