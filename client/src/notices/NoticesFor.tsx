import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { Box, Hint } from '../kit/form'
import { Listen } from '../kit/Listen'
import { Attachments } from '../media/Attachments'
import { useNotices, useReadNotice } from './noticesQueries'
import { strings } from './strings'

/** Notices for whoever they are meant for: those not seen yet, each until it is seen; for parents the seen ones as well. */
export function NoticesFor({ title, keepSeen }: { title: string; keepSeen: boolean }) {
  const notices = useNotices()
  const read = useReadNotice()
  const shown = (notices.data ?? []).filter(({ seen }) => keepSeen || !seen)
  if (shown.length === 0) return null
  return (
    <Box title={title}>
      {shown.map((notice) => (
        <View key={notice.id} role="article" style={{ gap: 10 }}>
          <Hint>{strings.about('', notice.from, whenWasIt(notice.createdAt))}</Hint>
          {notice.words ? (
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
              <Text variant={notice.seen ? 'bodyLarge' : 'titleMedium'} style={{ flex: 1 }}>
                {notice.words}
              </Text>
              {keepSeen || notice.media.some(({ kind }) => kind === 'voice') ? null : <Listen text={notice.words} />}
            </View>
          ) : null}
          <Attachments items={notice.media} label={strings.attached} />
          {notice.seen ? null : (
            <BigButton
              small={keepSeen}
              tone="quiet"
              symbol="check"
              label={strings.seen}
              busy={read.isPending}
              onPress={() => read.mutate(notice.id)}
            />
          )}
        </View>
      ))}
    </Box>
  )
}
