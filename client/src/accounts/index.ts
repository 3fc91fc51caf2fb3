/** What other capabilities use of this one. */
export {
  isBeingDrawn,
  useBeginCodes,
  useCardSheets,
  useChangeDoor,
  useChangePassword,
  useCodes,
  useCodesOff,
  useConfirmCodes,
  useDoor,
  useEnd,
  useForgotten,
  useInvitation,
  useMailCode,
  useNewSecret,
  useOrderCards,
  usePegs,
  useSecrets,
} from './accountsQueries'
export { useHandOver, useHandOverStage, useKeepFirst } from './handOver'
export {
  alsoForget,
  doorstep,
  followOtherTabs,
  sessionQuery,
  useMails,
  useSession,
  useSignIn,
  useSignOut,
} from './session'
export { START } from './start'
export { t as accountsWords } from './words'
export { noteIdle, takeIdle, useIdle } from './useIdle'
