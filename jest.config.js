/** Unit tests: beside their files; browser tests (e2e/) are Playwright's. */
export default {
  testEnvironment: '<rootDir>/scripts/times/environment.mjs',
  // As many as there are cores: by itself it leaves one to whoever watches.
  maxWorkers: '100%',
  // They have the time that the browser tests leave them, on a machine that others use too: what takes seconds alone may
  // take minutes.
  testTimeout: 1_200_000,
  roots: [
    '<rootDir>/src',
    '<rootDir>/server',
    '<rootDir>/demo',
    '<rootDir>/cli',
    '<rootDir>/scripts',
    '<rootDir>/bench',
  ],
  testMatch: ['**/*.test.ts'],
  transform: {
    '^.+\\.m?[tj]sx?$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true } }, module: { type: 'commonjs' } },
    ],
  },
  transformIgnorePatterns: [
    'node_modules/(?!(client-zip|temporal-polyfill|temporal-utils|d3-dsv|postal-mime|zod|entities|htmlparser2|domhandler|domutils|domelementtype|dom-serializer|content-disposition|cookie)/)',
  ],
};
