jest.mock('expo-font', () => ({
  isLoaded: () => true,
  loadAsync: () => Promise.resolve(),
  useFonts: () => [true, null],
}))

// What is slow because others have the processor is not a fault.
require('@testing-library/react').configure({ asyncUtilTimeout: 20_000 })

// Drawings of pegs and folders are fetched when the first is shown; here they are there before.
beforeAll(() => {
  const { getThings, subscribeThings } = require('./src/kit/things')
  if (!getThings()) return new Promise((resolve) => subscribeThings(resolve))
})

// What things look like is asked, for each that is on the screen, whenever one is looked for by its
// role; jsdom tries every rule there is for each answer, which was half the time of these tests. Here a
// rule is one class's, so what has the same classes looks the same.
const compute = window.getComputedStyle.bind(window)
const looks = new Map()
window.getComputedStyle = (element, ...pseudo) => {
  const rules = [...document.styleSheets].reduce((sum, { cssRules }) => sum + cssRules.length, 0)
  const key = [rules, element.tagName, element.className, element.getAttribute('style')].join('|')
  if (!looks.has(key)) looks.set(key, compute(element, ...pseudo))
  return looks.get(key)
}
