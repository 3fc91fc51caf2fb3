import type { DrawingPart, MarkUp, Part } from '@nibquill/contract'
import { useState, type ReactNode } from 'react'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack } from '../kit/layout'
import { DrawingStage } from './Drawing'
import { PartView } from './PartView'
import { t } from './words'

/** The copy that was written on, as the drawing it is. */
const asDrawing = ({ mediaId, partId, versionId }: MarkUp): DrawingPart => ({
  ...{ id: `${versionId}-${partId}`, kind: 'drawing', name: '', width: 0, height: 0, sheets: 1 },
  // Drawn here: what was written a moment ago has no pictures yet.
  files: { ink: { mediaId, sizeBytes: 0, sentSha256: '', state: 'arrived' } },
})

/** A part and what a teacher wrote on a copy of it, shown or not. */
export function MarkedPart({
  part,
  mark,
  alt,
  aside,
}: {
  part: Part
  mark: MarkUp
  alt: string
  aside: ReactNode
}) {
  const [shown, setShown] = useState(true)
  return (
    <Stack gap="near" style={{ flex: 1 }}>
      {shown ? (
        <DrawingStage part={asDrawing(mark)} alt={t('markedAlt', { alt, name: mark.by })} />
      ) : (
        <PartView view="large" part={part} alt={alt} />
      )}
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol={shown ? 'eyeoff' : 'eye'}
          label={t(shown ? 'withoutMarks' : 'withMarks', { name: mark.by })}
          onPress={() => setShown(!shown)}
        />
        {aside}
      </Bar>
    </Stack>
  )
}
