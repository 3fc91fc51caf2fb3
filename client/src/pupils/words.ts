import { wordsOf } from '../words'
import { messages } from './messages'

export const t = wordsOf(messages)
