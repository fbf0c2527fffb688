import { builtinModules } from 'node:module';
import js from '@eslint/js';
import prettier from 'eslint-config-prettier/flat';
import boundaries from 'eslint-plugin-boundaries';
import reactHooks from 'eslint-plugin-react-hooks';
import { reactRefresh } from 'eslint-plugin-react-refresh';
import { defineConfig, globalIgnores } from 'eslint/config';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Which package may import which; everything else is refused. */
const MAY_IMPORT = {
  core: ['core'],
  contract: ['contract', 'core'],
  /** A stored station judged: no interface, no file, no network. */
  station: ['station', 'contract', 'core'],
  instruments: ['instruments', 'contract', 'core'],
  // it starts the stand-ins, and knows their habits
  server: ['server', 'station', 'contract', 'core', 'instruments'],
  cli: ['cli', 'station', 'contract', 'core'],
};

/** The subjects of the core, each importing only from those before it. */
const CORE_ORDER = [
  ...[
    'safety',
    'numeric',
    'units',
    'evidence',
    'site',
    'spectrum',
    'line',
    'resonator',
    'solver',
    'antenna',
    'plot',
    'formats',
  ],
  ...['sweep', 'filter', 'trial', 'bearing', 'path', 'choose', 'noise', 'guard', 'recording'],
];
/** Node's own modules, by their bare names too. */
const NODE_MODULES = builtinModules.map((name) => ({ name, message: 'The core is pure computation.' }));
const PURE = {
  group: ['node:*', '@velvet-reed/*', 'react*', 'express', 'sequelize', 'yup'],
  message: 'The core is pure computation.',
};

