import { availableParallelism } from 'node:os';

/** Unit tests of core, server and the headless parts of the web application. */
export default {
  // Left alone, one core of two would stand idle.
  maxWorkers: Math.max(2, availableParallelism() - 1),
  testSequencer: '<rootDir>/scripts/jest-sequencer.cjs',
  runtime: '<rootDir>/scripts/jest-runtime.cjs',
  testEnvironment: '<rootDir>/scripts/jest-environment.cjs',
  roots: ['<rootDir>/core/src', '<rootDir>/server/src', '<rootDir>/web/src'],
  testMatch: ['**/*.test.ts'],
  transform: {
    '^.+\\.(tsx?|m?js)$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  moduleNameMapper: { '^@core$': '<rootDir>/core/src/index.ts' },
  transformIgnorePatterns: [
    '/node_modules/(?!(culori|d3-ease|flatbush|flatqueue|d3-interpolate|d3-color|bezier-js|p-limit|yocto-queue)/)',
  ],
};
