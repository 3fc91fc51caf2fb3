import { usePathname } from 'expo-router'
import { Gate, PlacesLayout, useSession } from '../accounts'
import { ForPupil } from '../kit/forPupil'
import { piecesStrings as strings } from '../pieces'
import { useBringHome } from '../outbox/OutboxContext'

const PLACES = [
  { href: '/desk', label: strings.desk, symbol: 'desk' },
  { href: '/my-folders', label: strings.folders, symbol: 'folder' },
  { href: '/my-portfolio', label: strings.portfolio, symbol: 'portfolio' },
] as const

/** Making is full screen; everywhere else a pupil's three places stand at the foot. */
export function PupilLayout() {
  const path = usePathname()
  const session = useSession()
  useBringHome(session.data?.person?.id)
  const making =
    path === '/make' ||
    path === '/write' ||
    /^\/my-pieces\/[^/]+\/(photo|write|what|folder|tray|parts\/[^/]+(\/(tidy|write))?)$/.test(path)
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
