import type { StaffNewsItem } from '@nibquill/contract'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { Box, Row } from '../kit/form'
import { useMarkNewsSeen, useStaffNews } from './noticesQueries'
import { strings } from './strings'

/** What other staff did that one should know of, until it is put away. */
export function StaffNewsBox() {
  const news = useStaffNews()
  const seen = useMarkNewsSeen()
  if (!news.data || news.data.length === 0) return null
  return (
    <Box title={strings.staffNews}>
      {news.data.map((item) => (
        <Text key={item.id} variant="bodyMedium">
          {sentence(item)}
        </Text>
      ))}
      <Row>
        <BigButton
          small
          tone="quiet"
          symbol="check"
          label={strings.putNewsAway}
          busy={seen.isPending}
          onPress={() => seen.mutate()}
        />
      </Row>
    </Box>
  )
}

function sentence({ kind, by, about, className, happenedAt }: StaffNewsItem): string {
  const whom = about ?? strings.wholeClass(className ?? '')
  return kind === 'name-card'
    ? strings.newCard(by, whom, whenWasIt(happenedAt))
    : strings.letterOpened(by, whom, whenWasIt(happenedAt))
}
