import { ProposeFolder } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Box } from '../kit/form'
import { FormLine } from '../kit/formLines'
import { Head } from '../kit/Head'
import { Bar, Page } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { ProblemNotice } from '../kit/Notice'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import { useProposeFolder } from './foldersQueries'
import { LookFields } from './LookFields'
import { t } from './words'

/** A pupil's idea for a folder of their own. */
export function ProposeFolderScreen() {
  const propose = useProposeFolder()
  const [id] = useState(() => newId())
  const start: ProposeFolder = { name: '', symbol: 'star', colour: 'ochre' }
  const { control, watch, set, send, refused } = useFormOf(ProposeFolder, start, async (look) => {
    await propose.mutateAsync({ id, look })
    toast(t('proposed'))
    router.replace('/my-folders')
  })
  return (
    <Page
      foot={
        <BigButton
          label={t('proposeSend')}
          symbol="message"
          disabled={watch('name').trim() === ''}
          busy={propose.isPending}
          onPress={send}
        />
      }
    >
      <Head title={t('propose')} back="/my-folders" pupil />
      <Bar>
        <Text variant="bodyLarge" style={{ flex: 1 }}>
          {t('proposeHelp')}
        </Text>
        <Listen text={t('proposeHelp')} />
      </Bar>
      {refused ? <ProblemNotice error={refused} /> : null}
      <Box>
        <LookFields
          look={watch()}
          onChange={set}
          nameLine={<FormLine control={control} name="name" label={t('name')} />}
        />
      </Box>
    </Page>
  )
}
