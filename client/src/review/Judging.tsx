import type { Piece } from '@nibquill/contract'
import { coverOf, MAX_MESSAGE_LENGTH } from '@nibquill/core'
import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Dialog, Text } from 'react-native-paper'
import { codeOf } from '../api/problems'
import { FolderTile } from '../folders/FolderTile'
import { useFolders } from '../folders/foldersQueries'
import { Overlay } from '../kit/Ask'
import { BigButton, Key } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { Field } from '../kit/Field'
import { Grid, useWidth } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { PartsViewer } from '../parts/PartsViewer'
import { RoundButton } from '../kit/RoundButton'
import { Sheet } from '../parts/Sheet'
import { strings as kitWords } from '../kit/strings'
import { colours, corners, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { lookOf } from '../parts/partKinds'
import { EarlierVersions } from '../pieces/MyPieceScreen'
import { pieceQuery, usePiece } from '../pieces/piecesQueries'
import { useDecide, useEarlier } from './reviewQueries'
import { strings } from './strings'
import { useKeys } from './useKeys'

type Props = {
  pieceId: string
  nextId?: string
  previousId?: string
  onGo: (pieceId: string | undefined) => void
}

/**
 * The judging desk: the work as large as the screen allows, facts beside or below, two decisions
 * fixed where the thumb or keyboard finds them.
 */
export function Judging(props: Props) {
  const piece = usePiece(props.pieceId)
  usePreload(props.nextId)
  if (piece.isPending) return <Loading />
  if (piece.isError)
    return <ProblemNotice error={piece.error} onRetry={() => void piece.refetch()} />
  return <JudgingDesk {...props} piece={piece.data} />
}

/** The next piece is there before it is asked for. */
function usePreload(pieceId: string | undefined): void {
  const queries = useQueryClient()
  useEffect(() => {
    if (!pieceId) return
    void queries.fetchQuery(pieceQuery(pieceId)).then(
      ({ parts }) => {
        const cover = coverOf(parts)
        const ahead = cover && lookOf(cover).ahead(cover)
        if (ahead) new window.Image().src = ahead
      },
      () => undefined,
    )
  }, [pieceId, queries])
}

type Open = 'folder' | 'send-back' | 'keys' | null

function JudgingDesk({ piece, nextId, previousId, onGo }: Props & { piece: Piece }) {
  const { wide, height } = useWidth()
  const decide = useDecide()
  const folders = useFolders()
  const [open, setOpen] = useState<Open>(null)
  const [folderId, setFolderId] = useState<string | null>(null)
  const [message, setMessage] = useState('')
  const waiting = piece.state === 'submitted'
  const folder = folders.data?.find(({ id }) => id === folderId) ?? piece.folder
  // What was handed in is judged, as it was handed in.
  const version = waiting
    ? piece.versions[0]
    : (piece.versions.find(({ decision }) => decision?.move === 'approve') ?? piece.versions[0])
  const parts = version?.parts ?? piece.parts
  const title = version?.title ?? piece.title

  const send = useCallback(
    (move: 'approve' | 'send-back') => {
      decide.mutate(
        {
          pieceId: piece.id,
          decision: {
            move,
            message: message.trim(),
            seenVersion: piece.version,
            ...(move === 'approve' && folderId ? { folderId } : {}),
          },
        },
        {
          onSuccess: () => {
            setOpen(null)
            toast(move === 'approve' ? strings.approved(title) : strings.sentBack(title))
            onGo(nextId ?? previousId)
          },
        },
      )
    },
    [decide, piece.id, piece.version, message, folderId, title, onGo, nextId, previousId],
  )
  useKeys(
    {
      a: () => waiting && !decide.isPending && send('approve'),
      s: () => waiting && setOpen('send-back'),
      f: () => waiting && setOpen('folder'),
      m: () => document.querySelector<HTMLElement>(`[aria-label="${strings.message}"]`)?.focus(),
      j: () => nextId && onGo(nextId),
      k: () => previousId && onGo(previousId),
      '?': () => setOpen('keys'),
    },
    open === null,
  )

  const facts = (
    <View style={{ padding: 18, gap: 16 }}>
      <View style={{ flexDirection: 'row', gap: 12, alignItems: 'center' }}>
        <Peg peg={piece.pupil.peg} size={52} />
        <View style={{ flex: 1 }}>
          <Text variant="titleMedium">{`${piece.pupil.firstName} ${piece.pupil.lastName}`}</Text>
          {version ? (
            <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
              {strings.handedIn(whenWasIt(version.submittedAt))}
            </Text>
          ) : null}
        </View>
      </View>
      <View style={{ gap: 4 }}>
        <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
          {strings.thinks(piece.pupil.firstName)}
        </Text>
        <View
          style={{
            backgroundColor: colours.sheet,
            borderRadius: corners.sheet,
            padding: 12,
            borderBottomWidth: 1,
            borderBottomColor: colours.rule,
          }}
        >
          <Text
            variant="bodyLarge"
            style={version?.reflection ? undefined : { color: colours.inkSoft }}
          >
            {version?.reflection || strings.nothingSaid}
          </Text>
        </View>
      </View>
      <View style={{ gap: 2 }}>
        {[
          piece.task ? `${strings.task}: ${piece.task.title}` : null,
          `${strings.step}: ${strings.stepNames[version?.step ?? piece.step]}`,
          piece.folder ? `${strings.folder}: ${piece.folder.name}` : null,
        ]
          .filter((line) => line !== null)
          .map((line) => (
            <Text key={line} variant="bodySmall" style={{ color: colours.inkSoft }}>
              {line}
            </Text>
          ))}
      </View>
      {waiting ? (
        <Field
          label={strings.message}
          value={message}
          onChangeText={setMessage}
          maxLength={MAX_MESSAGE_LENGTH}
          lines={2}
        />
      ) : null}
      <EarlierInFolder piece={piece} />
      <EarlierVersions versions={piece.versions.slice(1)} />
    </View>
  )

  const head = (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        paddingHorizontal: 14,
        paddingVertical: 8,
        gap: 6,
      }}
    >
      {wide ? null : (
        <RoundButton
          label={strings.backToTray}
          symbol="back"
          size={targets.adult}
          onPress={() => onGo(undefined)}
        />
      )}
      <View style={{ flex: 1 }}>
        <Text role="heading" aria-level={2} variant="headlineSmall" numberOfLines={2}>
          {title}
        </Text>
        {piece.goes > 1 ? (
          <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
            {kitWords.goes(piece.goes)}
          </Text>
        ) : null}
      </View>
      {wide ? (
        <RoundButton
          label={strings.shortcuts}
          symbol="help"
          size={targets.adult}
          onPress={() => setOpen('keys')}
        />
      ) : null}
      <RoundButton
        label={strings.previous}
        symbol="previous"
        size={targets.adult}
        disabled={!previousId}
        onPress={() => onGo(previousId)}
      />
      <RoundButton
        label={strings.next}
        symbol="next"
        size={targets.adult}
        disabled={!nextId}
        onPress={() => onGo(nextId)}
      />
    </View>
  )

  const foot = (
    <View
      style={{
        backgroundColor: colours.sheet,
        borderTopWidth: 1,
        borderTopColor: colours.rule,
        padding: 12,
        gap: 8,
      }}
    >
      {decide.isError ? (
        <Notice tone="again" symbol="alert">
          {codeOf(decide.error) === 'piece/stale' ? strings.movedMeanwhile : decide.error.message}
        </Notice>
      ) : null}
      {waiting ? (
        <View style={{ flexDirection: 'row', gap: 10 }}>
          <BigButton
            label={strings.sendBack}
            symbol={wide ? 'again' : undefined}
            tone="again"
            shortcut={wide ? 'S' : undefined}
            onPress={() => setOpen('send-back')}
            disabled={decide.isPending}
          />
          <BigButton
            label={strings.approveInto(folder?.name ?? '')}
            symbol={wide ? 'in-folder' : undefined}
            tone="good"
            shortcut={wide ? 'A' : undefined}
            onPress={() => send('approve')}
            busy={decide.isPending && open === null}
            grow
          />
          <RoundButton
            label={strings.otherFolder}
            symbol="folder"
            onPress={() => setOpen('folder')}
            colour={colours.verdigris}
            back={colours.verdigrisTint}
          />
        </View>
      ) : (
        <Text variant="bodyMedium" style={{ textAlign: 'center', padding: 10 }}>
          {piece.state === 'submitted' ? '' : strings.notWaiting[piece.state]}
        </Text>
      )}
    </View>
  )

  return (
    <View style={{ flex: 1 }}>
      {wide ? (
        <View style={{ flex: 1, flexDirection: 'row' }}>
          <View style={{ flex: 1 }}>
            {head}
            <View style={{ flex: 1, paddingHorizontal: 18, paddingBottom: 14 }}>
              <PartsViewer parts={parts} title={title} />
            </View>
            {foot}
          </View>
          <ScrollView
            style={{ flexGrow: 0, width: 290, borderLeftWidth: 1, borderLeftColor: colours.rule }}
          >
            {facts}
          </ScrollView>
        </View>
      ) : (
        <>
          {head}
          <ScrollView>
            <View style={{ height: Math.min(460, height * 0.45), paddingHorizontal: 12 }}>
              <PartsViewer parts={parts} title={title} />
            </View>
            {facts}
          </ScrollView>
          {foot}
        </>
      )}
      <Overlay
        visible={open === 'folder'}
        onClose={() => setOpen(null)}
        width={620}
        title={strings.chooseFolder}
      >
        <Dialog.ScrollArea style={{ maxHeight: height * 0.6 }}>
          <ScrollView contentContainerStyle={{ paddingVertical: 12 }}>
            <View role="radiogroup" aria-label={strings.chooseFolder}>
              <Grid>
                {folders.data
                  ?.filter(
                    ({ wholeSchool, className, owner }) =>
                      (wholeSchool || className?.split(', ').includes(piece.className)) &&
                      (!owner || (owner.agreed && owner.id === piece.pupil.id)),
                  )
                  .map((other) => (
                    <FolderTile
                      key={other.id}
                      folder={other}
                      chosen={other.id === folder?.id}
                      onPress={() => {
                        setFolderId(other.id)
                        setOpen(null)
                      }}
                    />
                  ))}
              </Grid>
            </View>
          </ScrollView>
        </Dialog.ScrollArea>
      </Overlay>
      <Overlay
        visible={open === 'send-back'}
        onClose={() => setOpen(null)}
        width={520}
        title={strings.sendBackTitle(piece.pupil.firstName)}
      >
        <Dialog.Content style={{ gap: 14 }}>
          <Text variant="bodyMedium">{strings.nextStepHelp}</Text>
          <Field
            label={strings.nextStepLabel}
            value={message}
            onChangeText={setMessage}
            maxLength={MAX_MESSAGE_LENGTH}
            lines={3}
            autoFocus
          />
          {decide.isError ? <ProblemNotice error={decide.error} /> : null}
          <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
            <BigButton label={kitWords.cancel} tone="quiet" onPress={() => setOpen(null)} grow />
            <BigButton
              label={strings.send}
              symbol="again"
              tone="again"
              onPress={() => send('send-back')}
              disabled={message.trim() === ''}
              busy={decide.isPending}
              grow
            />
          </View>
        </Dialog.Content>
      </Overlay>
      <Overlay
        visible={open === 'keys'}
        onClose={() => setOpen(null)}
        width={420}
        title={strings.shortcuts}
      >
        <Dialog.Content style={{ gap: 8 }}>
          {strings.shortcutList.map(([key, does]) => (
            <View key={key} style={{ flexDirection: 'row', gap: 12, alignItems: 'center' }}>
              <View style={{ width: 90, alignItems: 'flex-start' }}>
                <Key name={key!} colour={colours.ink} />
              </View>
              <Text variant="bodyMedium">{does}</Text>
            </View>
          ))}
          <BigButton small label={kitWords.close} tone="quiet" onPress={() => setOpen(null)} />
        </Dialog.Content>
      </Overlay>
    </View>
  )
}

function EarlierInFolder({ piece }: { piece: Piece }) {
  const earlier = useEarlier(piece.id)
  if (!earlier.data?.length || !piece.folder) return null
  return (
    <View style={{ gap: 8 }}>
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {strings.earlierIn(piece.folder.name)}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        {earlier.data.map((other) => (
          <View key={other.id} accessibilityLabel={other.title} role="img">
            <Sheet piece={other} width={112} />
          </View>
        ))}
      </View>
    </View>
  )
}
