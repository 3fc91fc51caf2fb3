import type { Part } from '@nibquill/contract'
import { useState } from 'react'
import { Press } from '../kit/Press'
import { colours, corners } from '../kit/theme'
import { lookOf } from './partKinds'
import { PartView } from './PartView'
import { t } from './words'
import { Stack, Bar } from '../kit/layout'

/** One part as large as the place allows, the others below to choose from. */
export function PartsViewer({
  parts,
  link,
  title,
}: {
  parts: Part[]
  link?: string
  title: string
}) {
  const [chosen, setChosen] = useState(0)
  const at = Math.min(chosen, parts.length - 1)
  const part = parts[at]
  if (!part) return null
  const labelOf = (index: number) =>
    t('partOf', { word: lookOf(parts[index]!).word, number: index + 1, of: parts.length })
  return (
    <Stack gap="near" style={{ flex: 1 }}>
      <PartView
        key={part.id}
        view="large"
        part={part}
        link={link}
        alt={`${labelOf(at)}: ${title}`}
      />
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
