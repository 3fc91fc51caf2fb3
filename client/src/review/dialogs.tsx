import type { Folder } from '@nibquill/contract'
import {
  MAX_FILED_BECAUSE_LENGTH,
  MAX_MESSAGE_LENGTH,
  MAX_SECOND_LOOK_LENGTH,
} from '@nibquill/core'
import { useRef, useState, type ReactNode } from 'react'
import { ScrollView, View } from 'react-native'
import { Dialog, Text } from 'react-native-paper'
import { FolderTile } from '../folders'
import { Overlay } from '../kit/Overlay'
import { BigButton, Key } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Bar, Grid, useWidth } from '../kit/layout'

import { colours, space } from '../kit/theme'

import { SpokenWords } from '../media/VoiceRecorder'
import { SentenceStock } from './SentenceStock'
import type { Unsent } from './unsentWords'
import { useKeys } from './useKeys'
import { t } from './words'
import { t as kitWords } from '../kit/words'

type DialogProps = { visible: boolean; onClose: () => void }

/** Approved, and filed somewhere else than its pupil thought. */
export function FolderDialog({
  visible,
  onClose,
  folders,
  chosenId,
  firstName,
  onChoose,
}: DialogProps & {
  folders: Folder[]
  chosenId: string | undefined
  firstName: string
  /** @param because - Why there; may be empty. */
  onChoose: (folder: Folder, because: string) => void
}) {
  const { width, height, wide } = useWidth()
  // Two beside each other also on a phone, whose dialog has an edge and a margin on either side.
  const tile = Math.min(158, Math.floor((width - 2 * (16 + 24) - space.clear) / 2))
  const group = useRef<View>(null)
  const [because, setBecause] = useState('')
  const choose = (folder: Folder) => {
    onChoose(folder, because.trim())
    setBecause('')
    onClose()
  }
  const move = (by: 1 | -1) => moveAmongRadios(group.current as unknown as HTMLElement, by)
  useKeys(
    {
      ...Object.fromEntries(
        folders.slice(0, NUMBERED).map((folder, i) => [String(i + 1), () => choose(folder)]),
      ),
      ...{ arrowright: () => move(1), arrowdown: () => move(1) },
      ...{ arrowleft: () => move(-1), arrowup: () => move(-1) },
    },
    visible,
  )
  return (
    <Overlay visible={visible} onClose={onClose} width={620} title={t('chooseFolder')}>
      <Dialog.ScrollArea style={{ maxHeight: height * 0.6 }}>
        <ScrollView contentContainerStyle={{ paddingVertical: space.apart }}>
          <View ref={group} role="radiogroup" aria-label={t('chooseFolder')}>
            <Grid>
              {folders.map((other, i) => (
                <FolderTile
                  key={other.id}
                  folder={other}
                  chosen={other.id === chosenId}
                  shortcut={wide && i < NUMBERED ? String(i + 1) : undefined}
                  onPress={() => choose(other)}
                  width={tile}
                />
              ))}
            </Grid>
          </View>
        </ScrollView>
      </Dialog.ScrollArea>
      <Dialog.Content style={{ paddingTop: space.apart }}>
        <Field
          label={t('because', { name: firstName })}
          value={because}
          onChangeText={setBecause}
          maxLength={MAX_FILED_BECAUSE_LENGTH}
        />
      </Dialog.Content>
    </Overlay>
  )
}

/** Keys there are for folders. */
const NUMBERED = 9

/** To the next choice, or the one before; from outside to the one that is chosen. */
function moveAmongRadios(group: HTMLElement, by: 1 | -1): void {
  const radios = [...group.querySelectorAll<HTMLElement>('[role="radio"]')]
  const at = radios.indexOf(document.activeElement as HTMLElement)
  const chosen = radios.findIndex((radio) => radio.ariaChecked === 'true')
  const next = at < 0 ? Math.max(0, chosen) : (at + by + radios.length) % radios.length
  radios[next]?.focus()
}

/** Ctrl and Enter send what is typed inside, wherever in there one is. */
export const SendsByKey = ({ onSend, children }: { onSend: () => void; children: ReactNode }) => (
  <div
    // A field keeps its keys to itself on their way up; a button would be pressed as well.
    onKeyDownCapture={(event) => {
      if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return
      event.stopPropagation()
      if (!event.repeat) onSend()
    }}
  >
    {children}
  </div>
)

