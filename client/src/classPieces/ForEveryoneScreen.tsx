import { ClassPieces, type ClassPiece, type StartForEveryone } from '@nibquill/contract'
import { useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { api } from '../api/api'
import { useAsk, useChange } from '../api/queries'
import { useFolders } from '../folders'
import { BigButton } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { Field } from '../kit/Field'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Box, faultsOf, Hint, Row, Select, sentence } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import { useClasses } from '../school'
import { piecesStrings as strings } from '../pieces'

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
      <Head title={strings.forEveryone} back={`/class?classId=${home?.id ?? ''}`} />
      <Hint>{strings.forEveryoneHelp}</Hint>
      {starting && home ? (
        <StartForm classId={home.id} onDone={() => setStarting(false)} />
      ) : (
        <Row>
          <BigButton
            small
            symbol="plus"
            label={strings.startOne}
            onPress={() => setStarting(true)}
          />
        </Row>
      )}
      {pieces.data.map((piece) => (
        <ClassPieceBox key={piece.id} piece={piece} />
      ))}
      {pieces.data.length === 0 && !starting ? (
        <Empty symbol="layers" title={strings.noneStarted} />
      ) : null}
    </Page>
  )
}

function StartForm({ classId, onDone }: { classId: string; onDone: () => void }) {
  const start = useStart()
  const folders = useFolders()
  const [id] = useState(() => newId())
  const [title, setTitle] = useState('')
  const [instructions, setInstructions] = useState('')
  const [chosen, setChosen] = useState('')
  const fitting = (folders.data ?? []).filter(
    ({ wholeSchool, classIds, owner }) => !owner && (wholeSchool || classIds.includes(classId)),
  )
  const folderId = chosen || fitting[0]?.id || ''
  const faults = faultsOf(start.error)
  return (
    <Box title={strings.startOne}>
      <Field
        label={strings.startTitle}
        value={title}
        onChangeText={setTitle}
        error={sentence(faults.title?.[0])}
        autoFocus
      />
      <Field
        label={strings.startInstructions}
        value={instructions}
        onChangeText={setInstructions}
        lines={3}
      />
      <Select
        label={strings.startFolder}
        value={folderId}
        options={fitting.map((folder) => ({ value: folder.id, label: folder.name }))}
        onChange={setChosen}
      />
      {start.isError && !faults.title ? <ProblemNotice error={start.error} /> : null}
      <BigButton
        label={strings.startDo}
        symbol="check"
        disabled={title.trim() === '' || folderId === ''}
        busy={start.isPending}
        onPress={() =>
          start.mutate(
            { id, input: { classId, folderId, title, instructions } },
            {
              onSuccess: () => {
                toast(strings.started)
                onDone()
              },
            },
          )
        }
      />
    </Box>
  )
}

function ClassPieceBox({ piece }: { piece: ClassPiece }) {
  const move = useMove()
  const { id } = piece
  return (
    <Box>
      <View style={{ flexDirection: 'row', gap: 14, alignItems: 'center' }}>
        <FolderDrawing folder={piece.folder} width={70} />
        <View style={{ flex: 1 }}>
          <Text role="heading" aria-level={2} variant="titleMedium">
            {piece.title}
          </Text>
          <Hint>
            {[
              piece.className,
              whenWasIt(piece.createdAt),
              strings.begun(piece.begun, piece.pupils),
              piece.closed ? strings.isClosed : '',
            ]
              .filter(Boolean)
              .join(' · ')}
          </Hint>
        </View>
      </View>
      {piece.instructions ? <Text variant="bodyMedium">{piece.instructions}</Text> : null}
      {move.isError ? <ProblemNotice error={move.error} /> : null}
      <Row>
        {piece.closed ? (
          <BigButton
            small
            tone="quiet"
            symbol="take-out"
            label={strings.openAgain}
            busy={move.isPending}
            onPress={() => move.mutate({ id, move: 'reopen' })}
          />
        ) : (
          <BigButton
            small
            tone="quiet"
            symbol="lock"
            label={strings.closeIt}
            busy={move.isPending}
            onPress={() =>
              move.mutate({ id, move: 'close' }, { onSuccess: () => toast(strings.closedAndIn) })
            }
          />
        )}
      </Row>
    </Box>
  )
}
