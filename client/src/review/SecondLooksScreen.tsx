import type { SecondLook } from '@nibquill/contract'
import { groupLooks, LOOK_GROUPINGS } from '@nibquill/core/review/groupLooks'
import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Tabs } from '../kit/choices'
import { useWhen } from '../kit/useWhen'
import { Box, Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { PieceRow } from './PieceRow'
import { useSecondLooks } from './reviewQueries'
import { useTick } from './SecondLookBox'
import { t } from './words'

/** What a teacher wants to come back to: whom, and what must be taught again. */
export function SecondLooksScreen() {
  const asked = useLocalSearchParams<{ by?: string }>()
  const by = LOOK_GROUPINGS.find((one) => one === asked.by) ?? 'pupil'
  const looks = useSecondLooks()
  const tick = useTick()
  if (!isHere(looks)) return <NotYet of={looks} />
  return (
    <Page max={820}>
      <Head title={t('secondLooksTitle')} back="/tray" />
      {looks.data.length > 0 ? (
        <Tabs
          label={t('secondLooksOrder')}
          value={by}
          options={LOOK_GROUPINGS.map((one) => ({ value: one, label: t(`secondLooksBy.${one}`) }))}
          onChange={(one) => router.setParams({ by: one })}
        />
      ) : (
        <Empty symbol="eye" title={t('noSecondLooks')}>
          {t('noSecondLooksHelp')}
        </Empty>
      )}
      {groupLooks(looks.data, by).map(({ key, looks: together }) => (
        <Box key={key} title={`${titleOf(together[0]!, by)} · ${together.length}`}>
          <View role="list">
            {together.map((look) => (
              <LookLine key={look.pieceId} look={look} onTick={() => tick(look)} />
            ))}
          </View>
        </Box>
      ))}
    </Page>
  )
}

const nameOf = ({ pupil }: SecondLook) => `${pupil.firstName} ${pupil.lastName}`.trim()
const titleOf = (look: SecondLook, by: 'pupil' | 'strand') =>
  by === 'pupil' ? nameOf(look) : (look.strand ?? t('noStrand'))

function LookLine({ look, onTick }: { look: SecondLook; onTick: () => void }) {
  const { whenWasIt } = useWhen()
  const { pupil, title, reason, askedBy, askedAt, className } = look
  return (
    <PieceRow
      pieceId={look.pieceId}
      pupil={pupil}
      aside={
        <BigButton small tone="quiet" symbol="check" label={t('secondLookDone')} onPress={onTick} />
      }
    >
      <Text variant="titleSmall">{reason}</Text>
      <Text variant="bodyMedium">{`${nameOf(look)}, ${title}`}</Text>
      <Hint>{[className, askedBy, whenWasIt(askedAt)].join(' · ')}</Hint>
    </PieceRow>
  )
}
