import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import { noImportCycle } from './scripts/lib/noImportCycle.mjs';

/** Core's folders from the top down: each may import only those before it. */
const CORE_FOLDERS = [
  'model',
  'notation',
  'intake',
  'arrangement',
  'contract',
  'derivation',
  'comparison',
  'publication',
  'conformance',
  'seeding',
  'engine',
  'transfer',
  'records',
  'migration',
  'initialRecords',
];

const coreDirections = CORE_FOLDERS.map((folder, index) => ({
  files: [`packages/core/src/${folder}/**/*.ts`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...CORE_FOLDERS.slice(index + 1).map((below) => ({
            regex: `(^|/)\\.\\./${below}(/|$)`,
            message: `${folder} stands above ${below} and may not import it.`,
          })),
          ...CORE_FOLDERS.slice(0, index).map((above) => ({
            regex: `\\.\\./${above}/(?!index\\.js$)`,
            message: `Import ${above} through its door, ${above}/index.js.`,
          })),
          { regex: '^node:', message: 'Core does no I/O.' },
          { regex: '^@isomeros/', message: 'Core imports itself by relative paths.' },
        ],
      },
    ],
    'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'setTimeout', 'setInterval'],
    'no-restricted-properties': [
      'error',
      { object: 'Date', property: 'now', message: 'The clock is passed in.' },
      { object: 'Math', property: 'random', message: 'Randomness is passed in.' },
    ],
  },
}));

const only = (files, patterns) => ({ files, rules: { 'no-restricted-imports': ['error', { patterns }] } });

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/dist-test/**',
      '**/dist-types/**',
      '**/node_modules/**',
      '.isomeros/**',
      'playwright-report/**',
      'test-results/**',
    ],
  },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.strictTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowNullish: true },
      ],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      // Members taken out of an object so that the rest can be used.
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      'max-lines': ['error', { max: 320, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
      // Texts are counted by code point, as the notation counts them; records are objects without prototype.
      '@typescript-eslint/no-misused-spread': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      'no-control-regex': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'CallExpression[callee.property.name=/^(push|unshift|splice|max|min|fromCharCode|fromCodePoint)$/] > SpreadElement',
          message: 'As arguments there can be too many: use appendAll, or a loop.',
        },
      ],
    },
  },
  {
    // Modules that import each other cannot be read one after the other, whatever they take from one another.
    files: ['packages/*/src/**/*.ts', 'apps/*/src/**/*.{ts,tsx}'],
    plugins: { isomeros: { rules: { 'no-import-cycle': noImportCycle } } },
    rules: { 'isomeros/no-import-cycle': 'error' },
  },
  {
    files: ['apps/server/src/**/*.ts'],
    // Nest finds what to hand in by the types that decorated classes name, so these stay imported as values.
    // Rows of tables are plain data in the shape of their class.
    rules: {
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
    },
  },
  ...coreDirections,
  only(
    ['packages/api/src/**/*.ts'],
    [
      { regex: '^node:', message: 'The page reads it, too.' },
      { regex: '@isomeros/(?!core/)', message: 'The types of the interface stand on core alone.' },
    ],
  ),
  only(
    ['packages/listener/src/**/*.ts'],
    [{ regex: '@isomeros/(?!core/)|^@nestjs/|^typeorm', message: 'Whoever serves a contract can use it.' }],
  ),
  only(
    ['apps/server/src/**/*.ts'],
    [{ regex: '(^|/)apps/web', message: 'The server does not know the web.' }],
  ),
  only(
    ['apps/web/src/**/*.{ts,tsx}'],
    [
      { regex: '^node:', message: 'The web runs in a browser.' },
      { regex: '@isomeros/server|apps/server', message: 'The web knows the server by its interface only.' },
    ],
  ),
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      'max-lines-per-function': ['error', { max: 90, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['**/test/**/*.ts', 'e2e/**/*.ts'],
    rules: {
      'max-lines-per-function': 'off',
      'no-empty-pattern': 'off',
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'CallExpression[callee.object.name="fc"][callee.property.name="assert"][arguments.length=1]',
          message: 'Say how often, and with which cases, by rounds(…).',
        },
      ],
    },
  },
  {
    files: ['e2e/**/*.spec.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'CallExpression[callee.property.name="press"]:not([callee.object.property.name="keyboard"])',
          message: 'Use press(…), which waits until the key can be taken.',
        },
      ],
    },
  },
  {
    files: ['**/*.{js,mjs}'],
    languageOptions: {
      globals: {
        process: 'readonly',
        AbortController: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        fetch: 'readonly',
        localStorage: 'readonly',
        document: 'readonly',
      },
    },
  },
);
