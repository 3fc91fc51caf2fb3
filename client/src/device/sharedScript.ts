/** Loads a script that was split off, once; the contract of Metro's lazy bundles. */
type LoadBundle = (path: string) => Promise<void>
type Metro = { __loadBundleAsync?: LoadBundle }

/**
 * What several split-off scripts share lies in one of its own, which the first screen does without:
 * it is fetched with the first of them, and runs before it.
 * The page says where it lies (scripts/buildClient.mjs).
 * @see React Native RFC 0605, lazy bundling: `__loadBundleAsync`
 */
export function fetchSharedScriptLater(): void {
  const metro = globalThis as Metro
  const load = metro.__loadBundleAsync
  const shared = document.querySelector<HTMLMetaElement>('meta[name="shared-script"]')?.content
  if (!load || !shared) return
  metro.__loadBundleAsync = async (path) => {
    // Both are on their way at once.
    preload(path)
    await load(shared)
    await load(path)
  }
}

function preload(path: string): void {
  if (document.querySelector(`link[href="${path}"]`)) return
  const link = document.createElement('link')
  Object.assign(link, { rel: 'preload', as: 'script', href: path })
  document.head.append(link)
}
