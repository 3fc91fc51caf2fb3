import type { Part, Piece } from '@nibquill/contract'
import { isOpen, MAX_PART_NAME_LENGTH } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useKeepFirst } from '../accounts'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { RoundButton } from '../kit/RoundButton'
import { toast } from '../kit/Toast'
import { colours } from '../kit/theme'
import { usePieceWork, WithPiece } from '../pieces'
import { followTidied } from '../parts/followTidied'
import { lookOf, nameOf } from '../parts/partKinds'
import { PartView } from '../parts/PartView'
import { strings } from '../parts/strings'

/** One part, as large as it gets, with what can be done to it. */
export function PartScreen() {
  const { partId } = useLocalSearchParams<{ partId: string }>()
  return <WithPiece>{(piece) => <OnePart piece={piece} asked={partId} />}</WithPiece>
}

const back = (pieceId: string) =>
  router.canGoBack() ? router.back() : router.replace(`/my-pieces/${pieceId}`)

function OnePart({ piece, asked }: { piece: Piece; asked: string }) {
  const work = usePieceWork(piece.id)
  const partId = followTidied(asked, (id) => piece.parts.some((part) => part.id === id))
  const at = piece.parts.findIndex(({ id }) => id === partId)
  const part = piece.parts[at]
  const takeOut = async () => {
    if (!part) return
    await work.takeOut(part)
    back(piece.id)
    toast(strings.removed, () => void work.putBack(part.id), strings.undo)
  }
  const { wide, height } = useWidth()
  const beside = wide || height < 620
  const title = part ? nameOf(part, at) : strings.gone
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
        {part && piece.parts.length > 1 ? (
          <Text variant="bodyMedium" style={{ color: colours.inkSoft, paddingRight: 12 }}>
            {strings.place(at + 1, piece.parts.length)}
          </Text>
        ) : null}
      </View>
      {part ? (
        <View style={{ flex: 1, flexDirection: beside ? 'row' : 'column' }}>
          <View style={{ flex: 1, padding: 12 }}>
            <PartView view="large" part={part} alt={`${title}: ${piece.title}`} />
          </View>
          {isOpen(piece.state) ? (
            <View
              style={[
                { padding: 14, gap: 12, backgroundColor: colours.sheet, borderColor: colours.rule },
                beside ? { width: 340, borderLeftWidth: 1 } : { borderTopWidth: 1 },
              ]}
            >
              <PartTools piece={piece} part={part} at={at} onTakeOut={() => void takeOut()} />
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

type ToolsProps = { piece: Piece; part: Part; at: number; onTakeOut: () => void }

function PartTools({ piece, part, at, onTakeOut }: ToolsProps) {
  const work = usePieceWork(piece.id)
  const { canTidy, goOn } = lookOf(part)
  const ids = piece.parts.map(({ id }) => id)
  const open = (way: 'tidy' | 'write') =>
    router.push(`/my-pieces/${piece.id}/parts/${part.id}/${way}`)
  const moveTo = (to: number) => {
    const next = ids.filter((id) => id !== part.id)
    next.splice(to, 0, part.id)
    void work.order(next)
  }
  return (
    <>
      <PartName key={part.id} pieceId={piece.id} part={part} index={at} />
      <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
        {goOn ? (
          <BigButton grow symbol="pencil" label={strings.goOn[goOn]} onPress={() => open(goOn)} />
        ) : null}
        {canTidy ? (
          <BigButton grow symbol="tidy" label={strings.tidy} onPress={() => open('tidy')} />
        ) : null}
        <BigButton
          grow
          tone="quiet"
          symbol="bin"
          label={strings.remove(nameOf(part, at))}
          onPress={onTakeOut}
        />
      </View>
      {ids.length > 1 ? (
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
      {part.kind === 'photo' && part.tidied ? (
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {strings.keepsOriginal}
        </Text>
      ) : null}
    </>
  )
}

/** A name of its own; saved when one goes on. */
function PartName({ pieceId, part, index }: { pieceId: string; part: Part; index: number }) {
  const own = nameOf({ kind: part.kind, name: part.name }, index)
  const [name, setName] = useState(
    own === nameOf({ kind: part.kind, name: '' }, index) ? '' : part.name,
  )
  const work = usePieceWork(pieceId)
  const save = async () => {
    if (name.trim() !== part.name && (name.trim() !== '' || part.name !== ''))
      await work.name(part.id, name.trim())
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
    </View>
  )
}
