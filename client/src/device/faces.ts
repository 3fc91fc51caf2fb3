import ranges from '@fontsource/andika/unicode.json'
import { scriptsIn, type ScriptName } from '@nibquill/core/school/scripts'

/**
 * Typefaces with the rarer Latin letters, a family to a file: none is fetched before a word on the
 * screen has such a letter in it.
 */
export function offerFaces(files: Readonly<Record<string, string>>): void {
  const look = { display: 'swap', unicodeRange: ranges['latin-ext'] } as const
  for (const [family, file] of Object.entries(files))
    document.fonts.add(new FontFace(family, `url(${file})`, look))
}

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
