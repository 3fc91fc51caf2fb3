import type { CardSheet, PrintCards } from '@nibquill/contract'
import { useMutation } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Text } from 'react-native-paper'
import { sentenceOf } from '../kit/problems'
import { saveFile } from '../media/saveFile'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { timeOf } from '../kit/dates'
import { Progress } from '../kit/Progress'
import { colours } from '../kit/theme'
import { toast } from '../kit/Toast'
import { isBeingDrawn, useCardSheets, useOrderCards } from '../accounts'
import { t } from './words'
import { Stack, Bar } from '../kit/layout'

/**
 * Prints new name cards, after saying what becomes of the old ones. Left and opened again, the
 * sheet is found here for a while.
 */
export function CardsButton({ label, order }: { label: string; order: PrintCards }) {
  const [asking, setAsking] = useState(false)
  /** The sheet somebody waits for here: it is saved as soon as it is ready. */
  const [awaited, setAwaited] = useState<string | null>(null)
  const sheet = useCardSheets().data?.find((one) => isFor(one, order))
  const print = useOrderCards()
  const save = useMutation({
    mutationFn: (sheetId: string) =>
      saveFile(`/api/accounts/cards/${sheetId}/file`, 'name-cards.pdf'),
    onSuccess: () => toast(t('cardsPrinted')),
    onError: (error) => toast(sentenceOf(error)),
  })
  const { mutate: fetchIt } = save
  useEffect(() => {
    if (sheet?.id !== awaited || sheet?.state !== 'ready') return
    setAwaited(null)
    fetchIt(sheet.id)
  }, [sheet, awaited, fetchIt])
  return (
    <>
      <BigButton
        small
        tone="quiet"
        symbol="card"
        label={label}
        busy={print.isPending || save.isPending || (sheet !== undefined && isBeingDrawn(sheet))}
        onPress={() => setAsking(true)}
      />
      {sheet ? <SheetLine sheet={sheet} onSave={() => fetchIt(sheet.id)} /> : null}
      <Ask
        visible={asking}
        title={t('cardsAsk')}
        yes={t('cardsDo')}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          print.mutate(order, {
            onSuccess: ({ id }) => setAwaited(id),
            onError: (error) => toast(sentenceOf(error)),
          })
        }}
      >
        {t('cardsHelp')}
      </Ask>
    </>
  )
}

const isFor = (sheet: CardSheet, order: PrintCards): boolean =>
  'classId' in order ? sheet.classId === order.classId : sheet.pupilId === order.pupilId

/** How far a sheet is; once drawn, a way to fetch it again. */
function SheetLine({ sheet, onSave }: { sheet: CardSheet; onSave: () => void }) {
  const { state, cardsDone, cardCount, goneAt } = sheet
  return (
    <Stack role="status" gap="near" style={{ flexBasis: '100%' }}>
      {isBeingDrawn(sheet) ? (
        <Progress
          share={cardCount ? cardsDone / cardCount : 0}
          label={t('cardsDrawing', { number: Math.min(cardsDone + 1, cardCount), of: cardCount })}
        />
      ) : null}
      <Bar wrap gap="apart">
        <Text
          variant="bodyMedium"
          style={{ color: state === 'failed' ? colours.clay : colours.inkSoft }}
        >
          {state === 'failed'
            ? t('cardsFailed')
            : state === 'ready' && goneAt
              ? t('cardsReady', { count: cardCount, gone: timeOf(new Date(goneAt)) })
              : t('cardsDrawing', { number: Math.min(cardsDone + 1, cardCount), of: cardCount })}
        </Text>
        {state === 'ready' ? (
          <BigButton small tone="quiet" symbol="download" label={t('cardsSave')} onPress={onSave} />
        ) : null}
      </Bar>
    </Stack>
  )
}
