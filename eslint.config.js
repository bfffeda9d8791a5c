import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import { floors } from './scripts/eslint-floors.mjs';

/** What the core may not name: it has no screen, storage, clock, chance or network of its own. */
const outside = [
  ...['window', 'document', 'navigator', 'location', 'localStorage', 'indexedDB', 'fetch', 'self', 'globalThis'],
  ...['process', 'Buffer', 'setTimeout', 'setInterval', 'performance', 'crypto', 'console', 'postMessage', 'DOMParser'],
];

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'test-results', 'playwright-report'] },
  ...tseslint.configs.recommended,
  {
    plugins: { floors },
    rules: {
      'floors/down-only': 'error',
      'floors/no-circle': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
      'max-lines-per-function': ['error', 100],
      'no-eval': 'error',
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportDefaultDeclaration', message: 'No default exports in src/: one name everywhere.' },
      ],
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', ...outside],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'The core has no clock: time is passed in.' },
        { object: 'Math', property: 'random', message: 'The core has no chance of its own: it is passed in.' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportDefaultDeclaration', message: 'No default exports in src/: one name everywhere.' },
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The core has no clock: time is passed in.',
        },
      ],
    },
  },
  // A group of tests is one function, however many tests are in it.
  { files: ['**/*.test.ts', 'e2e/**/*.ts'], rules: { 'max-lines-per-function': 'off' } },
  { files: ['src/app/**/*.{ts,tsx}'], ...reactHooks.configs.flat.recommended },
  // A notice for the React Compiler, which is not used here.
  { files: ['src/app/**/*.tsx'], rules: { 'react-hooks/incompatible-library': 'off' } },
);
