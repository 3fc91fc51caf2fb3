import { MakeFolder, type Folder } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import type { Control } from 'react-hook-form'
import { v7 as newId } from 'uuid'
import { useSession } from '../accounts'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Box, Hint } from '../kit/form'
import { FormChoices, FormLine, FormSelect, FormSeveral, FormToggle } from '../kit/formLines'
import { Head } from '../kit/Head'
import { Bar, Page, Sides } from '../kit/layout'
import { Loading, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import { useClasses, useStrands } from '../school'
import {
  useChangeFolder,
  useFolders,
  useFoldersPutAway,
  useMakeFolder,
  usePutAway,
} from './foldersQueries'
import { LookFields } from './LookFields'
import { t } from './words'

/** A folder made or changed: look, strand, whose it is, who files into it, who sees it. */
export function FolderEditScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const folders = useFolders()
  const away = useFoldersPutAway(true)
  const classes = useClasses()
  if (!isHere(folders) || !isHere(classes)) return <NotYet of={[folders, classes]} />
  if (away.isPending) return <Loading />
  const folder = [...folders.data, ...(away.data ?? [])].find((candidate) => candidate.id === id)
  const start: MakeFolder = folder
    ? rulesOf(folder)
    : {
        name: '',
        symbol: 'star',
        colour: 'aubergine',
        strandId: null,
        wholeSchool: classes.data.length === 0,
        classIds: classes.data
          .filter(({ mine }) => mine)
          .slice(0, 1)
          .map((one) => one.id),
        parentsSee: true,
        pupilsFile: true,
      }
  return <FolderForm key={folder?.version} folder={folder ?? null} start={start} />
}

const rulesOf = ({
  name,
  symbol,
  colour,
  strandId,
  wholeSchool,
  classIds,
  parentsSee,
  pupilsFile,
}: Folder): MakeFolder => ({
  name,
  symbol,
  colour,
  strandId,
  wholeSchool,
  classIds,
  parentsSee,
  pupilsFile,
})

function FolderForm({ folder, start }: { folder: Folder | null; start: MakeFolder }) {
  const session = useSession()
  const make = useMakeFolder()
  const change = useChangeFolder()
  const [freshId] = useState(() => newId())
  const leads = session.data?.person?.leads ?? false
  const { control, watch, set, send, refused } = useFormOf(MakeFolder, start, async (filled) => {
    const input = { ...filled, classIds: filled.wholeSchool ? [] : filled.classIds }
    if (folder)
      await change.mutateAsync({
        id: folder.id,
        change: { ...input, seenVersion: folder.version },
      })
    else await make.mutateAsync({ id: freshId, input })
    if (router.canGoBack()) router.back()
    else router.replace('/folders')
  })
  return (
    <Page
      sides
      foot={
        <BigButton
          label={t('keep')}
          symbol="check"
          busy={make.isPending || change.isPending}
          onPress={send}
        />
      }
    >
      <Head title={folder ? folder.name : t('newFolder')} back="/folders" />
      {refused ? <ProblemNotice error={refused} /> : null}
      <Sides
        left={
          <Box>
            <LookFields
              look={watch()}
              onChange={set}
              nameLine={<FormLine control={control} name="name" label={t('name')} />}
            />
          </Box>
        }
        right={
          <>
            <WhereBox {...{ control, leads }} wholeSchool={watch('wholeSchool')} />
            {folder ? <PutAwayBox folder={folder} /> : null}
          </>
        }
      />
    </Page>
  )
}

/** Which line of the curriculum it belongs to, whose it is, and what may be done with it. */
function WhereBox({
  control,
  leads,
  wholeSchool,
}: {
  control: Control<MakeFolder, unknown, MakeFolder>
  leads: boolean
  wholeSchool: boolean
}) {
  const classes = useClasses()
  const strands = useStrands()
  return (
    <Box>
      <FormSelect
        control={control}
        name="strandId"
        label={t('strand')}
        options={[
          { value: '', label: t('noStrand') },
          ...(strands.data ?? []).map((strand) => ({
            value: strand.id,
            label: strand.name,
          })),
        ]}
      />
      {leads ? (
        <FormChoices
          control={control}
          name="wholeSchool"
          label={t('forWhom')}
          options={[
            { value: true, label: t('whole') },
            { value: false, label: t('someClasses') },
          ]}
        />
      ) : null}
      {wholeSchool ? null : (
        <FormSeveral
          control={control}
          name="classIds"
          label={t('classes')}
          options={(classes.data ?? []).map((one) => ({
            value: one.id,
            label: one.running ? one.name : `${one.name}, ${one.yearName}`,
          }))}
        />
      )}
      <FormToggle control={control} name="pupilsFile" label={t('pupilsFile')} />
      <FormToggle control={control} name="parentsSee" label={t('parentsSee')} />
    </Box>
  )
}

function PutAwayBox({ folder }: { folder: Folder }) {
  const putAway = usePutAway()
  const [asking, setAsking] = useState(false)
  const { id, name } = folder
  const back = () => putAway.mutate({ id, back: true })
  return (
    <Box>
      <Hint>{t('putAwayHelp')}</Hint>
      <Bar wrap>
        {folder.putAway ? (
          <BigButton small tone="quiet" symbol="take-out" label={t('takeOut')} onPress={back} />
        ) : (
          <BigButton
            small
            tone="again"
            symbol="put-away"
            label={t('putAway')}
            onPress={() => setAsking(true)}
          />
        )}
      </Bar>
      <Ask
        visible={asking}
        title={t('putAwayAsk', { name })}
        yes={t('putAway')}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          putAway.mutate(
            { id, back: false },
            {
              onSuccess: () => {
                toast(t('isPutAway', { name }), { undo: back })
                router.replace('/folders')
              },
            },
          )
        }}
      >
        {t('putAwayHelp')}
      </Ask>
    </Box>
  )
}
