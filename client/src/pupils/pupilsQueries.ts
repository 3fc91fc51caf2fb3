import { PupilDesk } from '@nibquill/contract'
import { useAsk } from '../api/queries'

/** What a pupil has on the go, and what they put into folders this year. */
export const usePupilDesk = (pupilId: string, enabled = true) =>
  useAsk(['review', 'pupils', pupilId], `/review/pupils/${pupilId}`, PupilDesk, { enabled })
