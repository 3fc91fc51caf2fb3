import { useLocalSearchParams } from 'expo-router'
import { Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { isHere, NotYet } from '../kit/NotYet'
import { usePupil } from '../school'
import { Administration } from './Administration'
import { t } from './words'

/** What a teacher rarely needs of a pupil, on a page of its own. */
export function AdministrationScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const pupil = usePupil(id)
  if (!isHere(pupil)) return <NotYet of={pupil} />
  const name = `${pupil.data.firstName} ${pupil.data.lastName}`.trim()
  return (
    <Page max={980}>
      <Head title={name} back={`/class/${id}`} />
      <Hint>{t('administrationHelp')}</Hint>
      <Administration pupil={pupil.data} />
    </Page>
  )
}
