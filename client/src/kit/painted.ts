/** Nothing is painted on a page that is hidden. */
const AT_MOST_MS = 100

/** Once what was drawn just now stands on screen. */
export const painted = (): Promise<void> =>
  new Promise((resolve) => {
    const late = setTimeout(resolve, AT_MOST_MS)
    requestAnimationFrame(() =>
      setTimeout(() => {
        clearTimeout(late)
        resolve()
      }),
    )
  })
