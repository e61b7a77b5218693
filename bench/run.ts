// Measures what the application does and prints one table: "--page" keeps it as docs/bench.md, "--long" adds five minutes of clicks.
import { fileURLToPath } from 'node:url';
import { arranging, searches, stages, understood } from './arranging.js';
import { listening } from './listening.js';
import { onScreen } from './screen.js';
import { show } from './table.js';
import { voicings } from './voicings.js';

const asked = (flag: string) => process.argv.includes(flag);
const rows = [
  ...arranging(),
  ...(await stages()),
  ...voicings(),
  ...searches(),
  ...understood(),
  ...listening(),
  ...(await onScreen(asked('--long'))),
];
show(rows, asked('--page') ? fileURLToPath(new URL('../docs/bench.md', import.meta.url)) : null);
