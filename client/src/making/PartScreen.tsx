import type { FilmPart, Part, Piece, TalkPart, VoicePart } from '@nibquill/contract'
import { isOpen, MAX_PART_NAME_LENGTH, MAX_WRITING_LENGTH } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useRef, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useKeepFirst } from '../accounts'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Bar, Split, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { RoundButton } from '../kit/RoundButton'
import { toast } from '../kit/Toast'
import { colours, space } from '../kit/theme'
import { usePieceWork, useSavesItself, WithPiece } from '../pieces'
import { followTidied } from '../parts/followTidied'
import { lookOf, nameOf } from '../parts/partKinds'
import { PartView } from '../parts/PartView'
import { t as partsWords } from '../parts/words'
import { PosterChoice } from './PosterChoice'
import { t } from './words'

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
    toast(t('removed'), { undo: () => void work.putBack(part.id) })
  }
  const { wide, height } = useWidth()
  const beside = wide || height < 620
  const title = part ? nameOf(part, at) : t('gone')
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <Bar
        style={{
          padding: space.near,
          backgroundColor: colours.sheet,
          borderBottomWidth: 1,
          borderBottomColor: colours.rule,
        }}
      >
        <RoundButton symbol="back" label={t('back')} onPress={() => back(piece.id)} />
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
          <Text variant="bodyMedium" style={{ color: colours.inkSoft, paddingRight: space.apart }}>
            {t('place', { place: at + 1, of: piece.parts.length })}
          </Text>
        ) : null}
      </Bar>
      {part ? (
        <Split beside={beside} style={{ flex: 1 }}>
          <View style={{ flex: 1, padding: space.apart }}>
            <PartView view="large" part={part} alt={`${title}: ${piece.title}`} />
          </View>
          {isOpen(piece.state) ? (
            <View
              style={[
                {
                  padding: space.apart,
                  gap: space.apart,
                  backgroundColor: colours.sheet,
                  borderColor: colours.rule,
                },
                beside ? { width: 340, borderLeftWidth: 1 } : { borderTopWidth: 1 },
              ]}
            >
              <PartTools piece={piece} part={part} at={at} onTakeOut={() => void takeOut()} />
            </View>
          ) : null}
        </Split>
      ) : (
        <Stack style={{ padding: space.far }}>
          <Notice tone="attention" symbol="alert">
            {t('gone')}
          </Notice>
          <BigButton symbol="back" label={t('back')} onPress={() => back(piece.id)} />
        </Stack>
      )}
    </View>
  )
}

type ToolsProps = { piece: Piece; part: Part; at: number; onTakeOut: () => void }

function PartTools({ piece, part, at, onTakeOut }: ToolsProps) {
  const work = usePieceWork(piece.id)
  const ids = piece.parts.map(({ id }) => id)
  const moveTo = (to: number) => {
    const next = ids.filter((id) => id !== part.id)
    next.splice(to, 0, part.id)
    void work.order(next)
  }
  return (
    <>
      <PartName key={part.id} pieceId={piece.id} part={part} index={at} />
      {part.kind === 'voice' || part.kind === 'talk' || part.kind === 'film' ? (
        <SaidInWords key={`${part.id} words`} pieceId={piece.id} part={part} />
      ) : null}
      {part.kind === 'film' ? <PosterChoice piece={piece} part={part} /> : null}
      <WaysOn {...{ piece, part, at, onTakeOut }} />
      {ids.length > 1 ? (
        <Bar align="stretch">
          <BigButton
            grow
            tone="quiet"
            symbol="previous"
            label={t('earlier')}
            disabled={at === 0}
            onPress={() => moveTo(at - 1)}
          />
          <BigButton
            grow
            tone="quiet"
            symbol="next"
            label={t('later')}
            disabled={at === ids.length - 1}
            onPress={() => moveTo(at + 1)}
          />
        </Bar>
      ) : null}
      {part.kind === 'photo' && part.tidied ? (
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {t('keepsOriginal')}
        </Text>
      ) : null}
    </>
  )
}

/** What can be done with it, each a tap away. */
function WaysOn({ piece, part, at, onTakeOut }: ToolsProps) {
  const { canTidy, goOn } = lookOf(part)
  const open = (way: 'tidy' | 'write' | 'draw') =>
    router.push(`/my-pieces/${piece.id}/parts/${part.id}/${way}`)
  return (
    <Bar wrap align="stretch">
      {goOn ? (
        <BigButton grow symbol="pencil" label={t(`goOnWith.${goOn}`)} onPress={() => open(goOn)} />
      ) : null}
      {canTidy ? (
        <BigButton grow symbol="tidy" label={t('tidy')} onPress={() => open('tidy')} />
      ) : null}
      {part.kind === 'photo' || part.kind === 'page' ? (
        <BigButton
          grow
          symbol="quill"
          label={t('drawOnIt')}
          onPress={() => router.push(`/my-pieces/${piece.id}/draw?over=${part.id}`)}
        />
      ) : null}
      {part.kind === 'photo' || part.kind === 'drawing' || part.kind === 'page' ? (
        <BigButton
          grow
          symbol="listen"
          label={t('talkAboutIt')}
          onPress={() => router.push(`/my-pieces/${piece.id}/talk?over=${part.id}`)}
        />
      ) : null}
      <BigButton
        grow
        tone="quiet"
        symbol="bin"
        label={t('remove', { name: nameOf(part, at) })}
        onPress={onTakeOut}
      />
    </Bar>
  )
}

/** What is said in it, typed by whoever can: it saves itself. */
function SaidInWords({
  pieceId,
  part,
}: {
  pieceId: string
  part: VoicePart | TalkPart | FilmPart
}) {
  const work = usePieceWork(pieceId)
  const [text, setText] = useState(part.text)
  const agreed = useRef(part.text)
  useSavesItself(
    text,
    (a, b) => a === b,
    async (now) => {
      const seen = agreed.current
      agreed.current = now
      await work.write(part.id, now, seen)
    },
  )
  return (
    <Field
      label={partsWords('inWords')}
      value={text}
      lines={3}
      maxLength={MAX_WRITING_LENGTH}
      onChangeText={setText}
    />
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
    <Stack gap="near">
      <Bar align="flex-end" gap="tight">
        <View style={{ flex: 1 }}>
          <Field
            label={t('name')}
            value={name}
            placeholder={own}
            maxLength={MAX_PART_NAME_LENGTH}
            onChangeText={setName}
            onBlur={() => void save().catch(() => undefined)}
          />
        </View>
        <Listen text={t('nameHelp')} />
      </Bar>
    </Stack>
  )
}
