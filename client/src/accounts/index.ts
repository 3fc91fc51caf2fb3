/** What other capabilities use of this one. */
export { Gate, START } from './Gate'
export { PlacesLayout } from './PlacesLayout'
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
  useMailCode,
  useNewSecret,
  useOrderCards,
  usePegs,
  useSecrets,
} from './accountsQueries'
export { useHandOver, useKeepFirst } from './handOver'
export { sessionQuery, useSession, useSignIn, useSignOut } from './session'
export { strings as accountsStrings } from './strings'
export { takeIdle } from './useIdle'
