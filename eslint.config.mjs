import js from '@eslint/js';
import angular from 'angular-eslint';
import { readdirSync } from 'node:fs';
import tseslint from 'typescript-eslint';
import cycles from './scripts/lint/no-cycles.mjs';
import marked from './scripts/lint/words-marked.mjs';

/** The folders of core in the order of the work: each imports only from those before it. */
const ORDER = [
  'lists',
  'time',
  'pitch',
  'harmony',
  'song',
  'formats',
  'divide',
  'catalogue/textures',
  'catalogue/schools',
  'fingers',
  'left-hand',
  'right-hand',
  'join',
  'catalogue/fills',
  'fills',
  'difficulty',
  'arrange',
  'sheet',
  'log',
  'practice',
  'lesson',
  'passing',
  'hearing',
  'catalogue/drills',
  'words',
];

const missing = readdirSync('core/src', { withFileTypes: true }).filter(
  (e) => e.isDirectory() && !ORDER.some((folder) => folder.split('/')[0] === e.name),
);
if (missing.length > 0) throw new Error(`core/src/${missing[0].name} has no place in the import order of eslint.config.mjs`);

const PLATFORM = [
  '@angular/*',
  'ng-zorro-antd/*',
  '@ngrx/*',
  'dexie',
  'tone',
  'verovio/*',
  'express',
  'node:*',
  'fs',
  'path',
  '@joined-hands/*',
];

/** How a folder may be written in an import from another, from one kind of the catalogue to the next too. */
const pathsTo = (folder, from) => {
  const beside = [from, folder].every((f) => f.startsWith('catalogue/')) ? [folder.replace('catalogue', '..') + '/**'] : [];
  return [`../${folder}/**`, `../../${folder}/**`, ...beside];
};

/** The platform stays out of core, and imports inside it go one way. */
const coreOrder = ORDER.map((folder, i) => ({
  files: [`core/src/${folder}/**/*.ts`],
  ignores: ['**/*.spec.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { group: PLATFORM, message: 'core is pure: it knows no interface and no platform.' },
          ...(i < ORDER.length - 1
            ? [
                {
                  group: [...new Set(ORDER.slice(i + 1).flatMap((later) => pathsTo(later, folder)))],
                  message: `${folder} comes before these folders; imports go the other way.`,
                },
              ]
            : []),
          { group: ['../index.js', '../../index.js'], message: 'Import from the folder, not from the public surface.' },
        ],
      },
    ],
  },
}));

/** The layers of the page: each imports only from those before it, and no feature from another. */
const LAYERS = ['platform', 'ui', 'features', 'shell'];
const FEATURES = readdirSync('web/src/app/features');
const NOT_CORE = { group: ['**/server/**', '**/cli/**'], message: 'web knows only core.' };
const later = (layer) =>
  LAYERS.slice(LAYERS.indexOf(layer) + 1).map((above) => ({
    group: [`**/${above}/**`],
    message: `${layer} comes before ${above}; imports go the other way.`,
  }));
const layer = (files, patterns) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [NOT_CORE, ...patterns] }] },
});
const webLayers = [
  ...LAYERS.filter((name) => name !== 'features').map((name) => layer([`web/src/app/${name}/**/*.ts`], later(name))),
  ...FEATURES.map((name) => {
    const others = FEATURES.filter((f) => f !== name).flatMap((f) => [`../${f}/**`, `../../${f}/**`, `**/features/${f}/**`]);
    const apart = { group: others, message: 'A feature knows no other: what two of them need stands in ui or platform.' };
    return layer([`web/src/app/features/${name}/**/*.ts`], [...later('features'), apart]);
  }),
];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.angular/**', 'test-results/**', 'coverage/**'] },
  { files: ['**/*.ts', '**/*.mjs'], extends: [js.configs.recommended, ...tseslint.configs.recommended] },
  {
    files: ['**/*.ts', '**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
      },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unused-expressions': ['error', { allowShortCircuit: true }],
      'no-control-regex': 'off',
      eqeqeq: 'error',
    },
  },
  { files: ['core/**/*.ts', 'cli/**/*.ts', 'server/**/*.ts'], rules: { '@typescript-eslint/consistent-type-imports': 'error' } },
  {
    // Nothing that may fail is left to itself: a promise is awaited, handed on, or let go with "void" and caught by the page's handler.
    files: ['core/src/**/*.ts', 'cli/src/**/*.ts', 'server/src/**/*.ts', 'web/src/**/*.ts', 'e2e/**/*.ts', 'bench/**/*.ts'],
    languageOptions: {
      parserOptions: {
        // One program of everything: several would read and check the core again each.
        project: 'tsconfig.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: { '@typescript-eslint/no-floating-promises': 'error', '@typescript-eslint/no-misused-promises': 'error' },
  },
  {
    files: ['core/src/**/*.ts', 'cli/src/**/*.ts', 'server/src/**/*.ts', 'web/src/**/*.ts'],
    extends: [...tseslint.configs.strictTypeChecked],
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': [
        'error',
        { ignoreArrowShorthand: true, ignoreVoidReturningFunctions: true },
      ],
      // An index may miss: the compiler takes it for found, so that what asks whether it was looks needless to this rule.
      '@typescript-eslint/no-unnecessary-condition': 'off',
    },
  },
  {
    // Tests look at what is not typed, and put stand-ins in the place of methods.
    files: ['**/*.spec.ts'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/restrict-template-expressions': 'off',
      '@typescript-eslint/no-base-to-string': 'off',
      '@typescript-eslint/no-misused-spread': 'off',
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/unbound-method': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
    },
  },
  {
    files: ['core/src/**/*.ts', 'cli/src/**/*.ts', 'server/src/**/*.ts', 'web/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: { complexity: ['error', 30], 'max-depth': ['error', 5] },
  },
  ...['core/src', 'web/src'].map((root) => ({
    files: [`${root}/**/*.ts`],
    ignores: ['**/*.spec.ts'],
    plugins: { imports: cycles },
    rules: { 'imports/no-cycles': ['error', root] },
  })),
  ...coreOrder,
  {
    files: ['cli/**/*.ts', 'server/**/*.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['@angular/*', '@joined-hands/web', '../../web/**'] }] },
  },
  {
    files: ['web/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': 'off',
      '@angular-eslint/directive-selector': 'off',
      'no-restricted-imports': ['error', { patterns: [NOT_CORE] }],
    },
  },
  {
    files: ['web/src/app/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/*.worker.ts', 'web/src/app/ui/gallery/**'],
    plugins: { words: marked },
    rules: { 'words/words-marked': 'error' },
  },
  ...webLayers,
  { files: ['web/**/*.html'], extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility] },
  {
    // Attributes are seen to by the words that no translation has.
    files: ['web/src/app/**/*.html'],
    ignores: ['web/src/app/ui/gallery/**'],
    rules: { '@angular-eslint/template/i18n': ['error', { checkId: false, checkDuplicateId: false, checkAttributes: false }] },
  },
);
