import type { Part, Piece } from '@nibquill/contract'
import { isOpen, MAX_PART_NAME_LENGTH } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useKeepFirst } from '../accounts/handOver'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice, ProblemNotice } from '../kit/Notice'
import { RoundButton } from '../kit/RoundButton'
import { toast } from '../kit/Toast'
import { colours, corners } from '../kit/theme'
import { WithPiece } from '../pieces/WithPiece'
import { uploader, useSendings } from '../pieces/uploads'
import type { Sending } from '../media/uploader'
import { followTidied } from './followTidied'
import { lookOf, nameOf } from './partKinds'
import { entriesOf } from './PartsStrip'
import { PartView } from './PartView'
import { useNamePart, useOrderParts, useRemovePart } from './partsQueries'
import { strings } from './strings'

/** One part, as large as it gets, with what can be done to it. */
export function PartScreen() {
  const { partId } = useLocalSearchParams<{ partId: string }>()
  return <WithPiece>{(piece) => <OnePart piece={piece} asked={partId} />}</WithPiece>
}

const back = (pieceId: string) =>
  router.canGoBack() ? router.back() : router.replace(`/my-pieces/${pieceId}`)

function OnePart({ piece, asked }: { piece: Piece; asked: string }) {
  const sendings = useSendings(piece.id)
  const entries = entriesOf(piece.parts, sendings)
  const partId = followTidied(asked, (id) => entries.some((entry) => entry.id === id))
  const at = entries.findIndex(({ id }) => id === partId)
  const entry = entries[at]
  // Here, since the tools go as soon as the school tells that the part is out; who is still here
  // goes back and may undo it.
  const remove = useRemovePart(piece.id)
  const takeOut = () => {
    if (entry?.sending) {
      uploader.forget(partId)
      return back(piece.id)
    }
    remove.mutate(
      { partId, restore: false },
      {
        onSuccess: () => {
          back(piece.id)
          toast(strings.removed, () => remove.mutate({ partId, restore: true }), strings.undo)
        },
      },
    )
  }
  const { wide, height } = useWidth()
  const beside = wide || height < 620
  const title = entry?.name ?? strings.gone
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          gap: 8,
          padding: 8,
          backgroundColor: colours.sheet,
          borderBottomWidth: 1,
          borderBottomColor: colours.rule,
        }}
      >
        <RoundButton symbol="back" label={strings.back} onPress={() => back(piece.id)} />
        <Text
          role="heading"
          aria-level={1}
          variant="titleMedium"
          numberOfLines={1}
          style={{ flex: 1 }}
        >
          {title}
        </Text>
        {entry && entries.length > 1 ? (
          <Text variant="bodyMedium" style={{ color: colours.inkSoft, paddingRight: 12 }}>
            {strings.place(at + 1, entries.length)}
          </Text>
        ) : null}
      </View>
      {entry ? (
        <View style={{ flex: 1, flexDirection: beside ? 'row' : 'column' }}>
          <View style={{ flex: 1, padding: 12 }}>
            {entry.sending ? (
              <SendingPhoto sending={entry.sending} />
            ) : (
              <PartView view="large" part={entry.part!} alt={`${title}: ${piece.title}`} />
            )}
          </View>
          {isOpen(piece.state) ? (
            <View
              style={[
                { padding: 14, gap: 12, backgroundColor: colours.sheet, borderColor: colours.rule },
                beside ? { width: 340, borderLeftWidth: 1 } : { borderTopWidth: 1 },
              ]}
            >
              <PartTools
                piece={piece}
                part={entry.part}
                partId={partId}
                sending={entry.sending}
                remove={remove}
                onTakeOut={takeOut}
              />
            </View>
          ) : null}
        </View>
      ) : (
        <View style={{ padding: 20, gap: 14 }}>
          <Notice tone="attention" symbol="alert">
            {strings.gone}
          </Notice>
          <BigButton symbol="back" label={strings.back} onPress={() => back(piece.id)} />
        </View>
      )}
    </View>
  )
}

/** What has not arrived yet is shown from this tablet. */
const SendingPhoto = ({ sending }: { sending: Sending }) => (
  <img
    src={sending.preview}
    alt={sending.name}
    style={{
      width: '100%',
      height: '100%',
      objectFit: 'contain',
      borderRadius: corners.button,
      background: colours.desk,
    }}
  />
)

type ToolsProps = {
  piece: Piece
  part: Part | null
  partId: string
  sending: Sending | null
  remove: ReturnType<typeof useRemovePart>
  onTakeOut: () => void
}

function PartTools({ piece, part, partId, sending, remove, onTakeOut }: ToolsProps) {
  const { order } = useOrderParts(piece.id)
  const kind = part?.kind ?? sending!.kind
  const ids = piece.parts.map(({ id }) => id)
  const at = ids.indexOf(partId)
  const moveTo = (to: number) => {
    const next = ids.filter((id) => id !== partId)
    next.splice(to, 0, partId)
    order(next)
  }
  return (
    <>
      {part ? <PartName key={part.id} pieceId={piece.id} part={part} index={at} /> : null}
      <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
        {lookOf({ kind }).canTidy ? (
          <BigButton
            grow
            symbol="tidy"
            label={strings.tidy}
            onPress={() => router.push(`/my-pieces/${piece.id}/parts/${partId}/tidy`)}
          />
        ) : null}
        <BigButton
          grow
          tone="quiet"
          symbol="bin"
          label={strings.remove(nameOf(part ?? sending!, Math.max(0, at)))}
          onPress={onTakeOut}
          busy={remove.isPending}
        />
      </View>
      {part && ids.length > 1 ? (
        <View style={{ flexDirection: 'row', gap: 10 }}>
          <BigButton
            grow
            tone="quiet"
            symbol="previous"
            label={strings.earlier}
            disabled={at === 0}
            onPress={() => moveTo(at - 1)}
          />
          <BigButton
            grow
            tone="quiet"
            symbol="next"
            label={strings.later}
            disabled={at === ids.length - 1}
            onPress={() => moveTo(at + 1)}
          />
        </View>
      ) : null}
      {part?.kind === 'photo' && part.tidied ? (
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {strings.keepsOriginal}
        </Text>
      ) : null}
      {remove.isError ? <ProblemNotice error={remove.error} /> : null}
    </>
  )
}

/** A name of its own; saved when one goes on. */
function PartName({ pieceId, part, index }: { pieceId: string; part: Part; index: number }) {
  const own = nameOf({ kind: part.kind, name: part.name }, index)
  const [name, setName] = useState(
    own === nameOf({ kind: part.kind, name: '' }, index) ? '' : part.name,
  )
  const change = useNamePart(pieceId)
  const save = async () => {
    if (name.trim() !== part.name && (name.trim() !== '' || part.name !== ''))
      await change.mutateAsync({ partId: part.id, name: name.trim() })
  }
  useKeepFirst(save)
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 4 }}>
        <View style={{ flex: 1 }}>
          <Field
            label={strings.name}
            value={name}
            placeholder={own}
            maxLength={MAX_PART_NAME_LENGTH}
            onChangeText={setName}
            onBlur={() => void save().catch(() => undefined)}
          />
        </View>
        <Listen text={strings.nameHelp} />
      </View>
      {change.isError ? <ProblemNotice error={change.error} /> : null}
    </View>
  )
}
