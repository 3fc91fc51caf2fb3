import type { MarkUp, Part } from '@nibquill/contract'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { Press } from '../kit/Press'
import { colours, corners } from '../kit/theme'
import { MarkedPart } from './MarkedPart'
import { lookOf } from './partKinds'
import { PartView } from './PartView'
import { t } from './words'
import { Stack, Bar } from '../kit/layout'

/**
 * One part as large as the place allows, the others below to choose from.
 * @param marks - What a teacher wrote on copies of these parts.
 * @param aside - What can be done with the part that is looked at. @param onChosen - Is told which.
 */
export function PartsViewer({
  parts,
  link,
  title,
  marks = [],
  aside,
  onChosen,
}: {
  parts: Part[]
  link?: string
  title: string
  marks?: readonly MarkUp[]
  aside?: (part: Part) => ReactNode
  onChosen?: ((part: Part) => void) | undefined
}) {
  const [chosen, setChosen] = useState(0)
  const at = Math.min(chosen, parts.length - 1)
  const part = parts[at]
  const tell = useRef(onChosen)
  tell.current = onChosen
  useEffect(() => {
    if (part) tell.current?.(part)
  }, [part])
  if (!part) return null
  const labelOf = (index: number) =>
    t('partOf', { word: lookOf(parts[index]!).word, number: index + 1, of: parts.length })
  const alt = `${labelOf(at)}: ${title}`
  const mark = marks.find(({ partId }) => partId === part.id)
  return (
    <Stack gap="near" style={{ flex: 1 }}>
      {mark ? (
        <MarkedPart key={part.id} part={part} mark={mark} alt={alt} aside={aside?.(part)} />
      ) : (
        <>
          <PartView key={part.id} view="large" part={part} link={link} alt={alt} />
          {aside ? <Bar wrap>{aside(part)}</Bar> : null}
        </>
      )}
      {parts.length > 1 ? (
        <Bar role="tablist" wrap align="stretch">
          {parts.map((other, i) => (
            <Press
              key={other.id}
              role="tab"
              selected={i === at}
              label={labelOf(i)}
              onPress={() => setChosen(i)}
              style={{
                width: 76,
                height: 58,
                borderRadius: corners.sheet,
                overflow: 'hidden',
                borderWidth: 3,
                borderColor: i === at ? colours.aubergine : colours.rule,
              }}
            >
              <PartView view="tile" part={other} alt="" link={link} />
            </Press>
          ))}
        </Bar>
      ) : null}
    </Stack>
  )
}
