import type { TakenList } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Box, Hint } from '../kit/form'
import { Bar } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { toast } from '../kit/Toast'
import { useTakeListBack, useTakenLists } from '../school'
import { t } from './words'

/** The lists that were taken over, each of which can be taken back whole while nobody has lived in it. */
export function TakenListsBox() {
  const { whenWasIt } = useWhen()
  const lists = useTakenLists()
  const takeBack = useTakeListBack()
  const [asked, setAsked] = useState<TakenList | null>(null)
  if (!lists.data || lists.data.length === 0) return null
  return (
    <Box title={t('takenLists')}>
      {takeBack.isError ? <ProblemNotice error={takeBack.error} /> : null}
      {lists.data.map((list) => (
        <Bar key={list.id} wrap>
          <View style={{ flex: 1, minWidth: 220 }}>
            <Text variant="bodyMedium">
              {t('takenList', { when: whenWasIt(list.takenAt), by: list.by })}
            </Text>
            <Hint>
              {list.state === 'taken-back'
                ? t('isTakenBack')
                : t('takenCounts', { added: list.added, changed: list.changed })}
            </Hint>
          </View>
          {list.mayTakeBack ? (
            <BigButton
              small
              tone="quiet"
              symbol="undo"
              label={t('takeListBack')}
              busy={takeBack.isPending && takeBack.variables === list.id}
              onPress={() => setAsked(list)}
            />
          ) : null}
        </Bar>
      ))}
      <Ask
        visible={asked !== null}
        title={t('takeListBackAsk')}
        yes={t('takeListBack')}
        tone="again"
        onNo={() => setAsked(null)}
        onYes={() => {
          if (asked) takeBack.mutate(asked.id, { onSuccess: () => toast(t('listIsTakenBack')) })
          setAsked(null)
        }}
      >
        {asked ? t('takeListBackHelp', { added: asked.added, changed: asked.changed }) : ''}
      </Ask>
    </Box>
  )
}
