import js from '@eslint/js';
import angular from 'angular-eslint';
import { readdirSync } from 'node:fs';
import tseslint from 'typescript-eslint';

/** The folders of core in the order of the work: each imports only from those before it. */
const ORDER = [
  'lists',
  'time',
  'pitch',
  'harmony',
  'song',
  'formats',
  'divide',
  'left-hand',
  'right-hand',
  'join',
  'fills',
  'difficulty',
  'arrange',
  'sheet',
  'practice',
  'catalogue',
  'words',
];

const missing = readdirSync('core/src', { withFileTypes: true }).filter((e) => e.isDirectory() && !ORDER.includes(e.name));
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
                  group: ORDER.slice(i + 1).flatMap((later) => [`../${later}/**`, `../../${later}/**`]),
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
        project: ['tsconfig.json', 'web/tsconfig.app.json', 'web/tsconfig.spec.json', 'web/tsconfig.worker.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: { '@typescript-eslint/no-floating-promises': 'error', '@typescript-eslint/no-misused-promises': 'error' },
  },
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
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: ['**/server/**', '**/cli/**'], message: 'web knows only core.' }] },
      ],
    },
  },
  { files: ['web/**/*.html'], extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility] },
);
