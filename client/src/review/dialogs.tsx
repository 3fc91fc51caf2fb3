import type { Folder } from '@nibquill/contract'
import { MAX_MESSAGE_LENGTH } from '@nibquill/core'
import { ScrollView, View } from 'react-native'
import { Dialog, Text } from 'react-native-paper'
import { FolderTile } from '../folders'
import { Overlay } from '../kit/Ask'
import { BigButton, Key } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Grid, useWidth } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { strings as kitWords } from '../kit/strings'
import { colours } from '../kit/theme'
import { strings } from './strings'
import type { Verdict } from './useVerdict'

type DialogProps = { visible: boolean; onClose: () => void }

/** Approved, and filed somewhere else than its pupil thought. */
export function FolderDialog({
  visible,
  onClose,
  folders,
  chosenId,
  onChoose,
}: DialogProps & {
  folders: Folder[]
  chosenId: string | undefined
  onChoose: (folderId: string) => void
}) {
  const { height } = useWidth()
  return (
    <Overlay visible={visible} onClose={onClose} width={620} title={strings.chooseFolder}>
      <Dialog.ScrollArea style={{ maxHeight: height * 0.6 }}>
        <ScrollView contentContainerStyle={{ paddingVertical: 12 }}>
          <View role="radiogroup" aria-label={strings.chooseFolder}>
            <Grid>
              {folders.map((other) => (
                <FolderTile
                  key={other.id}
                  folder={other}
                  chosen={other.id === chosenId}
                  onPress={() => {
                    onChoose(other.id)
                    onClose()
                  }}
                />
              ))}
            </Grid>
          </View>
        </ScrollView>
      </Dialog.ScrollArea>
    </Overlay>
  )
}

/** Another go: never without saying what to do next. */
export function SendBackDialog({
  visible,
  onClose,
  firstName,
  verdict,
}: DialogProps & { firstName: string; verdict: Verdict }) {
  const { message, setMessage, error, busy, send } = verdict
  return (
    <Overlay
      visible={visible}
      onClose={onClose}
      width={520}
      title={strings.sendBackTitle(firstName)}
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
        {error ? <ProblemNotice error={error} /> : null}
        <View style={{ flexDirection: 'row', gap: 10, flexWrap: 'wrap' }}>
          <BigButton label={kitWords.cancel} tone="quiet" onPress={onClose} grow />
          <BigButton
            label={strings.send}
            symbol="again"
            tone="again"
            onPress={() => send('send-back')}
            disabled={message.trim() === ''}
            busy={busy}
            grow
          />
        </View>
      </Dialog.Content>
    </Overlay>
  )
}

export function KeysDialog({ visible, onClose }: DialogProps) {
  return (
    <Overlay visible={visible} onClose={onClose} width={420} title={strings.shortcuts}>
      <Dialog.Content style={{ gap: 8 }}>
        {strings.shortcutList.map(([key, does]) => (
          <View key={key} style={{ flexDirection: 'row', gap: 12, alignItems: 'center' }}>
            <View style={{ width: 90, alignItems: 'flex-start' }}>
              <Key name={key!} colour={colours.ink} />
            </View>
            <Text variant="bodyMedium">{does}</Text>
          </View>
        ))}
        <BigButton small label={kitWords.close} tone="quiet" onPress={onClose} />
      </Dialog.Content>
    </Overlay>
  )
}
