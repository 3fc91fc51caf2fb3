import type { PupilDetail } from '@nibquill/contract'
import { useSession } from '../accounts'
import { OpenPrivateWords } from '../comments'
import { ParentsBox, usePupilSharing } from '../sharing'
import { isHere, NotYet } from '../kit/NotYet'
import { PupilEditBox } from './PupilEditBox'

/** Card, class, parents, consent, leaving; private words for whoever leads the school. */
export function Administration({ pupil }: { pupil: PupilDetail }) {
  const session = useSession()
  const sharing = usePupilSharing(pupil.id)
  if (!isHere(sharing)) return <NotYet of={sharing} />
  return (
    <>
      <ParentsBox pupilId={pupil.id} firstName={pupil.firstName} />
      <PupilEditBox key={pupil.id} pupil={pupil} />
      {session.data?.person?.leads ? (
        <OpenPrivateWords key={`private ${pupil.id}`} pupilId={pupil.id} name={pupil.firstName} />
      ) : null}
    </>
  )
}
