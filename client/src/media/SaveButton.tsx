import { useMutation } from '@tanstack/react-query'
import { sentenceOf } from '../kit/problems'
import { saveFile } from './saveFile'
import { BigButton } from '../kit/BigButton'
import type { SymbolName } from '../kit/DrawnSymbol'
import { toast } from '../kit/Toast'

/** Saves a file of the server's; a refusal is said in its sentence, and one stays where one is. */
export function SaveButton({
  label,
  address,
  name,
  symbol = 'download',
  order,
}: {
  label: string
  address: string
  name: string
  symbol?: SymbolName
  /** What to make, for files that are made when they are asked for. */
  order?: unknown
}) {
  const save = useMutation({
    mutationFn: () => saveFile(address, name, order),
    onError: (error) => toast(sentenceOf(error)),
  })
  return (
    <BigButton
      small
      tone="quiet"
      symbol={symbol}
      label={label}
      busy={save.isPending}
      onPress={() => save.mutate()}
    />
  )
}
