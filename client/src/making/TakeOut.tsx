import { useState } from 'react'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { usePieceWork } from '../pieces'
import { t } from './words'

/** Out of the tray again: never without a question, so that no second tap undoes the first. */
export function TakeOut({ pieceId, onOut }: { pieceId: string; onOut?: () => void }) {
  const work = usePieceWork(pieceId)
  const [asking, setAsking] = useState(false)
  const takeOut = async () => {
    setAsking(false)
    await work.withdraw()
    onOut?.()
  }
  return (
    <>
      <BigButton
        label={t('takeOut')}
        symbol="tray-out"
        tone="quiet"
        onPress={() => setAsking(true)}
      />
      <Ask
        visible={asking}
        title={t('takeOutAsk')}
        yes={t('takeOutYes')}
        no={t('leaveIn')}
        onNo={() => setAsking(false)}
        onYes={() => void takeOut()}
      >
        {t('takeOutHelp')}
      </Ask>
    </>
  )
}
