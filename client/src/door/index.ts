/** What other capabilities use of this one. */
export { CardsButton } from './CardsButton'
export { DoorLine } from './DoorLine'
export { SignInProblem } from './SignInProblem'
