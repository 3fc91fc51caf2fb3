const plain = (name) => ({
  displayName: name,
  rootDir: `<rootDir>/${name}`.replace('<rootDir>', import.meta.dirname),
  testEnvironment: 'node',
  transform: { '\\.[jt]sx?$': `${import.meta.dirname}/scripts/jestTransform.mjs` },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testMatch: ['<rootDir>/src/**/*.test.ts'],
})

export default {
  // Real databases and real pictures, also on a busy machine.
  testTimeout: 30_000,
  projects: [
    plain('core'),
    plain('contract'),
    {
      ...plain('server'),
      globalSetup: `${import.meta.dirname}/server/src/testing/globalSetup.mjs`,
      globalTeardown: `${import.meta.dirname}/server/src/testing/globalTeardown.mjs`,
    },
    `${import.meta.dirname}/client`,
  ],
}
