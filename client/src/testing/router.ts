/**
 * What a screen alone finds in place of the router: it may say where it goes, and stays.
 * @param params - Of the address the screen is at.
 * @param router - In place of moves nobody watches.
 */
export const routerAt = (params: Record<string, string> = {}, router: object = {}) => ({
  router: {
    canGoBack: () => false,
    back: jest.fn(),
    replace: jest.fn(),
    push: jest.fn(),
    ...router,
  },
  useLocalSearchParams: () => params,
})
