module.exports = {
  displayName: 'client',
  preset: 'jest-expo/web',
  testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}'],
  setupFilesAfterEnv: ['<rootDir>/jest.setup.js'],
  moduleNameMapper: { '\\.woff2$': '<rootDir>/jest.asset.js' },
  transformIgnorePatterns: [
    '/node_modules/(?!(.pnpm|react-native|@react-native|@react-navigation|expo|@expo|@fontsource|uuid|valibot|@noble|@nibquill|tus-js-client|react-zoom-pan-pinch|luxon|standard-navigation|use-intl|icu-minify|intl-messageformat|@formatjs))',
  ],
}
