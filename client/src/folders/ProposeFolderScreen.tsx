import type { ProposeFolder } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { Text } from 'react-native-paper'
import { View } from 'react-native'
import { BigButton } from '../kit/BigButton'
import { Box, faultsOf, sentence } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { ProblemNotice } from '../kit/Notice'
import { toast } from '../kit/Toast'
import { useProposeFolder } from './foldersQueries'
import { LookFields } from './LookFields'
import { strings } from './strings'

/** A pupil's idea for a folder of their own. */
export function ProposeFolderScreen() {
  const propose = useProposeFolder()
  const [id] = useState(() => newId())
  const [look, setLook] = useState<ProposeFolder>({ name: '', symbol: 'star', colour: 'ochre' })
  const faults = faultsOf(propose.error)
  const { name, symbol, colour } = look
  const send = () =>
    propose.mutate(
      { id, look: { name, symbol, colour } },
      {
        onSuccess: () => {
          toast(strings.proposed)
          router.replace('/my-folders')
        },
      },
    )
  return (
    <Page
      foot={
        <BigButton
          label={strings.proposeSend}
          symbol="message"
          disabled={name.trim() === ''}
          busy={propose.isPending}
          onPress={send}
        />
      }
    >
      <Head title={strings.propose} back="/my-folders" pupil />
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Text variant="bodyLarge" style={{ flex: 1 }}>
          {strings.proposeHelp}
        </Text>
        <Listen text={strings.proposeHelp} />
      </View>
      {propose.isError && !faults.name ? <ProblemNotice error={propose.error} /> : null}
      <Box>
        <LookFields look={look} onChange={setLook} nameFault={sentence(faults.name?.[0])} />
      </Box>
    </Page>
  )
}