export default defineConfig(
  globalIgnores(['**/dist/', '**/node_modules/', '**/test-results/', 'packages/core/assembly/']),
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    ignores: ['packages/web/vite.config.ts'],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: {
        // all in one: with one project a package the core's types would be worked out nine times
        project: 'tsconfig.lint.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/consistent-type-assertions': ['error', { assertionStyle: 'never' }],
      '@typescript-eslint/ban-ts-comment': 'error',
    },
  },
  { files: ['packages/web/vite.config.ts'], extends: [tseslint.configs.recommended] },
  {
    files: ['**/*.ts'],
    rules: {
      '@typescript-eslint/consistent-type-assertions': [
        'error',
        { assertionStyle: 'as', objectLiteralTypeAssertions: 'never' },
      ],
    },
  },
  {
    files: ['packages/web/src/**/*.{ts,tsx}'],
    // their hooks are looked at by compiling each file: tests have none of their own
    ignores: ['**/*.test.{ts,tsx}'],
    extends: [reactHooks.configs.flat['recommended-latest'], reactRefresh.configs.vite()],
  },
  { files: ['packages/web/src/**/*.{ts,tsx}'], languageOptions: { globals: globals.browser } },
  { files: ['packages/web/src/main.tsx'], rules: { 'react-refresh/only-export-components': 'off' } },
  {
    files: ['packages/web/src/data/focus.tsx', 'packages/web/src/ui/*.tsx'],
    rules: { 'react-refresh/only-export-components': 'off' },
  },
  {
    files: ['**/*.{js,mjs}', 'packages/server/**', 'packages/cli/**', 'packages/instruments/**', 'bench/**'],
    languageOptions: { globals: { ...globals.node } },
  },
  { files: ['e2e/*.mjs'], languageOptions: { globals: { ...globals.node, ...globals.browser } } },
  {
    // the core is pure computation: no DOM, no Node, no clock, no randomness
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { paths: NODE_MODULES, patterns: [PURE] }],
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'Buffer',
        'fetch',
        'setTimeout',
        'performance',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' },
      ],
    },
  },
  // a subject of the core imports only from those before it: no two-way streets
  ...CORE_ORDER.map((subject, i) => ({
    files: [`packages/core/src/${subject}/**/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: NODE_MODULES,
          patterns: [
            PURE,
            ...(i + 1 < CORE_ORDER.length
              ? [
                  {
                    regex: `^\\.\\./(\\.\\./)*(${CORE_ORDER.slice(i + 1).join('|')})(/|$)`,
                    message: `In the core ${subject} stands before this subject: move down what both need.`,
                  },
                ]
              : []),
          ],
        },
      ],
    },
  })),
  {
    files: ['packages/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'ImportDeclaration[source.value=/^@velvet-reed\\u002F(web|server|cli)/]',
          message: 'Nothing imports web, server or cli.',
        },
      ],
    },
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The core has no clock: the time is handed in.',
        },
        { selector: "CallExpression[callee.name='Date']", message: 'The core has no clock: the time is handed in.' },
        {
          selector: 'ImportDeclaration[source.value=/^@velvet-reed/]',
          message: 'The core imports nothing but itself.',
        },
      ],
    },
  },
  {
    plugins: { boundaries },
    files: ['packages/*/src/**/*.{ts,tsx}'],
    settings: {
      'import/resolver': { typescript: { project: ['packages/*/tsconfig.json'], noWarnOnMultipleProjects: true } },
      'boundaries/elements': [
        { type: 'web-stage', pattern: 'packages/web/src/steps/*', capture: ['stage'] },
        { type: 'web-shell', pattern: 'packages/web/src/shell' },
        { type: 'web-ui', pattern: 'packages/web/src/ui' },
        { type: 'web-data', pattern: 'packages/web/src/data' },
        { type: 'web-workers', pattern: 'packages/web/src/workers' },
        { type: 'web-entry', pattern: 'packages/web/src/*.{ts,tsx}', partialMatch: false },
        ...Object.keys(MAY_IMPORT).map((type) => ({ type, pattern: `packages/${type}` })),
      ],
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            ...Object.entries(MAY_IMPORT).map(([from, to]) => ({
              from: { element: { type: from } },
              allow: { to: { element: { type: to } } },
            })),
            {
              from: { element: { type: 'web-data' } },
              allow: { to: { element: { type: ['web-data', 'web-workers', 'station', 'contract', 'core'] } } },
            },
            {
              from: { element: { type: 'web-workers' } },
              allow: { to: { element: { type: ['web-workers', 'station', 'contract', 'core'] } } },
            },
            {
              from: { element: { type: 'web-ui' } },
              allow: { to: { element: { type: ['web-ui', 'web-data', 'station', 'contract', 'core'] } } },
            },
            {
              from: { element: { type: 'web-shell' } },
              allow: { to: { element: { type: ['web-shell', 'web-ui', 'web-data', 'station', 'contract', 'core'] } } },
            },
            // stages do not import each other: a folder outside the stage's own is refused below by name
            {
              from: { element: { type: 'web-stage' } },
              allow: {
                to: {
                  element: { type: ['web-stage', 'web-ui', 'web-data', 'web-workers', 'station', 'contract', 'core'] },
                },
              },
            },
            {
              from: { element: { type: 'web-entry' } },
              allow: {
                to: {
                  element: {
                    type: ['web-entry', 'web-stage', 'web-shell', 'web-ui', 'web-data', 'station', 'contract', 'core'],
                  },
                },
              },
            },
          ],
        },
      ],
    },
  },
  {
    files: ['packages/web/src/steps/*/*.{ts,tsx}'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '^\\.\\./(?!\\.\\./)',
              message: 'Stages do not import each other; move what two need to ui, data or the core.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['packages/web/src/steps/*/*/*.{ts,tsx}'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '^\\.\\./\\.\\./(?!\\.\\./)',
              message: 'Stages do not import each other; move what two need to ui, data or the core.',
            },
            {
              regex: '^\\.\\./[^./][^/]*/',
              message: 'Rooms do not import each other; what two need stands in the folder of their stage.',
            },
          ],
        },
      ],
    },
  },
  // jsdom lacks these methods; the set-up only asks whether they are there
  { files: ['packages/web/src/test-setup.ts'], rules: { '@typescript-eslint/unbound-method': 'off' } },
  prettier,
);
