jest.mock('expo-font', () => ({
  isLoaded: () => true,
  loadAsync: () => Promise.resolve(),
  useFonts: () => [true, null],
}))

// Drawings of pegs and folders are fetched when the first is shown; here they are there before.
beforeAll(() => {
  const { getThings, subscribeThings } = require('./src/kit/things')
  if (!getThings()) return new Promise((resolve) => subscribeThings(resolve))
})
