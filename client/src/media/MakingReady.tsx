import { MakingReady as Answer } from '@nibquill/contract'
import { useQuery } from '@tanstack/react-query'
import { Text } from 'react-native-paper'
import { api } from '../api/api'
import { Stack } from '../kit/layout'
import { Progress } from '../kit/Progress'
import { colours } from '../kit/theme'
import { fileHere } from './filesHere'
import type { Readable } from './mediaAddress'
import { t } from './words'

const LOOK_EVERY_MS = 2000

/** How far a film is that the school is making ready, and how many come before it. */
export function MakingReady({ file, link }: { file: Readable; link?: string | undefined }) {
  const { mediaId, state } = file
  const waits = state === 'arrived'
  const { data } = useQuery({
    queryKey: ['making-ready', mediaId],
    queryFn: ({ signal }) =>
      api.get(
        `/media/${mediaId}/progress${link ? `?link=${encodeURIComponent(link)}` : ''}`,
        Answer,
        signal,
      ),
    enabled: waits,
    // On its way the school knows nothing of it yet.
    retry: false,
    refetchInterval: LOOK_EVERY_MS,
  })
  if (!waits || !data) return null
  const words =
    data.before > 0
      ? t('filmsBefore', { n: data.before })
      : t(fileHere(mediaId) ? 'madeReadyHere' : 'madeReady')
  return (
    <Stack gap="tight">
      <Text role="status" variant="bodySmall" style={{ color: colours.inkSoft }}>
        {words}
      </Text>
      {data.before > 0 ? null : <Progress share={data.percent / 100} label={words} />}
    </Stack>
  )
}
