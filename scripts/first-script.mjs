// What a built page loads before its first screen.
import { readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** A script and all that it imports before it runs. */
export function withImports(folder, script, found = new Set()) {
  if (found.has(script)) return found;
  found.add(script);
  const text = readFileSync(join(folder, script), 'utf8');
  for (const [, name] of text.matchAll(/(?:from|import)"\.\/([\w-]+\.js)"/g)) withImports(folder, name, found);
  return found;
}

/** Bytes of the scripts that the page loads before its first screen, as they are sent. */
export function firstScript(folder) {
  const found = new Set();
  for (const [, name] of readFileSync(join(folder, 'index.html'), 'utf8').matchAll(/src="([\w-]+\.js)"/g))
    withImports(folder, name, found);
  return [...found].reduce((sum, name) => sum + statSync(join(folder, `${name}.br`)).size, 0);
}
