import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';

const IMPORT = /(?:^|\n)\s*(?:import|export)\b[^'"]*?\bfrom\s*['"](\.[^'"]+)['"]|(?:^|\n)\s*import\s*['"](\.[^'"]+)['"]/g;

/** The TypeScript sources under a folder, tests left out. */
function sources(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return sources(path);
    return /\.ts$/.test(entry.name) && !/\.(spec|d)\.ts$/.test(entry.name) ? [path] : [];
  });
}

/** What each file imports, types included; what is loaded later by `import()` is no part of a circle. */
function importsUnder(folder) {
  const files = new Set(sources(folder));
  const imports = new Map();
  for (const file of files) {
    const found = [...readFileSync(file, 'utf8').matchAll(IMPORT)].map(([, from, bare]) => from ?? bare);
    const paths = found.map((spec) => resolve(dirname(file), spec).replace(/(\.js)?$/, '.ts'));
    imports.set(
      file,
      paths.filter((path) => files.has(path)),
    );
  }
  return imports;
}

/** For each file in a circle of imports the files of the shortest way round; by a search from it. */
function circles(imports) {
  const found = new Map();
  for (const start of imports.keys()) {
    const before = new Map([[start, null]]);
    const queue = [start];
    let end = null;
    while (queue.length > 0 && end === null) {
      const file = queue.shift();
      for (const next of imports.get(file)) {
        if (next === start) end = file;
        else if (!before.has(next)) queue.push((before.set(next, file), next));
      }
    }
    if (end === null) continue;
    const way = [];
    for (let at = end; at !== null; at = before.get(at)) way.unshift(at);
    found.set(start, way);
  }
  return found;
}

const known = new Map();

/** No file imports itself by way of others, not for a type either. */
export default {
  rules: {
    'no-cycles': {
      meta: { type: 'problem', schema: [{ type: 'string' }] },
      create(context) {
        const root = resolve(context.options[0]);
        if (!known.has(root)) known.set(root, circles(importsUnder(root)));
        const way = known.get(root).get(context.filename);
        if (!way) return {};
        const names = [...way, way[0]].map((file) => relative(root, file)).join(' → ');
        return { Program: (node) => context.report({ node, message: `Imports go round in a circle: ${names}` }) };
      },
    },
  },
};
