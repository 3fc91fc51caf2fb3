/**
 * Core, contract and server run as they are, in plain Node; the client as Expo's preset compiles
 * it.
 */
const plain = (name) => ({
  displayName: name,
  rootDir: `${import.meta.dirname}/${name}`,
  runner: `${import.meta.dirname}/scripts/testRunner.mjs`,
  testMatch: ['<rootDir>/src/**/*.test.ts'],
})

export default {
  // Real databases and real films, also where others take most of the processor: what hangs is
  // ended, what is slow is not a fault.
  testTimeout: 180_000,
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
