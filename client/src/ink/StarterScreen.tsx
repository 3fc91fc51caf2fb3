import type { Task } from '@nibquill/contract'
import { newInk, type InkDocument } from '@nibquill/core/ink/document'
import type { Expected } from '@nibquill/core/ink/sorting'
import { useQuery } from '@tanstack/react-query'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { BigButton } from '../kit/BigButton'
import { Bar } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'
import { colours, space } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { useTitle } from '../kit/useTitle'
import { hashOf, transfer } from '../media/transfer'
import { inkQuery } from '../parts/inkQuery'
import { useOfferSheet, useTask } from '../tasks'
import { LayPicture } from './LayPicture'
import { groundOf, Places, TableFoot, TableHead, TableTop, useTable, type Table } from './Table'
import { savingWords } from './useSaving'
import { useSavingStarter } from './useSavingStarter'
import { t } from './words'

/** A task's starter sheet, made with the pupils' own tool; it saves itself. */
export function StarterScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const task = useTask(id)
  if (!isHere(task)) return <NotYet of={task} />
  return <Opening key={id} task={task.data} />
}

function Opening({ task }: { task: Task }) {
  // As it was when it was opened: afterwards what is drawn here counts.
  const [sheet] = useState(task.sheet)
  const [fresh] = useState(() => newInk(newId()))
  const query = useQuery(inkQuery(sheet?.mediaId ?? ''))
  if (sheet && query.isError)
    return <ProblemNotice error={query.error} onRetry={() => void query.refetch()} />
  if (sheet && !query.data) return <Loading />
  return (
    <Making
      task={task}
      ink={query.data ?? fresh}
      seenMediaId={sheet?.mediaId ?? null}
      expected={sheet?.sorting ?? null}
    />
  )
}

type MakingProps = {
  task: Task
  ink: InkDocument
  seenMediaId: string | null
  expected: Expected | null
}

function Making({ task, ...begun }: MakingProps) {
  const saving = useSavingStarter(task.id, begun)
  const table = useTable(saving.drawing)
  return (
    <View style={{ flex: 1, backgroundColor: groundOf(table) }}>
      <Head table={table} task={task} saving={saving} />
      {hasBegun(task) ? <Offer task={task} busy={saving.busy} /> : null}
      {saving.error ? (
        <ProblemNotice error={saving.error} onRetry={() => void saving.save()} />
      ) : null}
      <TableHead table={table} name={task.title} />
      <TableTop table={table} />
      <ToastPlace />
      <TableFoot
        table={table}
        sorting={{
          ink: table.seen.ink,
          expected: saving.expected,
          onExpected: saving.expect,
        }}
        more={<LayPicture send={sendNow} arranging={table.arranging} />}
      />
    </View>
  )
}

/** Who has begun keeps their copy; the sheet as it is now can lie with it. */
function Offer({ task, busy }: { task: Task; busy: boolean }) {
  const offer = useOfferSheet(task.id)
  const { sheet } = task
  return (
    <>
      <Notice
        tone="attention"
        symbol="bulb"
        action={
          sheet ? (
            <BigButton
              small
              tone="quiet"
              label={t(sheet.offered ? 'offerBack' : 'offer')}
              disabled={busy}
              busy={offer.isPending}
              onPress={() => offer.mutate({ offered: !sheet.offered, seenMediaId: sheet.mediaId })}
            />
          ) : null
        }
      >
        {t(sheet?.offered ? 'offered' : 'starterKeeps')}
      </Notice>
      {offer.isError ? <ProblemNotice error={offer.error} /> : null}
    </>
  )
}

function Head({
  table,
  task,
  saving,
}: {
  table: Table
  task: Task
  saving: ReturnType<typeof useSavingStarter>
}) {
  const title = t('starterFor', { title: task.title })
  useTitle(title)
  const back = () => router.replace(`/tasks/${task.id}`)
  return (
    <Bar gap="apart" between wrap style={HEAD}>
      <Bar gap="tight" style={{ flexShrink: 1 }}>
        <RoundButton label={t('backToTask')} symbol="back" onPress={back} />
        <Text role="heading" aria-level={1} variant="titleMedium" style={{ flexShrink: 1 }}>
          {title}
        </Text>
      </Bar>
      <Places table={table} />
      <Bar gap="tight">
        <Text role="status" variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {savingWords(saving, task.sheet !== null)}
        </Text>
        {task.sheet ? (
          <RoundButton
            label={t('takeSheetAway')}
            symbol="bin"
            onPress={() => void saving.takeAway(t('sheetAway')).then(back)}
          />
        ) : null}
      </Bar>
    </Bar>
  )
}

const HEAD = {
  ...{ backgroundColor: colours.sheet, paddingHorizontal: space.near },
  ...{ borderBottomWidth: 1, borderBottomColor: colours.rule },
}

const hasBegun = ({ counts }: Task): boolean =>
  counts !== null && counts.draft + counts.submitted + counts.returned + counts.approved > 0

/** A picture is at school before it is laid on. */
async function sendNow(mediaId: string, file: File): Promise<void> {
  const what = { mediaId, name: file.name, hash: await hashOf(file) }
  await transfer(what, file, new AbortController().signal, () => undefined)
}
