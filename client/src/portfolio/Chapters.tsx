import type { Chapter, PieceLine, Portfolio } from '@nibquill/contract'
import { useContext } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { ForPupil } from '../kit/forPupil'
import { Grid, Heading } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { PieceTile } from '../parts/PieceTile'
import { Sheet } from '../parts/Sheet'
import { colours, corners, shadow, targets } from '../kit/theme'
import { usePick } from './portfolioQueries'
import { strings } from './strings'

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
    <View style={{ gap: 32 }}>
      {portfolio.chapters.map((chapter) => (
        <ChapterView
          key={chapter.term.id}
          chapter={chapter}
          pupilId={portfolio.pupil.id}
          onOpen={onOpen}
        />
      ))}
    </View>
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
    <View role="region" aria-label={chapter.term.name} style={{ gap: 16 }}>
      <View style={{ borderBottomWidth: 1, borderBottomColor: colours.rule, paddingBottom: 6 }}>
        <Heading count={chapter.picks.length + chapter.others.length}>
          {chapter.running ? `${chapter.term.name}, ${strings.running}` : chapter.term.name}
        </Heading>
      </View>
      {chapter.picks.length === 0 && chapter.running ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <Text variant="bodyLarge" style={{ flexShrink: 1, color: colours.inkSoft }}>
            {strings.noPicks}
          </Text>
          {forPupil ? <Listen text={strings.noPicks} /> : null}
        </View>
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
    </View>
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
    <View
      style={[
        {
          flexDirection: 'row',
          flexWrap: 'wrap',
          alignItems: 'center',
          gap: 16,
          backgroundColor: colours.sheet,
          borderRadius: corners.button,
          padding: 14,
        },
        shadow,
      ]}
    >
      <Press
        onPress={onOpen}
        style={{
          flexDirection: 'row',
          flexWrap: 'wrap',
          gap: 16,
          alignItems: 'center',
          flexGrow: 1,
          flexShrink: 1,
          flexBasis: 240,
        }}
      >
        <Sheet piece={chosen.piece} width={170} />
        <View style={{ flex: 1, minWidth: 120, gap: 4 }}>
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
        </View>
      </Press>
      {onEarlier || onLater ? (
        <View style={{ gap: 4, flexDirection: 'row' }}>
          <RoundButton
            label={strings.earlier(chosen.piece.title)}
            symbol="up"
            size={targets.pupil}
            disabled={!onEarlier}
            onPress={() => onEarlier?.()}
          />
          <RoundButton
            label={strings.later(chosen.piece.title)}
            symbol="down-arrow"
            size={targets.pupil}
            disabled={!onLater}
            onPress={() => onLater?.()}
          />
        </View>
      ) : null}
    </View>
  )
}
