// Writes the lists of what lies in folders: a texture, a fill, a school, a drill, a format or a screen is a file, and a line nowhere else.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { root } from './install.mjs';

/** Written at the head of every list. */
const HEAD = '// Written by `npm run lists` from the files that it names: they say their order.\n';

/**
 * What lies in a folder: the files, how each exports what is listed, the list that is written, and how that is laid out. Where an item
 * has a name that stands in documents, `named` says after what it stands in the file, and how all of them are listed.
 */
const KINDS = [
  {
    files: () => inFolder('core/src/catalogue/textures'),
    exported: /export const (\w+) = texture\(/g,
    into: 'core/src/catalogue/textures/list.ts',
    lay: (names) => `/** The textures that come with the application. */\nexport const TEXTURES = [${names}];`,
  },
  {
    files: () => inFolder('core/src/catalogue/fills'),
    exported: /export const (\w+): FillMaker = /g,
    named: { by: 'kind', as: 'FILL_NAMES', what: 'Kinds of fills, in the order in which they are offered.' },
    into: 'core/src/catalogue/fills/list.ts',
    lay: (names) => `/** Every kind of fill. */\nexport const FILLS = [${names}];`,
  },
  {
    files: () => inFolder('core/src/catalogue/schools'),
    exported: /export const (\w+): SchoolRules = /g,
    named: { by: 'school', as: 'SCHOOLS', what: 'Schools of left-hand voicing, the usual one first.' },
    into: 'core/src/catalogue/schools/list.ts',
    lay: (names) => `/** Every school of left-hand voicing. */\nexport const ALL_SCHOOLS = [${names}];`,
  },
  {
    files: () => inFolder('core/src/catalogue/drills'),
    exported: /export const (\w+) = drillKind\(/g,
    into: 'core/src/catalogue/drills/list.ts',
    lay: (names) => `/** Every kind of drill. */\nexport const ALL_DRILLS = [${names}] as const;`,
  },
  {
    files: () => inFoldersOf('core/src/formats', 'format.ts'),
    exported: /export const (\w+) = \{/g,
    into: 'core/src/formats/list.ts',
    lay: (names) => `/** Every format that a song may come in. */\nexport const READERS = { ${names} };`,
  },
  {
    files: () => inFoldersOf('web/src/app/features', 'screen.ts'),
    exported: /export const (\w+): ScreenDescriptor = /g,
    into: 'web/src/app/shell/screens.ts',
    lay: (names) => `/** Every screen. */\nexport const SCREENS = [${names}];`,
  },
];

/** The names that stand in documents lie below the catalogue, which knows documents. */
const NAMES = 'core/src/song/catalogue-names.ts';

const inFolder = (folder) =>
  readdirSync(join(root, folder))
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.spec.ts'))
    .map((name) => `${folder}/${name}`);

const inFoldersOf = (folder, name) =>
  readdirSync(join(root, folder), { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && readdirSync(join(root, folder, entry.name)).includes(name))
    .map((entry) => `${folder}/${entry.name}/${name}`);

/** What the files of a kind export, in their order. Throws where an item says no order, or one that another has. */
function itemsOf({ files, exported, named }) {
  const items = files().flatMap((file) => {
    const text = readFileSync(join(root, file), 'utf8');
    const found = [...text.matchAll(exported)];
    return found.map((match, i) => {
      const body = text.slice(match.index, found[i + 1]?.index);
      const order = /[{,]\s*order: (\d+)\b/.exec(body);
      const name = named && new RegExp(`[{,]\\s*${named.by}: '([\\w-]+)'`).exec(body);
      if (!order) throw new Error(`${file}: ${match[1]} says no order.`);
      if (named && !name) throw new Error(`${file}: ${match[1]} says no ${named.by}.`);
      return { file, as: match[1], order: Number(order[1]), name: name?.[1] };
    });
  });
  items.sort((a, b) => a.order - b.order);
  items.forEach(({ file, order }, i) => {
    if (i > 0 && items[i - 1].order === order) throw new Error(`${file} has the order of ${items[i - 1].file}: ${order}.`);
  });
  return items;
}

/** The import of an item in a list: packages of the core name the file that will be there when it runs. */
function importOf({ file, as }, into) {
  const path = relative(dirname(into), file).replace(/\.ts$/, into.startsWith('core') ? '.js' : '');
  return `import { ${as} } from '${path.startsWith('.') ? path : `./${path}`}';`;
}

/** The lists as they should be, by file. */
async function lists() {
  const laid = new Map();
  const names = [];
  for (const kind of KINDS) {
    const items = itemsOf(kind);
    const imports = items.map((item) => importOf(item, kind.into)).sort();
    laid.set(kind.into, `${HEAD}${imports.join('\n')}\n\n${kind.lay(items.map((i) => i.as).join(', '))}\n`);
    const quoted = items.map((i) => `'${i.name}'`).join(', ');
    if (kind.named) names.push(`/** ${kind.named.what} */\nexport const ${kind.named.as} = [${quoted}] as const;`);
  }
  laid.set(NAMES, `${HEAD}\n${names.join('\n\n')}\n`);
  const style = await resolveConfig(join(root, NAMES));
  for (const [file, text] of laid) laid.set(file, await format(text, { ...style, parser: 'typescript' }));
  return laid;
}

const looking = process.argv.includes('--check');
const changed = [];
for (const [file, text] of await lists()) {
  const path = join(root, file);
  if (existsSync(path) && readFileSync(path, 'utf8') === text) continue;
  changed.push(file);
  if (!looking) writeFileSync(path, text);
}
if (changed.length > 0) console.log(`${looking ? 'Not as the files say, run npm run lists' : 'Written'}: ${changed.join(', ')}`);
process.exitCode = looking && changed.length > 0 ? 1 : 0;
