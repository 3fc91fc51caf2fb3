import { scriptsIn, type ScriptName } from '@nibquill/core/school/scripts'

const asked = new Set<ScriptName>()

/**
 * Fetches typefaces for the scripts that occur in a text, once each: of a large one the browser then
 * takes the parts it needs. Until they are there, and where they cannot come, the device's own stand
 * in.
 */
export function fetchFacesFor(text: string): void {
  for (const script of scriptsIn(text)) {
    if (asked.has(script)) continue
    asked.add(script)
    const sheet = document.createElement('link')
    sheet.rel = 'stylesheet'
    sheet.href = `/faces/${script}.css`
    // Without a network it is asked for again.
    sheet.onerror = () => {
      asked.delete(script)
      sheet.remove()
    }
    document.head.append(sheet)
  }
}
