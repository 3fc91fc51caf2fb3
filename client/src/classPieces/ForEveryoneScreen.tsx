import { ClassPieces, StartForEveryone, type ClassPiece } from '@nibquill/contract'
import { useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'
import { useFolders } from '../folders'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Box, Hint } from '../kit/form'
import { FormLine, FormSelect } from '../kit/formLines'
import { Head } from '../kit/Head'
import { Bar, Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import { useClasses } from '../school'
import { piecesWords } from '../pieces'
import { t } from './words'

const TOUCHES = ['pieces', 'review', 'school'] as const
const useClassPieces = () => useAsk(['pieces', 'for-everyone'], '/pieces/for-everyone', ClassPieces)
const useStart = () =>
  useChange(
    ({ id, input }: { id: string; input: StartForEveryone }) =>
      api.put(`/pieces/for-everyone/${id}`, ClassPieces, input),
    TOUCHES,
  )
const useMove = () =>
  useChange(
    ({ id, move }: { id: string; move: 'close' | 'reopen' }) =>
      api.post(`/pieces/for-everyone/${id}/${move}`, ClassPieces),
    TOUCHES,
  )

/** Pieces the teacher starts for every pupil of a class at once. */
export function ForEveryoneScreen() {
  const { classId } = useLocalSearchParams<{ classId?: string }>()
  const classes = useClasses()
  const pieces = useClassPieces()
  const [starting, setStarting] = useState(false)
  if (!isHere(pieces) || !isHere(classes)) return <NotYet of={[pieces, classes]} />
  const home =
    classes.data?.find(({ id }) => id === classId) ?? classes.data?.find(({ mine }) => mine)
  return (
    <Page>
      <Head title={piecesWords('forEveryone')} back={`/class?classId=${home?.id ?? ''}`} />
      <Hint>{t('forEveryoneHelp')}</Hint>
      {starting && home ? (
        <StartForm classId={home.id} onDone={() => setStarting(false)} />
      ) : (
        <Bar wrap>
          <BigButton small symbol="plus" label={t('startOne')} onPress={() => setStarting(true)} />
        </Bar>
      )}
      {pieces.data.map((piece) => (
        <ClassPieceBox key={piece.id} piece={piece} />
      ))}
      {pieces.data.length === 0 && !starting ? (
        <Empty symbol="layers" title={t('noneStarted')} />
      ) : null}
    </Page>
  )
}

function StartForm(props: { classId: string; onDone: () => void }) {
  const folders = useFolders()
  if (!isHere(folders)) return <NotYet of={folders} />
  const fitting = folders.data.filter(
    ({ wholeSchool, classIds, owner }) =>
      !owner && (wholeSchool || classIds.includes(props.classId)),
  )
  return <StartInto key={props.classId} folders={fitting} {...props} />
}

function StartInto({
  classId,
  folders,
  onDone,
}: {
  classId: string
  folders: readonly { id: string; name: string }[]
  onDone: () => void
}) {
  const start = useStart()
  const [id] = useState(() => newId())
  const { control, watch, send, refused } = useFormOf(
    StartForEveryone,
    { classId, folderId: folders[0]?.id ?? '', title: '', instructions: '' },
    async (input) => {
      await start.mutateAsync({ id, input })
      toast(t('started'))
      onDone()
    },
  )
  return (
    <Box title={t('startOne')}>
      <FormLine control={control} name="title" label={t('startTitle')} autoFocus />
      <FormLine control={control} name="instructions" label={t('startInstructions')} lines={3} />
      <FormSelect
        control={control}
        name="folderId"
        label={t('startFolder')}
        options={folders.map((folder) => ({ value: folder.id, label: folder.name }))}
      />
      {refused ? <ProblemNotice error={refused} /> : null}
      <BigButton
        label={t('startDo')}
        symbol="check"
        disabled={watch('title').trim() === '' || folders.length === 0}
        busy={start.isPending}
        onPress={send}
      />
    </Box>
  )
}

function ClassPieceBox({ piece }: { piece: ClassPiece }) {
  const { whenWasIt } = useWhen()
  const move = useMove()
  const { id } = piece
  return (
    <Box>
      <Bar gap="apart">
        <FolderDrawing folder={piece.folder} width={70} />
        <View style={{ flex: 1 }}>
          <Text role="heading" aria-level={2} variant="titleMedium">
            {piece.title}
          </Text>
          <Hint>
            {[
              piece.className,
              whenWasIt(piece.createdAt),
              t('begun', { begun: piece.begun, of: piece.pupils }),
              piece.closed ? t('isClosed') : '',
            ]
              .filter(Boolean)
              .join(' · ')}
          </Hint>
        </View>
      </Bar>
      {piece.instructions ? <Text variant="bodyMedium">{piece.instructions}</Text> : null}
      {move.isError ? <ProblemNotice error={move.error} /> : null}
      <Bar wrap>
        {piece.closed ? (
          <BigButton
            small
            tone="quiet"
            symbol="take-out"
            label={t('openAgain')}
            busy={move.isPending}
            onPress={() => move.mutate({ id, move: 'reopen' })}
          />
        ) : (
          <BigButton
            small
            tone="quiet"
            symbol="lock"
            label={t('closeIt')}
            busy={move.isPending}
            onPress={() =>
              move.mutate({ id, move: 'close' }, { onSuccess: () => toast(t('closedAndIn')) })
            }
          />
        )}
      </Bar>
    </Box>
  )
}
