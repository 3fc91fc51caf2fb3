import type { Chapter, PieceLine, Portfolio } from '@nibquill/contract'
import { useContext } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { ForPupil } from '../kit/forPupil'
import { Bar, Grid, Heading, Stack, Tile } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { Player } from '../media/Player'
import { PieceTile } from '../parts/PieceTile'
import { Sheet } from '../parts/Sheet'
import { colours, space, targets } from '../kit/theme'
import { usePick } from './portfolioQueries'
import { t } from './words'

type Props = {
  portfolio: Portfolio
  onOpen: (piece: PieceLine) => void
}

/**
 * A portfolio's chapters, newest first: picks in order with their reasons, then the rest of the
 * term.
 */
export function Chapters({ portfolio, onOpen }: Props) {
  return (
    <Stack gap="off">
      {portfolio.chapters.map((chapter) => (
        <ChapterView
          key={chapter.term.id}
          chapter={chapter}
          pupilId={portfolio.pupil.id}
          onOpen={onOpen}
        />
      ))}
    </Stack>
  )
}

function ChapterView({
  chapter,
  pupilId,
  onOpen,
}: {
  chapter: Chapter
  pupilId: string
  onOpen: Props['onOpen']
}) {
  const forPupil = useContext(ForPupil)
  const pick = usePick(pupilId)
  const place = (index: number, to: number) => {
    const chosen = chapter.picks[index]
    if (chosen) pick.mutate({ pieceId: chosen.pieceId, pick: { reason: chosen.reason, place: to } })
  }
  return (
    <Stack role="region" aria-label={chapter.term.name} gap="clear">
      <View
        style={{
          borderBottomWidth: 1,
          borderBottomColor: colours.rule,
          paddingBottom: space.close,
        }}
      >
        <Heading count={chapter.picks.length + chapter.others.length}>
          {chapter.running ? `${chapter.term.name}, ${t('running')}` : chapter.term.name}
        </Heading>
      </View>
      {chapter.picks.length === 0 && chapter.running ? (
        <Bar>
          <Text variant="bodyLarge" style={{ flexShrink: 1, color: colours.inkSoft }}>
            {t('noPicks')}
          </Text>
          {forPupil ? <Listen text={t('noPicks')} /> : null}
        </Bar>
      ) : null}
      {chapter.picks.map((chosen, i) => (
        <PickRow
          key={chosen.pieceId}
          chosen={chosen}
          onOpen={() => onOpen(chosen.piece)}
          onEarlier={i > 0 ? () => place(i, i - 1) : null}
          onLater={i < chapter.picks.length - 1 ? () => place(i, i + 1) : null}
        />
      ))}
      {chapter.others.length > 0 ? (
        <Grid>
          {chapter.others.map((piece) => (
            <PieceTile key={piece.id} piece={piece} onPress={() => onOpen(piece)} />
          ))}
        </Grid>
      ) : null}
    </Stack>
  )
}

/** A pick with its reason, and where it stands among the others. */
function PickRow({
  chosen,
  onOpen,
  onEarlier,
  onLater,
}: {
  chosen: Chapter['picks'][number]
  onOpen: () => void
  onEarlier: (() => void) | null
  onLater: (() => void) | null
}) {
  return (
    <Tile
      gap="clear"
      style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', padding: space.apart }}
    >
      <Press
        onPress={onOpen}
        style={{
          flexDirection: 'row',
          flexWrap: 'wrap',
          gap: space.clear,
          alignItems: 'center',
          flexGrow: 1,
          flexShrink: 1,
          flexBasis: 240,
        }}
      >
        <Sheet piece={chosen.piece} width={170} />
        <Stack gap="tight" style={{ flex: 1, minWidth: 120 }}>
          <Text variant="headlineSmall">{chosen.piece.title}</Text>
          <Text
            variant="bodyLarge"
            style={{
              borderLeftWidth: chosen.reason ? 3 : 0,
              borderLeftColor: colours.verdigris,
              paddingLeft: chosen.reason ? 10 : 0,
            }}
          >
            {chosen.reason}
          </Text>
        </Stack>
      </Press>
      {chosen.voice ? (
        <View style={{ width: '100%' }}>
          <Player file={chosen.voice} />
        </View>
      ) : null}
      {onEarlier || onLater ? (
        <Bar align="stretch" gap="tight">
          <RoundButton
            label={t('earlier', { title: chosen.piece.title })}
            symbol="up"
            size={targets.pupil}
            disabled={!onEarlier}
            onPress={() => onEarlier?.()}
          />
          <RoundButton
            label={t('later', { title: chosen.piece.title })}
            symbol="down-arrow"
            size={targets.pupil}
            disabled={!onLater}
            onPress={() => onLater?.()}
          />
        </Bar>
      ) : null}
    </Tile>
  )
}
