import nextJest from 'next/jest.js';

// Packages that ship only ES modules, and those they need: transformed with our own code.
const ESM = [
  'p-limit',
  'yocto-queue',
  'fast-check',
  'pure-rand',
  'feelin',
  'lezer-feel',
  'min-dash',
  '@bpmn-io',
  '@lezer',
  '@codemirror',
  '@marijn',
  'style-mod',
  'crelt',
  'w3c-keyname',
  'cheerio',
  'csv-parse',
  'csv-stringify',
  'hucre',
  'temporal-polyfill',
  'temporal-utils',
  'temporal-spec',
  'openid-client',
  'oauth4webapi',
  'jose',
];
const make = nextJest({ dir: './' });
const base = await make({
  testEnvironment: 'node',
  roots: ['<rootDir>/src', '<rootDir>/lint'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  modulePathIgnorePatterns: ['<rootDir>/lint/broken/', '<rootDir>/.next/'],
  moduleNameMapper: { '^server-only$': '<rootDir>/src/testing/empty.ts', '^fast-check$': '<rootDir>/src/testing/fast-check.cjs' },
  globalSetup: '<rootDir>/src/testing/database-up.mjs',
  globalTeardown: '<rootDir>/src/testing/database-down.mjs',
  testTimeout: 30_000,
  // Half of what a test of the server waits for is the database: as many workers as cores.
  maxWorkers: '100%',
})();
export default { ...base, transformIgnorePatterns: [`/node_modules/(?!(${ESM.join('|')})/)`] };
