import { usePathname } from 'expo-router'
import { useSession } from '../accounts'
import { PlacesLayout } from '../places'
import { ForPupil } from '../kit/forPupil'

import { useBringHome } from '../outbox/OutboxContext'
import { t } from './words'

const PLACES = [
  { href: '/desk', label: t('desk'), symbol: 'desk' },
  { href: '/my-folders', label: t('folders'), symbol: 'folder' },
  { href: '/my-portfolio', label: t('portfolio'), symbol: 'portfolio' },
] as const

/** Making is full screen; everywhere else a pupil's three places stand at the foot. */
export function PupilLayout() {
  const path = usePathname()
  const session = useSession()
  useBringHome(session.data?.person?.id)
  const making =
    /^\/(make|write|draw|say|talk|film|link)$/.test(path) ||
    /^\/my-pieces\/[^/]+\/(photo|write|draw|say|talk|film|link|what|thoughts|tray|parts\/[^/]+(\/(tidy|write|draw))?)$/.test(
      path,
    )
  return (
    <ForPupil value>
      <PlacesLayout places={PLACES} roles={['pupil']} foot away={making} />
    </ForPupil>
  )
}
