import type { Folder, MakeFolder } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { useSession } from '../accounts'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Choices, Several, Toggle } from '../kit/choices'
import { Box, faultsOf, Hint, Row, Select, sentence } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Loading, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import { useClasses, useStrands } from '../school'
import {
  useChangeFolder,
  useFolders,
  useFoldersPutAway,
  useMakeFolder,
  usePutAway,
} from './foldersQueries'
import { LookFields } from './LookFields'
import { strings } from './strings'

/** A folder made or changed: look, strand, whose it is, who files into it, who sees it. */
export function FolderEditScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const folders = useFolders()
  const away = useFoldersPutAway(true)
  const classes = useClasses()
  if (!isHere(folders) || !isHere(classes)) return <NotYet of={[folders, classes]} />
  if (away.isPending) return <Loading />
  const folder = [...folders.data, ...(away.data ?? [])].find((candidate) => candidate.id === id)
  const start: MakeFolder = folder ?? {
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

function FolderForm({ folder, start }: { folder: Folder | null; start: MakeFolder }) {
  const session = useSession()
  const classes = useClasses()
  const strands = useStrands()
  const make = useMakeFolder()
  const change = useChangeFolder()
  const [draft, setDraft] = useState<MakeFolder>(start)
  const [freshId] = useState(() => newId())
  const set = (part: Partial<MakeFolder>) => setDraft({ ...draft, ...part })
  const leads = session.data?.person?.leads ?? false
  const error = make.error ?? change.error
  const faults = faultsOf(error)
  const { name, symbol, colour, strandId, wholeSchool, classIds, parentsSee, pupilsFile } = draft
  const input: MakeFolder = {
    name,
    symbol,
    colour,
    strandId,
    wholeSchool,
    classIds: wholeSchool ? [] : classIds,
    parentsSee,
    pupilsFile,
  }
  const after = {
    onSuccess: () => (router.canGoBack() ? router.back() : router.replace('/folders')),
  }
  const save = () =>
    folder
      ? change.mutate({ id: folder.id, change: { ...input, seenVersion: folder.version } }, after)
      : make.mutate({ id: freshId, input }, after)
  return (
    <Page
      foot={
        <BigButton
          label={strings.keep}
          symbol="check"
          busy={make.isPending || change.isPending}
          onPress={save}
        />
      }
    >
      <Head title={folder ? folder.name : strings.newFolder} back="/folders" />
      {error && !faults.name ? <ProblemNotice error={error} /> : null}
      <Box>
        <LookFields look={draft} onChange={set} nameFault={sentence(faults.name?.[0])} />
      </Box>
      <Box>
        <Select
          label={strings.strand}
          value={strandId ?? ''}
          options={[
            { value: '', label: strings.noStrand },
            ...(strands.data ?? []).map((strand) => ({ value: strand.id, label: strand.name })),
          ]}
          onChange={(value) => set({ strandId: value || null })}
        />
        {leads ? (
          <Choices
            label={strings.forWhom}
            value={wholeSchool}
            options={[
              { value: true, label: strings.whole },
              { value: false, label: strings.someClasses },
            ]}
            onChange={(value) => set({ wholeSchool: value })}
          />
        ) : null}
        {wholeSchool ? null : (
          <Several
            label={strings.classes}
            options={(classes.data ?? []).map((one) => ({
              value: one.id,
              label: one.running ? one.name : `${one.name}, ${one.yearName}`,
            }))}
            values={classIds}
            onChange={(value) => set({ classIds: value })}
          />
        )}
        <Toggle
          label={strings.pupilsFile}
          value={pupilsFile}
          onChange={(value) => set({ pupilsFile: value })}
        />
        <Toggle
          label={strings.parentsSee}
          value={parentsSee}
          onChange={(value) => set({ parentsSee: value })}
        />
      </Box>
      {folder ? <PutAwayBox folder={folder} /> : null}
    </Page>
  )
}

function PutAwayBox({ folder }: { folder: Folder }) {
  const putAway = usePutAway()
  const [asking, setAsking] = useState(false)
  const { id, name } = folder
  const back = () => putAway.mutate({ id, back: true })
  return (
    <Box>
      <Hint>{strings.putAwayHelp}</Hint>
      <Row>
        {folder.putAway ? (
          <BigButton small tone="quiet" symbol="take-out" label={strings.takeOut} onPress={back} />
        ) : (
          <BigButton
            small
            tone="again"
            symbol="put-away"
            label={strings.putAway}
            onPress={() => setAsking(true)}
          />
        )}
      </Row>
      <Ask
        visible={asking}
        title={strings.putAwayAsk(name)}
        yes={strings.putAway}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          putAway.mutate(
            { id, back: false },
            {
              onSuccess: () => {
                toast(strings.isPutAway(name), back)
                router.replace('/folders')
              },
            },
          )
        }}
      >
        {strings.putAwayHelp}
      </Ask>
    </Box>
  )
}
