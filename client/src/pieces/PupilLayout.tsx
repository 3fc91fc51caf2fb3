import { usePathname } from 'expo-router'
import { Gate } from '../accounts/Gate'
import { useSession } from '../accounts/session'
import { ForPupil } from '../kit/forPupil'
import { PlacesLayout } from '../kit/PlacesLayout'
import { strings } from './strings'
import { useOutbox } from './uploads'

const PLACES = [
  { href: '/desk', label: strings.desk, symbol: 'desk' },
  { href: '/my-folders', label: strings.folders, symbol: 'folder' },
  { href: '/my-portfolio', label: strings.portfolio, symbol: 'portfolio' },
] as const

/** Making is full screen; everywhere else a pupil's three places stand at the foot. */
export function PupilLayout() {
  const path = usePathname()
  const session = useSession()
  useOutbox(session.data?.person?.id)
  const making =
    path === '/make' ||
    /^\/my-pieces\/[^/]+\/(photo|what|folder|tray|parts\/[^/]+(\/tidy)?)$/.test(path)
  return (
    <ForPupil value>
      {making ? (
        <Gate roles={['pupil']} />
      ) : (
        <PlacesLayout places={PLACES} roles={['pupil']} foot />
      )}
    </ForPupil>
  )
}
