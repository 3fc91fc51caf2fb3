import { hostOf, MAX_ADDRESS_LENGTH, MAX_PART_NAME_LENGTH, readAddress } from '@nibquill/core'
import { useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { v7 as newId } from 'uuid'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Page, Stack } from '../kit/layout'
import { colours } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { usePieceWork, useShownPiece } from '../pieces'
import { useGoOnFromMaking } from './LastStep'
import { MakeHead } from './MakeHead'
import { OpenPiece, Told } from './OneGo'
import { comeBackTo } from './useOneGo'
import { t } from './words'

/** A page in the web, by its address; nobody at school ever opens it. */
export function LinkScreen() {
  const { id, taskId } = useLocalSearchParams<{ id?: string; taskId?: string }>()
  const [fresh] = useState(() => newId())
  const pieceId = id ?? fresh
  const { piece, query } = useShownPiece(pieceId, id !== undefined)
  const work = usePieceWork(pieceId)
  const goOn = useGoOnFromMaking(pieceId, piece, taskId)
  const [typed, setTyped] = useState('')
  const [name, setName] = useState('')
  const [tried, setTried] = useState(false)
  const read = readAddress(typed)
  const fault = typeof read === 'string' ? read : null
  const keep = async () => {
    setTried(true)
    if (fault) return
    await work.addLink(newId(), name.trim(), typed.trim(), taskId ?? null)
    setTyped('')
    setName('')
    setTried(false)
    if (!id) await comeBackTo(pieceId)
    goOn()
  }
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead title={t('linkTitle')} />
      <OpenPiece
        begun={id !== undefined}
        pieceId={pieceId}
        piece={piece}
        query={query}
        closed={t('linkClosed')}
      >
        <Page foot={<BigButton label={t('linkKeep')} symbol="check" onPress={() => void keep()} />}>
          <Stack gap="clear">
            <Told words={t('linkHelp')} />
            <Field
              label={t('linkAddress')}
              value={typed}
              maxLength={MAX_ADDRESS_LENGTH}
              {...(tried && fault ? { error: t(`linkFaults.${fault}`) } : {})}
              inputMode="url"
              autoCapitalize="none"
              spellCheck={false}
              onChangeText={setTyped}
              onSubmitEditing={() => void keep()}
            />
            <Field
              label={t('linkName')}
              value={name}
              placeholder={fault ? '' : hostOf(typed)}
              maxLength={MAX_PART_NAME_LENGTH}
              onChangeText={setName}
              onSubmitEditing={() => void keep()}
            />
          </Stack>
        </Page>
      </OpenPiece>
      <ToastPlace />
    </View>
  )
}
