import { join } from 'node:path';

const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', decorators: true },
      transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
      target: 'es2022',
    },
  },
];

const shared = {
  // Where the next run finds it, whatever folder that keeps its passing files in.
  cacheDirectory: join(import.meta.dirname, 'node_modules/.cache/jest'),
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts'],
  transform: { '^.+\\.ts$': swc },
};

const ownFiles = { '^(\\.{1,2}/.*)\\.js$': '$1' };

export default {
  testTimeout: 240_000,
  projects: [
    {
      ...shared,
      displayName: 'core',
      rootDir: 'packages/core',
      testMatch: ['<rootDir>/test/**/*.test.ts'],
      moduleNameMapper: { ...ownFiles, '^@isomeros/core/(.*)$': '<rootDir>/src/$1/index.ts' },
    },
    {
      ...shared,
      displayName: 'listener',
      rootDir: 'packages/listener',
      testMatch: ['<rootDir>/test/**/*.test.ts'],
      moduleNameMapper: { ...ownFiles, '^@isomeros/core/(.*)$': '<rootDir>/../core/src/$1/index.ts' },
    },
    {
      ...shared,
      displayName: 'web',
      rootDir: 'apps/web',
      testMatch: ['<rootDir>/test/**/*.test.ts'],
      moduleNameMapper: {
        ...ownFiles,
        '^@isomeros/core/(.*)$': '<rootDir>/../../packages/core/src/$1/index.ts',
      },
    },
    {
      ...shared,
      displayName: 'server',
      rootDir: 'apps/server',
      setupFiles: ['<rootDir>/test/support/workerPorts.ts'],
      testMatch: ['<rootDir>/test/**/*.test.ts'],
      moduleNameMapper: ownFiles,
    },
  ],
};
