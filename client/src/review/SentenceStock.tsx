import { MAX_MESSAGE_LENGTH, MAX_SENTENCE_LENGTH, MAX_SENTENCES } from '@nibquill/core'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Dialog, Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Bar, useWidth } from '../kit/layout'
import { Overlay } from '../kit/Overlay'
import { sentenceOf } from '../kit/problems'
import { RoundButton } from '../kit/RoundButton'
import { colours, space, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { usePutSentences, useSentences } from './reviewQueries'
import { t } from './words'

/** So much of a sentence is to be read on its button. */
const SHORT = 34
const shortOf = (sentence: string) =>
  sentence.length > SHORT ? `${sentence.slice(0, SHORT)}…` : sentence

/**
 * A teacher's own stock of sentences: one tap says one, and what is typed can be kept in it.
 * @param message - As it is typed now.
 */
export function SentenceStock({
  message,
  onChange,
}: {
  message: string
  onChange: (message: string) => void
}) {
  const stock = useSentences().data?.sentences ?? []
  const put = usePutSentences()
  const [sorting, setSorting] = useState(false)
  const typed = message.trim()
  const keep = (sentences: readonly string[]) =>
    put.mutate([...sentences], { onError: (error) => toast(sentenceOf(error)) })
  const canKeep =
    typed !== '' &&
    typed.length <= MAX_SENTENCE_LENGTH &&
    stock.length < MAX_SENTENCES &&
    !stock.some((sentence) => typed.includes(sentence))
  const say = (sentence: string) =>
    onChange(`${typed}${typed ? ' ' : ''}${sentence}`.slice(0, MAX_MESSAGE_LENGTH))
  if (stock.length === 0 && !canKeep) return null
  return (
    <View role="group" aria-label={t('stock')} style={{ gap: space.near }}>
      {stock.length > 0 ? (
        <ScrollView horizontal contentContainerStyle={{ gap: space.near }}>
          {stock.map((sentence) => (
            <BigButton
              key={sentence}
              small
              tone="quiet"
              label={shortOf(sentence)}
              disabled={typed.includes(sentence)}
              onPress={() => say(sentence)}
            />
          ))}
        </ScrollView>
      ) : null}
      <Bar wrap>
        {canKeep ? (
          <BigButton
            small
            tone="quiet"
            symbol="plus"
            label={t('stockKeep')}
            busy={put.isPending}
            onPress={() => keep([typed, ...stock])}
          />
        ) : null}
        {stock.length > 0 ? (
          <BigButton
            small
            tone="quiet"
            symbol="edit"
            label={t('stockSort')}
            onPress={() => setSorting(true)}
          />
        ) : null}
      </Bar>
      <SortDialog visible={sorting} stock={stock} onKeep={keep} onClose={() => setSorting(false)} />
    </View>
  )
}

/** What is in the stock, to be taken out; the way back is offered. */
function SortDialog({
  visible,
  stock,
  onKeep,
  onClose,
}: {
  visible: boolean
  stock: readonly string[]
  onKeep: (sentences: readonly string[]) => void
  onClose: () => void
}) {
  const { height } = useWidth()
  const takeOut = (sentence: string) => {
    onKeep(stock.filter((other) => other !== sentence))
    toast(t('stockOut'), { undo: () => onKeep(stock) })
  }
  return (
    <Overlay visible={visible} onClose={onClose} width={520} title={t('stock')}>
      <Dialog.Content style={{ gap: space.apart }}>
        <ScrollView style={{ maxHeight: height * 0.5 }}>
          <View role="list">
            {stock.map((sentence) => (
              <Bar key={sentence} role="listitem" gap="near">
                <Text variant="bodyMedium" style={{ flex: 1 }}>
                  {sentence}
                </Text>
                <RoundButton
                  label={t('stockTakeOut', { sentence })}
                  symbol="bin"
                  size={targets.adult}
                  colour={colours.clay}
                  onPress={() => takeOut(sentence)}
                />
              </Bar>
            ))}
          </View>
        </ScrollView>
        <BigButton small tone="quiet" label={t('close')} onPress={onClose} />
      </Dialog.Content>
    </Overlay>
  )
}