/** Another go: never without saying what to do next. */
export function SendBackDialog({
  visible,
  onClose,
  firstName,
  help,
  words: { message, said },
  onChange,
  onSend,
}: DialogProps & {
  firstName: string
  help: string
  words: Unsent
  onChange: (words: Partial<Unsent>) => void
  onSend: () => void
}) {
  const { wide } = useWidth()
  const canSend = message.trim() !== '' || said !== null
  return (
    <Overlay
      visible={visible}
      onClose={onClose}
      width={520}
      title={t('sendBackTitle', { name: firstName })}
    >
      <SendsByKey onSend={() => canSend && onSend()}>
        <Dialog.Content style={{ gap: space.apart }}>
          <Text variant="bodyMedium">{help}</Text>
          <Field
            label={t('nextStepLabel')}
            value={message}
            onChangeText={(typed) => onChange({ message: typed })}
            maxLength={MAX_MESSAGE_LENGTH}
            lines={3}
            autoFocus
          />
          <SentenceStock message={message} onChange={(typed) => onChange({ message: typed })} />
          <SpokenWords
            label={t('sayIt')}
            said={said}
            onChange={(spoken) => onChange({ said: spoken })}
          />
          <Bar wrap align="stretch">
            <BigButton label={kitWords('cancel')} tone="quiet" onPress={onClose} grow />
            <BigButton
              label={t('send')}
              symbol="again"
              tone="again"
              onPress={onSend}
              shortcut={wide ? t('sendKey') : undefined}
              disabled={!canSend}
              grow
            />
          </Bar>
        </Dialog.Content>
      </SendsByKey>
    </Overlay>
  )
}

/** Why one wants to come back to it. */
export function SecondLookDialog({
  visible,
  onClose,
  firstName,
  before,
  onKeep,
}: DialogProps & { firstName: string; before: string; onKeep: (reason: string) => void }) {
  const [reason, setReason] = useState(before)
  const keep = () => {
    if (reason.trim() === '') return
    onClose()
    onKeep(reason.trim())
  }
  return (
    <Overlay
      visible={visible}
      onClose={onClose}
      width={460}
      title={t('secondLookFor', { name: firstName })}
    >
      <SendsByKey onSend={keep}>
        <Dialog.Content style={{ gap: space.apart }}>
          <Text variant="bodyMedium">{t('secondLookHelp')}</Text>
          <Field
            label={t('secondLookWhy')}
            value={reason}
            onChangeText={setReason}
            maxLength={MAX_SECOND_LOOK_LENGTH}
            lines={2}
            autoFocus
          />
          <Bar align="stretch">
            <BigButton small tone="quiet" label={t('close')} onPress={onClose} />
            <BigButton
              small
              grow
              symbol="eye"
              label={t('secondLookKeep')}
              disabled={reason.trim() === ''}
              onPress={keep}
            />
          </Bar>
        </Dialog.Content>
      </SendsByKey>
    </Overlay>
  )
}

const SHORTCUTS = [
  ['A', 'approve'],
  ['S', 'sendBack'],
  ['F', 'folder'],
  ['M', 'words'],
  ['C', 'comment'],
  ['D', 'markUp'],
  ['V', 'compare'],
  ['L', 'secondLook'],
  ['X', 'bin'],
  ['Ctrl + Enter', 'sendWords'],
  ['J', 'next'],
  ['K', 'previous'],
  ['+  -  0', 'zoom'],
  ['?', 'list'],
] as const

export function KeysDialog({ visible, onClose }: DialogProps) {
  return (
    <Overlay visible={visible} onClose={onClose} width={420} title={t('shortcuts')}>
      <Dialog.Content style={{ gap: space.near }}>
        {SHORTCUTS.map(([key, does]) => (
          <Bar key={key} gap="apart">
            <View style={{ width: 90, alignItems: 'flex-start' }}>
              <Key name={key} colour={colours.ink} />
            </View>
            <Text variant="bodyMedium">{t(`shortcutDoes.${does}`)}</Text>
          </Bar>
        ))}
        <BigButton small label={t('close')} tone="quiet" onPress={onClose} />
      </Dialog.Content>
    </Overlay>
  )
}
