import type { InkDocument, PlacedThing, Spot } from '@nibquill/core/ink/document'
import { LONGEST_SPOT_NAME, MOST_LABEL_LETTERS } from '@nibquill/core/ink/document'
import { unknownLetters } from '@nibquill/core/ink/letters'
import { sortablesOf, spotsOf, type Expected } from '@nibquill/core/ink/sorting'
import { useState } from 'react'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { Field } from '../kit/Field'
import { Hint } from '../kit/form'
import { Stack } from '../kit/layout'
import { Overlay } from '../kit/Overlay'
import { space } from '../kit/theme'
import { nameOfSpot } from './names'
import { Tool } from './Tool'
import type { Arranging } from './useArranging'
import { t } from './words'

/** What a teacher expects on the sheet they are making, and how they change it. */
export type Sorting = {
  ink: InkDocument
  expected: Expected
  onExpected: (expected: Expected) => void
}

/** Puts spots down: places to sort into, and gaps for words. */
export function NewSpots({ arranging }: { arranging: Arranging }) {
  return (
    <>
      <Tool symbol="tray" label={t('spot')} onPress={() => arranging.addSpot('sort')} />
      <Tool symbol="pencil" label={t('gap')} onPress={() => arranging.addSpot('gap')} />
    </>
  )
}

/** What else can be done to a chosen thing of a starter sheet. */
export function ToSorted({
  chosen,
  arranging,
  sorting,
}: {
  chosen: PlacedThing
  arranging: Arranging
  sorting: Sorting
}) {
  const [open, setOpen] = useState(false)
  const close = () => setOpen(false)
  if (chosen.kind === 'spot')
    return (
      <>
        <Tool symbol="edit" label={t('words')} onPress={() => setOpen(true)} />
        <Tool symbol="next" label={t('wider')} onPress={() => arranging.widen(1)} />
        <Tool symbol="previous" label={t('narrower')} onPress={() => arranging.widen(-1)} />
        <Overlay visible={open} title={t(chosen.takes === 'gap' ? 'gap' : 'spot')} onClose={close}>
          <SpotWords key={chosen.id} spot={chosen} {...{ arranging, sorting }} onDone={close} />
        </Overlay>
      </>
    )
  const spots = spotsOf(sorting.ink)
  if (spots.length === 0 || !sortablesOf(sorting.ink).some(({ id }) => id === chosen.id))
    return null
  return (
    <>
      <Tool symbol="tray" label={t('belongs')} onPress={() => setOpen(true)} />
      <Overlay visible={open} title={t('belongsOn')} onClose={close}>
        <Belongs key={chosen.id} thingId={chosen.id} {...{ spots, sorting }} onDone={close} />
      </Overlay>
    </>
  )
}

function SpotWords({
  spot,
  arranging,
  sorting: { expected, onExpected },
  onDone,
}: {
  spot: Spot
  arranging: Arranging
  sorting: Sorting
  onDone: () => void
}) {
  const [words, setWords] = useState(spot.words)
  const says = expected.says.find(({ spotId }) => spotId === spot.id)?.words ?? ''
  const [awaited, setAwaited] = useState(says)
  const unknown = unknownLetters(words)
  const done = () => {
    if (words.trim() !== spot.words)
      arranging.change((thing) => ({ ...(thing as Spot), words: words.trim() }))
    const others = expected.says.filter(({ spotId }) => spotId !== spot.id)
    if (awaited.trim() !== says)
      onExpected({
        ...expected,
        says:
          awaited.trim() === '' ? others : [...others, { spotId: spot.id, words: awaited.trim() }],
      })
    onDone()
  }
  return (
    <Stack gap="clear" style={{ padding: space.far, paddingTop: 0 }}>
      <Field
        label={t('spotName')}
        value={words}
        onChangeText={setWords}
        autoFocus
        maxLength={LONGEST_SPOT_NAME}
        error={unknown.length > 0 ? t('unknownLetters', { letters: unknown.join(' ') }) : undefined}
      />
      <Field
        label={t('spotSays')}
        value={awaited}
        onChangeText={setAwaited}
        maxLength={MOST_LABEL_LETTERS}
      />
      <Hint>{t('expectedHelp')}</Hint>
      <BigButton
        label={t('labelDone')}
        symbol="check"
        disabled={unknown.length > 0}
        onPress={done}
      />
    </Stack>
  )
}

function Belongs({
  thingId,
  spots,
  sorting: { ink, expected, onExpected },
  onDone,
}: {
  thingId: string
  spots: readonly Spot[]
  sorting: Sorting
  onDone: () => void
}) {
  const now = expected.lies.find((one) => one.thingId === thingId)?.spotId ?? null
  const choose = (spotId: string | null) => {
    const others = expected.lies.filter((one) => one.thingId !== thingId)
    onExpected({
      ...expected,
      lies: spotId === null ? others : [...others, { thingId, spotId }],
    })
    onDone()
  }
  return (
    <Stack gap="clear" style={{ padding: space.far, paddingTop: 0 }}>
      <Choices<string | null>
        label={t('belongsOn')}
        hidden
        value={spots.some(({ id }) => id === now) ? now : null}
        options={[
          ...spots.map((spot) => ({ value: spot.id, label: nameOfSpot(ink, spot.id) })),
          { value: null, label: t('belongsNowhere') },
        ]}
        onChange={choose}
      />
      <Hint>{t('expectedHelp')}</Hint>
    </Stack>
  )
}
