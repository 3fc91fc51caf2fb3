import type { PieceLine, PupilDesk, SecondLook } from '@nibquill/contract'
import { BIN_DAYS } from '@nibquill/core'
import { groupYear, YEAR_GROUPINGS, type YearGrouping } from '@nibquill/core/review/groupYear'
import { router } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Tabs } from '../kit/choices'
import { dayOf } from '../kit/dates'
import { useWhen } from '../kit/useWhen'
import { Bar, Grid, Heading, Stack, Tile } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, space, targets } from '../kit/theme'
import { PieceTile } from '../parts/PieceTile'
import { piecesWords } from '../pieces'
import { useRestoreHandedIn, useSecondLooks } from '../review'
import { t } from './words'

const AREAS = ['submitted', 'returned', 'draft'] as const

/** The pieces of a page in the order in which it shows them: what Next leads through. */
export function inShownOrder({ now, year }: PupilDesk, by: YearGrouping): PieceLine[] {
  const shown = [...now, ...groupYear(year, by).flatMap(({ pieces }) => pieces)]
  return shown.filter(({ id }, i) => shown.findIndex((other) => other.id === id) === i)
}

/** What is going on now, and what came of the year so far. */
export function NowAndYear({
  pupilId,
  desk,
  by,
  onBy,
}: {
  pupilId: string
  desk: PupilDesk
  by: YearGrouping
  onBy: (by: YearGrouping) => void
}) {
  const looks = (useSecondLooks().data ?? []).filter(({ pupil }) => pupil.id === pupilId)
  const open = (pieceId: string) =>
    router.push({
      pathname: '/class/[id]/[pieceId]',
      params: { id: pupilId, pieceId, ...(by === 'folder' ? {} : { by }) },
    })
  const isEmpty = desk.now.length + looks.length === 0
  return (
    <Stack gap="off">
      <Stack role="region" aria-label={t('now')} gap="clear">
        <Heading>{t('now')}</Heading>
        {isEmpty ? <Text variant="bodyLarge">{t('nowEmpty')}</Text> : null}
        <Bar wrap gap="clear" align="flex-start">
          {AREAS.map((state) => (
            <Area
              key={state}
              title={t(`nowAreas.${state}`)}
              pieces={desk.now.filter((piece) => piece.state === state)}
              onOpen={open}
            />
          ))}
        </Bar>
        {looks.length > 0 ? <Looks looks={looks} onOpen={open} /> : null}
      </Stack>
      <Stack role="region" aria-label={t('year')} gap="clear">
        <Heading count={desk.year.length}>{t('year')}</Heading>
        {desk.year.length > 0 ? (
          <Tabs
            label={t('yearOrder')}
            value={by}
            options={YEAR_GROUPINGS.map((value) => ({ value, label: t(`yearBy.${value}`) }))}
            onChange={onBy}
          />
        ) : (
          <Text variant="bodyLarge">{t('yearEmpty')}</Text>
        )}
        {groupYear(desk.year, by).map(({ key, name, pieces }) => (
          <Stack key={key} role="group" aria-label={name ?? t(`none.${by}`)} gap="near">
            <Text variant="titleMedium">{`${name ?? t(`none.${by}`)} · ${pieces.length}`}</Text>
            <Grid>
              {pieces.map((piece) => (
                <PieceTile
                  key={piece.id}
                  piece={piece}
                  under={dayOf(piece.approvedAt)}
                  onPress={() => open(piece.id)}
                />
              ))}
            </Grid>
          </Stack>
        ))}
      </Stack>
      {desk.binned.length > 0 ? <InBin pieces={desk.binned} /> : null}
    </Stack>
  )
}

/** What was thrown away, by its makers or a teacher, and can come back for a while. */
function InBin({ pieces }: { pieces: PieceLine[] }) {
  const { whenWasIt } = useWhen()
  const restore = useRestoreHandedIn()
  return (
    <Stack role="region" aria-label={t('bin')} gap="near">
      <Heading>{t('bin')}</Heading>
      <Text variant="bodyMedium">{t('binHelp', { days: BIN_DAYS })}</Text>
      {restore.isError ? <ProblemNotice error={restore.error} /> : null}
      {pieces.map(({ id, title, task, changedAt, state }) => {
        const name = title || task?.title || piecesWords('untitled')
        return (
          <Bar key={id} wrap gap="apart">
            <BigButton
              small
              tone="quiet"
              symbol="undo"
              label={t('bringBack', { name })}
              onPress={() => restore.mutate({ pieceId: id })}
            />
            <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
              {t('binned', { state, when: whenWasIt(changedAt) })}
            </Text>
          </Bar>
        )
      })}
    </Stack>
  )
}

type Opens = { onOpen: (pieceId: string) => void }

function Area({ title, pieces, onOpen }: Opens & { title: string; pieces: PieceLine[] }) {
  const { whenWasIt } = useWhen()
  if (pieces.length === 0) return null
  return (
    <Stack role="group" aria-label={title} gap="near" style={{ maxWidth: '100%' }}>
      <Text variant="titleMedium">{`${title} · ${pieces.length}`}</Text>
      <Bar wrap gap="clear" align="flex-start">
        {pieces.map((piece) => (
          <PieceTile
            key={piece.id}
            piece={{
              ...piece,
              title: piece.title || piece.task?.title || piecesWords('untitled'),
            }}
            under={whenWasIt(piece.submittedAt ?? piece.changedAt)}
            onPress={() => onOpen(piece.id)}
          />
        ))}
      </Bar>
    </Stack>
  )
}

function Looks({ looks, onOpen }: Opens & { looks: readonly SecondLook[] }) {
  return (
    <Tile role="group" aria-label={t('nowAreas.looks')} gap="tight">
      <Text variant="titleMedium">{`${t('nowAreas.looks')} · ${looks.length}`}</Text>
      {looks.map(({ pieceId, title, reason }) => (
        <Press
          key={pieceId}
          role="link"
          onPress={() => onOpen(pieceId)}
          style={{
            ...{ flexDirection: 'row', alignItems: 'center', gap: space.near },
            minHeight: targets.adult,
          }}
        >
          <DrawnSymbol name="eye" size={20} colour={colours.ochreText} />
          <View style={{ flex: 1 }}>
            <Text variant="bodyMedium">{t('lookAt', { title, reason })}</Text>
          </View>
        </Press>
      ))}
    </Tile>
  )
}
