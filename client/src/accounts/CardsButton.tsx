import { useMutation } from '@tanstack/react-query'
import type { PrintCards } from '@nibquill/contract'
import { useState } from 'react'
import { sentenceOf } from '../api/problems'
import { saveFile } from '../device/saveFile'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { toast } from '../kit/Toast'
import { strings } from './strings'

/** Prints new name cards, after saying what becomes of the old ones. */
export function CardsButton({ label, order }: { label: string; order: PrintCards }) {
  const [asking, setAsking] = useState(false)
  const print = useMutation({
    mutationFn: () => saveFile('/api/accounts/cards', 'name-cards.pdf', order),
    onSuccess: () => toast(strings.cardsPrinted),
    onError: (error) => toast(sentenceOf(error)),
  })
  return (
    <>
      <BigButton small tone="quiet" symbol="card" label={label} busy={print.isPending} onPress={() => setAsking(true)} />
      <Ask
        visible={asking}
        title={strings.cardsAsk}
        yes={strings.cardsDo}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          print.mutate()
        }}
      >
        {strings.cardsHelp}
      </Ask>
    </>
  )
}
