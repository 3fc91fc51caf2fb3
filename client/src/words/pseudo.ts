import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser'
import { printAST } from '@formatjs/icu-messageformat-parser/printer.js'

const ACCENTS: Record<string, string> = {
  ...{ a: 'á', e: 'é', i: 'í', o: 'ö', u: 'ü', y: 'ý', c: 'ç', n: 'ñ', s: 'š', t: 'ť', l: 'ĺ' },
  ...{ A: 'Á', E: 'É', I: 'Í', O: 'Ö', U: 'Ü', Y: 'Ý', C: 'Ç', N: 'Ñ', S: 'Š', T: 'Ť', L: 'Ĺ' },
}
/** Other languages say it in up to this much more room. */
const LONGER = 0.4
const VOWEL = /[áéíöüý]/g

/**
 * A message in the pseudo-language: still readable, about 40 % longer, between marks that show where
 * it begins and ends. What is put in stays as it is.
 * @param message - In ICU's message syntax.
 */
export function pseudo(message: string): string {
  return `⟦${printAST(stretch(parse(message)))}⟧`
}

function stretch(elements: MessageFormatElement[]): MessageFormatElement[] {
  return elements.map((element) => {
    if (element.type === TYPE.literal) return { ...element, value: drawl(element.value) }
    if (element.type === TYPE.plural || element.type === TYPE.select) {
      const options = Object.fromEntries(
        Object.entries(element.options).map(([name, option]) => [
          name,
          { ...option, value: stretch(option.value) },
        ]),
      )
      return { ...element, options } as MessageFormatElement
    }
    return element
  })
}

/** Vowels are held until the text is long enough: `Böö` for `Bo`. */
function drawl(text: string): string {
  const accented = text.replace(/\p{Letter}/gu, (letter) => ACCENTS[letter] ?? letter)
  let missing = Math.ceil(text.trim().length * LONGER)
  const vowels = accented.match(VOWEL)?.length ?? 0
  if (vowels === 0) return accented
  return accented.replace(VOWEL, (vowel) => {
    const more = Math.min(missing, Math.ceil((text.length * LONGER) / vowels))
    missing -= more
    return vowel + vowel.repeat(more)
  })
}
